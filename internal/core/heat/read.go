package heat

import "slices"

// lately is how far back what was read of a pit tells how far it is from what it is set to, h.
const lately = 2.0

// readC is how far a pit strays, beside its thermometer and from one hour to the next, °C.
const readC = 3.0

// reading is what was read of the pit at t seconds; false before the first reading and after the
// last one.
func (r *fire) reading(t float64) (float64, bool) {
	all, h := r.PitRead, t/3600
	if len(all) == 0 || h > all[len(all)-1].AtH || h < all[0].AtH {
		return 0, false
	}
	for r.read+1 < len(all) && all[r.read+1].AtH <= h {
		r.read++
	}
	a := all[r.read]
	if r.read+1 == len(all) {
		return a.SetC, true
	}
	b := all[r.read+1]
	return a.SetC + (b.SetC-a.SetC)*(h-a.AtH)/(b.AtH-a.AtH), true
}

// PitOff is how far what was read of the pit lately is from what it was set to, °C; zero when
// nothing was read.
func (p *Programme) PitOff() float64 { return p.readOff() }

// readOff is how far what was read of the pit lately is from what it was set to, °C: the middle of
// it, so that an open lid does not count.
func (p *Programme) readOff() float64 {
	if len(p.PitRead) == 0 {
		return 0
	}
	var off []float64
	last := p.PitRead[len(p.PitRead)-1].AtH
	for _, r := range p.PitRead {
		if r.AtH < last-lately {
			continue
		}
		set := p.Steps[0].SetC
		for _, s := range p.Steps {
			if s.AtH <= r.AtH {
				set = s.SetC
			}
		}
		off = append(off, r.SetC-set)
	}
	slices.Sort(off)
	return off[len(off)/2]
}
