package plan

import "time"

// Room is what a place holds over time.
type Room struct {
	Pit    int     // of the cook; -1 for the fridge
	Limit  float64 // dm²; zero when it is not known
	Peak   float64
	PeakAt time.Time
	Uses   []RoomUse
}

// Fridge is the Pit of a Room that is the fridge.
const Fridge = -1

// RoomUse is a piece in a place for some time.
type RoomUse struct {
	Key      string
	From, To time.Time
	DM2      float64
}

// Peaked is r with the most that is in it at once, and when.
func (r Room) Peaked() Room {
	for _, u := range r.Uses {
		sum := 0.0
		for _, v := range r.Uses {
			if !v.From.After(u.From) && v.To.After(u.From) {
				sum += v.DM2
			}
		}
		if sum > r.Peak {
			r.Peak, r.PeakAt = sum, u.From
		}
	}
	return r
}
