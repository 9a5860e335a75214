package salt

import (
	"math"
	"slices"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/memo"
	"verjuice/internal/core/quantity"
)

// Brine says what a dry brine is made of.
type Brine struct {
	Load        float64          // salt that stays on the coated face, kg/m², 0 to 20
	Path        cut.Path         // into the piece
	Temperature quantity.Celsius // of the fridge or the counter
	Wait        time.Duration    // until the fire
	Before      Before           // what is in the meat already, from a bath or a needle
}

// Before is salt that is in the meat when it is salted: its mean, and how it lies from the
// centre to the face at equal steps, kg/kg.
type Before struct {
	Mean    float64 // kg/kg
	Profile [graphPoints]float64
}

// Even is salt that lies evenly in the meat.
func Even(mean float64) Before {
	out := Before{Mean: mean}
	for i := range out.Profile {
		out.Profile[i] = mean
	}
	return out
}

// Plus is two of them in one piece.
func (b Before) Plus(o Before) Before {
	for i := range b.Profile {
		b.Profile[i] += o.Profile[i]
	}
	b.Mean += o.Mean
	return b
}

// Left is what a bath leaves in the meat.
func (m Moment) Left() Before {
	out := Before{Mean: m.Mean}
	copy(out.Profile[:], m.Profile)
	return out
}

// Moment is the state of a dry brine at one time.
type Moment struct {
	At        time.Duration
	Profile   []float64 // salt above the meat's own, kg/kg, centre first, at equal steps to the face
	OnSurface float64   // share of the salt not yet taken up, 0 to 1
	Depth     quantity.Length
	Outer     float64 // mean of the outer 5 mm, kg/kg
	Centre    float64 // kg/kg
	Mean      float64 // kg/kg, of what is in the meat
}

// Evenness is the salt of the centre over the mean, 0 to 1.
func (m Moment) Evenness() float64 {
	if m.Mean <= 0 {
		return 0
	}
	return m.Centre / m.Mean
}

// Course is a dry brine over its time.
type Course struct {
	Moments []Moment      // from the first minutes to Horizon, among them every mark and the wait itself
	End     Moment        // at the end of the wait
	TakenUp time.Duration // when the coat is dissolved and drawn in
	Even    time.Duration // when the centre has EvenShare of the mean; 0 when that takes longer than EvenLimit
}

// How a dry brine is followed.
const (
	Horizon   = 72 * time.Hour
	EvenShare = 0.85
	EvenLimit = 7 * 24 * time.Hour
	outerBite = 5 * quantity.MM

	gridCells    = 60
	graphPoints  = 33
	graphMoments = 36
	subSteps     = 3
)

// Marks are the times that cooks talk about.
var Marks = []time.Duration{10 * time.Minute, 3 * time.Hour, 10 * time.Hour, 24 * time.Hour}

// DryBrine follows salt strewn on a face into the meat. Water drawn out of the
// meat dissolves the salt; while any is left the face is saturated (Saturation),
// afterwards nothing passes it. Diffusion is by Fick's law with Diffusivity at
// the brine's temperature.
//
// Load is what stays on the meat, after what falls or drips off. The result
// holds salt above the meat's own. It does not fail: a zero load or wait gives a
// course of zeros.
func DryBrine(b Brine) Course { return courses.Get(b, dryBrine) }

var courses memo.Of[Brine, Course]

func dryBrine(b Brine) Course {
	f := follow(b, 1)
	var out Course
	for _, t := range moments(b.Wait) {
		f.advance(t, subSteps)
		at := f.moment()
		if t == b.Wait {
			out.End = at
		}
		if out.Even == 0 && f.left <= 0 && at.Evenness() >= EvenShare {
			out.Even = t
		}
		if t <= Horizon || t == b.Wait {
			out.Moments = append(out.Moments, at)
		}
	}
	for out.Even == 0 && f.load > 0 && f.now < EvenLimit.Seconds() {
		f.advance(seconds(f.now)+3*time.Hour, 1)
		if f.left <= 0 && f.m.centre() >= EvenShare*f.m.mean() {
			out.Even = seconds(f.now)
		}
	}
	out.TakenUp = f.takenUp
	return out
}

// EndOfWait returns the state at the end of the wait when diffusion runs factor
// times as fast as the best estimate: 1 ± DiffusivitySpread give its range.
func EndOfWait(b Brine, factor float64) Moment {
	return ends.Get(
		faster[Brine]{of: b, factor: factor},
		func(k faster[Brine]) Moment { return endOfWait(k.of, k.factor) },
	)
}

