package retelling

import (
	"math"
	"strconv"
	"strings"
)

// How a time is told.
type relation int

const (
	fromStart relation = iota // at four hours, four hours in
	after                     // after four hours: of the start, or of the last
	later                     // four hours later
	lasts                     // for four hours
	every                     // again and again
	byClock                   // at 13:30, at noon
	bareHour                  // at six: a time of day or hours
	beside                    // two hours before the wrap
	nextDay
)

// moment is a time as it was told.
type moment struct {
	relation relation
	hours    span
	minutes  float64 // of the day
	half     string  // am, pm; empty is not told
	weekday  int     // 1 is Sunday; 0 is not told
	of       string  // the act that it is told by
	before   bool
	plain    bool    // a bare length: two hours
	listed   bool    // one of a list of times
	from     bool    // it begins a rhythm
	until    bool    // it ends one, or is the end of a length
	to       *moment // the end of a span that it begins: between hour two and hour five
}

// dayTime is a time of day.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (r reader) dayTime(i int) (m moment, next int, ok bool) {
	m = moment{relation: byClock}
	t := r.at(i)
	switch {
	case t.kind == clock:
		if t.value >= 24*60 {
			return m, i, false
		}
		m.minutes, next, ok = t.value, i+1, true
	case t.kind == number && oneOf(r.text(i+1), "am", "pm") && pointed(t) >= 0: // 1.30 pm
		m.minutes, next, ok = pointed(t), i+1, true
	case t.text == "noon" || t.text == "midday":
		return moment{relation: byClock, half: "pm"}, i + 1, true
	case t.text == "midnight":
		return moment{relation: byClock, half: "am"}, i + 1, true
	case t.text == "half" && r.text(i+1) == "past" && r.at(i+2).kind == number:
		m.minutes, next, ok = 60*r.at(i+2).value+30, i+3, true
	case t.text == "half" && r.at(i+1).kind == number && r.at(i+1).value >= 1 && r.at(i+1).value <= 12 &&
		unitOf(r.text(i+2)) == 0 && oneOf(r.text(i-1), "at", "around", "about", "by"): // at half seven
		m.minutes, next, ok = 60*r.at(i+1).value+30, i+2, true
	default:
		past := map[string]float64{"past": 1, "after": 1, "to": -1, "before": -1}
		j, minutes := i, 0.0
		if k, is := r.is(i, "a", "quarter"); is {
			j, minutes = k, 15
		} else if k, is := r.is(i, "quarter"); is {
			j, minutes = k, 15
		} else if t.kind == number && t.value < 60 {
			j, minutes = i+1, t.value
			if w := r.text(j); oneOf(w, "minutes", "min") {
				j++
			}
		}
		sign := past[r.text(j)]
		hour := r.at(j + 1)
		if minutes > 0 && sign != 0 && hour.kind == number && hour.value >= 1 && hour.value <= 12 &&
			hour.value == math.Trunc(hour.value) &&
			unitOf(r.text(j+2)) == 0 && !r.degree(j+2) && (minutes == 15 || math.Mod(minutes, 5) == 0) &&
			(oneOf(r.text(j), "past", "to")) && minutes < 60 {
			m.minutes, next, ok = 60*hour.value+sign*minutes, j+2, true
			break
		}
		if t.kind == number && t.value <= 24 && t.value == math.Trunc(t.value) {
			switch w := r.text(i + 1); w {
			case "am", "pm":
				if t.value < 1 || t.value > 12 {
					return m, i, false
				}
				return moment{relation: byClock, minutes: 60 * math.Mod(t.value, 12), half: w}, i + 2, true
			case "o'clock":
				m.minutes, next, ok = 60*t.value, i+2, true
			}
		}
	}
	if !ok {
		return m, i, false
	}
	switch w := r.text(next); w {
	case "am", "pm":
		m.half, next = w, next+1
	case "h":
		if t.kind == clock {
			next++
		}
	}
	m, next = r.partOfDay(m, next)
	if t.kind == clock && m.half == "" &&
		(m.minutes >= 13*60 || m.minutes < 60 || t.text[0] == '0' || r.all24 && t.text[1] != ':') {
		m.half = "24"
	}
	if m.half == "am" || m.half == "pm" {
		m.minutes = math.Mod(m.minutes, 720)
	}
	return m, next, true
}

