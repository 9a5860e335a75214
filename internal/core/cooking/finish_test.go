package cooking_test

import (
	"strconv"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/testclock"
)

// The finish is the cook's: core temperature, time, yield and how it is served follow it,
// on every cut that has several.
func TestTheFinishMovesEverything(t *testing.T) {
	several := 0
	for _, c := range cut.All() {
		last := map[string]float64{}
		for _, f := range c.Finishes {
			p := anycook.Coated(c.ID, quantity.FormatMass(quantity.Mass(c.TypicalKG), quantity.Metric))
			p.Choices = map[string]string{"finish": string(f)}
			s := one(t, p)
			core := float64(s.Clock.Done)
			now := map[string]float64{"core": core, "hours": s.Clock.Fire.Mid.Hours(), "yield": s.Meat.Served.Mid}
			as := c.As(f)
			assert.Equal(t, as.DoneC(), core, "%s %s", c.ID, f)
			for _, d := range s.Decided {
				if d.Key == decision.Slice {
					assert.Equal(t, as.Custom().Slice, d.Value, "%s %s", c.ID, f)
				}
			}
			if len(last) > 0 && core != last["core"] {
				several++
				assert.Equal(t, core > last["core"], now["hours"] > last["hours"], "%s %s: hotter is longer", c.ID, f)
				assert.Equal(t, core > last["core"], now["yield"] < last["yield"], "%s %s: hotter leaves less", c.ID, f)
			}
			last = now
		}
	}
	assert.Greater(t, several, 15)
	for id, usual := range map[string]cut.Finish{"beef-brisket-packer": "sliced", "beef-brisket-flat": "sliced",
		"beef-brisket-point": "sliced", "beef-plate-ribs": "sliced", "beef-short-ribs": "sliced",
		"pork-shoulder-bone-in": "pulled", "beef-tri-tip": "pink", "beef-top-round": "pink", "pork-back-ribs": "bones",
		"chicken-whole": "done"} {
		c, _ := cut.Find(id)
		assert.Equal(t, usual, c.Finish, id)
	}
	// A finish that the cut does not have is refused in words.
	p := anycook.Coated("pork-back-ribs", "0.9 kg")
	p.Choices = map[string]string{"finish": "pink"}
	wrong := work(anycook.Supper(p)).Mistakes
	require.Len(t, wrong, 1)
	assert.Equal(t, "/pieces/0/choices/finish", wrong[0].Pointer)
}

// 49 and 98 °C are not the same cook, and in between time and loss never fall.
func TestTheCoreTemperatureMovesTimeAndYield(t *testing.T) {
	for _, id := range []string{"beef-brisket-packer", "lamb-leg-bone-in", "chicken-whole", "pork-spare-ribs"} {
		c, _ := cut.Find(id)
		hours, yield := 0.0, 1e9
		for _, core := range []string{"49 °C", "54 °C", "60 °C", "66 °C", "74 °C", "85 °C", "95 °C", "98 °C"} {
			p := anycook.Coated(id, quantity.FormatMass(quantity.Mass(c.TypicalKG), quantity.Metric))
			p.Fire.Done = core
			s := one(t, p)
			assert.Greater(t, s.Clock.Fire.Mid.Hours(), hours, "%s to %s", id, core)
			assert.Less(t, s.Meat.Served.Mid, yield, "%s to %s", id, core)
			hours, yield = s.Clock.Fire.Mid.Hours(), s.Meat.Served.Mid
		}
	}
}

