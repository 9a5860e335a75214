package cooking_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/quantity"
	"verjuice/internal/testclock"
)

// Every mistake that a cook can make points at its field, and nothing panics.
func TestMistakesArePointedAt(t *testing.T) {
	type page = *cook.Cook
	for name, c := range map[string]struct {
		change func(page)
		at, id string
	}{
		"no name":   {func(c page) { c.Name = " " }, "/name", "cook.name"},
		"past":      {func(c page) { c.ServeAt = "1850-06-01T18:30" }, "/serve_at", "time.year"},
		"no date":   {func(c page) { c.ServeAt = "soon" }, "/serve_at", "time.form"},
		"no zone":   {func(c page) { c.Zone = "Atlantis/West" }, "/zone", "cook.zone"},
		"guests":    {func(c page) { c.Guests = "-3" }, "/guests", "number.range"},
		"children":  {func(c page) { c.Children = "-1" }, "/children", "number.range"},
		"appetite":  {func(c page) { c.Appetite = "wolfish" }, "/appetite", "choice.unknown"},
		"leftovers": {func(c page) { c.Leftovers = "5000" }, "/leftovers", "number.range"},
		"quiet":     {func(c page) { c.Quiet = "late" }, "/quiet", "quiet.unreadable"},
		"hands":     {func(c page) { c.Hands = "99" }, "/hands", "number.range"},
		"a volcano": {func(c page) { c.Pits = []cook.Pit{{Kind: "volcano"}} }, "/pits/0/kind", "pit.kind"},
		"a wide pit": {func(c page) { c.Pits = []cook.Pit{{Kind: "drum", Room: "wide"}} }, "/pits/0/room",
			"quantity.area"},
		"no such plan": {func(c page) { c.Plan = "never" }, "/plan", "choice.unknown"},
		"wish at noon": {func(c page) { c.Wishes = []cook.Wish{{Stage: "fire", At: "noon"}} }, "/wishes/0/at",
			"time.form"},
		"wish to sleep": {func(c page) { c.Wishes = []cook.Wish{{Stage: "sleep", At: "2026-11-28T10:00"}} },
			"/wishes/0/stage", "choice.unknown"},
		"huge brisket": {func(c page) { c.Pieces[0].Cut, c.Pieces[0].Trimmed = "beef-brisket-packer", "900 kg" },
			"/pieces/0/trimmed", "meat.weight"},
		"cups of meat": {func(c page) { c.Pieces[0].Trimmed = "2 cups" }, "/pieces/0/trimmed",
			"quantity.other-dimension"},
		"no weight":        {func(c page) { c.Pieces[0].Trimmed = "" }, "/pieces/0/bought", "meat.weight-needed"},
		"gained by trim":   {func(c page) { c.Pieces[0].Bought = "2 kg" }, "/pieces/0/trimmed", "meat.gained"},
		"impossible block": {func(c page) { c.Pieces[0].Thickness = "2 m" }, "/pieces/0/thickness", "meat.thickness"},
		"thick as a house": {func(c page) { c.Pieces[0].Thickness = "400 mm" }, "/pieces/0/thickness", "meat.thickness"},
		"no such cut":      {func(c page) { c.Pieces[0].Cut = "unicorn" }, "/pieces/0/cut", "cut.unknown"},
		"parts all zero": {func(c page) {
			c.Pieces[0].Season.Formula.Rows[0].Parts, c.Pieces[0].Season.Formula.Rows[1].Parts = "0", "0"
		}, "/pieces/0/season/formula/rows", "formula.empty"},
		"emoji parts": {func(c page) { c.Pieces[0].Season.Formula.Rows[1].Parts = "🌶" },
			"/pieces/0/season/formula/rows/1/parts", "quantity.unreadable"},
		"absurd target": {func(c page) { c.Pieces[0].Season.Target = "40 %" }, "/pieces/0/season/target", "season.target"},
		"no salt to target": {func(c page) {
			c.Pieces[0].Season.Mode = "target"
			c.Pieces[0].Season.Formula.Rows = c.Pieces[0].Season.Formula.Rows[1:]
		}, "/pieces/0/season/mode", "mix.no-salt"},
		"bare pit": {func(c page) { c.Pieces[0].Fire.Pit = "250" }, "/pieces/0/fire/pit",
			"quantity.celsius-or-fahrenheit"},
		"endless wait": {func(c page) { c.Pieces[0].Wait.For = "30 d" }, "/pieces/0/wait/for", "wait.too-long"},
		"warm fridge":  {func(c page) { c.Fridge = "40 °C" }, "/fridge", "temperature.range"},
		"many kinds":   {func(c page) { c.Pieces = make([]cook.Piece, 25) }, "/pieces", "list.too-long"},
		"one key": {func(c page) {
			c.Pieces = append(c.Pieces, c.Pieces[0])
			c.Pieces[0].Key, c.Pieces[1].Key = "a",
				"a"
		}, "/pieces/1/key", "piece.same-key"},
		"long name": {func(c page) { c.Pieces[0].Label = strings.Repeat("x", 300) }, "/pieces/0/label", "text.too-long"},
		"silk": {func(c page) { c.Pieces[0].Choices = map[string]string{"wrap": "silk"} },
			"/pieces/0/choices/wrap", "choice.unknown"},
		"a hat": {func(c page) { c.Pieces[0].Choices = map[string]string{"hat": "straw"} }, "/pieces/0/choices/hat",
			"decision.unknown"},
		"round grain": {func(c page) { c.Pieces[0].Grain = "200" }, "/pieces/0/grain", "piece.grain"},
		"bubbles": {func(c page) { c.Pieces[0].Bath = &cook.Bath{Kind: "bubble"} }, "/pieces/0/bath/kind",
			"choice.unknown"},
		"strong bath": {func(c page) { c.Pieces[0].Bath = &cook.Bath{Kind: "strong", Strength: "60 %"} },
			"/pieces/0/bath/strength", "percent.range"},
		"kilos of bath": {func(c page) { c.Pieces[0].Bath = &cook.Bath{Liquid: "3 kg"} }, "/pieces/0/bath/liquid",
			"quantity.other-dimension"},
		"endless bath": {func(c page) { c.Pieces[0].Bath = &cook.Bath{For: "30 d"} }, "/pieces/0/bath/for",
			"duration.range"},
		"pumped up": {func(c page) {
			c.Pieces[0].Inject = &cook.Injection{Formula: anycook.Bottle("x", "stock"), Pump: "90 %"}
		}, "/pieces/0/inject/pump", "percent.range"},
		"plutonium": {func(c page) { c.Pieces[0].Inject = &cook.Injection{Formula: anycook.Bottle("x", "plutonium")} },
			"/pieces/0/inject/formula/rows/0/ingredient", "ingredient.unknown"},
		"some glaze": {func(c page) {
			c.Pieces[0].Layers = []cook.Layer{{Kind: "glaze", Formula: anycook.Bottle("x", "honey"), Amount: "lots"}}
		}, "/pieces/0/layers/0/amount", "layer.amount"},
		"paint": {func(c page) {
			c.Pieces[0].Layers = []cook.Layer{{Kind: "paint", Formula: anycook.Bottle("x", "honey"), Amount: "1 g"}}
		}, "/pieces/0/layers/0/kind", "choice.unknown"},
		"one row weighed": {func(c page) { c.Pieces[0].Weighed = []string{"3 g"} }, "/pieces/0/weighed",
			"weighed.other-rows"},
	} {
		t.Run(name, func(t *testing.T) {
			page := anycook.Supper(anycook.Coated("pork-shoulder-bone-in", "3.6 kg"))
			c.change(&page)
			r := work(page)
			require.NotEmpty(t, r.Mistakes)
			assert.Equal(t, c.at, r.Mistakes[0].Pointer)
			assert.Equal(t, c.id, r.Mistakes[0].ID)
		})
	}
}

