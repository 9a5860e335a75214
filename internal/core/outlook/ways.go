package outlook

import (
	"context"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/order"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/uncertain"
	"verjuice/internal/core/when"
)

// Edit is a field of the page and what is typed there.
type Edit struct{ Pointer, Value string }

// Way is another way to cook the same piece for the same table.
type Way struct {
	ID    string // wrap-foil, wrap-earlier, hotter, low-night, holder, temper …
	Edits []Edit
	// Happens is a circumstance that the cook does not choose: what if it is so.
	Happens bool

	Fire   uncertain.Span
	Yield  float64 // served meat against the way asked for; 1 is as much
	Plan   string  // kind of plan
	Chance float64
	Woken  int
	Input  forecast.FireInput
}

// ways works out the other ways of a piece, each with a single run. A way that makes a mistake,
// or adds a caution of care or a stop to what was asked for, is left out.
func (r OutlookRequest) ways(ctx context.Context, k kitchen.Kitchen, at cooking.Clock) ([]Way, error) {
	at.Forecast = forecast.WhileTyping{}
	base, err := cooking.Work(ctx, order.Parse(r.Cook, k), r.Facts, k, at)
	if err != nil || len(base.Pieces) <= r.Piece || len(base.Pieces[r.Piece].Fires) == 0 {
		return nil, err
	}
	was := base.Pieces[r.Piece]
	out := []Way{}
	for _, w := range r.candidates(was) {
		changed := r.Cook
		changed.Pieces = slices.Clone(r.Cook.Pieces)
		for _, e := range w.Edits {
			put(&changed, r.Piece, e)
		}
		other, err := cooking.WorkAfter(ctx, base, order.Parse(changed, k), r.Facts, k, at)
		if err != nil {
			return nil, err
		}
		now := other.Pieces[r.Piece]
		if len(now.Fires) == 0 || len(other.Mistakes) > len(base.Mistakes) || now.Fire.Takes.Mid >= uncertain.Endless ||
			!w.Happens && graver(base, other) {
			continue
		}
		w.Input, w.Yield = forecast.SlowestOf(now.Fires), 1
		// Both from single runs, so that nothing but the way differs.
		pace := float64(forecast.Alone(now.Fires)) / float64(max(1, forecast.Alone(was.Fires)))
		scaled := func(d time.Duration) time.Duration { return time.Duration(pace * float64(d)).Round(5 * time.Minute) }
		fire := was.Fire.Takes
		w.Fire = uncertain.Span{Low: scaled(fire.Low), Mid: scaled(fire.Mid), High: scaled(fire.High)}
		if was.Fire.Yield > 0 {
			w.Yield = now.Fire.Yield / was.Fire.Yield
		}
		if other.Plan != nil {
			chosen := other.Plan.Result.Plans[other.Plan.Chosen]
			w.Plan, w.Chance, w.Woken = string(chosen.Kind), chosen.Chance, chosen.Woken
			// Who lights at the same time as before is no less sure of what is quicker: it may be held.
			if base.Plan != nil && pace <= 1 {
				w.Chance = max(w.Chance, base.Plan.Result.Plans[base.Plan.Chosen].Chance)
			}
		}
		out = append(out, w)
	}
	return out, nil
}

// graver reports whether a result has a caution of care or a stop that another has not.
func graver(was, now cooking.Result) bool {
	for i, p := range now.Pieces {
		for _, f := range p.Findings {
			if f.Severity != caution.Note && !slices.ContainsFunc(was.Pieces[i].Findings, func(g caution.Finding) bool {
				return g.ID == f.ID && (g.Severity == f.Severity || g.Severity == caution.Stop)
			}) {
				return true
			}
		}
	}
	return false
}

