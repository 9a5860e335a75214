package retelling

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
)

// longestFact is how many bytes of the words one fact keeps.
const longestFact = 900

// Facts are what a text puts on record of a piece that went on at a time: that it did, its acts, weights and remarks,
// what was asked about as remarks, the words themselves, and that it is over. They have no ids yet.
func Facts(text string, t Told, piece string, on time.Time) []facts.Fact {
	var out []facts.Fact
	last := on
	add := func(f facts.Fact, at time.Time) {
		f.At, f.Device = at.Format(time.RFC3339), facts.ToldDevice
		if f.Piece == "" { // of a pit, or of the whole cook: told of this piece
			if f.Values == nil {
				f.Values = field.Values{}
			}
			f.Values["of"] = piece
		}
		out = append(out, f)
		if at.After(last) {
			last = at
		}
	}
	add(facts.Fact{Kind: facts.Done, Piece: piece, What: "fire"}, on)
	for _, a := range t.Acts {
		until := a.At
		if a.Every > 0 && a.Until.After(a.At) {
			until = a.Until
		}
		for at, n := a.At, 0; !at.After(until) && n < 100; at, n = at.Add(max(a.Every, time.Minute)), n+1 {
			f, ok := a.fact(text, piece, on)
			if ok {
				add(f, at)
			}
			if a.Every == 0 {
				break
			}
		}
		if a.Until.After(last) {
			last = a.Until
		}
	}
	note := func(text string) {
		for _, part := range parted(text) {
			add(facts.Fact{Kind: facts.Noted, Piece: piece, What: part}, last)
		}
	}
	for _, n := range t.Notes {
		note(n.Text)
	}
	for _, q := range t.Asks {
		note(strings.TrimSpace(text[q.From[0]:q.From[1]]))
	}
	for _, w := range t.Weights {
		typed := field.Values{"typed": fmt.Sprintf("%.3g kg", w.KG)}
		add(facts.Fact{Kind: facts.Weighed, Piece: piece, What: w.Of, Values: typed}, last)
	}
	add(facts.Fact{Kind: facts.Done, What: "over"}, last)
	for rest := text; rest != ""; {
		cut := len(rest)
		if cut > longestFact {
			for cut = longestFact; !utf8.RuneStart(rest[cut]); cut-- {
			}
		}
		add(facts.Fact{Kind: facts.Noted, Piece: piece, What: "told", Values: field.Values{"words": rest[:cut]}}, last)
		rest = rest[cut:]
	}
	return out
}

// Finish is how a piece was finished as it is told: pulled apart, or the finish of its cut whose core is nearest
// to that at which it came off. False where nothing says so.
func (t Told) Finish(c cut.Cut) (cut.Finish, bool) {
	core, off := 0.0, false
	for _, a := range t.Acts {
		if a.What == "slice" && a.Kind == "pulled" && slices.Contains(c.Finishes, cut.Pulled) {
			return cut.Pulled, true
		}
		if a.CoreC > 0 && a.Which == "" && !off {
			core = a.CoreC
		}
		off = off || a.What == "off"
	}
	if core == 0 || !off || len(c.Finishes) == 0 {
		return "", false
	}
	return slices.MinFunc(c.Finishes, func(a, b cut.Finish) int {
		return cmp.Compare(math.Abs(c.As(a).DoneC()-core), math.Abs(c.As(b).DoneC()-core))
	}), true
}

// parted is a text in parts that a fact can hold.
func parted(text string) (out []string) {
	for len(text) > longestFact {
		cut := strings.LastIndex(text[:longestFact], " ")
		if cut <= 0 {
			for cut = longestFact; !utf8.RuneStart(text[cut]); cut-- {
			}
		}
		out, text = append(out, strings.TrimSpace(text[:cut])), text[cut:]
	}
	if text = strings.TrimSpace(text); text != "" {
		out = append(out, text)
	}
	return out
}

// fact is an act as a fact; false when it is known already.
func (a Act) fact(text, piece string, on time.Time) (facts.Fact, bool) {
	out := facts.Fact{Kind: facts.Done, Piece: piece, What: a.What, Values: field.Values{}}
	pit := func(what string) {
		out.Piece, out.What, out.Values["pit"] = "", what, 0.0
	}
	if a.CoreC > 0 {
		out.Values["core_c"] = a.CoreC
	}
	said, how, _ := strings.Cut(a.Kind, " ")
	switch a.What {
	case "fire":
		return out, false
	case "wrap":
		out.Values["kind"] = a.Kind
		if a.Kind == "" {
			out.Values["kind"] = "foil"
		}
	case "unwrap":
		if a.Kind == "vented" {
			out.What = "vent"
		}
	case "set":
		pit("set")
		out.Values["c"] = a.SetC
	case "wood", "fuel", "out":
		pit(a.What)
	case "light":
		if pit("light"); a.At.After(on) {
			out.What = "relit"
		}
	case "move":
		out.What = "turn"
	case "off":
		if a.Which != "" && a.Which != "all" && a.Which != "both" {
			out.What = "some-off"
		}
	case "read":
		out.What = "probe"
	case "felt":
		out.Kind, out.What, out.Values["how"] = facts.Seen, "feel", a.Kind
		if a.Place != "" {
			out.Values["place"] = a.Place
		}
	case "seen":
		out.Kind, out.What, out.Values["how"] = facts.Seen, said, how
		if how == "right" {
			out.Values["how"] = "mahogany"
		}
	case "on":
		return facts.Fact{Kind: facts.Noted, Piece: piece, What: strings.TrimSpace(text[a.From[0]:a.From[1]])}, true
	}
	if len(out.Values) == 0 {
		out.Values = nil
	}
	return out, true
}
