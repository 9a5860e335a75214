package dose

import "verjuice/internal/core/salt"

// Chemicals are what cautions look at besides salt, by all doses together.
type Chemicals struct {
	NitritePPM       float64 // ingoing, mg a kg: of green meat, or for a bath of meat and pickle
	PhosphatePercent float64 // phosphate salts that stay, of the meat with what stays in it
	SurfaceSugar     float64 // of the sweetest dose on the surface, 0 to 1
}

// added is what one source adds that cautions look at.
type added struct {
	nitritePPM float64 // mg a kg
	phosphate  float64 // that stays, kg
	taken      float64 // liquid that stays, kg
	sugar      float64 // on the surface, 0 to 1
}

// addedBy is what is added by a mix on or in a piece.
func addedBy(on Target, one Brought) added {
	mix := one.Mix.Per100g
	out := added{nitritePPM: 1e6 * one.Mass.KG() * mix.Nitrite / 100 / on.Meat.Green.KG()}
	switch one.Place {
	case salt.Pockets:
		out.taken = one.Mass.KG() * one.Stays.Mid
		out.phosphate = out.taken * mix.Phosphate / 100
	case salt.Surface:
		out.sugar = mix.Sugar / 100
	}
	return out
}

// SurfaceSugar is that of the sweetest source that is on the piece when the wait before the fire begins, 0 to 1.
func SurfaceSugar(sources []Source, on Target) float64 {
	most := 0.0
	for _, s := range sources {
		if s.waits() {
			most = max(most, s.adds(on, s.On(on)).sugar)
		}
	}
	return most
}

// Within adds up the chemicals of the sources and of what they bring to one piece, in the
// same order.
func Within(sources []Source, all []Brought, on Target) Chemicals {
	var out Chemicals
	taken, phosphate := 0.0, 0.0
	for i, one := range all {
		more := sources[i].adds(on, one)
		out.NitritePPM += more.nitritePPM
		taken += more.taken
		phosphate += more.phosphate
		out.SurfaceSugar = max(out.SurfaceSugar, more.sugar)
	}
	out.PhosphatePercent = 100 * phosphate / (on.Meat.Green.KG() + taken)
	return out
}
