package retelling_test

import (
	"fmt"
	"maps"
	"math/rand/v2"
	"os"
	"slices"
	"strings"
	"testing"
	"time"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/retelling"
)

// on is when everything that is told here went on.
var on = time.Date(2026, 10, 3, 8, 0, 0, 0, time.UTC)

func scene(id string) retelling.Scene {
	c, _ := cut.Find(id)
	return retelling.Scene{On: on, Cut: c}
}

// line is an act as the corpus has it.
func line(a retelling.Act) string {
	out := a.What + " " + a.At.Format("15:04")
	if day := a.At.YearDay() - on.YearDay(); day != 0 {
		out += fmt.Sprintf("+%d", day)
	}
	if !a.Until.IsZero() {
		out += "-" + a.Until.Format("15:04")
	}
	if a.Every > 0 {
		out += fmt.Sprintf(" every %g", a.Every.Minutes())
	}
	if a.Slack > 0 {
		out += fmt.Sprintf(" ±%g", a.Slack.Minutes())
	}
	if a.CoreC > 0 {
		out += fmt.Sprintf(" core %.0f", a.CoreC)
	}
	if a.SetC > 0 {
		out += fmt.Sprintf(" to %.0f", a.SetC)
	}
	return strings.Join(strings.Fields(strings.Join([]string{out, a.Kind, a.Place, a.Which}, " ")), " ")
}

func lines(t retelling.Told) []string {
	out := []string{}
	for _, a := range t.Acts {
		out = append(out, line(a))
	}
	return out
}

// parts of speech, and what they mean: of acts, of times that are all four hours on the fire.
var (
	acts = map[string]string{
		"wrapped it": "wrap", "wrapped in foil": "wrap foil", "I wrapped the shoulder in butcher paper": "wrap paper",
		"foiled": "wrap foil", "into the foil": "wrap foil", "put it in a foil boat": "wrap boat",
		"covered it with foil":         "wrap foil",
		"wrapped in plain brown paper": "wrap brown-paper", "unwrapped it": "unwrap", "took the foil off": "unwrap",
		"opened the paper": "unwrap opened", "spritzed": "spritz", "spritzed it with apple juice and vinegar": "spritz",
		"mopped it": "baste", "basted with butter": "baste", "glazed": "glaze", "sauced it": "glaze",
		"dusted with rub": "dust",
		"flipped it":      "turn", "turned it over": "turn", "rotated the racks": "turn",
		"moved it to the cooler side": "move",
		"swapped the racks":           "move", "looked": "look", "opened the lid": "look", "took it off": "off",
		"pulled it off the smoker": "off",
		"it came off":              "off", "off": "off", "lifted the shoulder off the pit": "off", "removed the meat": "off",
		"added a chunk of oak": "wood", "threw on two splits": "wood", "added charcoal": "fuel",
		"topped up the pellets": "fuel",
		"the fire went out":     "out", "ran out of pellets": "out", "switched the smoker off": "out", "relit it": "light",
		"bark was set": "seen bark holds", "colour was right": "seen colour right", "the bones showed": "seen bones show",
		"probe tender": "felt soft", "probed like butter": "felt soft", "felt tough": "felt tough",
	}
	times = []string{
		"at four hours", "at 4 h", "4 hours in", "four hours into it", "after 4 hours", "after about four hours",
		"at hour four",
		"at hour 4", "at the four hour mark", "at noon", "at 12:00", "at 12 pm", "at twelve o'clock",
		"four hours after it went on",
		"around 4.0 hours in", "at three hours and 60 minutes", "after 240 minutes", "at 3 3/3 hours", "at the fourth hour",
		"roughly four hours in", "at exactly 4 hrs", "by noon", "@ 4h", "at 4h00", "just after 4 hours in",
	}
)

// Any act with any time, whichever stands first: the act, at its time, and nothing else.
func TestEveryActAtEveryTime(t *testing.T) {
	n := 0
	for said, means := range acts {
		what, kind, _ := strings.Cut(means, " ")
		want := strings.TrimSpace(what + " 12:00 " + kind)
		for _, at := range times {
			for _, text := range []string{said + " " + at, at + " " + said, said + ", " + at} {
				if strings.HasPrefix(text, "just after") {
					continue // "just after 4 hours in wrapped"
				}
				got := retelling.Read(text, scene("pork-spare-ribs"))
				n++
				assert.Equal(t, []string{want}, lines(got), text)
				assert.Empty(t, got.Asks, text)
				assert.Empty(t, got.Unread, text)
			}
		}
	}
	assert.Greater(t, n, 3000)
}

