package meal

import (
	"slices"
	"strconv"
	"time"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"

	"verjuice/internal/core/quantity"
)

// Kept is what is on record of something that was kept.
type Kept struct {
	Sliced      time.Time // zero when it is not on record
	Chilled     time.Time
	Cold        time.Time
	KG          float64 // weighed; zero when it was not
	ElsewhereKG float64 // of that, for other meals
}

// Plan is a meal worked out. A figure that depends on a mistake is absent.
type Plan struct {
	Meal   Meal
	Wrong  field.Errors
	Serve  time.Time // zero when it is not said
	OvenC  float64
	Trays  int
	Fits   int
	Items  []Warmed
	Tasks  []Task // in order
	Found  []Found
	Sooner time.Time // the earliest that it can be served, when it is too late for Serve
}

// Warmed is an item worked out.
type Warmed struct {
	Item    Item
	Kept    Kept // what is on record of it
	Sound   bool // nothing in it is a mistake
	Form    KeptForm
	Dish    Dish
	Mass    quantity.Mass
	Each    quantity.Mass
	Feeds   int
	Short   int     // portions that are wanted and not there
	OverKG  float64 // more than what is left of what was kept
	Trays   int
	DeepM   float64
	Takes   quantity.Range[time.Duration] // in the oven; zero of what is eaten cold
	In      time.Time                     // into the oven; zero without a serving time
	From    time.Time                     // warm by then at the earliest
	By      time.Time                     // and at the latest
	UseBy   time.Time                     // zero when nobody says when it was cooked, and of what is frozen
	Thaw    time.Duration
	Batches int // that the oven takes it in
}

// Task is something to do.
type Task struct {
	At    time.Time
	Stage string // thaw, light, in, check, finish, serve
	Item  int    // its place; −1 is all of it
}

// Found is a caution about an item, or about the meal for −1.
type Found struct {
	Item int
	caution.Finding
}

// The fridge, and how long a pit and an oven take to get hot. Field judgement.
const fridgeC = 4.0

var preheats = map[string]time.Duration{"pit": 45 * time.Minute, "oven": 20 * time.Minute, "": 20 * time.Minute}

// slow is the longest that food may take to be hot again (FDA Food Code 3-403.11).
const slow = 2 * time.Hour

// Work works a meal out, with what is on record of what was kept by the key of its item. It never
// fails: what is wrong is in Wrong.
func Work(m Meal, kept map[string]Kept, now time.Time) Plan {
	out := Plan{Meal: m, Items: []Warmed{}, Tasks: []Task{}, Found: []Found{}}
	var zone *time.Location
	out.Serve, zone, out.OvenC, out.Fits, out.Wrong = m.setting()
	if len(m.Items) > MaxItems {
		out.Wrong.Add("/items", "reheat.items", "most", MaxItems)
		m.Items = m.Items[:MaxItems]
	}
	for n, item := range m.Items {
		of := kept[item.Key]
		r, wrong := item.read(zone, of)
		dated(item, r.cooked, out.Serve, now, &wrong)
		out.Wrong.Put("/items/"+strconv.Itoa(n), wrong)
		one := Warmed{Item: item, Kept: of, Sound: len(wrong) == 0, Form: r.form, Dish: r.dish}
		if one.Sound {
			out.warm(&one, r, of)
			out.judge(n, one, r, of)
		}
		out.Items = append(out.Items, one)
		out.Trays += one.Trays
	}
	if !out.Serve.IsZero() {
		out.lay(now)
	}
	if slices.ContainsFunc(out.Items, func(w Warmed) bool { return w.Takes.Mid > 0 }) {
		out.found(-1, "reheat", caution.Note)
	}
	return out
}

// longKept is how long meat may have been kept before it is eaten.
const longKept = 366 * 24 * time.Hour

// dated holds the day that was typed against the meal: what is eaten was cooked before, and not long
// before.
func dated(i Item, cooked, serve, now time.Time, wrong *field.Errors) {
	if i.Cooked == "" || cooked.IsZero() {
		return
	}
	if serve.IsZero() {
		serve = now
	}
	day := cooked.Format(time.DateOnly)
	switch {
	case cooked.Year() < 2000 || cooked.Year() > 2100:
		wrong.Add("/cooked", "time.year", "first", 2000, "last", 2100)
	case serve.IsZero():
	case day > serve.In(cooked.Location()).Format(time.DateOnly):
		wrong.Add("/cooked", "reheat.cooked-later")
	case serve.Sub(cooked) > longKept:
		wrong.Add("/cooked", "reheat.cooked-long-ago")
	}
}

// Check returns what keeps m from being put on record at now, with pointers into it; at the zero time
// no day is too long ago. What it is made of may have changed since.
func (m Meal) Check(now time.Time) field.Errors {
	there := map[string]Kept{}
	for _, i := range m.Items {
		if i.Cook != "" {
			there[i.Key] = Kept{KG: 1}
		}
	}
	return Work(m, there, now).Wrong
}

