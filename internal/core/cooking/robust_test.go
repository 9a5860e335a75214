package cooking_test

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"path"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/forecast"

	"verjuice/internal/core/order"
	"verjuice/internal/core/provisions"
	"verjuice/internal/testclock"
)

// asJSON is every number of a result, told apart by its pieces' keys.
func asJSON(t *testing.T, v any) string {
	raw, err := json.Marshal(v)
	require.NoError(t, err)
	return string(raw)
}

// The order of the pieces on the page makes no difference, the same input gives the
// same result, and the input is not changed.
func TestOrderPlaysNoPartAndNothingIsChanged(t *testing.T) {
	testclock.Undated(t)
	r := rand.New(rand.NewPCG(33, 34))
	for range 8 {
		c, f := anycook.Whole(r)
		for i := range 3 {
			p := anycook.Piece(r)
			if i > 0 {
				p.Key = fmt.Sprint("c", i) // one has none, and gets its own
			}
			c.Pieces = append(c.Pieces, p)
		}
		before := asJSON(t, c) + asJSON(t, f)
		o := order.Parse(c, nothing)
		parsed := asJSON(t, o)
		one, err := cooking.Work(t.Context(), o, f, nothing, cooking.Clock{Now: noon, Forecast: forecast.WhileTyping{}})
		require.NoError(t, err)
		assert.Equal(t, before, asJSON(t, c)+asJSON(t, f), "what is typed stays as it is")
		assert.Equal(t, parsed, asJSON(t, o), "and so does what was understood")
		again, err := cooking.Work(t.Context(), o, f, nothing, cooking.Clock{Now: noon, Forecast: forecast.WhileTyping{}})
		require.NoError(t, err)
		assert.Equal(t, asJSON(t, one), asJSON(t, again), "the same every time")

		other := c
		other.Pieces = slices.Clone(c.Pieces)
		r.Shuffle(len(other.Pieces), func(i, j int) { other.Pieces[i], other.Pieces[j] = other.Pieces[j], other.Pieces[i] })
		two := work(other, f...)
		assert.Equal(t, one.Servings.Range, two.Servings.Range)
		for _, p := range one.Pieces {
			i := slices.IndexFunc(two.Pieces, func(q cooking.Piece) bool { return q.Line.Key == p.Line.Key })
			require.GreaterOrEqual(t, i, 0)
			q := two.Pieces[i]
			assert.Equal(
				t,
				asJSON(t, []any{p.Meat, p.Bath, p.Needle, p.Season, p.Ledger, p.Depth, p.Clock, p.Decided, p.Findings}),
				asJSON(
					t,
					[]any{q.Meat, q.Bath, q.Needle, q.Season, q.Ledger, q.Depth, q.Clock, q.Decided, q.Findings},
				),
				p.Line.Typed.Cut,
			)
		}
		if one.Plan != nil {
			assert.Equal(
				t,
				asJSON(t, one.Plan.Result.Plans[one.Plan.Chosen].Tasks),
				asJSON(t, two.Plan.Result.Plans[two.Plan.Chosen].Tasks),
			)
		}
	}
}

// resolves reports whether a JSON pointer names a value of a document.
func resolves(doc any, pointer string) bool {
	for _, part := range strings.Split(pointer, "/")[1:] {
		switch d := doc.(type) {
		case map[string]any:
			next, ok := d[strings.NewReplacer("~1", "/", "~0", "~").Replace(part)]
			if !ok {
				return false
			}
			doc = next
		case []any:
			i := 0
			for _, c := range part {
				i = i*10 + int(c-'0')
			}
			if i >= len(d) {
				return false
			}
			doc = d[i]
		default:
			return false
		}
	}
	return true
}