// pointed are the minutes of a time with a point, 1.30; −1 for another number.
func pointed(t token) float64 {
	hour, minutes, ok := strings.Cut(t.text, ".")
	if h, m := number60(hour), number60(minutes); ok && len(minutes) == 2 && h >= 1 && h <= 12 && m >= 0 {
		return 60*h + m
	}
	return -1
}

// number60 is a number below 60 of digits; −1 for another text.
func number60(digits string) float64 {
	if n, err := strconv.Atoi(digits); err == nil && n >= 0 && n < 60 {
		return float64(n)
	}
	return -1
}

// partOfDay reads in the morning, at night.
func (r reader) partOfDay(m moment, i int) (moment, int) {
	for _, p := range []struct {
		words []string
		half  string
	}{
		{[]string{"in", "the", "morning"}, "am"}, {[]string{"in", "the", "afternoon"}, "pm"}, {[]string{"in", "the",
			"evening"}, "pm"},
		{[]string{"at", "night"}, "pm"}, {[]string{"tonight"}, "pm"},
	} {
		if j, ok := r.is(i, p.words...); ok && m.half == "" {
			m.half = p.half
			if p.half == "pm" && m.minutes >= 720 && m.minutes < 780 && p.words[0] == "at" { // twelve at night
				m.half = "am"
			}
			return m, j
		}
	}
	return m, i
}

// ofAct are words by which another act is told: an hour after wrapping.
var ofAct = map[string]string{
	"wrapping": "wrap", "wrap": "wrap", "wrapped": "wrap", "foiling": "wrap", "foil": "wrap", "off": "off",
	"unwrapping": "unwrap",
	"spritz":     "spritz", "spritzing": "spritz", "glaze": "glaze", "glazing": "glaze", "start": "start",
	"serving": "slice", "ate": "slice", "eating": "slice", "dinner": "slice", "supper": "slice", "lunch": "slice",
	"slicing": "slice", "resting": "rest", "rest": "rest", "lighting": "light", "end": "off", "finish": "off",
	"finished": "off", "done": "off", "saucing": "glaze", "sauce": "glaze",
}

// elapsed is a time since it went on that is told like a clock: 3:20 in, 2:45 into the cook, the 5:30 mark.
func (r reader) elapsed(i int) (span, int, bool) {
	t := r.at(i)
	if t.kind != clock {
		return span{}, i, false
	}
	v := span{t.value / 60, t.value / 60}
	switch next := r.text(i + 1); {
	case next == "mark", next == "in" && r.text(i+2) != "the":
		return v, i + 2, true
	case next == "into" && r.text(i+2) == "it":
		return v, i + 3, true
	case next == "into" && r.text(i+2) == "the" && oneOf(r.text(i+3), "cook", "smoke", "burn"):
		return v, i + 4, true
	}
	return v, i, false
}

