// Package instrument holds the devices of a kitchen behind small interfaces, and
// simulated stand-ins for them that ship with the program.
package instrument

import (
	"math"
	"math/rand/v2"
	"sync"
	"time"
)

// Scale is a kitchen scale.
type Scale interface {
	// Read returns what the scale shows now.
	Read(now time.Time) Reading
	// Tare sets the reading to zero with what is on the scale.
	Tare()
}

// Reading is what a scale shows.
type Reading struct {
	Grams    float64 `json:"grams" doc:"Shown weight at the scale's step, after tare"`
	Stable   bool    `json:"stable" doc:"It has settled"`
	Overload bool    `json:"overload" doc:"More lies on it than it can weigh; grams is not to be used"`
}

// Simulated is a stand-in for a scale: it settles as a real one does, trembles
// while it is touched, and has a limit. Put lays things on it.
type Simulated struct {
	mu    sync.Mutex
	load  float64 // g that lies on it
	shown float64 // g, on its way to load
	tare  float64
	last  time.Time
	rng   *rand.Rand
}

// How the simulated scale behaves.
const (
	Capacity = 5000.0 // g
	step     = 0.1    // g
	settling = 0.35   // s, to 1/e
	tremble  = 0.03   // g
)

// NewSimulated returns an empty scale; seed makes its trembling repeatable.
func NewSimulated(seed uint64) *Simulated {
	return &Simulated{rng: rand.New(rand.NewPCG(seed, seed+1))}
}

// Put lays so many grams more on the scale, or takes them off when negative. What
// is on it is never below zero.
func (s *Simulated) Put(grams float64) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.load = math.Max(0, s.load+grams)
}

// Tare implements Scale.
func (s *Simulated) Tare() {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.tare = s.load
}

// Clear takes everything off.
func (s *Simulated) Clear() {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.load, s.tare = 0, 0
}

// Read implements Scale.
func (s *Simulated) Read(now time.Time) Reading {
	s.mu.Lock()
	defer s.mu.Unlock()
	dt := now.Sub(s.last).Seconds()
	if s.last.IsZero() || dt > 60 {
		dt = 60
	}
	s.last = now
	s.shown += (s.load - s.shown) * (1 - math.Exp(-dt/settling))
	away := math.Abs(s.load - s.shown)
	noise := tremble * s.rng.NormFloat64()
	if away < step/4 {
		noise = 0
	}
	return Reading{
		Grams:    math.Round((s.shown-s.tare+noise)/step)*step + 0,
		Stable:   away < step/2,
		Overload: s.load > Capacity,
	}
}