// warm works out how much one is and how long it takes.
func (p *Plan) warm(one *Warmed, r read, of Kept) {
	one.Mass, one.Each, one.DeepM, one.Trays = r.mass, r.each, r.deep, r.trays()
	one.Feeds = int(r.mass.KG()/r.each.KG() + 1e-6)
	one.Short = max(0, r.wanted-one.Feeds)
	if left := of.KG - of.ElsewhereKG; of.KG > 0 && r.mass.KG() > left+0.005 {
		one.OverKG = r.mass.KG() - max(0, left)
	}
	one.Batches = max(1, (one.Trays+p.Fits-1)/p.Fits)
	if r.dish.ID != Cold {
		body := Body{Deep: r.deep, Shape: r.form.Shape, Gives: r.form.Gives}
		one.Takes.Mid = body.Reheat(fridgeC, p.OvenC)
		// A tenth deeper and a quarter less heat, or the other way: about eight in ten fall between.
		body.Deep, body.Gives = 1.1*r.deep, r.form.Gives/1.35
		one.Takes.High = body.Reheat(fridgeC, p.OvenC)
		body.Deep, body.Gives = 0.9*r.deep, r.form.Gives*1.35
		one.Takes.Low = body.Reheat(fridgeC, p.OvenC)
	}
	if r.frozen {
		one.Thaw = cut.Thawing(r.mass)
	} else if !r.cooked.IsZero() {
		one.UseBy = LeftOf(r.cooked, of.Chilled, of.Cold).UseBy
	}
}

// judge holds one against the rules.
func (p *Plan) judge(n int, one Warmed, r read, of Kept) {
	if one.Takes.Mid > slow {
		p.found(n, "reheat-slow", caution.Care, "takes", one.Takes.Mid.Round(5*time.Minute))
	}
	if !of.Sliced.IsZero() {
		switch l := LeftOf(of.Sliced, of.Chilled, of.Cold); {
		case l.Late:
			p.found(n, "reheat-late", caution.Stop)
		case of.Cold.IsZero():
			p.found(n, "reheat-unverified", caution.Note)
		}
	}
	eaten := p.Serve
	if !one.UseBy.IsZero() && !eaten.IsZero() && eaten.After(one.UseBy) &&
		eaten.Format(time.DateOnly) != one.UseBy.Format(time.DateOnly) {
		p.found(n, "reheat-too-old", caution.Stop, "last", one.UseBy.Format("Monday 2 January"))
	}
	if r.cooked.IsZero() && !r.frozen {
		p.found(n, "reheat-undated", caution.Note)
	}
}

func (p *Plan) found(item int, id string, how caution.Severity, pairs ...any) {
	p.Found = append(
		p.Found,
		Found{item, caution.Finding{ID: id, Severity: how, Stage: "rest", Values: field.Because(id, pairs...).Values}},
	)
}

// lay counts back from the table: what takes longest goes in first, and what is done early stays
// covered in the warm.
func (p *Plan) lay(now time.Time) {
	first := p.Serve
	var most time.Duration
	for n := range p.Items {
		one := &p.Items[n]
		if !one.Sound {
			continue
		}
		hot := p.Serve.Add(-one.Form.Finish)
		if one.Takes.Mid == 0 {
			p.task(hot, "finish", n)
			continue
		}
		// All batches but the last are held hot while the next is warmed.
		takes := time.Duration(one.Batches) * one.Takes.High
		one.In = hot.Add(-takes).Truncate(5 * time.Minute)
		last := one.In.Add(takes - one.Takes.High)
		one.From, one.By = last.Add(one.Takes.Low), last.Add(one.Takes.High)
		if one.Thaw > 0 {
			p.task(awake(one.In.Add(-one.Thaw).Truncate(time.Hour)), "thaw", n)
		}
		p.task(one.In, "in", n)
		p.task(one.From.Truncate(5*time.Minute), "check", n)
		p.task(hot, "finish", n)
		if one.In.Before(first) {
			first = one.In
		}
		most = max(most, takes+one.Form.Finish)
	}
	if most > 0 {
		light := first.Add(-preheats[p.Meal.Heater])
		p.task(light, "light", -1)
		if ready := now.Add(preheats[p.Meal.Heater] + most); light.Before(now) && !p.Serve.Before(now.Add(-12*time.Hour)) {
			p.Sooner = ready.Truncate(5 * time.Minute).Add(5 * time.Minute)
		}
	}
	if len(p.Items) > 0 {
		p.task(p.Serve, "serve", -1)
	}
	order := []string{"thaw", "light", "in", "check", "finish", "serve"}
	slices.SortStableFunc(p.Tasks, func(a, b Task) int {
		if c := a.At.Compare(b.At); c != 0 {
			return c
		}
		return slices.Index(order, a.Stage) - slices.Index(order, b.Stage)
	})
}

// awake is t, or the evening before when that is in the night: nobody gets up to thaw something.
func awake(t time.Time) time.Time {
	y, m, d := t.Date()
	switch h := t.Hour(); {
	case h >= 22:
		return time.Date(y, m, d, 21, 0, 0, 0, t.Location())
	case h < 7:
		return time.Date(y, m, d-1, 21, 0, 0, 0, t.Location())
	}
	return t
}

func (p *Plan) task(at time.Time, stage string, item int) {
	p.Tasks = append(p.Tasks, Task{at, stage, item})
}
