package live

import (
	"math"
	"slices"
	"time"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// Catch is something that takes time off what is left, or adds some where a piece is early.
type Catch struct {
	ID     string // hotter, wrap, later or cooler
	SetC   quantity.Celsius
	Kind   string        // of the wrap
	Saves  time.Duration // less than nothing is time that it adds
	Serve  time.Time     // when to serve, for later
	Chance float64       // of being ready for the knife then
	Was    float64       // and without it
}

// late is under which chance of being ready for the knife it is told what would catch up, and from
// which on something is safe enough to be offered to one that is early.
const late = 0.9

// early is how long before its rest a piece is off, nearly surely, that a cooler pit is offered.
const early = time.Hour

// hotter is how much hotter a pit catches up, and up to where; cooler, and down to where, °C.
const hotter, hottest, cooler = 15, 150, 10

// catch finds what would make up for being late, or for being early.
func (p *Piece) catch(input forecast.FireInput) {
	c, h := p.Piece.Clock, p.Piece.Happened
	if c == nil || !c.Known {
		return
	}
	rest := min(c.Rest, p.Piece.Line.Meat.Value.Cut.Custom().LeastRest)
	ready := c.Times.Slice.Add(-rest).Sub(h.On).Hours()
	chance := func(saves time.Duration) float64 {
		in := 0
		for _, done := range p.Seen.Fire.Hours {
			if math.Max(done-saves.Hours(), h.NowH) <= ready {
				in++
			}
		}
		return float64(in) / float64(max(1, len(p.Seen.Fire.Hours)))
	}
	was, alone := chance(0), forecast.Alone([]forecast.FireInput{input})
	saved := func(other forecast.FireInput) time.Duration {
		return alone - forecast.Alone([]forecast.FireInput{other})
	}
	if was >= late {
		done := p.Seen.Fire.Done.High
		before := time.Duration((c.Times.Slice.Add(-c.Rest).Sub(h.On).Hours() - done) * float64(time.Hour))
		warm := p.Core != nil && p.Core.C >= caution.HoldFloor
		if to := p.SetC - cooler; before >= early && (to >= caution.PitLeast || warm && to >= 90) {
			one := Catch{ID: "cooler", SetC: to, Saves: saved(p.setTo(input, to)), Was: was}
			if one.Chance = chance(one.Saves); one.Chance >= late && one.Saves <= -10*time.Minute {
				p.Catch = append(p.Catch, one)
			}
		}
		return
	}
	add := func(one Catch, other forecast.FireInput) {
		one.Saves, one.Was = saved(other), was
		if one.Chance = chance(one.Saves); one.Saves >= 10*time.Minute {
			p.Catch = append(p.Catch, one)
		}
	}
	if to := p.SetC + hotter; to <= hottest {
		add(Catch{ID: "hotter", SetC: to}, p.setTo(input, to))
	}
	if !p.Advice.Done && p.Piece.Line.Meat.Value.Cut.DoneC() > tough {
		wrapped := input
		wrapped.Wraps = append(
			slices.Clone(input.Wraps[:len(h.Wraps)]),
			heat.Wrap{Kind: "foil", When: when.At(when.Cond{After: max(time.Minute, time.Duration(h.NowH*float64(time.Hour)))})},
		)
		add(Catch{ID: "wrap", Kind: "foil"}, wrapped)
	}
	if done := p.Seen.Fire.Done.High; !math.IsInf(done, 1) {
		by := time.Duration((math.Max(done, h.NowH) - ready) * float64(time.Hour))
		by = by.Truncate(15*time.Minute) + 15*time.Minute
		p.Catch = append(p.Catch, Catch{ID: "later", Saves: by, Serve: c.Serve.Add(by), Was: was, Chance: chance(by)})
	}
}

// setTo is burn with its pit set to another temperature from now on.
func (p *Piece) setTo(input forecast.FireInput, c quantity.Celsius) forecast.FireInput {
	h := p.Piece.Happened
	input.Steps = append(
		slices.DeleteFunc(slices.Clone(input.Steps), func(s heat.SetPoint) bool { return s.AtH > h.NowH }),
		heat.SetPoint{AtH: max(h.NowH, 0.01), SetC: float64(c)},
	)
	return input
}
