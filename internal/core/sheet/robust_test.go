package sheet

import (
	"encoding/json"
	"math"
	"math/rand/v2"
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/formula"
	"verjuice/internal/testclock"
)

// nasty is what fields are filled with by mistake, by machines and by malice.
var nasty = []string{
	"", " ", "-1", "0", "1e999", "NaN", "∞", "½", "1/0", "0/0 kg", "100000000 kg", "\x00", "🔥🔥", strings.Repeat("9", 400), "%", "0 %", "-5 %", "1000 %",
	"null", "2 Tbsp", "3 °C", "-300 °C", "kg", "1 h", "99 d", "2026-02-30T25:61", "../../etc", "<script>", "1,2,3 kg", "1 kg + 2 L", "inf", "0.0000001 g", "23:00-23:00", "\u202e1 kg",
}

// spoil puts something nasty into n fields of v, whatever they are.
func spoil(r *rand.Rand, v reflect.Value, n int) {
	var fields []reflect.Value
	var look func(v reflect.Value)
	look = func(v reflect.Value) {
		switch v.Kind() {
		case reflect.Pointer:
			if !v.IsNil() {
				look(v.Elem())
			}
		case reflect.Struct:
			for i := range v.NumField() {
				look(v.Field(i))
			}
		case reflect.Slice:
			for i := range v.Len() {
				look(v.Index(i))
			}
		case reflect.String, reflect.Int:
			fields = append(fields, v)
		case reflect.Map:
			fields = append(fields, v)
		}
	}
	look(v)
	for range n {
		switch f := pick(r, fields); f.Kind() {
		case reflect.String:
			f.SetString(pick(r, nasty))
		case reflect.Int:
			f.SetInt(pick(r, []int64{-1, 0, 1, 7, 1 << 40, math.MinInt64}))
		case reflect.Map:
			f.Set(reflect.ValueOf(map[string]string{pick(r, []string{"wrap", "rest", "x/y~z", ""}): pick(r, nasty)}))
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

// wholePage is a page with everything on it.
func wholePage(r *rand.Rand) Cook {
	p, q := anyPiece(r), anyPiece(r)
	p.Key, q.Key = "a", "b"
	p.Bath = &Bath{Kind: "strong", Strength: "3 %", For: "8 h", Pot: "60 L", With: []Dose{{Formula: bottle("juice", "apple-juice"), Amount: "20 %"}}}
	p.Inject = &Injection{Formula: bottle("stock", "stock"), Pump: "5 %", Avoid: []string{"bone"}}
	p.Layers = []Layer{{Kind: "glaze", Formula: anyMix(r, "glaze"), Amount: "light"}}
	p.Choices, p.Grain = map[string]string{"wrap": "foil"}, "20"
	c := supper(p, q)
	c.Children, c.Appetite, c.Quiet = 2, "light", "22-6"
	c.Pits = []PitTyped{{Name: "one", Kind: "drum", Room: "20"}, {Name: "two", Kind: "gas"}}
	c.Marks = []Mark{
		{Piece: "a", Stage: pick(r, markable), At: testclock.At(4, "20:00"), Done: true}, {Piece: "b", Stage: pick(r, markable), At: testclock.At(5, "18:00")},
		{Piece: pick(r, []string{"a", "b", "gone"}), Stage: pick(r, markable), At: pick(r, []string{"2026-01-01T00:00", testclock.At(5, "17:00"), testclock.At(160, "00:00")}), Done: r.IntN(2) == 0},
	}
	c.Acks = []Ack{{Piece: "a", Rule: "x", What: "y", At: "z"}}
	return c
}

// Whatever is typed wherever, nothing panics, every mistake points at a value that
// is there, and no figure is not a number.
func TestNothingTypedBreaksTheSheet(t *testing.T) {
	r := rand.New(rand.NewPCG(71, 72))
	wrong := 0
	for range 500 {
		c := wholePage(r)
		spoil(r, reflect.ValueOf(&c).Elem(), 1+r.IntN(4))
		raw, err := json.Marshal(c)
		require.NoError(t, err)
		var doc any
		require.NoError(t, json.Unmarshal(raw, &doc))
		s := Compute(c, Options{Now: noon})
		for _, one := range s.Pieces {
			if one.Ledger != nil {
				assert.GreaterOrEqual(t, one.Ledger.Percent.Value, 0.0, "%s", raw)
				assert.NotEmpty(t, one.Depth.Moments)
			}
		}
		for _, e := range s.Errors {
			wrong++
			assert.NotEmpty(t, e.Detail)
			assert.True(t, resolves(doc, e.Pointer), "%s (%s) is not in %s", e.Pointer, e.Detail, raw)
		}
		_, err = json.Marshal(s) // fails on what is not a number
		require.NoError(t, err, "%s", raw)
		shop := Shop(c, Options{Now: noon})
		_, err = json.Marshal(shop)
		require.NoError(t, err)
	}
	assert.Greater(t, wrong, 300)
}

// The same for a formula on the bench and the batch that is asked of it.
func TestNothingTypedBreaksTheBench(t *testing.T) {
	r := rand.New(rand.NewPCG(73, 74))
	for range 3000 {
		q := FormulaRequest{Formula: anyMix(r, "x"), Batch: formula.Batch{
			Fix: pick(r, []string{"", "total", "row", "jar", "guests", "salt", "coat", "pump", "pot"}), Amount: "5 %", Guests: 4, Meat: "2 kg", Cut: "pork-loin", Round: pick(r, []string{"", "spoons", "1 g"}),
		}}
		spoil(r, reflect.ValueOf(&q).Elem(), 1+r.IntN(3))
		raw, err := json.Marshal(q)
		require.NoError(t, err)
		s := WorkOut(q, Options{})
		_, err = json.Marshal(s)
		require.NoError(t, err, "%s", raw)
		for _, e := range s.Errors {
			assert.True(t, strings.HasPrefix(e.Pointer, "/formula") || strings.HasPrefix(e.Pointer, "/batch"), e.Pointer)
		}
	}
}
