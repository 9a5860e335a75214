// Package retelling reads how a cook went as its cook tells it, afterwards and in their own words. Every word is
// taken into account: it is part of an act, a known filler or a remark, or it is shown as not understood, and then
// its clause is asked about and is no act.
//
//	told := retelling.Read("wrapped about four hours in, 165, foil; off at nine hours, 203", retelling.Scene{On: on, Cut: c})
//	told.Acts[0]   // a wrap in foil four hours after it went on, at a core of 74 °C
//
// Text becomes tokens (token.go); tokens become amounts (phrase.go), moments (moment.go), acts (verb.go) and signs
// (sign.go); those become clauses (clause.go), clauses drafts of acts (draft.go), and drafts acts in time (act.go,
// when.go), whose order is checked (check.go).
package retelling

import (
	"slices"
	"strings"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
)

// Scene is what a text is told of.
type Scene struct {
	On  time.Time // it went on, in the zone that clocks are told in
	Now time.Time // nothing is later; zero is not known
	Cut cut.Cut
}

// Act is something that was done, read, seen or felt.
type Act struct {
	// fire, on, wrap, unwrap, set, spritz, baste, glaze, dust, turn, move, look, seen, felt, read, wood, fuel, out, light,
	// off, rest or slice
	What  string
	At    time.Time
	Until time.Time     // of what went on; else zero
	Every time.Duration // again and again until then; else zero
	Slack time.Duration // how far At may be off either way, where a range was told
	CoreC float64       // that was read then, °C; zero when none was
	SetC  float64       // what the pit was set to, °C, for set
	Kind  string        // of a wrap, where it rested, what was seen and how, how it felt, how it was cut
	Place string        // in the piece, where it was read or felt
	Which string        // of several pieces: first, second, other, last, both, all
	From  [2]int        // bytes of the text
}

// Weight is something that was weighed.
type Weight struct {
	Of string // one of facts.Weights
	KG float64
}

// Ask is something that can be read two ways, or not at all, and what to write instead.
type Ask struct {
	Why    field.Wrong
	Offers []Offer
	From   [2]int
}

// Offer is one way to read it: an id for its words, with what it names, and the text to put in its place.
type Offer struct {
	Wrong field.Wrong
	Edit  string
}

// Unread is a word that is not understood.
type Unread struct {
	Text string
	From [2]int
}

// Note is a remark, word for word.
type Note struct {
	Text string
	From [2]int
}

// Told is a text as it is understood.
type Told struct {
	Acts    []Act
	Notes   []Note
	Weights []Weight
	Asks    []Ask
	Unread  []Unread
}

// Longest is how long a cook that is told may have gone on.
const Longest = 72 * time.Hour

// Read reads a text of what was done to a piece.
func Read(text string, s Scene) Told {
	all := tokens(text)
	r := reader{all, tells24(all)}
	t := teller{reader: r, text: text, scene: s, last: s.On, style: every}
	for _, sentence := range r.sentences() {
		t.sentence(sentence[0], sentence[1])
	}
	t.settle()
	return t.told
}

// ends are marks that end a sentence.
func ends(t token) bool {
	return t.kind == mark && (t.text == ";" || t.text == "\n" || strings.HasPrefix(t.text, ".") ||
		t.text == "!" || t.text == "?")
}

// sentences are where they begin and end, in tokens.
func (r reader) sentences() (out [][2]int) {
	from := 0
	for i := 0; i <= len(r.all); i++ {
		if i == len(r.all) || ends(r.all[i]) {
			if i > from {
				out = append(out, [2]int{from, i})
			}
			from = i + 1
		}
	}
	return out
}

// teller puts the acts of a text in time.
type teller struct {
	reader
	text   string
	scene  Scene
	told   Told
	drafts []draft
	last   time.Time // of the act before, or until when it went on
	style  relation  // how times were told so far: fromStart or byClock
}

// piece is the text of tokens.
func (t *teller) piece(from, to int) (string, [2]int) {
	if to <= from {
		return "", [2]int{}
	}
	at := [2]int{t.all[from].from, t.all[to-1].to}
	return strings.TrimSpace(t.text[at[0]:at[1]]), at
}

func (t *teller) note(from, to int) {
	text, at := t.piece(from, to)
	if text = strings.Trim(text, " ,;:-–"); text == "" {
		return
	}
	if n := len(t.told.Notes); n > 0 && t.told.Notes[n-1].From[1] <= at[0] &&
		oneOf(strings.Trim(t.text[t.told.Notes[n-1].From[1]:at[0]], " ,"), "", "and", "but", "so", "&", "then") {
		t.told.Notes[n-1].Text, t.told.Notes[n-1].From[1] = strings.TrimSpace(t.text[t.told.Notes[n-1].From[0]:at[1]]), at[1]
		return
	}
	t.told.Notes = append(t.told.Notes, Note{text, at})
}

// remark is the token from which a sentence is a remark; its end when it is none.
func (t *teller) remark(from, to int) int {
	for i := from; i < to; i++ {
		for _, phrase := range remarks {
			if _, ok := t.is(i, strings.Fields(phrase)...); ok {
				// The whole clause is: "next time" and what stands before it up to a comma.
				for i > from && !(t.all[i-1].kind == mark && t.all[i-1].text == ",") && t.text1(i-1) != "but" {
					i--
				}
				return i
			}
		}
	}
	return to
}

func (t *teller) text1(i int) string { return t.reader.text(i) }

// sentence reads one.
func (t *teller) sentence(from, to int) {
	end := t.remark(from, to)
	if end > from {
		was := t.size()
		if t.clauses(from, end); t.size() == was {
			t.note(from, end) // words that say nothing of what was done
		}
	}
	if end < to {
		t.note(end, to)
	}
}

// size is how much has been understood, noted or asked so far.
func (t *teller) size() int {
	return len(t.drafts) + len(t.told.Notes) + len(t.told.Asks) + len(t.told.Weights) + len(t.told.Unread)
}

// settle puts the drafts in time, and checks their order.
func (t *teller) settle() {
	for i := range t.drafts {
		t.resolve(i)
	}
	t.check()
	slices.SortStableFunc(t.told.Acts, func(a, b Act) int { return a.At.Compare(b.At) })
	slices.SortStableFunc(t.told.Asks, func(a, b Ask) int { return a.From[0] - b.From[0] })
	slices.SortStableFunc(t.told.Unread, func(a, b Unread) int { return a.From[0] - b.From[0] })
}