// time reads when something was done. A list of times gives several.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (r reader) time(i int) (out []moment, next int, ok bool) {
	pre := map[string]bool{}
	j := i
	for {
		switch w := r.text(j); w {
		case "at", "after", "about", "around", "by", "roughly", "approximately", "approx", "nearly", "almost", "just", "for",
			"every", "each", "from", "until", "till", "another", "within", "over", "under", "some", "maybe", "only", "exactly",
			"then", "in", "the", "like", "past", "or":
			if w == "past" && j == i || w == "or" || w == "like" && !pre["at"] {
				return nil, i, false
			}
			pre[w] = true
			j++
			continue
		}
		break
	}
	if _, ok := r.is(j, "a", "further"); ok {
		pre["another"] = true
		j += 2
	}
	if _, _, lasting := r.lasting(j + 1); r.text(j) == "first" && lasting && (pre["for"] || pre["after"] || pre["until"]) {
		if v, k, _ := r.lasting(j + 1); pre["for"] { // for the first three hours
			return []moment{{hours: v, until: true}}, k, true
		}
		j++
	}
	if v, k, ok := r.lasting(j + 1); ok && r.text(j) == "last" && pre["the"] { // for the last half hour
		return []moment{{relation: beside, of: "off", before: true, hours: v}}, k, true
	}
	if u := unitOf(r.text(j + 1)); u > 0 && pre["the"] { // for the last hour, for the first hour
		switch r.text(j) {
		case "last":
			return []moment{{relation: beside, of: "off", before: true, hours: span{u, u}}}, j + 2, true
		case "first":
			if pre["for"] {
				return []moment{{hours: span{u, u}, until: true}}, j + 2, true
			}
		}
	}
	m := moment{from: pre["from"], until: pre["until"] || pre["till"]}
	for _, now := range [][]string{
		{"right", "away"}, {"straight", "away"}, {"immediately"}, {"right", "after", "that"}, {"right", "after"},
		{"directly"},
		{"at", "once"}, {"straight", "after"}, {"at", "the", "same", "time"}, {"same", "time"}, {"right", "then"},
	} {
		if k, ok := r.is(i, now...); ok {
			return []moment{{relation: later}}, k, true
		}
	}
	for _, day := range [][]string{{"the", "next", "day"}, {"next", "day"}, {"the", "next", "morning"}, {"next",
		"morning"}, {"the", "day", "after"}} {
		if k, ok := r.is(i, day...); ok {
			half := ""
			if day[len(day)-1] == "morning" {
				half = "am"
			}
			return []moment{{relation: nextDay, half: half}}, k, true
		}
	}
	for _, start := range [][]string{
		{"at", "the", "start"}, {"at", "the", "beginning"}, {"from", "the", "start"}, {"from", "the", "beginning"},
		{"to", "start", "with"},
	} {
		if k, ok := r.is(i, start...); ok {
			return []moment{{from: pre["from"]}}, k, true
		}
	}
	if r.text(j) == "hourly" {
		return []moment{{relation: every, hours: span{1, 1}}}, j + 1, true
	}
	// hour three, the third hour
	if (oneOf(r.text(j), "hour", "hours")) && r.at(j+1).kind == number {
		v, k, _ := r.amount(j + 1)
		if unitOf(r.text(k)) == 0 {
			m.hours = v
			if list, n, ok := r.list(j + 1); ok && r.text(j) == "hours" {
				return list, n, true
			}
			return []moment{m}, k, true
		}
	}
	if n := ordinals[r.text(j)]; n > 0 && r.text(j+1) == "hour" {
		m.hours = span{n, n}
		return []moment{m}, j + 2, true
	}
	if v, k, ok := r.elapsed(j); ok {
		m.hours = v
		return []moment{m}, k, true
	}
	if list, k, ok := r.list(j); ok {
		return list, k, true
	}
	if day, k := r.weekday(j); day > 0 {
		if d, n, ok := r.onDay(k); ok {
			d.from, d.until, d.weekday = m.from, m.until, day
			return []moment{d}, n, true
		}
	}
	if d, k, ok := r.dayTime(j); ok {
		d.from, d.until = m.from, m.until
		n := k
		if r.text(n) == "on" {
			n++
		}
		if day, _ := r.weekday(n); day > 0 && len(r.text(n)) > 3 { // at 7 am on Saturday
			d.weekday = day
			return []moment{d}, n + 1, true
		}
		out = []moment{d}
		for { // at 13:30 and 14:30
			n := k
			for oneOf(r.text(n), ",", "and", "&") {
				n++
			}
			if n == k || r.at(n).kind != clock {
				return out, k, true
			}
			d, k, _ = r.dayTime(n)
			d.listed = true
			out = append(out, d)
		}
	}
	v, k, ok := r.lasting(j)
	switch {
	case ok:
	case (pre["every"] || pre["each"]) && unitOf(r.text(j)) > 0: // every hour
		v, k = span{unitOf(r.text(j)), unitOf(r.text(j))}, j+1
	case r.at(j).kind == number && (pre["at"] || pre["by"] || pre["until"] || pre["till"] || pre["around"]) &&
		r.at(j).value >= 1 &&
		r.at(j).value <= 24 && r.at(j).value*4 == math.Trunc(r.at(j).value*4) && !r.degree(j+1) &&
		massOf(r.text(j+1)) == 0 && !meats()[r.text(j+1)]:
		v, k, _ := r.amount(j)
		m.relation, m.hours = bareHour, v
		if p, n := r.partOfDay(moment{minutes: 60 * v.low}, k); p.half != "" {
			m.relation, m.minutes, m.half = byClock, math.Mod(p.minutes, 720), p.half
			k = n
		}
		return r.alsoAt(m, k)
	default:
		return nil, i, false
	}
	if oneOf(r.text(k), "early", "late", "ahead", "behind", "sooner") { // than what is not said
		return nil, i, false
	}
	m.hours, m.listed = v, r.text(i-1) == "again" // and again 15 minutes later
	switch {
	case pre["every"] || pre["each"]:
		m.relation = every
	case pre["another"] || oneOf(r.text(j+1), "more", "extra") || pre["in"] && !pre["at"] && !pre["from"] &&
		!pre["the"]: // back up to temp in 20 minutes
		m.relation = later
	case pre["for"] || pre["over"] && !pre["at"]:
		m.relation = lasts
	case pre["after"]:
		m.relation = after
	case len(pre) == 0 || !pre["at"] && !pre["by"] && !pre["in"] && !pre["past"] && !pre["from"] && !pre["until"]:
		m.plain = true
	}
	out, next, ok = r.beside(m, k)
	if ok && next != k {
		out[0].plain = false
	}
	return out, next, ok
}

