package firecalc

import (
	"cmp"
	"fmt"
	"slices"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// Limits of what can be asked for.
const (
	MostMembers   = 1000
	fewestMembers = 20 // fewer say nothing of one in ten
	mostEvents    = 50
	mostReadings  = 5000
	longestH      = 72.0
)

// checker notes numbers that are out of their range.
type checker struct{ errs field.Errors }

func (c *checker) within(pointer string, v, low, high float64) {
	if !(v >= low && v <= high) { // not a number is out of range, too
		c.errs.Add(pointer, "heat.range", "low", low, "high", high)
	}
}

func (c *checker) atMost(pointer string, n, most int) {
	if n > most {
		c.errs.Add(pointer, "heat.most", "most", most)
	}
}

func (c *checker) oneOf(pointer, v string, choices ...string) {
	if !slices.Contains(choices, v) {
		c.errs.Add(pointer, "heat.choice", "choices", choices)
	}
}

func (c *checker) piece(p FirePiece) (cut.Cut, cut.Geometry) {
	what, ok := cut.Find(p.Cut)
	if !ok {
		c.errs.Add("/piece/cut", "heat.cut")
		return what, cut.Geometry{}
	}
	c.within("/piece/mass_kg", p.MassKG, 0.02, 200)
	c.within("/piece/thickness_mm", p.ThicknessMM, 0, 500)
	c.within("/piece/start_c", p.start(), -5, 60)
	if p.Finish != "" {
		known := []string{}
		for _, f := range what.Finishes {
			known = append(known, string(f))
		}
		c.oneOf("/piece/finish", p.Finish, known...)
		what = what.As(cut.Finish(p.Finish))
	}
	if len(c.errs) > 0 {
		return what, cut.Geometry{}
	}
	g, err := cut.New(what, quantity.Mass(p.MassKG), quantity.Length(p.ThicknessMM/1000))
	c.errs.Take("/piece/thickness_mm", err)
	return what, g
}

// Parse reads a request. A mistake is told at its pointer.
func (r FireRequest) Parse() (heat.Cook, heat.Ask, error) {
	c := checker{}
	out := heat.Cook{Measured: r.Piece.ThicknessMM > 0}
	out.Cut, out.Geometry = c.piece(r.Piece)
	out.Programme = c.programme(r)
	ask := c.ask(r)
	if r.Salt != nil {
		c.within("/salt/grams", r.Salt.Grams, 0, 20*1000*out.Geometry.Seasoned(out.Cut.Sealed != ""))
		c.within("/salt/wait_h", r.Salt.WaitH, 0, 14*24)
	}
	out.Judged()
	return out, ask, c.errs.Err()
}

func (c *checker) programme(r FireRequest) heat.Programme {
	p := heat.Programme{
		StartC:  r.Piece.start(),
		OpenMin: r.OpenedEveryMin,
		Ambient: heat.Ambient{AirC: heat.Mild},
		Loose:   1,
	}
	pit, named := gear.UsualPit(r.Pit.Kind)
	if !named && r.Pit.Kind != "" {
		c.errs.Add("/pit/kind", "heat.pit")
	}
	p.Pit = pit.Heat
	c.atMost("/pit/steps", len(r.Pit.Steps), mostEvents)
	if len(r.Pit.Steps) == 0 {
		c.errs.Add("/pit/steps", "heat.steps")
	}
	last := 0.0
	for i, s := range r.Pit.Steps {
		c.within(fmt.Sprintf("/pit/steps/%d/set_c", i), s.SetC, 20, 350)
		c.within(fmt.Sprintf("/pit/steps/%d/at_h", i), s.AtH, last, longestH)
		last = s.AtH
		p.Steps = append(p.Steps, heat.SetPoint(s))
	}
	c.atMost("/wraps", len(r.Wraps), mostEvents)
	for i, w := range r.Wraps {
		at := fmt.Sprintf("/wraps/%d/", i)
		c.oneOf(at+"kind", w.Kind, append(gear.WrapIDs(gear.OnFire), gear.NoWrap)...)
		c.within(at+"at_core_c", w.AtCoreC, 0, 120)
		c.within(at+"at_h", w.AtH, 0, longestH)
		if w.PitC != 0 {
			c.within(at+"pit_c", w.PitC, 20, 350)
		}
		p.Wraps = append(p.Wraps, heat.Wrap{Kind: w.Kind, When: w.when(), PitC: w.PitC})
	}
	if a := r.Ambient; a != nil {
		c.within("/ambient/air_c", a.AirC, -50, 60)
		c.within("/ambient/wind_m_s", a.Wind, 0, 40)
		p.Ambient = heat.Ambient(*a)
	}
	if p.OpenMin != 0 {
		c.within("/opened_every_min", p.OpenMin, 5, 24*60)
	}
	if r.SpritzEveryMin != 0 {
		c.within("/spritz_every_min", r.SpritzEveryMin, 5, 24*60)
		p.Visits = []heat.Visit{heat.Spritzed(time.Duration(r.SpritzEveryMin * float64(time.Minute)))}
	}
	c.oneOf("/wrap_tight", r.WrapTight, "", "tight", "usual", "loose")
	if f, told := heat.Looseness[r.WrapTight]; told {
		p.Loose = f
	}
	return p
}

// when is the moment of the wrap: its core, its hours, or whichever is first.
func (w FireWrap) when() when.When {
	core, hours := when.Cond{
		CoreC: quantity.Celsius(w.AtCoreC),
	}, when.Cond{
		After: time.Duration(w.AtH * float64(time.Hour)),
	}
	switch {
	case w.AtCoreC == 0:
		return when.At(hours)
	case w.AtH == 0:
		return when.At(core)
	}
	return when.When{First: core, Second: hours}
}

func (c *checker) ask(r FireRequest) heat.Ask {
	out := heat.Ask{Members: r.Members, Seed: r.Seed, Tightness: r.WrapTight != "", KnowsPit: r.Pit.Kind != ""}
	if r.Members != 0 {
		c.within("/members", float64(r.Members), fewestMembers, MostMembers)
	}
	c.atMost("/thresholds_c", len(r.ThresholdsC), mostEvents)
	for i, t := range r.ThresholdsC {
		c.within(fmt.Sprintf("/thresholds_c/%d", i), t, -5, 150)
		out.Cores = append(out.Cores, t)
	}
	if r.BarkAtH != 0 {
		c.within("/bark_at_h", r.BarkAtH, 0.25, heat.Longest/2)
		out.Bark.SetH = r.BarkAtH
	}
	c.atMost("/readings", len(r.Readings), mostReadings)
	for i, v := range r.Readings {
		c.within(fmt.Sprintf("/readings/%d/at_h", i), v.AtH, 0, heat.Longest)
		c.within(fmt.Sprintf("/readings/%d/core_c", i), v.CoreC, -10, 150)
		out.Readings = append(out.Readings, heat.Reading{AtH: v.AtH, CoreC: v.CoreC, ByEye: v.ByEye})
	}
	slices.SortStableFunc(out.Readings, func(a, b heat.Reading) int { return cmp.Compare(a.AtH, b.AtH) })
	return out
}
