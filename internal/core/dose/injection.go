package dose

import (
	"math"
	"slices"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/trace"
)

// Lost is the share of an injection that runs out again when pump (a share of the
// trimmed weight) is injected: about a tenth of little, 15 % at a usual pump of 8 %, and
// a percent more for every further percent, since full meat pushes it back out. A third
// less or two thirds more is usual. Field judgement, in the sense of what meat plants
// report of needles without tumbling.
func Lost(pump float64) quantity.Range[float64] {
	mid := 0.10 + 0.05*min(pump, usualPump)/usualPump + max(0, pump-usualPump)
	if pump > fullPump { // what is pumped on top stays for a fifth
		mid = 1 - (fullPump*(1-Lost(fullPump).Mid)+(pump-fullPump)/5)/pump
	}
	return quantity.Range[float64]{Low: mid / 3, Mid: mid, High: min(1, mid*5/3)}
}

const (
	usualPump = 0.08
	fullPump  = 0.40
)

// MaxPump is the most that is pumped into meat, % of its trimmed weight: more does
// not stay.
const MaxPump = 30.0

// Injection is liquid through the needle. Its amount is what the cook said, Mass when
// that was worked out, or else Pump. Of an amount that is more than the meat takes, the
// rest is left over.
type Injection struct {
	plain
	Formula formula.Formula // as typed
	Mix     formula.Mix
	Pump    float64 // share of the trimmed weight
	Said    Said
	Mass    quantity.Mass // into one piece
	Spacing quantity.Length
	Syringe quantity.Volume
	Bore    quantity.Length
	Avoid   []string // of Avoidable
}

// Avoidable are the places that a cook may keep the needle out of.
var Avoidable = []string{"edge", "bone", "thin-end"}

// ID implements Source.
func (Injection) ID() ID { return "inject" }

// Label implements Source.
func (i Injection) Label() Label { return Label{i.ID(), i.Formula.Name} }

func (i Injection) mass(on Target) quantity.Mass {
	if i.Mass > 0 {
		return i.Mass
	}
	if i.Said.Given() {
		return min(i.Said.One(on), quantity.Mass(MaxPump/100)*on.Meat.Green)
	}
	return quantity.Mass(i.Pump) * on.Meat.Green
}

// On implements Source.
func (i Injection) On(on Target) Brought {
	m := i.mass(on)
	lost := Lost(float64(m / on.Meat.Green))
	return Brought{
		Label: i.Label(), Mass: m, Salt: quantity.Mass(float64(m) * i.Mix.SaltShare()), Off: i.Said.Off,
		Place: salt.Pockets, Mix: i.Mix,
		Stays: salt.Share{Low: 1 - lost.High, Mid: 1 - lost.Mid, High: 1 - lost.Low},
	}
}

// Amount implements Source: % of the trimmed weight.
func (i Injection) Amount(on Target) trace.Figure {
	return trace.Exact("amount.pumped", 100*float64(i.mass(on)/on.Meat.Green))
}

// Over is what is left over for all pieces of an amount that is more than they take.
func (i Injection) Over(on Target) quantity.Mass {
	if !i.Said.Given() {
		return 0
	}
	return (i.Said.One(on) - i.mass(on)) * quantity.Mass(on.Count)
}

// batch is what is mixed for all pieces: what the cook said, or what goes in and a tenth
// over.
func (i Injection) batch(on Target) quantity.Mass {
	if i.Said.Given() {
		return i.Said.One(on) * quantity.Mass(on.Count)
	}
	return i.mass(on) * quantity.Mass(on.Count) * overMixed
}

// Uses implements Source.
func (i Injection) Uses(on Target) []Use {
	return []Use{{Formula: i.Formula, Mix: i.Mix, Mass: i.batch(on), For: i.ID()}}
}

// WithAmount implements Source.
func (i Injection) WithAmount(kg float64) Source {
	i.Mass, i.Pump, i.Said = quantity.Mass(kg), 0, Said{}
	return i
}

// Check implements Source.
func (i Injection) Check(on Target) field.Errors {
	var errs field.Errors
	if pump := 100 * float64(i.mass(on)/on.Meat.Green); pump > MaxPump*(1+1e-9) {
		errs.Add("/pump", "inject.too-much", "pump", math.Round(pump), "most", MaxPump, "source", i.Label())
	}
	return errs
}