// between reads between hour two and hour five, between 10:00 and noon.
func (r reader) between(i int) (moment, int, bool) {
	if r.text(i) == "from" {
		return r.fromTo(i)
	}
	if r.text(i) != "between" {
		return moment{}, i, false
	}
	one, k, ok := r.time(i + 1)
	if ok && len(one) == 2 && one[1].listed { // between hours two and five
		one[0].to = &one[1]
		return one[0], k, true
	}
	if !ok || len(one) != 1 || !oneOf(r.text(k), "and", "to") {
		return moment{}, i, false
	}
	two, n, ok := r.time(k + 1)
	if !ok || len(two) != 1 || one[0].relation != two[0].relation {
		return moment{}, i, false
	}
	one[0].to = &two[0]
	return one[0], n, true
}

// fromTo reads from 7 h to 10 h, from four until seven.
func (r reader) fromTo(i int) (moment, int, bool) {
	one := func(i int) (moment, int, bool) {
		if v := r.at(i); v.kind == number && v.value >= 1 && v.value <= 24 && v.value == math.Trunc(v.value) &&
			(r.at(i+1).kind == mark || i+1 >= len(r.all) || oneOf(r.text(i+1), "to", "until", "till")) && !r.degree(i+1) {
			return moment{relation: bareHour, hours: span{v.value, v.value}}, i + 1, true
		}
		list, k, ok := r.time(i)
		if !ok || len(list) != 1 || list[0].relation == every || list[0].relation == lasts {
			return moment{}, i, false
		}
		return list[0], k, true
	}
	from, k, ok := one(i + 1)
	if !ok || !oneOf(r.text(k), "to", "until", "till") {
		return moment{}, i, false
	}
	to, n, ok := one(k + 1)
	if !ok || to.relation != from.relation {
		return moment{}, i, false
	}
	from.to = &to
	return from, n, true
}

// alsoAt reads the rest of a list of bare hours: at 11 and 12.
func (r reader) alsoAt(m moment, k int) ([]moment, int, bool) {
	out := []moment{m}
	for m.relation == bareHour && !m.until && !m.from {
		n := k
		for oneOf(r.text(n), ",", "and", "&") {
			n++
		}
		v := r.at(n)
		ended := n+1 >= len(r.all) || r.at(n+1).kind == mark && !r.degree(n+1) || oneOf(r.text(n+1), "and", "&")
		if n == k || v.kind != number || v.value != math.Trunc(v.value) || v.value < 1 || v.value > 24 || !ended {
			break
		}
		out, k = append(out, moment{relation: bareHour, hours: span{v.value, v.value}, listed: true}), n+1
	}
	return out, k, true
}

// onDay is a time of a day that was told before it: Saturday 06:15, Sunday morning at 6, Saturday at noon.
func (r reader) onDay(i int) (m moment, next int, ok bool) {
	half := map[string]string{"morning": "am", "afternoon": "pm", "evening": "pm", "night": "pm"}[r.text(i)]
	if half != "" {
		for i++; oneOf(r.text(i), "at", "about", "around", ","); i++ {
		}
	}
	m, next, ok = r.dayTime(i)
	if v := r.at(i); !ok && half != "" && v.kind == number && v.value >= 1 && v.value <= 12 && unitOf(r.text(i+1)) == 0 {
		m, next, ok = moment{relation: byClock, minutes: 60 * v.value}, i+1, true
	}
	switch {
	case !ok:
	case half != "" && m.half == "":
		m.half, m.minutes = half, math.Mod(m.minutes, 720)
	case r.at(i).kind == clock && m.half == "" && r.at(i).text[1] != ':': // as the program shows it
		m.half = "24"
	}
	return m, next, ok
}

var weekdays = []string{"sunday", "monday", "tuesday", "wednesday", "thursday", "friday", "saturday"}

