package dose

import (
	"verjuice/internal/core/cut"
	"verjuice/internal/core/salt"
)

// AtTheWait is the salt of the sources when the wait before the fire begins: kg a m² of
// the face that has meat behind it, and what is in the meat already. Where bone is, there
// is no such face: the meat that the path holds is the boneless meat. A bath leaves it as it lies, when it
// came in by the same path; a needle's pockets are taken as even. What goes on later is in
// neither.
func AtTheWait(sources []Source, all []Brought, on Target, path cut.Path) (load float64, before salt.Before) {
	edible := float64(on.Meat.Edible())
	face := (1 + path.Shape) * edible / (salt.MeatDensity * float64(path.Depth))
	for i, one := range all {
		stays := float64(one.Salt) * one.Stays.Mid
		switch {
		case !sources[i].waits():
		case one.Place == salt.Surface:
			load += stays / face
		default:
			before = before.Plus(sources[i].leaves(on, path, stays/edible))
		}
	}
	return load, before
}
