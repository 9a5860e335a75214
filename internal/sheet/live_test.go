package sheet_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/app"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/quantity"
	"verjuice/internal/sheet"
)

// BenchmarkLive is how five pieces on three pits stand after six hours, each time with five minutes
// more that were read: the forecast of each is anew.
func BenchmarkLive(b *testing.B) {
	on := time.Date(2026, 11, 28, 7, 0, 0, 0, time.UTC)
	r, course := cooking.CookRequest{}, facts.Course{}
	var pieces []cook.Piece
	for i, cut := range []string{"lamb-shoulder-bone-in", "beef-chuck-roll", "pork-loin", "chicken-leg",
		"venison-haunch"} {
		p := anycook.Coated(cut, "3 kg")
		p.Key, p.Fire.On = fmt.Sprint("p", i), i%3
		pieces = append(pieces, p)
		r.Facts = append(
			r.Facts,
			facts.Fact{ID: uuid.NewString(), Kind: facts.Done, Piece: p.Key, What: "fire", At: on.Format(time.RFC3339)},
		)
	}
	r.Cook = anycook.Supper(pieces...)
	r.Cook.Zone, r.Cook.ServeAt = "UTC", "2026-11-28T20:30"
	r.Cook.Pits = []cook.Pit{{Name: "a", Kind: "pellet"}, {Name: "b", Kind: "kettle"}, {Name: "c", Kind: "offset"}}
	read := func(at time.Time) {
		for i := range pieces {
			course.Add(
				facts.Reading{Probe: fmt.Sprint("core:p", i), At: at, C: quantity.Celsius(5 + 8*at.Sub(on).Hours())},
				facts.Reading{Probe: fmt.Sprint("pit:", i%3), At: at, C: 118},
			)
		}
	}
	now := on
	for ; now.Before(on.Add(6 * time.Hour)); now = now.Add(time.Minute) {
		read(now)
	}
	for b.Loop() {
		now = now.Add(5 * time.Minute)
		read(now)
		out, err := app.Inputs{CookRequest: r, Now: now, Course: course}.Live(b.Context())
		require.NoError(b, err)
		sheet.WriteLive(out, sheet.Reader{})
	}
}

// Each of a few pieces of a line may have its own probe: the coldest of them is shown as its core, and each by name.
func TestEachPieceOfALineMayHaveAProbe(t *testing.T) {
	on := time.Date(2026, 11, 28, 9, 0, 0, 0, time.UTC)
	p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	p.Key, p.Count = "a", "2"
	var r cooking.CookRequest
	r.Cook = anycook.Supper(p)
	r.Cook.Zone, r.Cook.ServeAt = "UTC", "2026-11-28T20:30"
	r.Facts = facts.Facts{{ID: uuid.NewString(), Kind: facts.Done, Piece: "a", What: "fire", At: on.Format(time.RFC3339)}}
	course := facts.Course{}
	for m := range 120 {
		at := on.Add(time.Duration(m) * time.Minute)
		course.Add(facts.Reading{Probe: "core:a:first one", At: at, C: quantity.Celsius(5 + 0.2*float64(m))},
			facts.Reading{Probe: "core:a:second one", At: at, C: quantity.Celsius(5 + 0.15*float64(m))})
	}
	out, err := app.Inputs{CookRequest: r, Now: on.Add(2 * time.Hour), Course: course}.Live(t.Context())
	require.NoError(t, err)
	piece := sheet.WriteLive(out, sheet.Reader{}).Pieces[0]
	assert.Contains(t, piece.Probed, "second one")
	assert.Contains(t, piece.Core.Text, "22.8", "the coldest")
	require.Len(t, piece.Places, 2)
	assert.Equal(t, "first one", piece.Places[0].Note)
}
