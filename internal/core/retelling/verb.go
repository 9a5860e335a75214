package retelling

import (
	"embed"
	"sync"

	"verjuice/internal/core/table"
)

// verb is an act as it was named.
type verb struct {
	what string // as in Act
	kind string
	weak bool // only an act with a time of its own, or a temperature: else it is a remark
}

//go:embed verbs.csv
var data embed.FS

// plain are words that name an act by themselves, by verbs.csv. A weak one is an act only with a time of its own, or a
// temperature: else it is a remark.
var plain = func() map[string]verb {
	out := map[string]verb{}
	for _, r := range table.Read(data, "verbs.csv") {
		out[r["word"]] = verb{r["what"], r["kind"], r.Yes("weak")}
	}
	return out
}()

// verbWords are words that may begin an act.
var verbWords = sync.OnceValue(func() map[string]bool {
	out := words(`took take pulled pull lifted put placed moved turned raised bumped cranked lowered dropped went came got opened
		added threw switched shut fed topped probed felt hit reached read showed started`)
	for w := range plain {
		out[w] = true
	}
	return out
})

// Small words on the way to what an act is done to, to a wrap, to a place or to fuel.
var (
	objectWords = words(`it them they the a an all both my our that each first second third other last one ones everything of`)
	between     = words(`the a an its my some dry warm tight heavy duty plain brown double switched-off cold hot pink wet more of
		switched off - fresh one two layer layers open small big aluminium aluminum`)
	fuelWords = words(`on a an some more the another of few couple handful up with unlit lit fresh fire basket it to`)
)

// objects are words for what something is done to; wraps and pits on the way are told.
func (r reader) objects(i int) (next int, wrap, pit bool) {
	next, wrap, pit, _ = r.things(i)
	return next, wrap, pit
}

// things is objects, with whether one of them is a lid.
func (r reader) things(i int) (next int, wrap, pit, lid bool) {
	for n := 0; n < 6; n++ {
		w := r.text(i)
		switch {
		case wrapWords()[w] != "" && !oneOf(w, "pan", "tray") || oneOf(w, "wrap", "wrapper"):
			wrap = true
		case oneOf(w, "lid", "door"):
			lid = true
		case pits[w]:
			pit = true
		case objectWords[w] || meats()[w] && !oneOf(w, "top", "bottom"):
		case r.at(i).kind == number && r.at(i).value < 20 && (meats()[r.text(i+1)]):
		default:
			return i, wrap, pit, lid
		}
		i++
	}
	return i, wrap, pit, lid
}

var (
	takes  = words(`took take taken pulled pull lifted lift came come got get brought slid removed remove`)
	puts   = words(`put placed place threw laid lay set went goes go hung hang slid loaded got get tossed stuck moved`)
	raises = words(`ramped turned turn raised raise bumped bump cranked crank lowered lower dropped drop kicked upped brought ran run set
		reset took pushed opened reduced increased`)
	hears = words(`soft tender butter buttery firm tough stiff tight nearly`)
)

// verb reads an act that begins at token i.
func (r reader) verb(i int) (v verb, next int, ok bool) {
	w := r.text(i)
	if w == "" {
		return v, i, false
	}
	for _, rule := range []struct {
		begins bool
		reads  func(i int) (verb, int, bool)
	}{
		{true, r.seen}, {takes[w], r.taken}, {raises[w], r.raised}, {oneOf(w, "switched", "shut", "turned"), r.switched},
		{puts[w], r.put}, {true, r.worded}, {true, r.plain},
	} {
		if rule.begins {
			if v, next, ok := rule.reads(i); ok || next < 0 {
				return v, max(next, i), ok
			}
		}
	}
	return v, i, false
}