// Site is one place of the needle's grid.
type Site struct {
	X   float64 `json:"x" doc:"Along the grain, mm from the end"`
	Y   float64 `json:"y" doc:"Across, mm from the side"`
	Use bool    `json:"use" doc:"False where the needle stays out"`
}

// Needle is how an injection is put into one piece.
type Needle struct {
	Volume  quantity.Volume // into one piece
	Batch   quantity.Mass   // for all pieces, with a tenth over for the cup and the needle
	Across  int             // sites across the width
	Along   int             // sites along the grain
	Pattern []Site
	Sites   int     // that are used
	Refills int     // syringes for one piece
	GrainMM float64 // largest grain that stays a grain in the liquid, mm
	Clogs   bool
	Pockets []salt.PocketMoment // the last is the start of the fire
	Reach   quantity.Length     // half the way to the next site
	Even    quantity.Range[float64]
}

// overMixed is how much more than is injected is mixed.
const overMixed = 1.1

// Needle lays the grid out on the piece and follows one site's pocket to the fire.
func (i Injection) Needle(on Target) Needle {
	m := i.mass(on)
	n := Needle{Volume: i.Mix.Volume(m), Batch: i.batch(on)}
	sites := func(side quantity.Length) int { return max(1, int(math.Round(float64(side)/float64(i.Spacing)))) }
	n.Along, n.Across = sites(on.Length), sites(on.Width)
	n.Pattern = i.pattern(n.Along, n.Across, on.Length.MM(), on.Width.MM())
	for _, s := range n.Pattern {
		if s.Use {
			n.Sites++
		}
	}
	n.Refills = int(math.Ceil(n.Volume.ML() / i.Syringe.ML()))
	n.GrainMM = i.Mix.Undissolved()
	n.Clogs = n.GrainMM > i.Passes().MM()
	pocket := salt.Injected{
		Spacing:     i.Spacing,
		Share:       math.Min(0.5, n.Volume.ML()*1e-6/(float64(on.Meat.Green)/on.Density)),
		Temperature: on.Fridge,
	}
	n.Reach = pocket.Reach()
	times := []time.Duration{0, time.Hour, 4 * time.Hour, 12 * time.Hour, 24 * time.Hour}
	times = slices.DeleteFunc(times, func(t time.Duration) bool { return t >= on.Wait && t > 0 })
	n.Pockets = pocket.Course(append(times, on.Wait)...)
	n.Even = quantity.Range[float64]{
		Low:  pocket.Evenness(on.Wait, 1-salt.DiffusivitySpread),
		Mid:  n.Pockets[len(n.Pockets)-1].Even,
		High: pocket.Evenness(on.Wait, 1+salt.DiffusivitySpread),
	}
	return n
}

// Passes is the largest grain that passes the needle: a third of its bore.
func (i Injection) Passes() quantity.Length { return i.Bore / 3 }

// pattern lays the grid out, mm. The edge is its outermost ring, the bone its middle
// line, the thin end the last fifth of its length. A grid with nothing left keeps
// its middle site.
func (i Injection) pattern(along, across int, longMM, wideMM float64) []Site {
	out := make([]Site, 0, along*across)
	left := 0
	for y := range across {
		for x := range along {
			s := Site{
				X:   tenth((float64(x) + 0.5) / float64(along) * longMM),
				Y:   tenth((float64(y) + 0.5) / float64(across) * wideMM),
				Use: true,
			}
			for _, a := range i.Avoid {
				switch a {
				case "edge":
					s.Use = s.Use && x > 0 && y > 0 && x < along-1 && y < across-1
				case "bone":
					s.Use = s.Use && math.Abs(float64(y)+0.5-float64(across)/2) > 0.75
				case "thin-end":
					s.Use = s.Use && (float64(x)+0.5)/float64(along) < 0.8
				}
			}
			if s.Use {
				left++
			}
			out = append(out, s)
		}
	}
	if left == 0 {
		out[len(out)/2].Use = true
	}
	return out
}

// tenth rounds to a tenth of a millimetre.
func tenth(mm float64) float64 { return math.Round(mm*10) / 10 }