// weekday reads on Saturday at, Sat, Saturday: 1 is Sunday. A short name is one only right before a clock, since "sat"
// and "sun" are other words as well.
func (r reader) weekday(i int) (day, next int) {
	if r.text(i) == "on" {
		i++
	}
	w := r.text(i)
	for n, name := range weekdays {
		switch {
		case w == name:
			next = i + 1
			for oneOf(r.text(next), "at", ",", "about", "around") {
				next++
			}
			return n + 1, next
		case len(w) >= 3 && w == name[:min(len(w), len(name))] && r.at(i+1).kind == clock:
			return n + 1, i + 1
		}
	}
	return 0, i
}

var ordinals = map[string]float64{
	"first": 1, "second": 2, "third": 3, "fourth": 4, "fifth": 5, "sixth": 6, "seventh": 7, "eighth": 8,
	"ninth": 9, "tenth": 10,
}

// skipped are small words between a length of time and the act that it is told by.
var skipped = words(`i we it they had the was were when taking took went came coming going putting pulling being`)

// beside reads what follows a length of time: in, later, after wrapping, before serving, mark.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (r reader) beside(m moment, k int) ([]moment, int, bool) {
	rhythm := m.relation == every
	one := func(next int) ([]moment, int, bool) {
		if rhythm {
			m.relation, m.of = every, ""
		}
		return []moment{m}, next, true
	}
	for _, more := range []string{"more", "extra", "longer"} {
		if r.text(k) == more {
			if m.relation == fromStart || m.relation == after {
				m.relation = later
			}
			k++
		}
	}
	switch w := r.text(k); w {
	case "mark", "point":
		return one(k + 1)
	case "in", "into":
		if n, ok := r.is(k, "into", "it"); ok {
			return one(n)
		}
		if n, ok := r.is(k, "into", "the", "cook"); ok {
			return one(n)
		}
		// "four hours in foil" is no "in".
		if next := r.text(k + 1); w == "in" && (oneOf(next, ",", ".", ";", "", "\n", "and", "i", "we", "at", "it", "into") ||
			r.at(k+1).kind == number || verbWords()[next]) {
			return one(k + 1)
		}
	case "later", "on":
		if w == "on" && unitOf(r.text(k-1)) > 0 && !oneOf(r.text(k+1), ",", "", ".") {
			return one(k)
		}
		m.relation = later
		return one(k + 1)
	case "after", "before", "from", "past":
		j := k + 1
		m.before = w == "before"
		if w == "from" && oneOf(r.text(j), "the") && oneOf(r.text(j+1), "end", "finish") { // an hour from the end
			m.before = true
		}
		for n := 0; n < 6 && skipped[r.text(j)]; n++ {
			j++
		}
		switch t := r.text(j); {
		case t == "that" || t == "this":
			m.relation = later
			return one(j + 1)
		case t == "on" && w != "from":
			m.relation, m.of = beside, "start"
			return one(j + 1)
		case t == "them" || r.text(k+1) == "it" && ofAct[t] == "":
		case ofAct[t] != "":
			j++
			if r.text(j-1) == "off" && r.text(j) == "the" {
				for r.text(j) == "the" || pits[r.text(j)] {
					j++
				}
			}
			for oneOf(r.text(j), "it", "them") {
				j++
			}
			m.relation, m.of = beside, ofAct[t]
			if m.of == "start" && !m.before {
				m.relation = fromStart
			}
			return one(j)
		}
		// An hour before something that is no act is no time since the start.
		if m.relation != lasts && !rhythm && (w == "before" || w == "after") && !ends(r.at(k+1)) && k+1 < len(r.all) {
			return nil, k, false
		}
	}
	return one(k)
}

// list reads at 2, 3 and 4 hours.
func (r reader) list(i int) (out []moment, next int, ok bool) {
	var at []float64
	j := i
	for r.at(j).kind == number {
		v, k, _ := r.amount(j)
		if v.low != v.high {
			return nil, i, false
		}
		at = append(at, v.low)
		n := k
		for oneOf(r.text(n), ",", "and", "&") {
			n++
		}
		if n == k {
			j = k
			break
		}
		j = n
	}
	unit, first := unitOf(r.text(j)), r.text(i-1) == "hours" // hours 3, 4 and 5
	if first && unit == 0 {
		unit, j = 1, j-1
	}
	if len(at) < 2 || unit == 0 {
		return nil, i, false
	}
	for n, v := range at {
		if n > 0 && v <= at[n-1] {
			return nil, i, false
		}
		out = append(out, moment{hours: span{v * unit, v * unit}, listed: true})
	}
	j++
	if oneOf(r.text(j), "in", "mark") {
		j++
	}
	return out, j, true
}