// candidates are the ways that a piece has.
func (r OutlookRequest) candidates(p cooking.Piece) []Way {
	said, c := p.Line.Answers.Value, p.Line.Meat.Value.Cut
	at := "/pieces/" + strconv.Itoa(r.Piece)
	var out []Way
	add := func(id string, edits ...Edit) { out = append(out, Way{ID: id, Edits: edits}) }
	choose := func(key decision.Key, value string) Edit { return Edit{at + "/choices/" + key.String(), value} }
	soft := c.DoneC() > 80
	if soft {
		for _, wrap := range []string{"foil", "paper", "pan", "none"} {
			if wrap != said.Chose(decision.Wrap) {
				add("wrap-"+wrap, choose(decision.Wrap, wrap))
			}
		}
		if said.Chose(decision.Wrap) != "none" {
			if i := slices.Index(wrapsAt, said.Chose(decision.WrapAt)); i > 0 {
				add("wrap-earlier", choose(decision.WrapAt, wrapsAt[i-1]))
			}
		}
	}
	if m := p.Line.Meat.Value; soft && m.Count == 1 && len(m.Each) == 0 && m.Green.Mid > 2 {
		field, whole := "/trimmed", m.Green.Mid
		if !m.Weighed {
			field, whole = "/bought", m.Bought
		}
		add("halves", Edit{at + "/count", "2"}, Edit{at + field, quantity.Number(math.Round(1000*whole.KG()/2)/1000) + " kg"})
	}
	degrees := func(do func(float64) float64) Edit { return r.pitAt(p, do) }
	add("hotter", degrees(func(v float64) float64 { return v + 15 }))
	add("cooler", degrees(func(v float64) float64 { return v - 10 }))
	if soft {
		add("low-night", degrees(func(v float64) float64 { return min(v, lowNight) }), Edit{"/plan", string(plan.Overnight)})
	}
	if c.Family == cut.Collagen && said.Chose(decision.Rest) != "holder" {
		add("holder", choose(decision.Rest, "holder"))
	}
	if p.Clock.Temper == 0 {
		add("temper", Edit{at + "/fire/temper", "1 h"})
	}
	if n := p.Line.Typed.Fire.On; n < len(r.Cook.Pits) {
		id, kind := "fan", "pellet"
		if r.Cook.Pits[n].Kind == kind {
			id, kind = "still", "cabinet"
		}
		out = append(out, Way{ID: id, Happens: true, Edits: []Edit{{"/pits/" + strconv.Itoa(n) + "/kind", kind}}})
	}
	if said.Chose(decision.Weather) == "mild" && r.Cook.Weather == "" {
		out = append(
			out,
			Way{ID: "cold", Happens: true, Edits: []Edit{choose(decision.Weather, "cold")}},
			Way{ID: "windy", Happens: true, Edits: []Edit{choose(decision.Weather, "windy")}},
		)
	}
	if g := p.Line.Meat.Value.Geometry; !g.Measured && len(p.Line.Meat.Value.Each) == 0 {
		out = append(
			out,
			Way{
				ID:      "thicker",
				Happens: true,
				Edits:   []Edit{{at + "/thickness", quantity.Number(1000*float64(g.Thickest)*1.15) + " mm"}},
			},
		)
	}
	return out
}

// pitAt is the pit of a piece at other temperatures: what the piece asks for, or every line of the
// pit's own list, which all that is on it shares.
func (r OutlookRequest) pitAt(p cooking.Piece, do func(float64) float64) Edit {
	n := p.Line.Typed.Fire.On
	if n < len(r.Cook.Pits) {
		if sets, err := when.ParseSets(r.Cook.Pits[n].Sets); err == nil && len(sets) > 0 {
			for i := range sets {
				sets[i].C = quantity.Celsius(do(float64(sets[i].C)))
			}
			return Edit{"/pits/" + strconv.Itoa(n) + "/sets", when.Typed(sets)}
		}
	}
	return Edit{"/pieces/" + strconv.Itoa(r.Piece) + "/fire/pit", quantity.Number(do(float64(p.Clock.Set))) + " °C"}
}

// lowNight is a pit that is left alone for the night, °C: the lowest of public guidance.
const lowNight = 107.0

// wrapsAt are core temperatures of a wrap, earliest first.
var wrapsAt = []string{"60", "66", "71", "77"}

// put types a value where an edit says.
func put(c *cook.Cook, piece int, e Edit) {
	p := c.Pieces[piece]
	switch parts := strings.Split(e.Pointer, "/"); parts[len(parts)-1] {
	case "plan":
		c.Plan = e.Value
	case "kind", "sets":
		n, _ := strconv.Atoi(parts[2])
		c.Pits = slices.Clone(c.Pits)
		if parts[3] == "kind" {
			c.Pits[n].Kind = e.Value
		} else {
			c.Pits[n].Sets = e.Value
		}
	case "pit":
		p.Fire.Pit = e.Value
	case "temper":
		p.Fire.Temper = e.Value
	case "count":
		p.Count = quantity.Count(e.Value)
	case "trimmed":
		p.Trimmed = e.Value
	case "bought":
		p.Bought = e.Value
	case "thickness":
		p.Thickness = e.Value
	default:
		said := map[string]string{}
		for k, v := range p.Choices {
			said[k] = v
		}
		said[parts[len(parts)-1]] = e.Value
		p.Choices = said
	}
	c.Pieces[piece] = p
}
