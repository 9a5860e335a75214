// Package heat computes a fire: how a piece warms on a pit, stalls, is wrapped, softens, rests
// and cools, and how far all that can be known.
//
//	c, _ := cut.Find("pork-shoulder-bone-in")
//	g, _ := cut.New(c, 3.6, 0)
//	cook := heat.Cook{Cut: c, Geometry: g, DoneC: 95, Programme: heat.Programme{
//		Pit: cabinet.Heat, Steps: []heat.SetPoint{{SetC: 120}}, Loose: 1, StartC: 4}}
//	f, err := heat.Of(ctx, cook, heat.Ask{Cores: []float64{60, 74}})
//	f.Done.Mid // about 12 h; one in ten members is done before f.Done.Low
//
// Everything is causal: what is done to a piece acts from then on. The equations, what was
// fitted and to what are in docs/models.md.
package heat
