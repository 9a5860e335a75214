package memo

import (
	"crypto/sha256"
	"encoding/binary"
	"fmt"
	"math"
	"reflect"
	"time"
)

// Key tells values apart: two of the same type have the same Key when everything in them is the same, and
// for all that can happen only then.
type Key [sha256.Size]byte

// KeyOf is the key of v, with all that it holds or points to, field by field, so that a field that is added
// counts without being named anywhere. Times are the same at the same moment in the same zone; an empty slice
// is the same as none. Maps, functions, channels and interfaces have no key: they panic.
func KeyOf(v any) Key {
	raw := make([]byte, 0, 1024)
	return sha256.Sum256(write(raw, reflect.ValueOf(v)))
}

var moment = reflect.TypeFor[time.Time]()

// write appends everything in v, so that what differs is written differently.
func write(to []byte, v reflect.Value) []byte {
	switch v.Kind() {
	case reflect.Bool:
		if v.Bool() {
			return append(to, 1)
		}
		return append(to, 0)
	case reflect.Int, reflect.Int8, reflect.Int16, reflect.Int32, reflect.Int64:
		return binary.LittleEndian.AppendUint64(to, uint64(v.Int()))
	case reflect.Uint, reflect.Uint8, reflect.Uint16, reflect.Uint32, reflect.Uint64:
		return binary.LittleEndian.AppendUint64(to, v.Uint())
	case reflect.Float32, reflect.Float64:
		return binary.LittleEndian.AppendUint64(to, math.Float64bits(v.Float()))
	case reflect.String:
		return append(binary.AppendUvarint(to, uint64(v.Len())), v.String()...)
	case reflect.Slice, reflect.Array:
		to = binary.AppendUvarint(to, uint64(v.Len()))
		for i := range v.Len() {
			to = write(to, v.Index(i))
		}
		return to
	case reflect.Pointer:
		if v.IsNil() {
			return append(to, 0)
		}
		return write(append(to, 1), v.Elem())
	case reflect.Struct:
		if v.Type() == moment && v.CanInterface() {
			at := v.Interface().(time.Time)
			to = binary.LittleEndian.AppendUint64(to, uint64(at.UnixNano()))
			return append(append(to, at.Location().String()...), 0)
		}
		for i := range v.NumField() {
			to = write(to, v.Field(i))
		}
		return to
	default:
		panic(fmt.Sprintf("memo: a %s has no key", v.Type()))
	}
}
