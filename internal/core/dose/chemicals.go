package dose

import "verjuice/internal/core/salt"

// Chemicals are what cautions look at besides salt, by all doses together.
type Chemicals struct {
	NitritePPM       float64 // ingoing, mg a kg: of green meat, or for a bath of meat and pickle
	PhosphatePercent float64 // phosphate salts that stay, of the meat with what stays in it
	SurfaceSugar     float64 // of the sweetest dose on the surface, 0 to 1
}

// Within adds up the chemicals of the sources and of what they bring to one piece, in the
// same order. Phosphate in a bath is taken to go in with its salt.
func Within(sources []Source, all []Brought, on Target) Chemicals {
	var out Chemicals
	green := on.Meat.Green.KG()
	taken, phosphate := 0.0, 0.0
	for i, one := range all {
		if bath, ok := sources[i].(Bath); ok {
			w := bath.Brew(on)
			curing, phosphates := 0.0, 0.0
			for n, with := range bath.With {
				curing += w.Parts[n].KG() * with.Mix.Per100g.Nitrite / 100
				phosphates += w.Parts[n].KG() * with.Mix.Per100g.Phosphate / 100
			}
			out.NitritePPM += 1e6 * curing / (green*float64(on.Count) + (w.Water + w.Salt).KG())
			if w.Salt > 0 {
				phosphate += phosphates * float64(one.Salt/w.Salt)
			}
			continue
		}
		out.NitritePPM += 1e6 * one.Mass.KG() * one.Mix.Per100g.Nitrite / 100 / green
		switch one.Place {
		case salt.Pockets:
			stays := one.Mass.KG() * one.Stays.Mid
			taken += stays
			phosphate += stays * one.Mix.Per100g.Phosphate / 100
		case salt.Surface:
			out.SurfaceSugar = max(out.SurfaceSugar, one.Mix.Per100g.Sugar/100)
		}
	}
	out.PhosphatePercent = 100 * phosphate / (green + taken)
	return out
}
