package firecalc

import (
	"encoding/json"
	"errors"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
)

func read(t *testing.T, text string) FireRequest {
	var r FireRequest
	require.NoError(t, json.Unmarshal([]byte(text), &r))
	return r
}

const shoulder = `{"piece": {"cut": "pork-shoulder-bone-in", "mass_kg": 3.6, "start_c": 4}, "pit": {"steps": [{"at_h": 0, "set_c": 120}]}, "thresholds_c": [60, 74, 95]}`

// Each mistake is told at its place, all of them at once, and nothing is computed.
func TestMistakesAtTheirPlace(t *testing.T) {
	for text, want := range map[string][]string{
		`{}`: {"/piece/cut", "/pit/steps"},
		`{"piece": {"cut": "unicorn", "mass_kg": 1}, "pit": {"steps": [{"at_h": 0, "set_c": 120}]}}`:                                           {"/piece/cut"},
		`{"piece": {"cut": "beef-round", "mass_kg": 0}, "pit": {"steps": [{"at_h": 0, "set_c": 900}]}}`:                                        {"/piece/mass_kg", "/pit/steps/0/set_c"},
		`{"piece": {"cut": "beef-round", "mass_kg": 2, "thickness_mm": 1}, "pit": {"steps": [{"at_h": 0, "set_c": 120}]}}`:                     {"/piece/thickness_mm"},
		`{"piece": {"cut": "beef-round", "mass_kg": 2, "finish": "fried"}, "pit": {"kind": "campfire", "steps": [{"at_h": 0, "set_c": 120}]}}`: {"/piece/finish", "/pit/kind"},
		`{"piece": {"cut": "beef-round", "mass_kg": 2}, "pit": {"steps": [{"at_h": 4, "set_c": 120}, {"at_h": 2, "set_c": 120}]}}`:             {"/pit/steps/1/at_h"},
		`{"piece": {"cut": "beef-round", "mass_kg": 2}, "pit": {"steps": [{"at_h": 0, "set_c": 120}]}, "wraps": [{"kind": "silk", "at_core_c": 300, "pit_c": 2}], "wrap_tight": "very", "members": 3, "thresholds_c": [900], "readings": [{"at_h": -1, "core_c": 1e9}], "opened_every_min": 0.001, "spritz_every_min": -3, "bark_at_h": -2, "ambient": {"air_c": -200, "wind_m_s": 500}}`: {
			"/wraps/0/kind", "/wraps/0/at_core_c", "/wraps/0/pit_c", "/ambient/air_c", "/ambient/wind_m_s",
			"/opened_every_min", "/spritz_every_min", "/wrap_tight", "/members", "/bark_at_h", "/thresholds_c/0",
			"/readings/0/at_h", "/readings/0/core_c"},
	} {
		_, err := Calc(t.Context(), read(t, text))
		var list field.Errors
		require.True(t, errors.As(err, &list), text)
		at := []string{}
		for _, e := range list {
			at = append(at, e.Pointer)
		}
		assert.ElementsMatch(t, want, at, text)
	}
	_, err := CalcRest(
		RestRequest{
			Piece:   FirePiece{Cut: "beef-round", MassKG: 2},
			FromC:   500,
			Wrap:    "silk",
			Place:   "moon",
			PlaceC:  900,
			VentMin: -1,
			Hours:   1e9,
		},
	)
	assert.Len(t, err, 6)
	nan := read(t, shoulder)
	nan.Piece.MassKG = math.NaN()
	_, err = Calc(t.Context(), nan)
	assert.Error(t, err, "not a number is out of range")
}

// The same request gives the same bytes, whatever else runs; another seed gives another draw
// of the same thing.
func TestTheSameRequestGivesTheSameBytes(t *testing.T) {
	r := read(t, shoulder)
	a, err := Calc(t.Context(), r)
	require.NoError(t, err)
	b, err := Calc(t.Context(), r)
	require.NoError(t, err)
	one, _ := json.Marshal(a)
	two, _ := json.Marshal(b)
	assert.JSONEq(t, string(one), string(two))
	r.Seed = 99
	c, err := Calc(t.Context(), r)
	require.NoError(t, err)
	three, _ := json.Marshal(c)
	assert.NotEqual(t, string(one), string(three))
	assert.InEpsilon(t, *a.Done.P50, *c.Done.P50, 0.08)
	assert.Equal(t, "core", a.Done.By)
	assert.Equal(t, 95.0, a.Done.CoreC)
}