// Field experience in round numbers: hours on the fire, and served of trimmed weight.
func TestTheEnvelope(t *testing.T) {
	testclock.Undated(t)
	for _, try := range []struct {
		cut, weight, thick, pit, done, wrap string
		low, high                           float64 // h
	}{
		{"beef-brisket-packer", "5 kg", "", "120 °C", "95 °C", "paper", 9, 13},
		{"beef-brisket-packer", "5 kg", "95 mm", "120 °C", "95 °C", "paper", 8, 13},
		{"pork-shoulder-bone-in", "3.6 kg", "", "120 °C", "95 °C", "none", 9, 13},
		{"pork-shoulder-bone-in", "3.6 kg", "", "120 °C", "95 °C", "foil", 7, 10},
		{"beef-plate-ribs", "2.5 kg", "", "125 °C", "95 °C", "none", 7, 9},
		{"turkey-breast", "1.5 kg", "", "135 °C", "71 °C", "none", 2, 3},
		{"chicken-half", "0.9 kg", "", "135 °C", "74 °C", "none", 1.5, 2.5},
		{"chicken-whole", "1.8 kg", "", "163 °C", "74 °C", "none", 1.25, 1.85},
		{"chicken-whole", "1.8 kg", "", "135 °C", "74 °C", "none", 2, 2.75},
		{"turkey-whole", "6 kg", "", "163 °C", "74 °C", "none", 3, 3.75},
		{"turkey-whole", "6 kg", "", "135 °C", "74 °C", "none", 4, 4.75},
		{"pork-spare-ribs-squared", "1.2 kg", "", "135 °C", "", "foil", 3, 5},
		{"pork-spare-ribs", "1.5 kg", "", "120 °C", "", "none", 4, 6},
		{"beef-top-round", "2 kg", "", "135 °C", "54 °C", "none", 1.7, 2.4},
		{"beef-top-round", "2 kg", "", "135 °C", "63 °C", "none", 2.3, 3.5},
		{"beef-tri-tip", "1.1 kg", "", "120 °C", "54 °C", "none", 1, 1.5},
	} {
		p := anycook.Coated(try.cut, try.weight)
		p.Thickness, p.Fire.Pit, p.Fire.Done = try.thick, try.pit, try.done
		p.Choices = map[string]string{"wrap": try.wrap}
		if try.cut == "pork-shoulder-bone-in" && try.wrap == "foil" {
			p.Choices["wrap-at"] = "66" // as the stall begins
		}
		p.Key = "one"
		hours := workWith(anycook.Supper(p), nil, nothing, cooking.Clock{Now: noon,
			Forecast: forecast.Ensemble{}}).Pieces[0].Clock.Fire.Mid.Hours()
		assert.True(t, try.low <= hours && hours <= try.high, "%+v: %.1f h", try, hours)
	}
	for id, span := range map[string][2]float64{
		"chicken-whole": {0.38, 0.45}, "chicken-wing": {0.30, 0.38}, "pork-spare-ribs": {0.38, 0.46},
		"pork-small-whole":      {0.25, 0.35},
		"pork-shoulder-bone-in": {0.45, 0.55}, "beef-brisket-packer": {0.50, 0.58},
	} {
		c, _ := cut.Find(id)
		s := one(t, anycook.Coated(id, quantity.FormatMass(quantity.Mass(c.TypicalKG), quantity.Metric)))
		served := s.Meat.Served.Mid / c.TypicalKG
		assert.True(t, span[0] <= served && served <= span[1], "%s: %.2f of its trimmed weight", id, served)
	}
	// A thick end of plate ribs is not a block of it.
	p := anycook.Coated("beef-plate-ribs", "3 kg")
	p.Thickness = "127 mm"
	assert.Less(t, one(t, p).Clock.Fire.Mid, 16*time.Hour)
	back, _ := cut.Find("pork-back-ribs")
	g, err := cut.New(back, quantity.Mass(back.TypicalKG), 0)
	require.NoError(t, err)
	assert.InDelta(t, 400, g.Length.MM(), 30, "back ribs")
	chicken, _ := cut.Find("chicken-whole")
	g, err = cut.New(chicken, 1.8, 0)
	require.NoError(t, err)
	assert.InDelta(t, 14, 100*g.Surface(), 2.5, "dm² of skin, wings, legs and cavity of a chicken")
}

