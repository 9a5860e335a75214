package salt

import (
	"fmt"
	"math"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/memo"
	"verjuice/internal/core/quantity"
)

// Bath is a wet brine: so much water with salt in it, and meat in that.
type Bath struct {
	Water       quantity.Mass // of the brine, for one piece
	Salt        quantity.Mass // in it
	Meat        quantity.Mass // one piece, boneless
	Path        cut.Path
	Temperature quantity.Celsius
}

// meatWater is the water in lean meat, kg/kg: salt lives in it, so meat beside a
// brine ends with this share of the brine's salt per kg of water.
const meatWater = 0.74

const bathCells = 50

// bathRun is a bath under way.
type bathRun struct {
	m   *medium
	d   float64
	now float64
}

func (b Bath) run(factor float64) *bathRun {
	m := newMedium(b.Path, bathCells)
	// The medium is counted per m² of face; the bath is scaled to the meat there.
	volume := 0.0
	for _, v := range m.volume {
		volume += v
	}
	share := volume * MeatDensity / b.Meat.KG()
	water := b.Water.KG() * share / meatWater / MeatDensity
	m.addBath(water, meatWater*b.Salt.KG()/b.Water.KG())
	return &bathRun{m: m, d: Diffusivity(b.Temperature) * factor}
}

func (r *bathRun) to(t time.Duration, steps int) {
	from := r.now
	for i := 1; i <= steps; i++ {
		share := float64(i) / float64(steps)
		next := from + (t.Seconds()-from)*share*share
		r.m.step(next-r.now, r.d, sealed)
		r.now = next
	}
}

// After returns the state of the meat after t in the bath, with diffusion factor
// times as fast as the best estimate. Bath and meat share the salt (Crank, eq.
// 4.37, in the piece's own shape).
func (b Bath) After(t time.Duration, factor float64) Moment {
	if t <= 0 {
		return Moment{Profile: make([]float64, graphPoints)}
	}
	return soaked.Get(faster[Bath]{b, factor, t.String()}, func(faster[Bath]) Moment {
		r := b.run(factor)
		r.to(t, 60)
		return Moment{
			At: t, Depth: r.m.depth(Noticed), Outer: r.m.outer(outerBite), Centre: r.m.centre(), Mean: r.m.mean(),
			Profile: r.m.sample(graphPoints),
		}
	})
}

var (
	soaked  memo.Of[faster[Bath], Moment]
	soaking memo.Of[faster[Bath], []Moment]
	reached memo.Of[faster[Bath], []time.Duration]
	pockets memo.Of[faster[Injected], []PocketMoment]
)

// AtInfinity is the mean salt of the meat once bath and meat are even, kg/kg.
func (b Bath) AtInfinity() float64 {
	w, m := b.Water.KG(), b.Meat.KG()*meatWater
	return meatWater * b.Salt.KG() / (w + m)
}

// EquilibriumSalt is the salt for a bath that ends with target (kg/kg) in the
// meat however long it takes: target × (meat + water / 0.74), since the meat's
// salt lives in its water.
func EquilibriumSalt(meat, water quantity.Mass, target float64) quantity.Mass {
	return quantity.Mass(target * (meat.KG() + water.KG()/meatWater))
}

// Course returns the state of the meat at each of the times, which rise, in one
// run at the best estimate of the diffusivity.
func (b Bath) Course(times ...time.Duration) []Moment {
	return soaking.Get(faster[Bath]{b, 1, fmt.Sprint(times)}, func(faster[Bath]) []Moment { return b.course(times) })
}

func (b Bath) course(times []time.Duration) []Moment {
	r := b.run(1)
	out := make([]Moment, len(times))
	for i, t := range times {
		r.to(t, 30)
		out[i] = Moment{At: t, Depth: r.m.depth(Noticed), Outer: r.m.outer(outerBite), Centre: r.m.centre(), Mean: r.m.mean()}
	}
	return out
}

// Reach returns when the mean salt of the meat reaches each of the targets
// (kg/kg), which rise, in one run with diffusion factor times as fast as the best
// estimate. A target that is not reached within a week has a zero time.
func (b Bath) Reach(factor float64, targets ...float64) []time.Duration {
	return reached.Get(
		faster[Bath]{b, factor, fmt.Sprint(targets)},
		func(faster[Bath]) []time.Duration { return b.reach(factor, targets) },
	)
}

func (b Bath) reach(factor float64, targets []float64) []time.Duration {
	out := make([]time.Duration, len(targets))
	r := b.run(factor)
	before, next := 0.0, 0
	const steps = 160
	for i := 1.0; i <= steps && next < len(targets) && targets[next] < b.AtInfinity(); i++ {
		at := i / steps * (i / steps) * EvenLimit.Seconds()
		r.m.step(at-r.now, r.d, sealed)
		mean := r.m.mean()
		for next < len(targets) && mean >= targets[next] {
			out[next] = seconds(r.now + (targets[next]-before)/(mean-before)*(at-r.now))
			next++
		}
		r.now, before = at, mean
	}
	return out
}

