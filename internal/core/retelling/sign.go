package retelling

// feels is how a probe feels by a word.
func feels(w string) string {
	switch w {
	case "soft", "tender", "butter", "buttery":
		return "soft"
	case "firm", "tough", "nearly":
		return w
	case "stiff", "tight":
		return "firm"
	}
	return ""
}

// seen reads a sign: the bark held, the colour was right, the bones showed.
func (r reader) seen(i int) (v verb, next int, ok bool) {
	j := i + 1
	for oneOf(r.text(j), "was", "had", "has", "is", "were", "looked", "got") {
		j++
	}
	said := r.text(j)
	switch r.text(i) {
	case "bark", "crust":
		if n, is := r.is(j, "not", "set"); is {
			return verb{what: "seen", kind: "bark scratches", weak: true}, n, true
		}
		if words(`set held holds formed firm hard dry holding`)[said] {
			return verb{what: "seen", kind: "bark holds", weak: true}, j + 1, true
		}
		if words(`scratched scratches soft wet`)[said] {
			if r.text(j+1) == "off" {
				j++
			}
			return verb{what: "seen", kind: "bark scratches", weak: true}, j + 1, true
		}
	case "colour", "color":
		if words(`right good mahogany golden dark set perfect black there`)[said] {
			how := map[string]string{"mahogany": "mahogany", "black": "black"}[said]
			if how == "" {
				how = "right"
			}
			return verb{what: "seen", kind: "colour " + how, weak: true}, j + 1, true
		}
	case "golden", "mahogany":
		how := map[string]string{"mahogany": "mahogany", "golden": "right"}[r.text(i)]
		return verb{what: "seen", kind: "colour " + how, weak: true}, i + 1, true
	case "bone", "bones":
		if n, is := r.is(j, "pulled", "back"); is {
			return verb{what: "seen", kind: "bones show", weak: true}, n, true
		}
		if words(`show showed showing shows exposed out visible`)[said] {
			return verb{what: "seen", kind: "bones show", weak: true}, j + 1, true
		}
	case "fat":
		if words(`rendered soft melted`)[said] {
			return verb{what: "seen", kind: "fat stays", weak: true}, j + 1, true
		}
	}
	return v, i, false
}