// taken reads took it off, pulled it apart, took the foil off, came off.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (r reader) taken(i int) (v verb, next int, ok bool) {
	w := r.text(i)
	if j, ok := r.is(i+1, "apart"); ok && (oneOf(w, "pulled", "pull")) {
		return verb{what: "slice", kind: "pulled"}, j, true
	}
	j, wrap, _ := r.objects(i + 1)
	if (oneOf(w, "pulled", "pull")) && r.text(j) == "apart" {
		return verb{what: "slice", kind: "pulled"}, j + 1, true
	}
	if (oneOf(w, "pulled", "pull")) && r.text(j) == "back" && r.text(j-1) != "it" { // bones pulled back
		return v, i, false
	}
	if oneOf(w, "removed", "remove") {
		if wrap {
			return verb{what: "unwrap"}, j, true
		}
		return verb{what: "off"}, r.fromPit(j), true
	}
	switch p := r.text(j); {
	case p == "back" && (oneOf(r.text(j+1), "on", "onto")):
		return verb{what: "on"}, r.onPit(j + 2), true
	case oneOf(p, "off", "out") && j == i+1 && oneOf(w, "came", "come") && oneOf(r.text(i-1), "lid", "door"):
		return verb{what: "look"}, j + 1, true
	case oneOf(p, "off", "out") && j == i+1 && oneOf(w, "came", "come") && wrapWords()[r.text(i-1)] != "":
		return verb{what: "unwrap"}, j + 1, true // the foil came off
	case oneOf(p, "off", "out") || p == "of" && r.text(j-1) == "out":
		k, more, _ := r.objects(j + 1)
		if p == "out" && r.text(j+1) == "of" {
			k, more, _ = r.objects(j + 2)
		}
		if wrap || more {
			return verb{what: "unwrap"}, k, true
		}
		if _, _, _, lid := r.things(i + 1); lid {
			return verb{what: "look"}, k, true
		}
		if _, _, _, lid := r.things(j + 1); lid {
			return verb{what: "look"}, k, true
		}
		if n, again := r.onAgain(k); again {
			return verb{what: "off"}, n, true
		}
		return verb{what: "off"}, r.fromPit(j + 1), true
	case p == "from":
		if n, _, pit := r.objects(j + 1); pit {
			return verb{what: "off"}, n, true
		}
	}
	if oneOf(w, "pulled", "pull") {
		return verb{what: "pull"}, j, true
	}
	return v, i, false
}

// raised reads turned the pit up to 135, turned the smoker off, turned it, ran out of fuel.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (r reader) raised(i int) (v verb, next int, ok bool) {
	w := r.text(i)
	j, _, pit := r.objects(i + 1)
	k := j
	if pit && r.text(k) == "off" || r.text(i+1) == "off" {
		if n, _, p := r.objects(i + 2); r.text(i+1) == "off" && p {
			return verb{what: "out"}, n, true
		}
		if pit && r.text(k) == "off" {
			return verb{what: "out"}, k + 1, true
		}
	}
	moved := oneOf(r.text(k), "up", "down", "back")
	for n := 0; n < 4 && (oneOf(r.text(k), "up", "down", "back", "to", "at", "about", "around") ||
		pits[r.text(k)] || r.text(k) == "the"); n++ {
		moved = moved || oneOf(r.text(k), "up", "down")
		pit = pit || pits[r.text(k)]
		k++
	}
	if _, _, hot := r.temperature(k); hot && (pit || moved || k > j && r.text(k-1) == "to") && w != "took" {
		return verb{what: "set"}, k, true
	}
	if pit && moved && (!oneOf(w, "took", "brought")) {
		return verb{what: "set"}, k, true
	}
	if (oneOf(w, "turned", "turn")) && !pit {
		if oneOf(r.text(j), "over", "around", "round") {
			j++
		}
		return verb{what: "turn"}, j, true
	}
	if w == "ran" && r.text(i+1) == "out" && r.text(i+2) == "of" && (fuels[r.text(i+3)] || woods[r.text(i+3)]) {
		return verb{what: "out"}, i + 4, true
	}
	return v, i, false
}

// switched reads switched the smoker off, shut it down.
func (r reader) switched(i int) (v verb, next int, ok bool) {
	j, _, _ := r.objects(i + 1)
	if oneOf(r.text(j), "off", "down") {
		k, _, _ := r.objects(j + 1)
		return verb{what: "out"}, k, true
	}
	if oneOf(r.text(i+1), "off", "down") {
		k, _, _ := r.objects(i + 2)
		return verb{what: "out"}, k, true
	}
	return v, i, false
}

