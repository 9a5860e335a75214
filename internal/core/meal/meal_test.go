package meal

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var now = time.Date(2026, 11, 29, 10, 0, 0, 0, time.UTC)

func supper(items ...Item) Meal {
	for i := range items {
		items[i].Key = fmt.Sprint(i)
	}
	return Meal{Name: "Monday", ServeAt: "2026-11-30T19:00", Zone: "UTC", Items: items}
}

func work(t *testing.T, m Meal, kept map[string]Kept) Plan {
	p := Work(m, kept, now)
	require.Empty(t, p.Wrong)
	return p
}

// Everything is hot when it is served, in order: in, looked at, out and on the table; what takes
// longest goes in first, and the oven is hot by then.
func TestItIsHotInTime(t *testing.T) {
	p := work(
		t,
		supper(
			Item{Form: "pulled", Weight: "3 kg"},
			Item{Form: "racks", Weight: "2 kg"},
			Item{Form: "sliced", Weight: "500 g", Dish: "salad"},
			Item{Form: "pieces", Weight: "1 kg", Kept: "freezer"},
		),
		nil,
	)
	at := map[string]time.Time{}
	for i, task := range p.Tasks {
		at[fmt.Sprint(task.Stage, task.Item)] = task.At
		if i > 0 {
			assert.False(t, task.At.Before(p.Tasks[i-1].At))
		}
	}
	for n, one := range p.Items {
		if one.Dish.ID == Cold {
			assert.NotContains(t, at, fmt.Sprint("in", n))
			continue
		}
		assert.False(t, one.In.Add(one.Takes.High).Add(one.Form.Finish).After(p.Serve), "%+v", one)
		assert.False(t, one.In.Before(at["light-1"].Add(20*time.Minute)))
		assert.True(t, one.Takes.Low < one.Takes.Mid && one.Takes.Mid < one.Takes.High)
		assert.True(t, one.From.Before(one.By))
	}
	assert.Equal(t, "30 07:00", at["thaw3"].Format("2 15:04"), "eleven hours before")
	lunch := supper(Item{Weight: "1 kg", Kept: "freezer"})
	lunch.ServeAt = "2026-11-30T13:00"
	assert.Equal(t, "29 21:00", work(t, lunch, nil).Tasks[0].At.Format("2 15:04"), "nobody gets up for it")
	assert.Equal(t, p.Serve, at["serve-1"])
	assert.Zero(t, p.Sooner)

	// Deeper, or in a cooler oven, it goes in no later; a deep tray is told to be too slow.
	deeper := supper(Item{Form: "pulled", Weight: "3 kg", Deep: "9 cm"})
	slow := work(t, deeper, nil)
	assert.True(t, slow.Items[0].In.Before(p.Items[0].In))
	assert.Equal(t, "reheat-slow", slow.Found[0].ID)
	deeper.Set = "110 °C"
	assert.True(t, work(t, deeper, nil).Items[0].In.Before(slow.Items[0].In))
	late := supper(Item{Form: "pulled", Weight: "1 kg"})
	late.ServeAt = "2026-11-29T10:30"
	assert.True(t, work(t, late, nil).Sooner.After(now.Add(time.Hour)))
}

// Portions and weight say one another; what was kept bounds both; more trays than fit are warmed one
// after another.
func TestPortions(t *testing.T) {
	p := work(
		t,
		supper(
			Item{
				Weight: "1 kg",
			},
			Item{For: "10", Dish: "soup"},
			Item{For: "10", Weight: "1 kg"},
			Item{Each: "100 g", Weight: "1 kg", Dish: "roll"},
			Item{},
			Item{Weight: "1 kg"},
		),
		map[string]Kept{"4": {KG: 2, ElsewhereKG: 0.5}, "5": {KG: 1.2, ElsewhereKG: 0.5}},
	)
	feeds := []int{}
	for _, one := range p.Items {
		feeds = append(feeds, one.Feeds)
	}
	assert.Equal(t, []int{5, 10, 5, 10, 8, 5}, feeds)
	assert.InDelta(t, 0.6, p.Items[1].Mass.KG(), 1e-9)
	assert.Equal(t, 5, p.Items[2].Short)
	assert.InDelta(t, 0.3, p.Items[5].OverKG, 1e-9)
	assert.Zero(t, p.Items[4].OverKG)
	many := work(t, supper(Item{Weight: "20 kg"}), nil)
	assert.Equal(t, 6, many.Trays, "20 kg in trays of 30 × 40 cm, 4 cm deep, 0.8 kg in a litre")
	assert.Equal(t, 3, many.Items[0].Batches)
	one := work(t, supper(Item{Weight: "5 kg"}), nil)
	assert.True(t, many.Items[0].In.Before(one.Items[0].In.Add(-time.Hour)))
}

