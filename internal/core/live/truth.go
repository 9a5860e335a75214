package live

import "time"

// Truth is what was hidden of a piece that was practised, beside what was decided.
type Truth struct {
	Piece         string  // key
	PitOff        float64 // °C that the pit ran off what it was set to
	Thick         float64 // thickness over what was believed
	Hot           float64 // how well its air gave heat, over what is usual
	On, Off       time.Time
	TargetC       float64 // core that was wanted
	CoreC, ShownC float64 // of the coldest place when it came off: really, and as the probe showed it
	Ways          []Way
}

// Way is one way to have cooked it, and what it would have come to.
type Way struct {
	ID    string  // did, planned, bare, foil or hotter
	Hours float64 // until the coldest place is at its target
	Done  bool    // it gets there
}