// put reads put it on, put it in foil, into a cooler, went back on, put more wood on.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (r reader) put(i int) (v verb, next int, ok bool) {
	w := r.text(i)
	j, _, _, lid := r.things(i + 1)
	if lid {
		return v, i, false
	}
	for oneOf(r.text(j), "straight", "right", "then") {
		j++
	}
	p := r.text(j)
	if p == "back" {
		switch n := r.text(j + 1); {
		case oneOf(n, "on", "onto") || n == "in" && !r.wrapSoon(j+2):
			return verb{what: "on"}, r.onPit(j + 2), true
		case oneOf(n, "up", "down"):
		default:
			return verb{what: "on", weak: true}, j + 1, true
		}
	}
	switch {
	case oneOf(w, "put", "threw", "tossed") && r.addedSoon(i+1) != "":
		return verb{what: r.addedSoon(i + 1)}, i + 1, true
	case (oneOf(p, "in", "into")) && r.wrapSoon(j+1):
		return verb{what: "wrap"}, j + 1, true
	case (oneOf(p, "in", "into", "on")) && r.restSoon(j+1) != "":
		return verb{what: "rest"}, j + 1, true
	case oneOf(p, "on", "onto") || (oneOf(p, "in", "into")) && r.pitSoon(j+1):
		if r.text(j+1) == "top" {
			break
		}
		if before := r.text(i - 1); words(`went goes go`)[w] && larderWords()[before] { // the sauce went on
			if oneOf(before, "sauce", "glaze") {
				return verb{what: "glaze"}, j + 1, true
			}
			break
		} else if words(`went goes go`)[w] && wrapWords()[before] != "" { // the foil went on
			return verb{what: "wrap"}, j + 1, true
		} else if words(`went goes go`)[w] && oneOf(before, "lid", "wrap", "wrapping") {
			break
		}
		return verb{what: "fire"}, r.onPit(j + 1), true
	case p == "over" && (r.pitSoon(j + 1)):
		return verb{what: "move"}, j + 1, true
	case w == "moved" && r.tool(i+1):
	case w == "moved":
		return verb{what: "move"}, j, true
	case w == "went" && p == "out" && i > 0 && (oneOf(r.text(i-1), "fire", "flame", "it")):
		return verb{what: "out"}, j + 1, true
	}
	return v, i, false
}

// tool reports whether what is moved is none of the meat: the probe, a rack of the pit, the water.
func (r reader) tool(i int) bool {
	for oneOf(r.text(i), "the", "my", "a", "its", "one", "other", "second") {
		i++
	}
	return oneOf(r.text(i), "probe", "probes", "thermometer", "lid", "grate", "grates", "water", "coals", "coal", "fire",
		"vents", "vent", "sensor", "needle")
}