// Whatever can be asked for has an answer that is JSON, in order: bands rise, the core never
// passes the pit by more than it can, hotter thresholds are later, shares are shares.
func TestWhateverIsAsked(t *testing.T) {
	r := rand.New(rand.NewPCG(2, 71))
	cuts := cut.All()
	kinds := []string{"", "pellet", "cabinet", "kettle", "drum", "ceramic", "offset", "gas", "oven"}
	for range 60 {
		c := cuts[r.IntN(len(cuts))]
		q := FireRequest{
			Piece: FirePiece{
				Cut:    c.ID,
				MassKG: c.LowKG * math.Pow(c.HighKG/c.LowKG, r.Float64()*1.6-0.3),
				StartC: new(25 * r.Float64()),
				Finish: string(c.Finishes[r.IntN(len(c.Finishes))]),
			},
			Pit: FirePit{
				Kind:  kinds[r.IntN(len(kinds))],
				Steps: []FireStep{{0, 25 + 275*r.Float64()}},
			}, Members: 20, Seed: r.Uint64(),
			ThresholdsC: []float64{-5, 4, 30, 60, 74, 95, 150},
		}
		for range r.IntN(3) {
			q.Wraps = append(
				q.Wraps,
				FireWrap{
					Kind:    []string{"foil", "paper", "pan", "boat", "bacon", "none"}[r.IntN(6)],
					AtCoreC: 100 * r.Float64(),
					AtH:     10 * r.Float64(),
					PitC:    60 + 200*r.Float64(),
				},
			)
		}
		if r.IntN(3) == 0 {
			for range 2 {
				q.Readings = append(q.Readings, FireReading{5 * r.Float64(), 120 * r.Float64(), r.IntN(2) == 0})
			}
		}
		if r.IntN(3) == 0 {
			q.Ambient = &FireWeather{AirC: -40 + 90*r.Float64(), Wind: 30 * r.Float64(), Rain: true}
		}
		q.OpenedEveryMin, q.SpritzEveryMin = 5+60*r.Float64(), 5+60*r.Float64()
		a, err := Calc(t.Context(), q)
		require.NoError(t, err, "%+v", q)
		_, err = json.Marshal(a)
		require.NoError(t, err, "%+v", q)
		last := 0.0
		for _, h := range a.Thresholds {
			rising := []float64{}
			for _, p := range []*float64{h.P10, h.P50, h.P90} {
				if p != nil {
					rising = append(rising, *p)
				}
			}
			assert.True(t, slices.IsSorted(rising), "%+v", q)
			assert.True(t, h.Never >= 0 && h.Never <= 1)
			assert.Equal(t, h.P90 == nil, h.Never >= 0.1-1e-9 && h.P90 == nil, "%+v", q)
			if h.P50 != nil {
				assert.GreaterOrEqual(t, *h.P50, last)
				last = *h.P50
			} else {
				last = math.Inf(1)
			}
		}
		for _, p := range a.Curve {
			assert.True(t, p.P10 <= p.P50 && p.P50 <= p.P90 && p.P90 < 420 && p.P10 > -45, "%+v", q)
		}
		assert.True(t, a.Yield.P10 >= 0 && a.Yield.P90 < 1)
	}
}

// Readings narrow what is to come, and a cook that runs late is told as late.
func TestReadingsMoveTheForecast(t *testing.T) {
	before, err := Calc(t.Context(), read(t, shoulder))
	require.NoError(t, err)
	for pace, later := range map[float64]bool{0.75: false, 1.3: true} {
		r := read(t, shoulder)
		for _, p := range before.Curve {
			if at := p.H * pace; len(r.Readings) < 4 && p.H >= float64(len(r.Readings)+1) {
				r.Readings = append(r.Readings, FireReading{AtH: at, CoreC: p.P50})
			}
		}
		after, err := Calc(t.Context(), r)
		require.NoError(t, err)
		assert.Equal(t, later, *after.Done.P50 > *before.Done.P50, "pace %g", pace)
		relative := func(b HourBand) float64 { return (*b.P90 - *b.P10) / *b.P50 }
		assert.Less(t, relative(after.Done.HourBand), 0.9*relative(before.Done.HourBand))
		assert.Less(
			t,
			relative(after.Thresholds[1].HourBand),
			0.7*relative(before.Thresholds[1].HourBand),
			"four readings take a third off the band of the time to the wrap",
		)
		// What was read lies in the band that is told for then.
		for i, seen := range r.Readings {
			at := after.Curve[int(math.Round(seen.AtH*12))]
			assert.InDelta(t, seen.CoreC, at.P50, 3.5, "reading %d at pace %g", i, pace)
		}
	}
}

// A bark that was seen early says that the surface dries fast: what is forecast of it moves to
// when it was seen, and the band of the hours narrows.
func TestASeenBarkMovesTheForecast(t *testing.T) {
	before, err := Calc(t.Context(), read(t, shoulder))
	require.NoError(t, err)
	for _, at := range []float64{*before.Bark.P10, *before.Bark.P90} {
		r := read(t, shoulder)
		r.BarkAtH = at
		after, err := Calc(t.Context(), r)
		require.NoError(t, err)
		assert.InEpsilon(t, at, *after.Bark.P50, 0.25)
		assert.Equal(t, at > *before.Bark.P50, *after.Bark.P50 > *before.Bark.P50)
		relative := func(b HourBand) float64 { return (*b.P90 - *b.P10) / *b.P50 }
		assert.Less(t, relative(after.Done.HourBand), relative(before.Done.HourBand))
	}
}