// told is the corpus by hand: a text, and what it means, act by act; asked what has to be asked, and remarks what is a
// remark, word for word.
var (
	told    = corpus("told")
	asked   = corpus("asked")
	remarks = corpus("remarks")
)

// corpus reads a file of texts, each with what stands behind it.
func corpus(name string) map[string]string {
	raw, err := os.ReadFile("testdata/" + name + ".tsv")
	if err != nil {
		panic(err)
	}
	out := map[string]string{}
	for _, row := range strings.Split(strings.TrimSpace(string(raw)), "\n")[1:] {
		text, means, _ := strings.Cut(row, "\t")
		out[strings.ReplaceAll(text, `\n`, "\n")] = means
	}
	return out
}

func TestAsCooksTellIt(t *testing.T) {
	for text, want := range told {
		got := retelling.Read(text, scene("pork-shoulder-bone-in"))
		assert.Equal(t, want, strings.Join(lines(got), " | "), text)
		if !strings.HasPrefix(text, "an hour after wrapping") {
			assert.Empty(t, got.Asks, text)
		}
		assert.Empty(t, got.Unread, text)
	}
}

// What is denied, wished, or no act at all is a remark, word for word.
func TestRemarks(t *testing.T) {
	for text := range remarks {
		got := retelling.Read(text, scene("pork-shoulder-bone-in"))
		assert.Empty(t, got.Acts, text)
		assert.Empty(t, got.Asks, text)
		said := ""
		for _, n := range got.Notes {
			said += n.Text + " "
		}
		for _, w := range strings.FieldsFunc(text, func(r rune) bool { return r == ' ' || r == ',' }) {
			assert.True(t, strings.Contains(said, w) || w == "but", "%s: %s", text, said)
		}
	}
	got := retelling.Read("off at 9 h; 4.2 kg raw, 2.6 kg cooked and 0.4 kg of bones", scene("pork-shoulder-bone-in"))
	assert.Equal(t, []retelling.Weight{{Of: "trimmed", KG: 4.2}, {Of: "cooked", KG: 2.6}, {Of: "bones", KG: 0.4}},
		got.Weights)
}

// What has no time, a word that there is not, two times, an order that cannot be, or two ways to read it is asked, and
// is no act.
func TestWhatIsAsked(t *testing.T) {
	asked := maps.Clone(asked)
	orders := map[string]string{
		"wrapped after four hours; off after two hours":   "tale.from",
		"sliced at 6 h; off at 9 h":                       "tale.sliced-on",
		"wrapped at 2 h; wrapped at 4 h":                  "tale.wrapped-twice",
		"off at 9 h; off at 10 h":                         "tale.off-twice",
		"off at 6 h; spritzed at 7 h":                     "tale.off-by-then",
		"core 74 C at 4 h; core 40 C at 5 h":              "tale.fell",
		"off at 99 h":                                     "tale.long",
		"put the shoulder on at 9 am; off at 6 pm":        "tale.on",
		"off at 9 h; 4 kg":                                "tale.weight",
		"wrapped at five hours; took it off at two hours": "tale.off-by-then",
	}
	for said := range acts {
		if said != "off" && !strings.HasPrefix(acts[said], "seen") && !strings.HasPrefix(acts[said], "felt") {
			asked[said] = "tale.when"
		}
		asked[said+" frobly at 4 hours"] = "tale.words"
		asked["quickishly "+said+" at noon"] = "tale.words"
	}
	assert.Greater(t, len(asked)+len(orders), 130)
	for text, id := range asked {
		got := retelling.Read(text, scene("pork-shoulder-bone-in"))
		assert.Empty(t, got.Acts, text)
		if assert.NotEmpty(t, got.Asks, text) && id != "tale.words" && id != "" {
			assert.Equal(t, id, got.Asks[0].Why.ID, text)
		}
	}
	for text, id := range orders {
		got := retelling.Read(text, scene("pork-shoulder-bone-in"))
		ids := []string{}
		for _, a := range got.Asks {
			ids = append(ids, a.Why.ID)
		}
		assert.Contains(t, ids, id, text)
	}
	late := scene("pork-shoulder-bone-in")
	late.Now = on.Add(5 * time.Hour)
	assert.Equal(t, "tale.future", retelling.Read("off at 9 h", late).Asks[0].Why.ID)
}

