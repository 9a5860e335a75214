package shop

// Enough says whether the portions feed the guests.
type Enough struct {
	Verdict string // enough, short, over; empty without guests or meat
	Needed  float64
	Differs float64 // portions too few or too many
}

// Feeds says how so many portions stand to those needed: a twentieth short is enough, and
// a quarter over is over. It is empty without guests or meat.
func Feeds(portions, needed float64) Enough {
	switch {
	case needed <= 0 || portions == 0:
		return Enough{}
	case portions < 0.95*needed:
		return Enough{"short", needed, needed - portions}
	case portions > 1.25*needed:
		return Enough{"over", needed, portions - needed}
	}
	return Enough{"enough", needed, 0}
}