// Names cooks use find the cut, and no name means two.
func TestNamesCooksUse(t *testing.T) {
	byName := map[string]string{}
	for _, c := range cut.All() {
		require.NotEmpty(t, c.Also, c.ID)
		for _, name := range c.Also {
			assert.Empty(t, byName[name], "%s is %s, too", name, c.ID)
			byName[name] = c.ID
		}
	}
	for name, id := range map[string]string{"boston butt": "pork-shoulder-bone-in",
		"pulled pork": "pork-shoulder-bone-in", "st louis": "pork-spare-ribs-squared", "spareribs": "pork-spare-ribs",
		"neck end": "pork-neck", "collar": "pork-neck",
		"chuck": "beef-chuck-roll", "bison": "bison-chuck", "topside": "beef-top-round", "silverside": "beef-silverside",
		"poussin": "small-bird", "baby back ribs": "pork-back-ribs", "five-bone plate ribs": "beef-plate-ribs-five"} {
		assert.Equal(t, id, byName[name], name)
	}
}

// A membrane that stays on keeps the coat off the bone side; a sausage brings its own salt.
func TestWhatTheMeatBringsAlong(t *testing.T) {
	p := anycook.Coated("pork-spare-ribs", "1.5 kg")
	coated := func(membrane string) cooking.Piece {
		p.Choices = map[string]string{"membrane": membrane}
		return one(t, p)
	}
	assert.Less(t, coated("on").Season.OnMeat.Mid, 0.7*coated("off").Season.OnMeat.Mid)
	links := anycook.Coated("links", "120 g")
	links.Season = cook.Season{}
	assert.InDelta(t, 1.7, one(t, links).Ledger.Percent.Mid, 1e-9)
	links.Season = anycook.Coated("links", "120 g").Season
	links.Season.Mode, links.Season.Target = "target", "1.5 %"
	assert.Equal(t, "salt.others-too-much", work(anycook.Supper(links)).Mistakes[0].ID)
}

// Depth and ledger speak of the same meat: on every cut, bone in or out, skin on or off, by
// rub, bath, needle and base together, their salt agrees to one in a hundred.
func TestDepthAndLedgerAgree(t *testing.T) {
	testclock.Undated(t)
	for _, c := range cut.All() {
		for _, faces := range []string{"all", "one"} {
			p := anycook.Coated(c.ID, quantity.FormatMass(quantity.Mass(c.TypicalKG), quantity.Metric))
			p.Faces = faces
			p.Bath = &cook.Bath{Kind: "strong", Salt: "50 g/L", For: "10 h"}
			p.Inject = &cook.Injection{Formula: anycook.Brine("6 g"), Pump: "6 %"}
			p.Layers = []cook.Layer{{Kind: "base", Formula: anycook.Bottle("base", "table-salt"), Amount: "0.1 %"}}
			s := one(t, p)
			end := s.Depth.Course.End
			path := s.Depth.Brine.Path
			lies := s.Depth.Brine.Load * (1 + path.Shape) / (salt.MeatDensity * float64(path.Depth))
			held := 100 * (end.Mean + end.OnSurface*lies)
			assert.InEpsilon(t, s.Ledger.Percent.Mid, held, 0.01, "%s, %s", c.ID, faces)
			assert.Greater(
				t,
				s.Ledger.Outer.Mid,
				s.Ledger.Percent.Mid,
				"%s, %s: saltier outside than in the middle",
				c.ID,
				faces,
			)
			for _, v := range end.Profile {
				assert.GreaterOrEqual(t, v, 0.0)
			}
		}
	}
}