// BrineDensity is the density of salt water at 20 °C in kg/m³, for 0 to 26 % of
// salt by weight: 998.2 + 7.03 p + 0.023 p², within 1 kg/m³ of the CRC Handbook's
// table.
func BrineDensity(percent float64) float64 { return 998.2 + 7.03*percent + 0.023*percent*percent }

// Salometer is the strength of a brine in degrees: 100 is saturated, 26.4 %.
func Salometer(percent float64) float64 { return percent / 26.4 * 100 }

// FloatsEgg is the strength, % by weight, at which a fresh egg (about 1.08 kg/L)
// begins to float.
const FloatsEgg = 11.0

// IceBathEnds is what the ice is reckoned to bring a bath to, °C.
const IceBathEnds quantity.Celsius = 4

// SugarDensity is what a percent of sugar by weight adds to the density of a brine, kg/m³,
// after the sucrose tables of ICUMSA at 20 °C up to 15 %.
const SugarDensity = 4.0

// IceShare is the share of the water that goes in as ice, so that the rest, at
// hot, ends at 4 °C: heat of water and ice at −18 °C balanced, vessel left out.
func IceShare(hot quantity.Celsius) float64 {
	const water, ice, melt, freezer, end = 4.19, 2.1, 334.0, -18.0, 4.0
	perIce := -freezer*ice + melt + end*water
	perHot := (float64(hot) - end) * water
	return perHot / (perHot + perIce)
}

// Cover is the liquid that covers pieces of the given volume in a pot: loosely
// packed they fill about 57 % of the room, so it is three quarters of theirs.
func Cover(meat quantity.Volume) quantity.Volume { return 0.75 * meat }

// Injected is a piece with brine in it, in cylinders at even spacing.
type Injected struct {
	Spacing     quantity.Length // of the grid
	Share       float64         // of the meat's volume that the brine takes, 0 to 0.5
	Temperature quantity.Celsius
}

// Reach is half the way from a site to the next: the radius of the cylinder as
// large as a site's square of the grid.
func (i Injected) Reach() quantity.Length {
	return quantity.Length(float64(i.Spacing) / math.Sqrt(math.Pi))
}

// PocketMoment is the state of a site's pocket at one time.
type PocketMoment struct {
	At      time.Duration
	Even    float64   // salt at the rim over the mean
	Profile []float64 // salt over the mean, from the needle's track to the rim
}

// pocketPoints is how many points of a pocket's profile are drawn.
const pocketPoints = 24

// Course follows one site's pocket: brine in a cylinder around the needle's
// track, radial diffusion, sealed halfway to the next site. The times rise.
func (i Injected) Course(times ...time.Duration) []PocketMoment {
	return i.faster(1, times...)
}

func (i Injected) faster(factor float64, times ...time.Duration) []PocketMoment {
	return pockets.Get(
		faster[Injected]{i, factor, fmt.Sprint(times)},
		func(faster[Injected]) []PocketMoment { return i.course(factor, times) },
	)
}

func (i Injected) course(factor float64, times []time.Duration) []PocketMoment {
	reach := float64(i.Reach())
	m := newMedium(cut.Path{Depth: quantity.Length(reach), Shape: 1}, 60)
	pocket := reach * math.Sqrt(i.Share)
	for c := range m.c {
		lo, hi := m.faces[c], m.faces[c+1]
		m.c[c] = math.Min(1, math.Max(0, (pocket*pocket-lo*lo)/(hi*hi-lo*lo)))
	}
	d := Diffusivity(i.Temperature) * factor
	out := make([]PocketMoment, len(times))
	now := 0.0
	for n, t := range times {
		from, span := now, t.Seconds()-now
		const steps = 24
		for s := 1.0; s <= steps && span > 0; s++ {
			next := from + span*(s/steps)*(s/steps)
			m.step(next-now, d, sealed)
			now = next
		}
		mean := m.mean()
		if mean <= 0 {
			mean = 1
		}
		out[n] = PocketMoment{At: t, Even: m.c[m.cells()-1] / mean, Profile: m.sample(pocketPoints)}
		for k := range out[n].Profile {
			out[n].Profile[k] /= mean
		}
	}
	return out
}

// Evenness is how even the salt of an injection is after t: the salt farthest
// from a needle over the mean, 0 to 1.
func (i Injected) Evenness(t time.Duration, factor float64) float64 {
	return i.faster(factor, t)[0].Even
}
