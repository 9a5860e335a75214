package sheet

import (
	"reflect"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// The same coat salts a rack harder than a shoulder, and the figure says why.
func TestFiguresSayWhereTheyComeFrom(t *testing.T) {
	s := page(
		t,
		anycook.Supper(
			anycook.Coated("pork-shoulder-bone-in", "3.6 kg"),
			anycook.Coated("pork-spare-ribs-squared", "1.2 kg"),
		),
		Reader{},
	)
	assert.Contains(t, s.Pieces[1].Ledger.Percent.Where.Explanation, "2.8 ×")
	assert.Contains(t, s.Pieces[0].Meat.Comparison, "about as much surface as a pork shoulder")
	texts(reflect.ValueOf(s), "", func(at, text string) {
		if strings.HasSuffix(at, ".Percent.Where.Source") {
			assert.NotEmpty(t, text, at)
		}
	})
}

// A mistake names the place, the rule and the values beside its sentence, and the
// sentence speaks the reader's units.
func TestMistakesSpeakTheReadersUnits(t *testing.T) {
	c := anycook.Supper(anycook.Coated("pork-loin", "2 kg"))
	c.Fridge = "40 °C"
	for units, want := range map[quantity.System]string{quantity.Metric: "°C", quantity.US: "°F"} {
		s := told(cooking.CookRequest{Cook: c}, noon, Reader{Units: units})
		require.Len(t, s.Errors, 1)
		assert.Contains(t, s.Errors[0].Message, want)
		assert.Equal(t, "temperature.range", s.Errors[0].ID)
		assert.Equal(t, field.Error{Pointer: "/fridge"}.Pointer, s.Errors[0].Pointer)
	}
}

func TestAway(t *testing.T) {
	now := time.Date(2026, 11, 23, 12, 0, 0, 0, time.UTC)
	assert.Equal(t, "in 2 d 4 h", away(now.Add(52*time.Hour), now))
	assert.Equal(t, "3 h ago", away(now.Add(-3*time.Hour), now))
	assert.Equal(t, "22 days ago", away(now.AddDate(0, 0, -22), now))
}

// A rub weighed out, in a cook's preview and alone.
func BenchmarkScale(b *testing.B) {
	r := cooking.PieceRequest{Piece: anycook.Coated("pork-shoulder-bone-in", "3.6 kg")}
	b.ReportAllocs()
	for b.Loop() {
		p, err := r.Work(b.Context(), nothing, cooking.Seasons)
		require.NoError(b, err)
		WriteSeason(p, Reader{})
	}
}

// Six pieces, worked out and written.
func BenchmarkSheet(b *testing.B) {
	c := anycook.Supper(
		anycook.Coated("pork-shoulder-bone-in", "3.6 kg"),
		anycook.Coated("pork-spare-ribs-squared", "1.2 kg"),
		anycook.Coated("beef-brisket-packer", "5 kg"),
		anycook.Coated(
			"chicken-leg",
			"300 g",
		),
		anycook.Coated("venison-haunch", "1.8 kg"),
		anycook.Coated("pork-loin", "2 kg"),
	)
	b.ReportAllocs()
	for b.Loop() {
		told(cooking.CookRequest{Cook: c}, noon, Reader{})
	}
}

// Everything that can be pressed at a pit, and everything that calls somebody, has its words.
func TestEveryPressHasItsWord(t *testing.T) {
	for _, what := range facts.Stages {
		assert.NotEmpty(t, pressed(what), what)
	}
	for _, s := range facts.Signs {
		assert.NotEmpty(t, seenWords[s.ID], s.ID)
	}
	for _, kind := range []string{"pit-low", "pit-high", "probe", "wrap", "off", "hold", "feed"} {
		assert.NotEmpty(t, alarmWords[kind][0], kind)
	}
}
