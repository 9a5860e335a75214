package facts_test

import (
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// What cannot be is set aside and shown, what was taken back moves nothing, and what somebody stands by counts; a probe
// that was moved is believed again, and nothing is lost of what came.
func TestReadingsAreJudged(t *testing.T) {
	on := time.Date(2026, 11, 28, 9, 0, 0, 0, time.UTC)
	at := func(min float64) time.Time { return on.Add(time.Duration(min * float64(time.Minute))) }
	read := func(probe string, min, c float64) facts.Reading {
		return facts.Reading{Probe: probe, At: at(min), C: quantity.Celsius(c)}
	}
	course := facts.Course{}
	for m := range 120 { // a probe that stays in
		course.Add(read("core:a", float64(m), 5+0.4*float64(m)), read("pit:0", float64(m), 118))
	}
	course.Add(read("core:a", 60.5, 500), read("core:a", 80.5, -40), read("core:a", 100.5, 75), read("pit:0", 30.5, 999))
	course.Add(read("core:b", 30, 30), read("core:b", 30.2, 515), read("core:b", 90, 68)) // by eye
	said := func(kind facts.Kind, probe string, from, to float64) facts.Fact {
		f := facts.Fact{ID: uuid.NewString(), Kind: kind, What: probe, At: "2026-11-28T12:00", Values: field.Values{
			"from": at(from).Format(time.RFC3339Nano), "to": at(to).Format(time.RFC3339Nano)}}
		require.Empty(t, f.Check())
		return f
	}
	whys := func(all []facts.Aside) map[string]int {
		out := map[string]int{}
		for _, a := range all {
			out[a.Probe+" "+a.Why] += a.Count
		}
		return out
	}
	out, aside := course.Judged(nil)
	assert.Equal(t, map[string]int{
		"core:a too-hot": 1, "core:a too-cold": 1, "core:a jump": 1, "pit:0 too-hot": 1, "core:b too-hot": 1,
	}, whys(aside))
	for probe, minutes := range out {
		for _, m := range minutes {
			assert.True(t, m.Sound() && m.High < 119 && m.Low > 4 && m.Count == 1, "%s %v", probe, m)
		}
		assert.Len(t, minutes, len(course[probe]), "the rest of the minute stays")
	}
	assert.EqualValues(t, 500, course["core:a"][60].Last, "what came stays")

	back := said(facts.Uncounted, "core:b", 90, 90)
	out, aside = course.Judged(facts.Facts{back})
	assert.Len(t, out["core:b"], 1)
	assert.Equal(t, 1, whys(aside)["core:b took-back"])
	again := facts.Fact{ID: uuid.NewString(), Kind: facts.Withdrawn, What: back.ID, At: "2026-11-28T12:01"}
	out, _ = course.Judged(facts.Facts{back, again})
	assert.Len(t, out["core:b"], 2, "and that is taken back as well")
	out, aside = course.Judged(facts.Facts{said(facts.Counted, "core:a", 100.5, 100.5)})
	last, _ := out.Until("core:a", at(100.6))
	assert.EqualValues(t, 75, last.C)
	assert.Zero(t, whys(aside)["core:a jump"], "what goes on as before still counts")
	wide, narrow := said(facts.Uncounted, "core:a", 0, 119), said(facts.Counted, "core:a", 10, 12)
	out, _ = course.Judged(facts.Facts{wide, narrow})
	assert.Len(t, out["core:a"], 3, "what was said last counts")
	_, aside = course.Judged(facts.Facts{narrow, wide})
	assert.Equal(t, 123, whys(aside)["core:a took-back"])
	out, _ = course.Judged(facts.Facts{said(facts.Uncounted, "core:a", 50, 70)})
	assert.Len(t, out["core:a"], 99, "twenty minutes of a probe, both ends included")

	moved := facts.Course{}
	for m := range 60 { // into another piece after half an hour
		c := 60.0
		if m >= 30 {
			c = 12 + 0.3*float64(m-30)
		}
		moved.Add(read("core:a", float64(m), c))
	}
	out, aside = moved.Judged(nil)
	assert.Empty(t, aside)
	assert.Equal(t, moved, out)

	for _, f := range []facts.Fact{
		{ID: uuid.NewString(), Kind: facts.Uncounted, What: "oven", At: "2026-11-28T12:00"},
		{ID: uuid.NewString(), Kind: facts.Counted, What: "core:a", At: "2026-11-28T12:00",
			Values: field.Values{"from": "2026-11-28T12:00:00Z", "to": "2026-11-28T11:00:00Z"}},
	} {
		assert.NotEmpty(t, f.Check())
	}
	eyes := course.ByEye(at(200), 10)
	require.Len(t, eyes, 3)
	assert.Equal(t, "core:b", eyes[0].Probe)
	assert.EqualValues(t, 68, eyes[0].C)
}