// A mistake blanks only what depends on it: an unreadable spritz leaves the figures of
// the rub.
func TestAMistakeBlanksOnlyWhatItTouches(t *testing.T) {
	p := anycook.Coated("pork-loin", "2 kg")
	p.Layers = []cook.Layer{{Kind: "spritz", Formula: anycook.Bottle("juice", "apple-juice"), Amount: "a bucketful"}}
	q := anycook.Coated("beef-brisket-packer", "5 kg")
	r := work(anycook.Supper(p, q))
	require.Len(t, r.Mistakes, 1)
	loin, packer := r.Pieces[0], r.Pieces[1]
	assert.NotNil(t, loin.Season, "the rub is weighed out")
	assert.NotNil(t, loin.Meat)
	assert.NotNil(t, loin.Clock)
	assert.Nil(t, loin.Ledger, "the salt is not known")
	assert.True(t, packer.Ready)
	require.NotNil(t, r.Plan)

	p.Layers, p.Grain = nil, "north"
	r = work(anycook.Supper(p, q))
	assert.NotNil(t, r.Pieces[0].Ledger)
	p.Grain, p.Fire.Time = "", "a while"
	r = work(anycook.Supper(p, q))
	assert.NotNil(t, r.Pieces[0].Season, "without a clock there is still a rub")
	assert.Nil(t, r.Pieces[0].Clock)
	assert.NotNil(t, r.Pieces[1].Clock)
	assert.NotEmpty(t, r.Pieces[0].Decided)
	p.Inject = &cook.Injection{Formula: anycook.Bottle("stock", "stock"), Pump: "some"}
	for _, broken := range []cook.Fire{{Time: "a while"}, {Pit: "hot"}, {Done: "done"}, {Temper: "long"}, {Rest: "long"}} {
		p.Fire = broken
		for id, f := range found(work(anycook.Supper(p)).Pieces[0]) {
			for name, v := range f.Values {
				assert.NotContains(
					t,
					[]any{quantity.Celsius(0), time.Duration(0)},
					v,
					"%s: %s of a pit or time that is not known",
					id,
					name,
				)
			}
		}
	}
}

