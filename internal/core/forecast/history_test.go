package forecast_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/forecast"

	"verjuice/internal/core/heat"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

var on = time.Date(2026, 11, 28, 6, 0, 0, 0, time.UTC)

func fact(kind facts.Kind, piece, what string, h float64, values field.Values) facts.Fact {
	at := on.Add(time.Duration(h * float64(time.Hour)))
	return facts.Fact{
		ID:     fmt.Sprint(kind, piece, what, h),
		Kind:   kind,
		Piece:  piece,
		What:   what,
		At:     at.Format(time.RFC3339),
		Values: values,
	}
}

func read(probe string, h, c float64) facts.Reading {
	return facts.Reading{Probe: probe, At: on.Add(time.Duration(h * float64(time.Hour))), C: quantity.Celsius(c)}
}

// What was done stands at its time, what is left comes from now on, and nothing is known of what
// lies ahead.
func TestWhatIsLeftFollowsFromWhatWas(t *testing.T) {
	all := facts.Facts{
		fact(facts.Done, "a", "fire", 0, nil),
		fact(facts.Done, "", "set", 2, field.Values{"pit": 0.0, "c": 130.0}),
		fact(facts.Done, "", "set", 3, field.Values{"pit": 1.0, "c": 180.0}),
		fact(facts.Seen, "a", "bark", 3, field.Values{"how": "scratches"}),
		fact(facts.Seen, "a", "bark", 4, field.Values{"how": "holds"}),
		fact(facts.Seen, "a", "feel", 4.5, field.Values{"how": "firm"}),
		fact(facts.Seen, "a", "feel", 5.5, field.Values{"how": "soft"}),
		fact(facts.Done, "a", "wrap", 5, field.Values{"kind": "paper"}),
		fact(facts.Done, "b", "wrap", 1, nil),
		fact(facts.Done, "a", "off", 9, nil),
	}
	at := forecast.Scope{Piece: "a", Zone: time.UTC, Now: on.Add(6 * time.Hour)}
	h, lit := forecast.HistoryOf(
		all,
		[]facts.Reading{
			read("core:a", 1, 20),
			read("core:a", 7, 80),
			read("pit:0", 1, 104),
			read("pit:1", 1, 190),
			read("core:b", 1, 40),
		},
		at,
	)
	require.True(t, lit)
	assert.Equal(t, 6.0, h.NowH)
	assert.True(t, h.Off.IsZero(), "it comes off later")
	assert.Equal(t, []heat.Reading{{AtH: 1, CoreC: 20, ByEye: true}}, h.Core)
	assert.Equal(t, []heat.SetPoint{{AtH: 1, SetC: 104}}, h.Pit)
	assert.Equal(t, heat.SeenBark{NotH: 3, SetH: 4}, h.Bark)
	assert.Equal(t, forecast.Felt{NotH: 4.5, SoftH: 5.5}, h.Felt)
	early := h.Until(4.2)
	assert.Empty(t, early.Wraps)
	assert.Equal(t, heat.SeenBark{NotH: 3, SetH: 4}, early.Bark)
	core := when.At(when.Cond{CoreC: 71})
	b := h.Apply(
		forecast.FireInput{
			PitC:  110,
			Steps: []heat.SetPoint{{AtH: 1, SetC: 120}, {AtH: 8, SetC: 140}},
			Wraps: []heat.Wrap{{Kind: "foil", When: core, PitC: 150}, {Kind: "none", When: core}},
		},
	)
	assert.Equal(t, heat.Wrap{Kind: "paper", When: when.At(when.Cond{After: 5 * time.Hour})}, b.Wraps[0])
	assert.Equal(t, heat.Wrap{Kind: "none", When: core, NotBeforeH: 6}, b.Wraps[1])
	assert.Equal(t, []heat.SetPoint{{AtH: 1, SetC: 120}, {AtH: 2, SetC: 130}, {AtH: 8, SetC: 140}}, b.Steps)
	at.Piece = "b"
	_, lit = forecast.HistoryOf(all, nil, at)
	assert.False(t, lit, "it was wrapped, but nothing says that it is on")
}

// A probe that is pulled out and put back, or touches the bone for a moment, says nothing of the
// piece meanwhile; of two places the colder one counts.
func TestAProbeThatIsOut(t *testing.T) {
	var all []facts.Reading
	for m := 0; m < 180; m++ {
		h := float64(m) / 60
		all = append(all, read("core:a", h, 20+15*h), read("core:a:point", h, 25+15*h))
		if m > 100 && m < 120 {
			all[len(all)-2].C, all[len(all)-1].C = 18, 19
		}
	}
	all[2*60].C, all[2*60+1].C = 110, 110
	h, _ := forecast.HistoryOf(
		facts.Facts{fact(facts.Done, "a", "fire", 0, nil)},
		all,
		forecast.Scope{Piece: "a", Zone: time.UTC, Now: on.Add(3 * time.Hour)},
	)
	assert.Greater(t, len(h.Core), 28)
	for _, r := range h.Core {
		assert.InDelta(t, 20+15*r.AtH, r.CoreC, 0.1)
	}
}

// A fire that went out leaves the pit cold until it is lit again, at what it was set to; probes that
// show 2 °C in ice water read that much too high, from the start.
func TestAFireThatWentOut(t *testing.T) {
	all := facts.Facts{
		fact(facts.Done, "a", "fire", 0, nil),
		fact(facts.Done, "", "out", 3, field.Values{"pit": 0.0}),
		fact(facts.Done, "", "relit", 4.5, field.Values{"pit": 0.0}),
	}
	at := forecast.Scope{Piece: "a", Zone: time.UTC, Now: on.Add(6 * time.Hour), ProbeC: 2}
	h, _ := forecast.HistoryOf(all, []facts.Reading{read("core:a", 1, 22), read("pit:0", 1, 104)}, at)
	assert.Equal(t, []heat.Reading{{AtH: 1, CoreC: 20, ByEye: true}}, h.Core)
	b := h.Apply(forecast.FireInput{PitC: 110, Steps: []heat.SetPoint{{AtH: 1, SetC: 120}}})
	assert.Equal(t, []heat.SetPoint{{AtH: 1, SetC: 120}, {AtH: 3, SetC: 30}, {AtH: 4.5, SetC: 120}}, b.Steps)
}
