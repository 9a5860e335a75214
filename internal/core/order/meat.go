package order

import (
	"strconv"
	"strings"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

func (r reader) meat(p cook.Piece) (out Part[Meat]) {
	m, errs := &out.Value, &out.Wrong
	m.Count = max(1, count(errs, r.at+"/count", p.Count, 1, maxCount))
	c, known := cut.Find(p.Cut)
	if !known {
		errs.Add(r.at+"/cut", "cut.unknown")
		return out
	}
	m.Cut = r.finished(p, c)
	if own, ok := r.kitchen.Learnt.Yields[c.ID]; ok {
		m.Cut = m.Cut.Yielding(own.Mid, own.SD)
	}
	m.Cut = m.Cut.Softening(r.kitchen.Learnt.Tender[c.ID].Mid)
	if len(p.Each) > 0 {
		r.unlike(p, m, errs)
	} else {
		r.weights(p, r.at, m, errs)
	}
	if m.Green.Mid == 0 || len(*errs) > 0 && len(p.Each) > 0 {
		return out
	}
	if len(m.Each) > 0 {
		m.Geometry = average(c, m.Green.Mid, m.Each)
	} else {
		m.Geometry = shape(c, m.Green.Mid, p.Thickness, r.at, errs)
	}
	m.Skinned = p.Choices["trimmed-off"] == "skin" && c.Sealed == "skin"
	switch p.Faces {
	case "":
		m.OneBare = c.Sealed != "" && !m.Skinned && (c.Sealed != "bone" || p.Choices["membrane"] != "off")
	case "all", "one":
		m.OneBare = p.Faces == "one"
	default:
		errs.Add(r.at+"/faces", "choice.unknown", "choices", []string{"all", "one"})
	}
	// A membrane that is left on lets nothing through, whatever is strewn on it.
	m.OneBare = m.OneBare || p.Choices["membrane"] == "on"
	return out
}

// finished is the cut with the finish and the core temperature that the cook wants of it.
// What is wrong with those is told where they are read.
func (r reader) finished(p cook.Piece, c cut.Cut) cut.Cut {
	if f := p.Choices["finish"]; f != "" {
		c = c.As(cut.Finish(f))
	}
	core, err := quantity.ParseTemperature(p.Fire.Done)
	if off, wrong := when.Parse(p.When["off"]); wrong == nil && off.Core() != 0 {
		core, err = off.Core(), nil
	}
	if err == nil && core >= lowCore && core <= highCore {
		c = c.To(float64(core))
	}
	return c
}

// Core temperatures that a piece can be taken off at, °C.
const lowCore, highCore = 40, 105

// shape reads how thick a piece at a pointer is, and gives its geometry.
func shape(c cut.Cut, mass quantity.Mass, thickest, at string, errs *field.Errors) cut.Geometry {
	var thickness quantity.Length
	var err error
	if strings.TrimSpace(thickest) != "" {
		thickness, err = quantity.ParseLength(thickest)
	}
	g, wrong := cut.New(c, mass, thickness)
	_ = errs.Take(at+"/thickness", err) || errs.Take(at+"/thickness", wrong)
	return g
}

// average is a piece of that mass, as thick as pieces are on average.
func average(c cut.Cut, mass quantity.Mass, each []cut.Geometry) cut.Geometry {
	thickest, measured := quantity.Length(0), false
	for _, g := range each {
		thickest += g.Thickest / quantity.Length(len(each))
		measured = measured || g.Measured
	}
	g, _ := cut.New(c, mass, thickest) // between thicknesses that each fit
	g.Measured = measured
	return g
}

// unlike reads pieces of one line that each have their own weight and thickness. The line
// stands for their average.
func (r reader) unlike(p cook.Piece, m *Meat, errs *field.Errors) {
	if len(p.Each) > maxEach {
		errs.Add(r.at+"/each", "list.too-long", "most", maxEach)
		return
	}
	if strings.TrimSpace(p.Bought+p.Trimmed) != "" { // kept for when they are alike again
		r.weights(p, r.at, &Meat{Cut: m.Cut, Count: m.Count}, errs)
	}
	sum, bought := Meat{Weighed: true}, true
	for i, one := range p.Each {
		at := r.at + "/each/" + strconv.Itoa(i)
		q := p
		q.Bought, q.Trimmed, q.Together, q.Each = one.Bought, one.Trimmed, false, nil
		each := Meat{Cut: m.Cut, Count: 1}
		r.weights(q, at, &each, errs)
		if each.Green.Mid == 0 {
			continue
		}
		m.Each = append(m.Each, shape(m.Cut, each.Green.Mid, one.Thickness, at, errs))
		sum.Bought += each.Bought
		bought = bought && each.Bought > 0
		sum.Green.Low, sum.Green.Mid, sum.Green.High = sum.Green.Low+each.Green.Low, sum.Green.Mid+each.Green.Mid,
			sum.Green.High+each.Green.High
		sum.Weighed = sum.Weighed && each.Weighed
	}
	n := quantity.Mass(len(p.Each))
	m.Count, m.Weighed, m.Green = len(p.Each), sum.Weighed, quantity.Times(sum.Green, 1/n)
	if bought {
		m.Bought = sum.Bought / n
	}
}

// weights reads the weights of one piece at a pointer, and what trimming leaves of it.
func (r reader) weights(p cook.Piece, here string, m *Meat, errs *field.Errors) {
	c := m.Cut
	each := func(pointer, text string) quantity.Mass {
		if strings.TrimSpace(text) == "" {
			return 0
		}
		v, err := quantity.ParseMass(text)
		if errs.Take(pointer, err) {
			return 0
		}
		if p.Together {
			v /= quantity.Mass(m.Count)
		}
		if v.KG() < c.LowKG*0.5 || v.KG() > c.HighKG*1.6 {
			errs.Add(pointer, "meat.weight", "noun", c.Noun, "low", quantity.Mass(c.LowKG), "high", quantity.Mass(c.HighKG))
			return 0
		}
		return v
	}
	before := len(*errs)
	m.Bought = each(here+"/bought", p.Bought)
	trimmed := each(here+"/trimmed", p.Trimmed)
	loss := c.TrimLoss
	mid := loss.Mid
	switch p.TrimStyle {
	case "", "usual":
	case "light":
		mid = loss.Low
	case "close":
		mid = loss.High
	default:
		errs.Add(r.at+"/trim_style", "choice.unknown", "choices", cook.TrimStyles)
	}
	switch {
	case len(*errs) > before:
	case m.Bought == 0 && trimmed == 0:
		errs.Add(here+"/bought", "meat.weight-needed")
	case trimmed > 0 && m.Bought > 0 && trimmed > m.Bought:
		errs.Add(here+"/trimmed", "meat.gained")
	case trimmed > 0:
		m.Green, m.Weighed = quantity.Exactly(trimmed), true
	default:
		// A style is held to within a third of the range of all styles.
		slack := (loss.High - loss.Low) / 3
		keep := func(percent float64) quantity.Mass { return m.Bought * quantity.Mass(1-max(0, percent)/100) }
		m.Green = quantity.Range[quantity.Mass]{Low: keep(mid + slack), Mid: keep(mid), High: keep(mid - slack)}
	}
}