// A cook-out that is over is worked out as any other, and nothing of it is late.
func TestAPastCookIsPlannedWithoutAnythingLate(t *testing.T) {
	c := anycook.Supper(anycook.Coated("pork-loin", "2 kg"))
	for _, days := range []int{-1, -51, -700} {
		c.ServeAt = testclock.At(days, "19:00")
		r := work(c)
		assert.Empty(t, r.Mistakes)
		assert.True(t, r.Past())
		p := r.Plan.Result.Plans[r.Plan.Chosen]
		assert.False(t, p.Overdue)
		for _, k := range p.Conflicts {
			assert.NotContains(t, []string{"late", "overdue"}, k.Why.ID, k)
		}
		assert.Empty(t, r.Pieces[0].Clock.Over)
	}
}

// A cook that is late is not over: something of it is on the fire.
func TestALateCookIsNotPast(t *testing.T) {
	c := anycook.Supper(anycook.Coated("pork-loin", "2 kg"))
	c.Pieces[0].Key, c.Zone = "a", "UTC"
	c.ServeAt = noon.UTC().Add(-10 * time.Minute).Format(cook.TimeLayout)
	on := facts.Facts{anycook.Done(1, c.Pieces[0].Key, "fire", noon.UTC().Add(-3*time.Hour).Format(cook.TimeLayout))}
	assert.False(t, workWith(c, on, nothing, cooking.Clock{Now: noon}).Past())
	assert.True(t, workWith(c, nil, nothing, cooking.Clock{Now: noon}).Past())
}

// A move before the wrap is laid before it, whoever wraps, and a rhythm begins after its first interval.
func TestMovesAroundTheWrap(t *testing.T) {
	for what, wrap := range map[string]func(p *cook.Piece){
		"the usual wrap": func(p *cook.Piece) { p.Choices = map[string]string{"wrap": "foil"} },
		"a wrap of one's own": func(p *cook.Piece) {
			p.Choices = map[string]string{"wrap": "none"}
			p.Moves = append(p.Moves, cook.Move{Key: "w", What: "wrap", When: "71 °C", With: "foil"})
		},
	} {
		p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
		p.Moves = []cook.Move{anycook.Own("look", "20 min before the wrap"), anycook.Own("turn", "every 90 min")}
		wrap(&p)
		r := work(anycook.Supper(p))
		require.Empty(t, r.Mistakes, what)
		at := map[string]time.Time{}
		for _, k := range r.Plan.Result.Plans[r.Plan.Chosen].Tasks {
			if at[k.Stage].IsZero() {
				at[k.Stage] = k.At
			}
		}
		assert.InDelta(t, 20, at["wrap"].Sub(at["look"]).Minutes(), 5, what)
		assert.InDelta(t, 90, at["turn"].Sub(at["fire"]).Minutes(), 10, what)
	}
}
