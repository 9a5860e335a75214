package field

import (
	"reflect"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Clean leaves out of a text what is no letter, sign or space: what controls a terminal or
// begins a line of a file of its own. Lines and tabs stay.
func Clean(s string) string {
	if !utf8.ValidString(s) {
		s = strings.ToValidUTF8(s, "\uFFFD")
	}
	return strings.Map(func(r rune) rune {
		if r == '\n' || r == '\t' {
			return r
		}
		if unicode.IsControl(r) || r == '\u2028' || r == '\u2029' {
			return -1
		}
		return r
	}, s)
}

// CleanAll cleans every text in what v points to, which has been read from JSON.
func CleanAll(v any) { cleanAll(reflect.ValueOf(v)) }

func cleanAll(v reflect.Value) {
	switch v.Kind() {
	case reflect.Pointer, reflect.Interface:
		if !v.IsNil() && v.Kind() == reflect.Pointer {
			cleanAll(v.Elem())
		}
	case reflect.Struct:
		for i := range v.NumField() {
			if v.Field(i).CanSet() {
				cleanAll(v.Field(i))
			}
		}
	case reflect.Slice, reflect.Array:
		for i := range v.Len() {
			cleanAll(v.Index(i))
		}
	case reflect.Map:
		for _, key := range v.MapKeys() {
			switch one := v.MapIndex(key); one.Kind() {
			case reflect.String:
				v.SetMapIndex(key, reflect.ValueOf(Clean(one.String())).Convert(one.Type()))
			case reflect.Interface:
				if !one.IsNil() {
					v.SetMapIndex(key, reflect.ValueOf(cleanAny(one.Interface())))
				}
			}
		}
	case reflect.String:
		if s := v.String(); v.CanSet() && s != Clean(s) {
			v.SetString(Clean(s))
		}
	}
}

// cleanAny cleans what JSON may be read into.
func cleanAny(v any) any {
	switch v := v.(type) {
	case string:
		return Clean(v)
	case []any:
		for i := range v {
			v[i] = cleanAny(v[i])
		}
	case map[string]any:
		for k := range v {
			v[k] = cleanAny(v[k])
		}
	}
	return v
}

// Capital begins a text with a capital letter.
func Capital(s string) string {
	first, size := utf8.DecodeRuneInString(s)
	if size == 0 {
		return ""
	}
	return string(unicode.ToUpper(first)) + s[size:]
}