// worded reads what one word begins: opened the foil, added charcoal, let it rest, probed like butter.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (r reader) worded(i int) (v verb, next int, ok bool) {
	w := r.text(i)
	switch w {
	case "into", "in":
		switch {
		case r.wrapSoon(i+1) && (w == "into" || i == 0 || r.at(i-1).kind == mark):
			return verb{what: "wrap"}, i + 1, true
		case r.restSoon(i+1) != "" && (w == "into" || i == 0 || r.at(i-1).kind == mark) && !r.pitSoon(i+1):
			return verb{what: "rest"}, i + 1, true
		}
	case "back":
		_, _, timed := r.time(i + 2)
		if oneOf(r.text(i+1), "on", "onto") || oneOf(r.text(i+1), "in", "into") && (r.pitSoon(i+2) || timed) {
			return verb{what: "on"}, r.onPit(i + 2), true
		}
	case "on":
		if i == 0 || r.at(i-1).kind == mark || oneOf(r.text(i-1), "and", "was", "were") {
			if _, _, timed := r.time(r.onPit(i + 1)); timed {
				return verb{what: "fire"}, r.onPit(i + 1), true
			}
		}
		if n, again := r.is(i, "on", "again"); again {
			return verb{what: "on"}, r.onPit(n), true
		}
	case "died":
		k := i + 1
		if oneOf(r.text(k), "out", "down") {
			k++
		}
		if i > 0 && (pits[r.text(i-1)] || oneOf(r.text(i-1), "it", "flame", "had")) {
			return verb{what: "out"}, k, true
		}
	case "fire":
		if r.text(i+1) == "out" {
			return verb{what: "out"}, i + 2, true
		}
	case "lost":
		j := i + 1
		for oneOf(r.text(j), "the", "my", "our") {
			j++
		}
		if oneOf(r.text(j), "fire", "flame") {
			return verb{what: "out"}, j + 1, true
		}
	case "sauce", "glaze":
		if r.text(i+1) == "on" {
			return verb{what: "glaze"}, i + 2, true
		}
	case "flameout":
		return verb{what: "out"}, i + 1, true
	case "fired", "started", "restarted":
		j, _, pit := r.objects(i + 1)
		if r.text(j) == "up" {
			j++
			if n, _, p := r.objects(j); p {
				j, pit = n, true
			}
			return verb{what: "light"}, j, true
		}
		if pit {
			return verb{what: "light"}, j, true
		}
	case "lit", "relit", "lighted":
		j, _, _ := r.objects(i + 1)
		if r.text(j) == "up" {
			j++
		}
		for r.text(j) == "again" {
			j++
		}
		return verb{what: "light"}, j, true
	case "opened", "open", "opening", "lifted":
		if w == "open" && r.text(i+1) == "boat" {
			break
		}
		j, wrap, _ := r.objects(i + 1)
		if r.text(j) == "up" {
			if n, more, _ := r.objects(j + 1); n > j+1 {
				j, wrap = n, wrap || more
			} else {
				j++
			}
		}
		if wrap {
			return verb{what: "unwrap", kind: "opened"}, j, true
		}
		if _, _, pit, lid := r.things(i + 1); (lid || pit || r.text(i+1) == "up") && !oneOf(r.text(j-1), "vent",
			"vents", "damper", "dampers") {
			return verb{what: "look"}, j, true
		}
	case "added", "add", "fed", "topped", "refilled", "chucked", "more", "loaded", "stoked":
		if what := r.addedSoon(i + 1); what != "" {
			return verb{what: what}, i + 1, true
		}
		if oneOf(w, "fed", "stoked") && oneOf(r.text(i-1), "fire", "pit", "smoker", "firebox") {
			return verb{what: "fuel"}, i + 1, true
		}
		if w == "added" && (oneOf(r.text(i+1), "more", "some")) && r.text(i+2) == "rub" || w == "more" &&
			r.text(i+1) == "rub" {
			return verb{what: "dust"}, i + 1, true
		}
	case "covered", "sealed", "tented":
		j, wrap, _ := r.objects(i + 1)
		for oneOf(r.text(j), "with", "in", "tightly", "loosely") {
			j++
		}
		if wrap || r.wrapSoon(j) {
			if w == "tented" { // loose foil, off the fire
				return verb{what: "rest"}, j, true
			}
			return verb{what: "wrap"}, j, true
		}
	case "let":
		j, _, _ := r.objects(i + 1)
		if s := r.text(j); oneOf(s, "rest", "sit", "stand", "cool") {
			return verb{what: "rest"}, j + 1, true
		}
	case "kept":
		j, _, _ := r.objects(i + 1)
		if oneOf(r.text(j), "warm", "hot") {
			return verb{what: "rest"}, j + 1, true
		}
	case "burnt":
		if r.text(i+1) == "ends" && r.text(i-1) != "the" {
			n := i + 2
			if r.text(n) == "made" {
				n++
			}
			return verb{what: "slice", kind: "burnt-ends"}, n, true
		}
	case "made":
		j := i + 1
		if r.text(j) == "the" {
			j++
		}
		if n, ok := r.is(j, "burnt", "ends"); ok {
			return verb{what: "slice", kind: "burnt-ends"}, n, true
		}
	case "probed", "probe", "temped":
		j, _, _ := r.objects(i + 1)
		k := j
		for oneOf(r.text(k), "like", "very", "nice", "and", "nicely") {
			k++
		}
		if how := feels(r.text(k)); how != "" {
			return verb{what: "felt", kind: how}, k + 1, true
		}
		if w == "probe" && (oneOf(r.text(j), "slid", "slides", "went")) {
			for k = j + 1; oneOf(r.text(k), "in", "right", "straight", "like", "butter"); k++ {
			}
			return verb{what: "felt", kind: "soft"}, k, true
		}
		if oneOf(w, "probed", "temped") {
			return verb{what: "read"}, j, true
		}
	case "felt", "feels", "was", "were", "still", "like", "butter":
		k := i
		for n := 0; n < 5 && (k == i || oneOf(r.text(k), ":", "like", "very", "still", "too", "it", "nice", "and")); n++ {
			if (oneOf(w, "butter", "like")) && k == i && feels(w) != "" {
				break
			}
			k++
		}
		if w == "butter" && !oneOf(r.text(i+1), "soft", "tender") || w == "like" && feels(r.text(k)) != "soft" {
			break
		}
		if how := feels(r.text(k)); how != "" && (oneOf(w, "felt", "feels", "like", "butter") || how == "soft" ||
			r.text(k) == "tight") &&
			hears[r.text(k)] {
			n := k + 1
			if oneOf(r.text(n), "soft", "tender") {
				n++
			}
			return verb{what: "felt", kind: how, weak: true}, n, true
		}
		if oneOf(w, "was", "were") {
			if r.text(i+1) == "at" {
				if _, _, hot := r.temperature(i + 2); hot {
					return verb{what: "read"}, i + 2, true
				}
			}
		}
	case "tender", "soft":
		if oneOf(r.text(i-1), "nearly", "almost") {
			return verb{what: "felt", kind: "nearly", weak: true}, i + 1, true
		}
		return verb{what: "felt", kind: "soft", weak: true}, i + 1, true
	case "tough", "firm", "stiff":
		begins := i == 0 || r.at(i-1).kind == mark || oneOf(r.text(i-1), "still", "and", "too", "very")
		if _, _, timed := r.time(i + 1); timed && begins {
			return verb{what: "felt", kind: feels(w), weak: true}, i + 1, true
		}
	case "bent", "bends", "bend", "cracked":
		if _, _, pit, lid := r.things(i + 1); w == "cracked" && (lid || pit) {
			return verb{what: "look"}, i + 1, true
		}
		return verb{what: "felt", kind: "soft", weak: true}, i + 1, true
	case "hit", "reached", "read", "showed", "stuck", "registered", "reading", "stood", "passed", "climbed", "sat":
		j := i + 1
		for oneOf(r.text(j), "at", "to", "about", "around", "an", "internal", "of") {
			j++
		}
		if _, _, hot := r.temperature(j); hot {
			return verb{what: "read"}, j, true
		}
		return v, -1, false
	}
	return v, i, false
}