// An answer that is offered, put in place of its clause, is understood.
func TestAnOfferIsAnAnswer(t *testing.T) {
	for _, text := range []string{
		"pulled at nine hours", "off at six", "95 at two hours in the flat", "wrapped after four hours; off after two hours",
		"spritzed at 2 h; flipped it",
	} {
		got := retelling.Read(text, scene("pork-shoulder-bone-in"))
		require.NotEmpty(t, got.Asks, text)
		require.NotEmpty(t, got.Asks[0].Offers, text)
		for _, o := range got.Asks[0].Offers {
			at := got.Asks[0].From
			again := retelling.Read(text[:at[0]]+o.Edit+text[at[1]:], scene("pork-shoulder-bone-in"))
			assert.Empty(t, again.Asks, "%s: %s", text, o.Edit)
			assert.Len(t, again.Acts, len(got.Acts)+1, "%s: %s", text, o.Edit)
		}
	}
}

// Clauses that stand for themselves give the same acts in any order, and a clause that is not understood changes no
// other.
func TestClausesStandForThemselves(t *testing.T) {
	r := rand.New(rand.NewPCG(29, 1))
	own := []string{
		"spritzed at 2 hours", "turned it at 3 hours", "wrapped in paper at 4 h", "added wood at 1 h", "core 68 C at 4.5 h",
		"pit to 135 at 5 h", "took it off at 10 h, 95 C",
	}
	want := lines(retelling.Read(strings.Join(own, "; "), scene("pork-shoulder-bone-in")))
	require.Len(t, want, len(own))
	for range 50 {
		k := r.IntN(len(own) + 1)
		r.Shuffle(len(own), func(i, j int) { own[i], own[j] = own[j], own[i] })
		with := slices.Insert(slices.Clone(own), k, "the gribble was zorked at 13:13")
		got := retelling.Read(strings.Join(with, "; "), scene("pork-shoulder-bone-in"))
		assert.Equal(t, want, lines(got), strings.Join(with, "; "))
		assert.NotEmpty(t, got.Unread)
	}
}

func FuzzRead(f *testing.F) {
	for text := range told {
		f.Add(text)
	}
	f.Add("off at 99999999999999999999 h 30 min, 1e9 C")
	f.Fuzz(func(t *testing.T, text string) {
		got := retelling.Read(text, scene("beef-brisket-packer"))
		for _, a := range got.Acts {
			if a.At.Sub(on) > retelling.Longest || a.CoreC < 0 || a.CoreC > 110 || a.From[0] >= a.From[1] ||
				a.From[1] > len(text) {
				t.Fatalf("%q: %+v", text, a)
			}
		}
		for _, q := range got.Asks {
			if q.From[0] > q.From[1] || q.From[1] > len(text) || utf8.ValidString(text) &&
				!utf8.ValidString(text[q.From[0]:q.From[1]]) {
				t.Fatalf("%q: %+v", text, q)
			}
		}
	})
}

func BenchmarkFourThousandCharacters(b *testing.B) {
	text := ""
	for said := range acts {
		text += said + " at 4 hours; "
	}
	for len(text) < 4000 {
		text += text
	}
	text = text[:4000]
	for b.Loop() {
		retelling.Read(text, scene("pork-shoulder-bone-in"))
	}
}

func ExampleRead() {
	c, _ := cut.Find("pork-shoulder-bone-in")
	told := retelling.Read("off at nine hours, 203", retelling.Scene{On: on, Cut: c})
	fmt.Printf("%s %s %.0f °C\n", told.Acts[0].What, told.Acts[0].At.Format("15:04"), told.Acts[0].CoreC)
	// Output: off 17:00 95 °C
}
