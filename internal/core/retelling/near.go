package retelling

// near reports whether a word of a kind comes within the next few.
func (r reader) near(i int, is func(w string) bool) bool {
	for n := range 4 {
		w := r.text(i + n)
		if is(w) {
			return true
		}
		if !between[w] {
			return false
		}
	}
	return false
}

func (r reader) wrapSoon(i int) bool {
	return r.near(i, func(w string) bool { return wrapWords()[w] != "" }) && !r.watered(i)
}

// watered reports whether it is a pan of water, or one for drippings, that is spoken of around token i: that wraps
// nothing.
func (r reader) watered(i int) bool {
	pan, water := false, false
	for n := i - 4; n <= i+4; n++ {
		pan = pan || oneOf(r.text(n), "pan", "tray", "tin")
		water = water || oneOf(r.text(n), "water", "drip", "dripping")
	}
	return pan && water
}
func (r reader) pitSoon(i int) bool { return r.near(i, func(w string) bool { return pits[w] }) }

func (r reader) restSoon(i int) string {
	place := ""
	r.near(i, func(w string) bool { place = restWords[w]; return place != "" })
	if place == "pit" || place == "oven" { // an oven may be what it is cooked in
		return ""
	}
	return place
}

func (r reader) addedSoon(i int) (what string) {
	for n := range 6 {
		switch w := r.text(i + n); {
		case fuels[w]:
			return "fuel"
		case woods[w] && !(larderWords()[w] && !words(`oak beech apple cherry hickory pecan mesquite maple`)[w]):
			return "wood"
		case fuelWords[w]:
		case r.at(i+n).kind == number:
		default:
			return ""
		}
	}
	return ""
}

// fromPit steps over "the heat", "of the smoker".
func (r reader) fromPit(i int) int {
	j := i
	for oneOf(r.text(j), "of", "from", "the") {
		j++
	}
	if pits[r.text(j)] {
		return j + 1
	}
	return i
}

// onPit steps over "the smoker".
func (r reader) onPit(i int) int {
	j := i
	for w := r.text(j); oneOf(w, "the", "to", "my", "in"); w = r.text(j) {
		j++
	}
	if pits[r.text(j)] {
		return j + 1
	}
	if r.text(i) == "again" {
		return i + 1
	}
	return i
}

// onAgain reads off and on again; the second act is read by itself.
func (r reader) onAgain(i int) (int, bool) {
	if _, ok := r.is(i, "and", "on", "again"); ok {
		return i + 1, true
	}
	return i, false
}