// finite reports whether every number below v is one.
func finite(v reflect.Value) bool {
	switch v.Kind() {
	case reflect.Float64:
		return !math.IsNaN(v.Float()) && !math.IsInf(v.Float(), 0)
	case reflect.Pointer, reflect.Interface:
		return v.IsNil() || finite(v.Elem())
	case reflect.Slice:
		for i := range v.Len() {
			if !finite(v.Index(i)) {
				return false
			}
		}
	case reflect.Struct:
		if _, clock := v.Interface().(time.Time); clock {
			return true
		}
		for i := range v.NumField() {
			if v.Type().Field(i).IsExported() && !finite(v.Field(i)) {
				return false
			}
		}
	}
	return true
}

// Whatever is typed wherever, nothing panics, every mistake points at a value that
// is there, and every figure is a number.
func TestNothingTypedBreaksTheCore(t *testing.T) {
	r := rand.New(rand.NewPCG(71, 72))
	wrong := 0
	for range testclock.Rounds(200) {
		c, f := anycook.Whole(r)
		anycook.Spoil(r, &c, 1+r.IntN(4))
		if r.IntN(3) == 0 {
			anycook.Spoil(r, &f[0], 1)
		}
		var doc any
		require.NoError(t, json.Unmarshal([]byte(asJSON(t, c)), &doc))
		got := work(c, f...)
		for _, one := range got.Pieces {
			if one.Ledger != nil {
				assert.GreaterOrEqual(t, one.Ledger.Percent.Mid, 0.0, "%+v", c)
			}
			assert.True(
				t,
				finite(
					reflect.ValueOf([]any{one.Meat, one.Bath, one.Needle, one.Season, one.Ledger, one.Depth, one.Clock, one.Findings}),
				),
				"%+v",
				c,
			)
		}
		assert.True(
			t,
			finite(reflect.ValueOf([]any{got.Servings, got.Needed, got.Buy, provisions.Cost(got), got.Plan})),
			"%+v",
			c,
		)
		for _, e := range got.Mistakes {
			wrong++
			at := e.Pointer
			if e.ID == "quantity.missing" { // a field that is empty may be left out of the page
				at = path.Dir(at)
			}
			assert.True(t, resolves(doc, at), "%s (%s) is not in %+v", e.Pointer, e.ID, c)
		}
		provisions.List(got)
	}
	assert.Greater(t, wrong, testclock.Rounds(120))
}

// The stages of a page are read into a list of moves in working order, each source of
// it with an id of its own.
func TestMovesStandInWorkingOrder(t *testing.T) {
	working := []order.MoveKind{
		order.Thaw, order.Brine, order.Inject, order.Season, order.Wait, order.Temper, order.On, order.Spritz,
		order.Wrap, order.Glaze,
		order.Off, order.Rest, order.Slice, order.Finish,
	}
	p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	p.Choices = map[string]string{"state": "frozen", "spritz": "45", "wrap": "foil"}
	p.Bath, p.Inject = &cook.Bath{}, &cook.Injection{Formula: anycook.Bottle("stock", "stock")}
	p.Season.Binder = true
	for _, kind := range []string{"finish", "glaze", "spritz", "dusting", "base"} { // typed in any order
		p.Layers = append(p.Layers, cook.Layer{Kind: kind, Formula: anycook.Bottle(kind, "soy-sauce"), Amount: "1 g"})
	}
	moves := order.Parse(anycook.Supper(p), nothing).Lines[0].Sound()
	ids := map[dose.ID]bool{}
	seen, last := map[order.MoveKind]bool{}, 0
	for _, m := range moves {
		at := slices.Index(working, m.Kind)
		// What is on the fire may alternate: spritz, wrap, glaze.
		if m.Kind != order.Spritz && m.Kind != order.Wrap && m.Kind != order.Glaze {
			assert.GreaterOrEqual(t, at, last, "%s comes too late", m.Kind)
			last = at
		} else {
			assert.Equal(t, slices.Index(working, order.On), last, "%s is on the fire", m.Kind)
		}
		seen[m.Kind] = true
		if m.Dose != nil {
			assert.False(t, ids[m.Dose.ID()], m.Dose.ID())
			ids[m.Dose.ID()] = true
		}
	}
	for _, kind := range working {
		assert.True(t, seen[kind], kind)
	}
	assert.Len(t, ids, 9, "bath, injection, binder, rub and five layers")
}
