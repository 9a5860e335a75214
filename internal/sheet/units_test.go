package sheet

import (
	"reflect"
	"regexp"
	"strings"
	"testing"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/quantity"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// metric is an amount in metric units that stands alone: not "60 °C / 140 °F".
var metric = regexp.MustCompile(`[0-9] ?(g|kg|mL|L|mm|cm|dm²|kg/L|°C)(?:$|[^\pL/0-9] ?[^/]|[^\pL/ ])`)

// customary fails for an amount in metric units on a page with US units, other than the
// milligrams of a label and what explains a figure.
func customary(t *testing.T, answer any) {
	t.Helper()
	texts(reflect.ValueOf(answer), "", func(at, text string) {
		if strings.Contains(at, ".Where") || strings.Contains(at, "Errors.") || strings.HasSuffix(at, ".Form") ||
			strings.HasSuffix(at, ".Usual") ||
			strings.HasSuffix(at, ".Value") ||
			strings.HasSuffix(at, ".Source") ||
			strings.HasSuffix(at, ".Authority") ||
			strings.HasSuffix(at, ".Explanation") {
			return
		}
		assert.False(t, metric.MatchString(text), "%s: %s", at, text)
	})
}

// What empty fields mean is the same in either units.
func TestUsualValuesMeanTheSame(t *testing.T) {
	a, b := UsualValues(quantity.Metric), UsualValues(quantity.US)
	same := func(read func(string) (float64, error), metric, us string) {
		t.Helper()
		x, err := read(metric)
		require.NoError(t, err, metric)
		y, err := read(us)
		require.NoError(t, err, us)
		assert.InEpsilon(t, x, y, 0.03, "%s and %s", metric, us)
	}
	mass := func(s string) (float64, error) { m, err := quantity.ParseMass(s); return m.KG(), err }
	kelvin := func(s string) (float64, error) { c, err := quantity.ParseTemperature(s); return c.Kelvin(), err }
	mm := func(s string) (float64, error) { l, err := quantity.ParseLength(s); return l.MM(), err }
	ml := func(s string) (float64, error) {
		v, err := quantity.ParseVolume(s, quantity.USSpoons)
		return v.ML(), err
	}
	same(mass, a.Portion, b.Portion)
	same(kelvin, a.Fridge, b.Fridge)
	same(kelvin, a.Room, b.Room)
	same(kelvin, a.BathHot, b.BathHot)
	same(mm, a.Spacing, b.Spacing)
	same(mm, a.Bore, b.Bore)
	same(ml, a.Syringe, b.Syringe)
}

// What may have been meant stands under the field as a press: a bare temperature in the
// scales that make sense there, and the wrap that a time names.
func TestWhatMayHaveBeenMeant(t *testing.T) {
	for name, try := range map[string]struct {
		spoil func(p *cook.Piece)
		offer Offer
	}{
		"a bare core": {func(p *cook.Piece) { p.Fire.Done = "203" },
			Offer{"203 °F", []Edit{{Pointer: "/pieces/0/fire/done", Value: "203 °F"}}}},
		"a bare pit": {func(p *cook.Piece) { p.Fire.Pit = "225 degrees" },
			Offer{"225 °C", []Edit{{Pointer: "/pieces/0/fire/pit", Value: "225 °C"}}}},
		"a wrap": {func(p *cook.Piece) { p.Fire.Rest = "1 h in foil" },
			Offer{"1 h, wrapped in foil", []Edit{{Pointer: "/pieces/0/fire/rest", Value: "1 h"},
				{Pointer: "/pieces/0/choices/wrap", Value: "foil"}}}},
		"a range": {func(p *cook.Piece) { p.Season.Mode, p.Season.Amount = "amount", "2-1 Tbsp" },
			Offer{"2 Tbsp", []Edit{{Pointer: "/pieces/0/season/amount", Value: "2 Tbsp"}}}},
	} {
		c := anycook.Supper(anycook.Coated("pork-shoulder-bone-in", "3 kg"))
		try.spoil(&c.Pieces[0])
		errs := page0(t, c).Errors
		require.Len(t, errs, 1, name)
		require.NotEmpty(t, errs[0].Offers, name)
		assert.Equal(t, try.offer, errs[0].Offers[0], name)
		assert.Equal(t, errs[0].Pointer, try.offer.Edits[0].Pointer, name)
	}
}

// A bath that comes to rest with meat like ham says when to lift it out; one that gets there only after days says that
// it cannot get saltier.
func TestABathThatIsTooStrongToForget(t *testing.T) {
	for salt, says := range map[string]string{"30 g/L": "it cannot get saltier", "90 g/L": "Lift it out after"} {
		c := anycook.Supper(anycook.Coated("pork-tenderloin", "0.5 kg"))
		c.Pieces[0].Bath = &cook.Bath{Kind: "equilibrium", Salt: salt, Liquid: "2 L", For: "24 h"}
		sheet := page0(t, c)
		require.Empty(t, sheet.Errors, salt)
		assert.Contains(t, sheet.Pieces[0].Bath.Window, says, salt)
	}
}

// page0 is a page with what is wrong with it.
func page0(t *testing.T, c cook.Cook) Sheet {
	t.Helper()
	return told(cooking.CookRequest{Cook: c}, noon, Reader{})
}

// Without a rub the ledger has no line of it, and the source that gives way is still found.
func TestNoRubHasNoLine(t *testing.T) {
	p := anycook.Coated("pork-loin", "2 kg")
	p.Season = cook.Season{Mode: "target", Target: "1 %", Free: "layer-0"}
	p.Inject = &cook.Injection{Formula: anycook.Brine("5 g"), Pump: "6 %"}
	p.Layers = []cook.Layer{{Kind: "finish", Formula: anycook.Bottle("flakes", "sea-salt"), Amount: "1 g"}}
	s := page(t, anycook.Supper(p), Reader{}).Pieces[0]
	require.Len(t, s.Ledger.Lines, 2)
	assert.Equal(t, "flakes", s.Ledger.Lines[s.Ledger.Freed.Line].Name)
	assert.True(t, s.NoRub)
	assert.Equal(t, "1.00", s.Ledger.Percent.Text)
}
