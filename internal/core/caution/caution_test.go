package caution

import (
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
)

// safe is a piece about which there is nothing to say but the note on raw rub.
func safe() Case {
	shoulder, _ := cut.Find("pork-shoulder-bone-in")
	return Case{
		Cut: shoulder, Fridge: 4, Room: 21, Wait: 10 * time.Hour, Longest: 72 * time.Hour, Pit: 120,
		SaltPercent: 0.9, Band: "seasoned", SodiumMG: 500, Done: 95, WarmsIn: 4 * time.Hour,
	}
}

func TestRulesAtTheirLimits(t *testing.T) {
	for name, c := range map[string]struct {
		change   func(*Case)
		id       string
		severity Severity
	}{
		"fridge at 6 °C":            {func(f *Case) { f.Fridge = 6 }, "cold-side", Care},
		"fridge at 9 °C":            {func(f *Case) { f.Fridge = 9 }, "cold-side", Stop},
		"over two hours out":        {func(f *Case) { f.Counter = 121 * time.Minute }, "counter-time", Stop},
		"over one hour in the heat": {func(f *Case) { f.Counter, f.Room = 61*time.Minute, 33 }, "counter-time", Stop},
		"kept too long":             {func(f *Case) { f.Wait = 80 * time.Hour }, "raw-keeping", Care},
		"some curing salt":          {func(f *Case) { f.NitritePPM = 620 }, "nitrite", Care},
		"much curing salt":          {func(f *Case) { f.NitritePPM = 626 }, "nitrite", Stop},
		"ground, as much as may be": {func(f *Case) { f.Cut, f.Done, f.NitritePPM = named("meat-loaf"), 72, 156 },
			"nitrite", Care},
		"ground, more": {func(f *Case) { f.Cut, f.Done, f.NitritePPM = named("meat-loaf"), 72, 157 },
			"nitrite", Stop},
		"belly, dry": {func(f *Case) { f.Cut, f.NitritePPM = named("pork-belly"), 201 }, "nitrite", Stop},
		"thaw, bath and wait add": {func(f *Case) { f.Thaw, f.Soak, f.Wait = 30*time.Hour, 20*time.Hour, 23*time.Hour },
			"raw-keeping", Care},
		"a bath in a warm fridge": {func(f *Case) { f.Fridge, f.Wait, f.Soak = 6, 0, 5*time.Hour }, "cold-side", Care},
		"a thaw in a warm fridge": {func(f *Case) { f.Fridge, f.Wait, f.Thaw = 9, 0, 24*time.Hour }, "cold-side", Stop},
		"a rabbit":                {func(f *Case) { f.Cut, f.Done = named("rabbit-whole"), 92 }, "wild", Care},
		"a rabbit underdone":      {func(f *Case) { f.Cut, f.Done = named("rabbit-whole"), 66 }, "wild", Stop},
		"needled and slow": {func(f *Case) {
			f.Opened, f.WarmsIn, f.Lingers = "needled", 241*time.Minute,
				200*time.Minute
		}, "slow-to-warm", Care},
		"rolled and far too slow": {func(f *Case) {
			f.Opened, f.WarmsIn, f.Lingers = "rolled", 9*time.Hour,
				361*time.Minute
		}, "slow-to-warm", Stop},
		"rolled and pink": {func(f *Case) { f.Cut, f.Done, f.Opened = named("beef-tri-tip"), 54, "rolled" },
			"pink-finish", Stop},
		"trimmed by half":           {func(f *Case) { f.Trimmed = 52 }, "much-trimmed", Note},
		"unsalted":                  {func(f *Case) { f.Unsalted = true }, "no-salt", Note},
		"phosphate":                 {func(f *Case) { f.PhosphatePercent = 0.51 }, "phosphate", Stop},
		"injected":                  {func(f *Case) { f.Injected = true }, "injected", Care},
		"a bath":                    {func(f *Case) { f.Bath = true }, "bath", Care},
		"salty as ham":              {func(f *Case) { f.SaltPercent = 1.8 }, "oversalt", Care},
		"a third of a day's sodium": {func(f *Case) { f.SodiumMG = 770 }, "sodium", Note},
		"over a day's sodium":       {func(f *Case) { f.SodiumMG = 2301 }, "sodium", Care},
		"sugar in a hot pit":        {func(f *Case) { f.SugarShare, f.Pit = 0.3, 150 }, "sugar-scorch", Care},
		"mustard":                   {func(f *Case) { f.Allergens = []string{"mustard"} }, "allergens", Note},
		"honey":                     {func(f *Case) { f.Honey = true }, "honey", Care},
		"frozen":                    {func(f *Case) { f.Frozen, f.Thaw = true, 40*time.Hour }, "thawing", Note},
		"a pit too cool to finish":  {func(f *Case) { f.Endless = true }, "never-done", Care},
		"a cool pit":                {func(f *Case) { f.Pit = 106 }, "pit-cool", Care},
		"links underdone":           {func(f *Case) { f.Cut, f.Done = named("links"), 70 }, "ground-done", Stop},
		"poultry on carry-over":     {func(f *Case) { f.Cut, f.Done = named("chicken-leg"), 72 }, "poultry-done", Care},
		"poultry underdone":         {func(f *Case) { f.Cut, f.Done = named("chicken-leg"), 66 }, "poultry-done", Stop},
		"pink beef":                 {func(f *Case) { f.Cut, f.Done = named("beef-tri-tip"), 54 }, "pink-finish", Care},
		"pink pork":                 {func(f *Case) { f.Cut, f.Done = named("pork-loin"), 60 }, "pink-finish", Stop},
		"wild pig":                  {func(f *Case) { f.Cut = named("boar-shoulder") }, "wild", Care},
		"held long": {func(f *Case) { f.Hold, f.Held, f.Keeps = 3*time.Hour, "cooler", 5*time.Hour },
			"hot-hold", Note},
		"held long on the counter": {func(f *Case) { f.Hold, f.Held, f.Keeps = 2*time.Hour, "counter", 90*time.Minute },
			"hot-hold", Care},
		"cooked ahead":   {func(f *Case) { f.Hold, f.Chilled = 20*time.Hour, true }, "cooling", Care},
		"left for later": {func(f *Case) { f.Leftovers = true }, "leftovers", Note},
		"charcoal":       {func(f *Case) { f.Burns = "kettle" }, "fire-and-air", Note},
	} {
		t.Run(name, func(t *testing.T) {
			f := safe()
			c.change(&f)
			found := Check(f)
			assert.Len(t, found, 2, "the rule and the note on raw rub")
			assert.Equal(t, c.id, found[0].ID)
			assert.Equal(t, c.severity, found[0].Severity)
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

// How much nitrite may be in meat depends on what it is and how it goes in; of more than
// one way the strictest counts.
func TestNitriteLimits(t *testing.T) {
	for name, c := range map[string]struct {
		cut   string
		wet   bool
		limit float64
	}{
		"dry shoulder": {"pork-shoulder-bone-in", false, 625}, "pumped shoulder": {"pork-shoulder-bone-in", true, 200},
		"dry belly":    {"pork-belly", false, 200},
		"pumped belly": {"pork-belly", true, 120}, "pumped belly with its skin": {"pork-belly-skin", true, 108},
		"ground": {"meat-loaf", false, 156},
	} {
		for _, bath := range []bool{false, true} {
			f := safe()
			f.Cut, f.Done, f.Injected, f.Bath = named(c.cut), 95, c.wet && !bath, c.wet && bath
			for ppm, severity := range map[float64]Severity{c.limit: Care, c.limit + 1: Stop} {
				f.NitritePPM = ppm
				found := Check(f)
				i := slices.IndexFunc(found, func(one Finding) bool { return one.ID == "nitrite" })
				assert.Equal(t, severity, found[i].Severity, "%s at %g ppm", name, ppm)
			}
		}
	}
}

// What was opened inside is another matter than what was not.
func TestOpenedMeat(t *testing.T) {
	f := safe()
	f.Injected, f.WarmsIn, f.Lingers = true, 9*time.Hour, 7*time.Hour
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

// Whatever the facts, each finding is whole, the gravest come first, none twice,
// and making a thing worse never takes its stop away.
func TestFindingsAreWhole(t *testing.T) {
	r := rand.New(rand.NewPCG(81, 82))
	cuts := cut.All()
	seen := map[string]bool{}
	stages := []string{"piece", "brine", "season", "wait", "fire", "rest"}
	grave := map[Severity]int{Stop: 0, Care: 1, Note: 2}
	hours := func(n int) time.Duration { return time.Duration(r.IntN(n*60)) * time.Minute }
	for range 3000 {
		f := Case{
			Cut:              cuts[r.IntN(len(cuts))],
			Fridge:           quantity.Celsius(r.IntN(12)),
			Room:             quantity.Celsius(r.IntN(40)),
			Counter:          hours(4),
			Wait:             hours(90),
			Longest:          72 * time.Hour,
			Pit:              quantity.Celsius(90 + r.IntN(120)),
			SaltPercent:      3 * r.Float64(),
			Band:             "seasoned",
			SodiumMG:         4000 * r.Float64(),
			SugarShare:       r.Float64(),
			NitritePPM:       800 * r.Float64() * float64(r.IntN(2)),
			Soak:             hours(40),
			Opened:           []string{"", "no", "stuffed"}[r.IntN(3)],
			Trimmed:          60 * r.Float64(),
			Unsalted:         r.IntN(2) == 0,
			Lingers:          hours(8),
			PhosphatePercent: r.Float64(),
			Injected:         r.IntN(2) == 0,
			Bath:             r.IntN(2) == 0,
			Honey:            r.IntN(2) == 0,
			Allergens:        []string{"soy"}[:r.IntN(2)],
			Frozen:           r.IntN(2) == 0,
			Thaw:             hours(60),
			Done:             quantity.Celsius(50 + r.IntN(50)),
			WarmsIn:          hours(9),
			Hold:             hours(20),
			Held:             []string{"counter", "cooler", "oven", "holder"}[r.IntN(4)],
			Chilled:          r.IntN(2) == 0,
			Leftovers:        r.IntN(2) == 0,
			Burns:            []string{"", "oven", "kettle", "offset"}[r.IntN(4)],
			Wrapped:          r.IntN(2) == 0,
			Endless:          r.IntN(9) == 0,
		}
		last, once := 0, map[string]bool{}
		stops := map[string]bool{}
		for _, one := range Check(f) {
			seen[one.ID] = true
			assert.False(t, once[one.ID], "%s twice", one.ID)
			once[one.ID] = true
			assert.GreaterOrEqual(t, grave[one.Severity], last)
			last = grave[one.Severity]
			assert.Contains(t, stages, one.Stage)
			stops[one.ID] = one.Severity == Stop
		}
		worse := f
		worse.Counter += time.Hour
		worse.Done -= 5
		worse.WarmsIn += time.Hour
		worse.Lingers += time.Hour
		worse.Injected = true
		worse.PhosphatePercent += 0.1
		now := map[string]bool{}
		for _, one := range Check(worse) {
			now[one.ID] = one.Severity == Stop
		}
		for id, stop := range stops {
			assert.True(t, !stop || now[id] || id == "cold-side" || id == "nitrite", "%s stops no longer", id)
		}
	}
	assert.Len(t, seen, len(rules)+1, "each rule was tried; that of the hold says one of two things")
}

// What was read tells of it: a bird that was not shown at 74 °C, an opened piece that warmed too
// slowly, a cool pit, a hold below the floor, and a piece of which nothing was read.
func TestWhatTheLogTells(t *testing.T) {
	bird := Logged{Cut: cut.Cut{Family: cut.Poultry}, Off: true, Read: true, Highest: 72}
	roast := Logged{Cut: cut.Cut{Family: cut.Pink, Species: "beef"}, Read: true, Highest: 60}
	for name, c := range map[string]struct {
		of     Logged
		change func(*Logged)
		want   string // with its severity; empty is none
	}{
		"resting under 74 °C": {bird, func(*Logged) {}, "poultry-shown care"},
		"sliced under 74 °C":  {bird, func(l *Logged) { l.Served = true }, "poultry-shown stop"},
		"shown at 74 °C":      {bird, func(l *Logged) { l.Highest = 74 }, ""},
		"still on":            {bird, func(l *Logged) { l.Off = false }, ""},
		"nothing read":        {bird, func(l *Logged) { l.Read = false }, "unverified care"},
		"whole and slow":      {roast, func(l *Logged) { l.Warming = 5 * time.Hour }, ""},
		"needled and slow": {roast, func(l *Logged) { l.Opened, l.Warming = "needled", 5*time.Hour },
			"warmed-slowly care"},
		"injected, far too slow": {roast, func(l *Logged) {
			l.Injected, l.Warming, l.Lingers = true, 8*time.Hour,
				7*time.Hour
		}, "warmed-slowly stop"},
		"a cool pit":             {roast, func(l *Logged) { l.Cool, l.CoolC = time.Hour, 95 }, "ran-cool care"},
		"an open lid":            {roast, func(l *Logged) { l.Cool, l.CoolC = 10*time.Minute, 95 }, ""},
		"held cool":              {roast, func(l *Logged) { l.Under, l.Lowest = time.Hour, 57 }, "held-cool care"},
		"held cool for too long": {roast, func(l *Logged) { l.Under, l.Lowest = 3*time.Hour, 50 }, "held-cool stop"},
	} {
		one := c.of
		c.change(&one)
		got := ""
		for _, f := range CheckLogged(one) {
			got += f.ID + " " + string(f.Severity)
		}
		assert.Equal(t, c.want, got, name)
	}
}

// A roast that came off pink is not told to be held hot, which would cook it; after two hours it is a caution.
func TestAPinkRoastThatWaits(t *testing.T) {
	for hold, want := range map[time.Duration]Severity{90 * time.Minute: Note, 3 * time.Hour: Care} {
		found := Check(Case{Cut: named("beef-tri-tip"), Done: 55, Hold: hold, Held: "counter", Keeps: time.Hour})
		i := slices.IndexFunc(found, func(f Finding) bool { return f.ID == "pink-hold" })
		require.GreaterOrEqual(t, i, 0)
		assert.Equal(t, want, found[i].Severity)
		assert.False(t, slices.ContainsFunc(found, func(f Finding) bool { return f.ID == "hot-hold" }))
	}
}