// What is too old, cooled too slowly or undated is told; a day in the freezer does not count.
func TestWhatWasKeptBadly(t *testing.T) {
	day := func(d int) time.Time { return time.Date(2026, 11, d, 18, 0, 0, 0, time.UTC) }
	told := func(item Item, of Kept) map[string]string {
		out := map[string]string{}
		for _, f := range work(t, supper(item), map[string]Kept{"0": of}).Found {
			out[f.ID] = string(f.Severity)
		}
		return out
	}
	fine := Kept{Sliced: day(28), Chilled: day(28).Add(time.Hour), Cold: day(28).Add(5 * time.Hour)}
	item := Item{Weight: "1 kg"}
	assert.Equal(t, map[string]string{"reheat": "note"}, told(item, fine))
	slow := fine
	slow.Cold = day(29)
	assert.Equal(t, "stop", told(item, slow)["reheat-late"])
	assert.Equal(t, "note", told(item, Kept{Sliced: day(28)})["reheat-unverified"])
	assert.Equal(t, "stop", told(item, Kept{Sliced: day(25)})["reheat-too-old"])
	assert.NotContains(t, told(item, Kept{Sliced: day(26)}), "reheat-too-old", "the last day counts")
	assert.NotContains(t, told(Item{Weight: "1 kg", Kept: "freezer"}, Kept{Sliced: day(10)}), "reheat-too-old")
	assert.Equal(t, "note", told(item, Kept{})["reheat-undated"])
	assert.Equal(t, "stop", told(Item{Weight: "1 kg", Cooked: "2026-11-20"}, Kept{})["reheat-too-old"])
	assert.Equal(t, map[string]string{}, told(Item{Weight: "1 kg", Dish: Cold}, fine), "cold it is not warmed")
}

// Each mistake is at its field, and the rest is worked out.
func TestMistakesAreAtTheirFields(t *testing.T) {
	for pointer, change := range map[string]func(m *Meal){
		"/serve_at": func(m *Meal) { m.ServeAt = "soon" }, "/zone": func(m *Meal) { m.Zone = "Local" },
		"/heater": func(m *Meal) { m.Heater = "sun" }, "/set": func(m *Meal) { m.Set = "70 °C" },
		"/fits": func(m *Meal) { m.Fits = "-1" }, "/name": func(m *Meal) { m.Name = " " },
		"/items/0/form":   func(m *Meal) { m.Items[0].Form = "minced" },
		"/items/0/dish":   func(m *Meal) { m.Items[0].Dish = "ice" },
		"/items/0/weight": func(m *Meal) { m.Items[0].Weight = "" },
		"/items/0/deep":   func(m *Meal) { m.Items[0].Deep = "1 m" },
		"/items/0/each":   func(m *Meal) { m.Items[0].Each = "1 g" },
		"/items/0/for":    func(m *Meal) { m.Items[0].For = "few" },
		"/items/0/kept":   func(m *Meal) { m.Items[0].Kept = "cellar" },
		"/items/0/cooked": func(m *Meal) { m.Items[0].Cooked = "Friday" },
		"/items": func(m *Meal) {
			for range MaxItems {
				m.Items = append(m.Items, m.Items[0])
			}
		},
	} {
		m := supper(Item{Weight: "1 kg"}, Item{Weight: "2 kg"})
		change(&m)
		p := Work(m, nil, now)
		require.Len(t, p.Wrong, 1, pointer)
		assert.Equal(t, pointer, p.Wrong[0].Pointer)
		assert.True(t, p.Items[1].Sound)
	}
	assert.Empty(t, Work(Meal{Name: "Nothing yet", Zone: "UTC"}, nil, now).Wrong)
}

// Whatever is typed is read or refused, and nothing is warmed for longer than a day.
func FuzzMeal(f *testing.F) {
	f.Add("1.2 kg", "4 cm", "6", "90 g", "150 °C", "2026-11-30T19:00", "2026-11-28", "2")
	f.Add("-1 kg", "0 mm", "1e9", "NaN", "302 °F", "2026-13-30T19:00", "x", "0")
	f.Fuzz(func(t *testing.T, weight, deep, many, each, set, serve, cooked, fits string) {
		m := supper(
			Item{Weight: weight, Deep: deep, For: many, Each: each, Cooked: cooked},
			Item{Form: "whole", Weight: weight, Deep: deep, Kept: "freezer", Dish: "pie"},
		)
		m.Set, m.ServeAt, m.Fits = set, serve, fits
		for _, one := range Work(m, nil, now).Items {
			assert.True(t, one.Takes.Low >= 0 && one.Takes.Low <= one.Takes.High && one.Takes.High < 48*time.Hour, "%+v", one)
			assert.True(t, one.Feeds >= 0 && one.Batches < 1e5, "%+v", one)
		}
	})
}

func BenchmarkWork(b *testing.B) {
	m := supper(make([]Item, MaxItems)...)
	for i := range m.Items {
		m.Items[i].Weight = "2 kg"
	}
	for b.Loop() {
		Work(m, nil, now)
	}
}

func ExampleWork() {
	p := Work(
		Meal{Name: "Monday", ServeAt: "2026-11-30T19:00", Zone: "UTC", Items: []Item{{Form: "pulled", Weight: "1.2 kg"}}},
		nil,
		now,
	)
	fmt.Println(p.Items[0].In.Format("15:04"), p.Items[0].Feeds, WarmC)
	// Output: 17:40 6 74
}