// A measured thickness, a told tightness and readings each take something off the band.
func TestWhatNarrowsTheBand(t *testing.T) {
	width := func(change func(r *FireRequest)) float64 {
		r := read(
			t,
			`{"piece": {"cut": "beef-brisket-packer", "mass_kg": 5, "start_c": 4}, "pit": {"steps": [{"at_h": 0, "set_c": 120}]}, "wraps": [{"kind": "foil", "at_core_c": 74}]}`,
		)
		change(&r)
		a, err := Calc(t.Context(), r)
		require.NoError(t, err)
		return *a.Done.P90 - *a.Done.P10
	}
	unknown := width(func(*FireRequest) {})
	assert.Less(t, width(func(r *FireRequest) { r.Piece.ThicknessMM = 95 }), unknown)
	assert.Less(t, width(func(r *FireRequest) { r.WrapTight = "usual" }), unknown)
}

// What is said to narrow the band does: told to take so much off, measuring takes about that,
// and what was told is not asked for again.
func TestWhatIsSaidToNarrowDoes(t *testing.T) {
	ask := func(change func(r *FireRequest)) FireAnswer {
		r := read(
			t,
			`{"piece": {"cut": "beef-brisket-packer", "mass_kg": 5, "start_c": 4}, "pit": {"steps": [{"at_h": 0, "set_c": 120}]}, "wraps": [{"kind": "foil", "at_core_c": 74}], "members": 400}`,
		)
		change(&r)
		a, err := Calc(t.Context(), r)
		require.NoError(t, err)
		return a
	}
	said := func(a FireAnswer, what string) float64 {
		i := slices.IndexFunc(a.Narrows, func(n Narrowing) bool { return n.What == what })
		if i < 0 {
			return 0
		}
		return a.Narrows[i].BandH
	}
	width := func(a FireAnswer) float64 { return *a.Done.P90 - *a.Done.P10 }
	plain := ask(func(*FireRequest) {})
	require.NotEmpty(t, plain.Narrows)
	assert.True(t, slices.IsSortedFunc(plain.Narrows, func(a, b Narrowing) int { return int(1e6 * (b.BandH - a.BandH)) }))
	for what, change := range map[string]func(r *FireRequest){
		"thickness": func(r *FireRequest) { r.Piece.ThicknessMM = 94.7 },
		"wrap":      func(r *FireRequest) { r.WrapTight = "usual" },
	} {
		told := ask(change)
		assert.InDelta(t, said(plain, what), width(plain)-width(told), 0.12*width(plain), what)
		assert.Zero(t, said(told, what), what)
	}
	assert.Zero(t, said(ask(func(r *FireRequest) { r.Wraps = nil }), "wrap"))
	assert.Zero(t, said(ask(func(r *FireRequest) { r.Pit.Kind = "pellet" }), "pit"))

	// A first reading is taken at two hours: where the middle runs then, or at either end.
	assert.Equal(t, "reading", plain.Narrows[0].What, "a first reading says most")
	taken, n := 0.0, 0
	at := slices.IndexFunc(plain.Curve, func(p CurvePoint) bool { return p.H >= 2 })
	for _, core := range []float64{plain.Curve[at].P10, plain.Curve[at].P50, plain.Curve[at].P90} {
		told := ask(func(r *FireRequest) { r.Readings = []FireReading{{AtH: plain.Curve[at].H, CoreC: core}} })
		t.Log(core, width(plain), width(told), plain.Narrows)
		taken, n = taken+width(plain)-width(told), n+1
	}
	assert.InDelta(t, said(plain, "reading"), taken/float64(n), 0.12*width(plain))
}

// A dry brine on the fire: salt goes on moving inwards, some goes with the juice, and the slice
// is saltier than the raw meat was.
func TestADryBrineOnTheFire(t *testing.T) {
	r := read(t, shoulder)
	r.Salt = &FireSalt{Grams: 30, WaitH: 12}
	a, err := Calc(t.Context(), r)
	require.NoError(t, err)
	s := a.Salt
	assert.Greater(t, s.After.Middle, s.Before.Middle)
	assert.Greater(t, s.Served.Mean, s.After.Mean)
	assert.InDelta(t, s.Before.Mean, s.After.Mean+s.Lost, 0.005)
	assert.InDelta(t, 30/3.6/0.87/10, s.Before.Mean, 0.02, "the mean is of boneless meat")
	foiled := r
	foiled.Wraps = []FireWrap{{Kind: "foil", AtCoreC: 66}}
	b, err := Calc(t.Context(), foiled)
	require.NoError(t, err)
	assert.GreaterOrEqual(t, b.Salt.Lost, s.Lost, "juice runs off in foil, and dries on a bare surface")
	r.Salt = &FireSalt{Grams: 1e6, WaitH: -1}
	_, err = Calc(t.Context(), r)
	assert.Len(t, err, 2)
}