// faster is something whose diffusion runs so many times as fast as the best estimate.
type faster[T any] struct {
	of     T
	factor float64
	at     string // the times or amounts that are asked for
}

var ends memo.Of[faster[Brine], Moment]

func endOfWait(b Brine, factor float64) Moment {
	f := follow(b, factor)
	for i := 1.0; i <= graphMoments; i++ {
		f.advance(time.Duration(float64(b.Wait)*(i/graphMoments)*(i/graphMoments)), 1)
	}
	return f.moment()
}

// follower is a dry brine under way.
type follower struct {
	m       *medium
	d       float64 // m²/s
	load    float64 // kg/kg × m
	left    float64 // of it, still on the face
	now     float64 // s
	takenUp time.Duration
	native  float64 // in the centre at the start: depth is where the salt is above it
}

func follow(b Brine, factor float64) *follower {
	load := b.Load / MeatDensity
	f := &follower{m: newMedium(b.Path, gridCells), d: Diffusivity(b.Temperature) * factor, load: load, left: load}
	if b.Before.Mean > 0 {
		f.m.lay(b.Before)
		f.native = f.m.centre()
	}
	return f
}

// lay puts salt into the medium as it lies, with exactly its mean.
func (m *medium) lay(b Before) {
	a := m.faces[len(m.faces)-1]
	for i := range m.cells() {
		x := (m.faces[i] + m.faces[i+1]) / 2 / a * (graphPoints - 1)
		n := min(int(x), graphPoints-2)
		m.c[i] = max(0, b.Profile[n]+(x-float64(n))*(b.Profile[n+1]-b.Profile[n]))
	}
	scale := b.Mean / m.mean()
	for i := range m.cells() {
		m.c[i] *= scale
	}
}

// advance moves on to the given time in equal steps.
func (f *follower) advance(to time.Duration, steps int) {
	dt := (to.Seconds() - f.now) / float64(steps)
	for range steps {
		if f.left <= 0 {
			f.m.step(dt, f.d, sealed)
		} else {
			before := f.m.held()
			copy(f.m.saved, f.m.c)
			f.m.step(dt, f.d, hold(Saturation))
			took := f.m.held() - before
			if took >= f.left {
				// The coat goes within this step: let exactly what is left through.
				f.takenUp = seconds(f.now + dt*f.left/took)
				copy(f.m.c, f.m.saved)
				f.m.step(dt, f.d, flow(f.left/dt))
				took = f.left
			}
			f.left -= took
		}
		f.now += dt
	}
}

func (f *follower) moment() Moment {
	share := 0.0
	if f.load > 0 {
		share = max(0, f.left/f.load)
	}
	return Moment{
		At: seconds(f.now).Round(time.Second), OnSurface: share, Depth: f.m.depth(f.native + Noticed),
		Outer: f.m.outer(outerBite), Centre: f.m.centre(), Mean: f.m.mean(), Profile: f.m.sample(graphPoints),
	}
}

func seconds(s float64) time.Duration { return time.Duration(s * float64(time.Second)) }

// moments are the times at which a course is recorded, growing as the square of
// their number, with the marks and the wait among them.
func moments(wait time.Duration) []time.Duration {
	times := slices.Clone(Marks)
	for i := 1; i <= graphMoments; i++ {
		share := float64(i) / graphMoments
		times = append(times, time.Duration(share*share*float64(Horizon)).Round(time.Minute))
	}
	if wait > 0 {
		times = append(times, wait)
	}
	slices.Sort(times)
	return slices.Compact(times)
}

// sample reads the profile at n equal steps from the centre to the face.
func (m *medium) sample(n int) []float64 {
	out := make([]float64, n)
	a := m.faces[len(m.faces)-1]
	cell := 0
	centre := func(i int) float64 { return (m.faces[i] + m.faces[i+1]) / 2 }
	for i := range out {
		x := a * float64(i) / float64(n-1)
		for cell < m.cells()-2 && centre(cell+1) < x {
			cell++
		}
		x0, x1 := centre(cell), centre(cell+1)
		share := math.Min(1, math.Max(0, (x-x0)/(x1-x0)))
		out[i] = m.c[cell] + share*(m.c[cell+1]-m.c[cell])
	}
	return out
}
