package sheet

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
)

// Overwritten is something on another screen that saving this one would take away.
type Overwritten struct {
	What   string `json:"what" doc:"Which field, in words" example:"Lamb shoulder: weight after trimming"`
	Theirs string `json:"theirs" doc:"What is on record"`
	Mine   string `json:"mine" doc:"What would stand there instead"`
}

// fieldNames are what the fields of a cook are called, by the end of their pointer. A
// number stands for any.
var fieldNames = map[string]string{
	"/name": "name", "/serve_at": "serving time", "/zone": "time zone", "/guests": "adults", "/children": "children",
	"/appetite":  "appetite",
	"/leftovers": "portions for later", "/portion": "portion", "/fridge": "fridge", "/room": "counter",
	"/quiet": "quiet hours", "/hands": "pairs of hands",
	"/plan": "which plan", "/pits": "pits", "/wishes": "fixed times", "/spoons": "spoons meant",
	"/label": "your own name for it", "/cut": "cut", "/count": "how many", "/bought": "weight as bought",
	"/trimmed":  "weight after trimming",
	"/together": "weighed all together", "/trim_style": "trim", "/thickness": "thickest point",
	"/faces": "where the coat goes", "/grain": "grain", "/trim_note": "note on trimming",
	"/season/formula": "rub", "/season/mode": "how the amount is set", "/season/target": "target salt",
	"/season/coat": "coat", "/season/binder": "binder",
	"/season/free": "what is adjusted to the target", "/season/band": "how salty", "/season/spare": "spare mix",
	"/bath": "bath", "/inject": "injection", "/layers": "layers",
	"/weighed": "what was weighed", "/wait/style": "how long it waits", "/wait/for": "salted before the fire",
	"/wait/open": "open in the fridge",
	"/fire/pit":  "pit temperature", "/fire/time": "time on the fire", "/fire/rest": "rest",
	"/fire/temper": "time on the counter", "/fire/on": "which pit", "/fire/done": "core temperature at the end",
	"/fire/wood": "woods in parts", "/weather": "weather at the pit",
	"/fire/guess": "what you think it takes",
	"/choices":    "a decision", "/probe": "what the probe shows in ice water", "/moves": "moves of your own",
	"/when/wrap": "when it is wrapped", "/when/off": "when it is taken off", "/when/spritz": "when it is spritzed",
}

// fieldName is what the field at a pointer is called: the longest beginning of it that
// has a name.
func fieldName(pointer string) string {
	for pointer != "" {
		if name, ok := fieldNames[pointer]; ok {
			return name
		}
		pointer = pointer[:strings.LastIndex(pointer, "/")]
	}
	return "something"
}

// Overwrites lists what theirs has changed since base and mine would take away. Pieces
// are told apart by their keys.
func Overwrites(base, theirs, mine cook.Cook) ([]Overwritten, error) {
	was, err := leaves(base)
	if err != nil {
		return nil, err
	}
	is, err := leaves(theirs)
	if err != nil {
		return nil, err
	}
	next, err := leaves(mine)
	if err != nil {
		return nil, err
	}
	out := []Overwritten{}
	told := map[string]bool{}
	for _, at := range slices.Sorted(maps.Keys(union(was, is))) {
		if was[at] == is[at] || is[at] == next[at] {
			continue
		}
		one := Overwritten{What: naming(at, theirs, mine), Theirs: shown(at, is[at]), Mine: shown(at, next[at])}
		if key := fmt.Sprint(one); !told[key] {
			told[key] = true
			out = append(out, one)
		}
	}
	return out, nil
}

func union(a, b map[string]string) map[string]string {
	out := maps.Clone(a)
	maps.Copy(out, b)
	return out
}

// leaves are the values of a page by their pointers, those of a piece below its key.
func leaves(c cook.Cook) (map[string]string, error) {
	raw, err := json.Marshal(c)
	if err != nil {
		return nil, err
	}
	var tree map[string]any
	if err := json.Unmarshal(raw, &tree); err != nil {
		return nil, err
	}
	out := map[string]string{}
	var walk func(v any, at string)
	walk = func(v any, at string) {
		switch v := v.(type) {
		case map[string]any:
			for key, one := range v {
				walk(one, at+"/"+key)
			}
		case []any:
			for i, one := range v {
				step := strconv.Itoa(i)
				if piece, ok := one.(map[string]any); ok && at == "/pieces" && piece["key"] != nil {
					step = fmt.Sprint(piece["key"])
				}
				walk(one, at+"/"+step)
			}
		case nil:
		case bool:
			if v {
				out[at] = "yes"
			}
		default:
			if text := fmt.Sprint(v); text != "" && text != "0" {
				out[at] = text
			}
		}
	}
	walk(tree, "")
	return out, nil
}

// naming says where a value stands: the piece, and what the field is called.
func naming(at string, theirs, mine cook.Cook) string {
	rest, ok := strings.CutPrefix(at, "/pieces/")
	if !ok {
		return field.Capital(fieldName(at))
	}
	key, name, _ := strings.Cut(rest, "/")
	title := "a piece"
	for _, p := range append(slices.Clone(mine.Pieces), theirs.Pieces...) {
		if p.Key == key {
			title = cutName(p)
		}
	}
	return field.Capital(title) + ": " + fieldName("/"+name)
}

// shown is a value as a cook reads it: what is only an id has a name of its own.
func shown(at, value string) string {
	switch {
	case value == "":
		return "nothing"
	case strings.HasSuffix(at, "/cut"):
		if c, ok := cut.Find(value); ok {
			return c.Name
		}
	case strings.HasSuffix(at, "/ingredient"):
		if i, ok := larder.Find(value); ok {
			return i.Name
		}
	case strings.HasSuffix(at, "/formula/id"):
		if f, ok := formula.FindReadyMade(value); ok {
			return f.Name
		}
		return "another mix"
	case strings.HasSuffix(at, "/fire/on"):
		if n, err := strconv.Atoi(value); err == nil {
			return fmt.Sprintf("pit %d", n+1)
		}
	}
	return value
}