// plain reads the acts of verbs.csv.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (r reader) plain(i int) (v verb, next int, ok bool) {
	w := r.text(i)
	v, ok = plain[w]
	if oneOf(w, "held", "hold", "holding") {
		if _, _, hot := r.temperature(i + 1); hot || r.text(i+1) == "at" && r.heldOn(i+2) || r.text(i-1) == "bark" ||
			r.text(i-1) == "it" && i > 1 &&
				pits[r.text(i-2)] {
			return v, i, false
		}
	}
	if w == "cut" && i > 0 && (oneOf(r.text(i-1), "the", "a")) {
		return v, i, false
	}
	if oneOf(w, "glaze", "mop", "baste", "wrap", "rest", "slice", "hold") {
		if p := r.text(i - 1); i > 0 && (oneOf(p, "the", "with", "of", "a", "in", "to")) && p != "to" {
			return v, i, false
		}
	}
	if w == "off" && oneOf(r.text(i-1), "topped", "finished", "showed") {
		return v, i, false
	}
	if w == "off" && i > 0 && oneOf(r.text(i-1), "foil", "paper", "wrap") && !oneOf(r.text(i-2), "in", "the",
		"of") { // foil off
		return verb{what: "unwrap"}, i + 1, true
	}
	if w == "finished" && oneOf(r.text(i+1), "in", "with", "under", "over", "them", "it") {
		return v, i, false
	}
	if oneOf(w, "done", "finished") && oneOf(r.text(i-1), "almost", "nearly", "quite", "just", "about", "half") {
		return v, i, false
	}
	next = i + 1
	if w == "off" {
		if n, again := r.onAgain(next); again {
			return verb{what: "off"}, n, ok
		}
		next = r.fromPit(next)
	}
	if w == "cut" {
		if n, is := r.is(next, "into", "cubes"); is {
			return verb{what: "slice", kind: "cubed"}, n, true
		}
		if j, _, _ := r.objects(next); r.text(j) == "into" && r.text(j+1) == "cubes" {
			return verb{what: "slice", kind: "cubed"}, j + 2, true
		}
	}
	return v, next, ok
}

// heldOn reports whether it is the core that held at a temperature: nothing says where it was held.
func (r reader) heldOn(i int) bool {
	_, _, hot := r.temperature(i)
	for n := i; hot && n < i+8 && !ends(r.at(n)); n++ {
		if restWords[r.text(n)] != "" || r.text(n) == "warm" {
			return false
		}
	}
	return hot
}