// Two shoulders of one line have each their own weight and thickness: the line waits for the
// thicker, and what goes on all is shared by surface.
func TestUnlikePieces(t *testing.T) {
	p := anycook.Coated("pork-shoulder-bone-in", "")
	p.Each = []cook.One{{Trimmed: "2.4 kg"}, {Trimmed: "4.8 kg", Thickness: "150 mm"}}
	s := one(t, p)
	m := s.Line.Meat.Value
	assert.Equal(t, 2, m.Count)
	assert.InDelta(t, 7.2, s.Meat.AllGreen.Mid, 1e-9)
	alone := func(weight, thick string) cooking.Piece {
		q := anycook.Coated("pork-shoulder-bone-in", weight)
		q.Thickness = thick
		return one(t, q)
	}
	small, big := alone("2.4 kg", ""), alone("4.8 kg", "150 mm")
	// Other members are drawn for other pieces: their middle is within a twentieth.
	assert.InEpsilon(t, big.Clock.Fire.Mid.Hours(), s.Clock.Fire.Mid.Hours(), 0.05, "ready when the last is")
	assert.InEpsilon(t, small.Clock.Fire.Mid.Hours(), s.Meat.Each[0].Fire.Mid.Hours(), 0.05)
	assert.InEpsilon(t, big.Clock.Fire.Mid.Hours(), s.Meat.Each[1].Fire.Mid.Hours(), 0.05)
	assert.InEpsilon(t, small.Season.OnMeat.Mid+big.Season.OnMeat.Mid, s.Season.OnMeat.Mid, 1e-9)
	assert.InEpsilon(t, small.Season.OnMeat.Mid, s.Season.OnMeat.Mid*s.Meat.Each[0].Share, 1e-9)
	assert.InDelta(t, 1, s.Meat.Each[0].Share+s.Meat.Each[1].Share, 1e-12)
	p.Each[1].Trimmed = "soon"
	wrong := work(anycook.Supper(p)).Mistakes
	require.NotEmpty(t, wrong)
	assert.Equal(t, "/pieces/0/each/1/trimmed", wrong[0].Pointer)
	p.Each[1] = cook.One{}
	assert.Equal(t, "/pieces/0/each/1/bought", work(anycook.Supper(p)).Mistakes[0].Pointer)
}

// A rest of twenty minutes and one of three hours are not the same clock.
func TestTheRestMovesTheClock(t *testing.T) {
	fire := func(id, rest string) time.Time {
		c, _ := cut.Find(id)
		p := anycook.Coated(id, quantity.FormatMass(quantity.Mass(c.TypicalKG), quantity.Metric))
		p.Fire.Rest = rest
		return one(t, p).Clock.Times.Fire
	}
	for _, id := range []string{"beef-tri-tip", "pork-spare-ribs", "chicken-whole", "lamb-leg-bone-in", "beef-cheek"} {
		earlier := fire(id, "20 min").Sub(fire(id, "3 h"))
		assert.Greater(t, earlier, time.Hour, id)
	}
}

// Every cut that is wrapped at a core temperature has its time for it in the plan: after it
// goes on, before it is off, the hotter the later; none when it is done before.
func TestTheWrapHasItsTime(t *testing.T) {
	wrapped := 0
	for _, c := range cut.All() {
		last := time.Duration(0)
		for _, at := range []string{"0", "49", "60", "66", "71", "77"} {
			p := anycook.Coated(c.ID, quantity.FormatMass(quantity.Mass(c.TypicalKG), quantity.Metric))
			p.Choices = map[string]string{"wrap": "foil", "wrap-at": at}
			worked := work(anycook.Supper(p))
			if len(worked.Mistakes) > 0 {
				assert.Equal(t, "/pieces/0/choices/wrap-at", worked.Mistakes[0].Pointer)
				continue // not offered for this cut
			}
			s := worked.Pieces[0]
			core, err := strconv.ParseFloat(at, 64)
			require.NoError(t, err)
			now := s.Clock.Times
			if core == 0 || core >= float64(s.Clock.Done) {
				assert.Zero(t, now.Wrap, "%s at %s", c.ID, at)
				continue
			}
			wrapped++
			assert.True(t, now.Wrap.After(now.Fire) && now.Wrap.Before(now.Off), "%s at %s: %s", c.ID, at, now.Wrap)
			assert.GreaterOrEqual(t, now.Wrap.Sub(now.Fire), last, "%s at %s", c.ID, at)
			last = now.Wrap.Sub(now.Fire)
		}
	}
	assert.Greater(t, wrapped, 60)
}
