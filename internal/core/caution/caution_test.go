package caution

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"verjuice/internal/core/cut"
)

// safe is a piece about which there is nothing to say but the note on raw rub.
func safe() Facts {
	shoulder, _ := cut.Find("pork-shoulder-bone-in")
	return Facts{
		Cut: shoulder, Fridge: 4, Room: 21, Wait: 10 * time.Hour, Longest: 72 * time.Hour, Pit: 120,
		SaltPercent: 0.9, Band: "seasoned", SodiumMG: 500, Done: 95, WarmsIn: 4 * time.Hour,
	}
}

func TestRulesAtTheirLimits(t *testing.T) {
	for name, c := range map[string]struct {
		change   func(*Facts)
		id       string
		severity Severity
	}{
		"fridge at 6 °C":            {func(f *Facts) { f.Fridge = 6 }, "cold-side", Care},
		"fridge at 9 °C":            {func(f *Facts) { f.Fridge = 9 }, "cold-side", Stop},
		"over two hours out":        {func(f *Facts) { f.Counter = 121 * time.Minute }, "counter-time", Stop},
		"over one hour in the heat": {func(f *Facts) { f.Counter, f.Room = 61*time.Minute, 33 }, "counter-time", Stop},
		"kept too long":             {func(f *Facts) { f.Wait = 80 * time.Hour }, "raw-keeping", Care},
		"some curing salt":          {func(f *Facts) { f.NitritePPM = 150 }, "nitrite", Care},
		"much curing salt":          {func(f *Facts) { f.NitritePPM = 626 }, "nitrite", Stop},
		"much in an injection":      {func(f *Facts) { f.NitritePPM, f.NitriteLimit = 201, NitritePumped }, "nitrite", Stop},
		"phosphate":                 {func(f *Facts) { f.PhosphatePercent = 0.51 }, "phosphate", Stop},
		"injected":                  {func(f *Facts) { f.Injected = true }, "injected", Care},
		"a bath":                    {func(f *Facts) { f.Bath = true }, "bath", Care},
		"salty as ham":              {func(f *Facts) { f.SaltPercent = 1.8 }, "oversalt", Care},
		"a third of a day's sodium": {func(f *Facts) { f.SodiumMG = 770 }, "sodium", Note},
		"over a day's sodium":       {func(f *Facts) { f.SodiumMG = 2301 }, "sodium", Care},
		"sugar in a hot pit":        {func(f *Facts) { f.SugarShare, f.Pit = 0.3, 150 }, "sugar-scorch", Care},
		"mustard":                   {func(f *Facts) { f.Allergens = []string{"mustard"} }, "allergens", Note},
		"honey":                     {func(f *Facts) { f.Honey = true }, "honey", Care},
		"frozen":                    {func(f *Facts) { f.Frozen, f.Thaw = true, 40*time.Hour }, "thawing", Note},
		"a cool pit":                {func(f *Facts) { f.Pit = 106 }, "pit-cool", Care},
		"links underdone":           {func(f *Facts) { f.Cut, f.Done = named("links"), 70 }, "ground-done", Stop},
		"poultry on carry-over":     {func(f *Facts) { f.Cut, f.Done = named("chicken-leg"), 72 }, "poultry-done", Care},
		"poultry underdone":         {func(f *Facts) { f.Cut, f.Done = named("chicken-leg"), 66 }, "poultry-done", Stop},
		"pink beef":                 {func(f *Facts) { f.Cut, f.Done = named("beef-tri-tip"), 54 }, "pink-finish", Care},
		"pink pork":                 {func(f *Facts) { f.Cut, f.Done = named("pork-loin"), 60 }, "pink-finish", Stop},
		"wild pig":                  {func(f *Facts) { f.Cut = named("boar-shoulder") }, "wild", Care},
		"held long":                 {func(f *Facts) { f.Hold, f.Held = 3*time.Hour, "cooler" }, "hot-hold", Note},
		"held long on the counter":  {func(f *Facts) { f.Hold, f.Held = 2*time.Hour, "counter" }, "hot-hold", Care},
		"cooked ahead":              {func(f *Facts) { f.Hold, f.Chilled = 20*time.Hour, true }, "cooling", Care},
		"left for later":            {func(f *Facts) { f.Leftovers = true }, "leftovers", Note},
		"charcoal":                  {func(f *Facts) { f.Burns = "kettle" }, "fire-and-air", Note},
		"nothing logged":            {func(f *Facts) { f.Unlogged = true }, "unverified", Care},
	} {
		t.Run(name, func(t *testing.T) {
			f := safe()
			c.change(&f)
			found := Check(f)
			assert.Len(t, found, 2, "the rule and the note on raw rub")
			assert.Equal(t, c.id, found[0].ID)
			assert.Equal(t, c.severity, found[0].Severity)
			assert.NotEmpty(t, found[0].Do)
			assert.NotEmpty(t, found[0].Authority)
		})
	}
}

func named(id string) cut.Cut {
	c, ok := cut.Find(id)
	if !ok {
		panic(id)
	}
	return c
}

// What was opened inside is another matter than what was not.
func TestOpenedMeat(t *testing.T) {
	f := safe()
	f.Injected, f.WarmsIn = true, 6*time.Hour
	f.Cut, f.Done = named("beef-tri-tip"), 54
	stops := []string{}
	for _, one := range Check(f) {
		if one.Severity == Stop {
			stops = append(stops, one.ID)
		}
	}
	assert.Equal(t, []string{"slow-to-warm", "pink-finish"}, stops)
	f.Injected = false
	for _, one := range Check(f) {
		assert.NotEqual(t, Stop, one.Severity)
	}
}

func TestNothingToSay(t *testing.T) {
	f := safe()
	f.Counter, f.Room = 2*time.Hour, 32 // at the limit, not over it
	f.SugarShare, f.Pit = 0.14, 200
	f.SaltPercent, f.Band = 2.2, "cured" // as the cook wants it
	assert.Len(t, Check(f), 1)
}
