package logbook

import (
	"math"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/heat"
)

// Lesson is an estimate.
type Lesson struct {
	Mid   float64 `json:"mid"`
	SD    float64 `json:"sd" doc:"Standard deviation"`
	Cooks int     `json:"cooks" doc:"How many tell so"`
}

// Low and High are the ends of the 80 % interval.
func (l Lesson) Low() float64  { return l.Mid - z80*l.SD }
func (l Lesson) High() float64 { return l.Mid + z80*l.SD }

const z80 = 1.2816

// PitLessons are what is learnt of a pit.
type PitLessons struct {
	Name string `json:"name"`
	Off  Lesson `json:"off" doc:"°C over what it is set to"`
	Pace Lesson `json:"pace" doc:"How much longer a core takes than it would by the pit's temperature, ln"`
}

// Lessons are what is learnt from a book of cooks.
type Lessons struct {
	Pits   map[string]PitLessons `json:"pits,omitempty" required:"false" doc:"By the id of the pit on record"`
	Yields map[string]Lesson     `json:"yields,omitempty" required:"false" doc:"By cut: served meat over what was thought, ln"`
	Tender map[string]Lesson     `json:"tender,omitempty" required:"false" doc:"By cut: hours in which it softens over the usual ones, ln"`
	Coat   Lesson                `json:"coat" doc:"Rub that goes on over what was to go on, ln"`
	Salt   Lesson                `json:"salt" doc:"% of the raw boneless meat that is just right"`
}

// Pit is what is known of a pit for the next cook on it: what earlier ones tell, and that no two
// cooks are quite alike. Of one that nothing is known of it is the zero value.
func (b Lessons) Pit(id string) heat.Learnt {
	p, ok := b.Pits[id]
	if !ok || id == "" {
		return heat.Learnt{}
	}
	out := heat.Learnt{PitC: p.Off.Mid, HeatLn: -p.Pace.Mid / heat.HeatOnHours}
	if p.Off.Cooks > 0 {
		out.PitSD = math.Hypot(p.Off.SD, pitVaries)
	}
	if p.Pace.Cooks > 0 {
		out.HeatSD = math.Hypot(p.Pace.SD, paceModel) / heat.HeatOnHours
	}
	return out
}

// What is thought before anything is known, and how far one cook is from the next. Field judgement,
// but for the pit's and the heat's, which are those of the forecast.
const (
	pitPrior, pitVaries     = 8.0, 1.7   // °C
	pacePrior, paceVaries   = 0.12, 0.25 // ln
	paceMost                = 0.5        // ln: what is further off was another cut or another probe
	paceModel               = 0.06       // ln that the heat model itself may be off, however many cooks tell
	yieldPrior, yieldVaries = 0.10, 0.06 // ln
	softPrior, softVaries   = 0.20, 0.25 // ln
	coatPrior, coatVaries   = 0.30, 0.15 // ln
	saltMid, saltPrior      = 0.95, 0.25 // % of raw boneless meat
	saltVaries, perPoint    = 0.15, 0.25 // %; and how much salt one point of the score is
	leastAir                = 30         // minutes of readings of a pit that tell of it
)

// mostSpreads is how many spreads, of what was thought and from one cook to the next together, a cook may
// be off to count at all: what is further off was weighed, read or typed wrongly.
const mostSpreads = 4

// estimate is a running estimate of a mean.
type estimate struct {
	mid, sd     float64 // as it was thought before
	weight, sum float64
	n           int
}

// about begins with what is thought before.
func about(mid, sd float64) estimate { return estimate{mid, sd, 1 / (sd * sd), mid / (sd * sd), 0} }

// add takes in what one cook says, with its standard deviation.
func (e *estimate) add(v, sd float64) {
	if math.IsNaN(v) || math.Abs(v-e.mid) > mostSpreads*math.Hypot(e.sd, sd) {
		return
	}
	w := 1 / (sd * sd)
	e.weight, e.sum, e.n = e.weight+w, e.sum+w*v, e.n+1
}

func (e estimate) lesson() Lesson { return Lesson{e.sum / e.weight, math.Sqrt(1 / e.weight), e.n} }

// Learn is what these cooks teach: how a pit runs, what a cut yields, how much rub a hand really puts on,
// and how salty the cook likes it. Each lesson says how many cooks it rests on, and few cooks move it
// little: it is a running estimate with shrinkage, whose prior is what is thought of a pit, a cut or a hand
// of which nothing is known, and each cook counts by how well it tells (Gelman et al., Bayesian Data
// Analysis, 3rd ed., ch. 2.5 and 5.4: normal means with known variances). The order of
// the cooks makes no difference but to rounding.
func Learn(all []Outcome) Lessons {
	out := Lessons{Pits: map[string]PitLessons{}, Yields: map[string]Lesson{}, Tender: map[string]Lesson{}}
	offs, paces := map[string]*estimate{}, map[string]*estimate{}
	yields, tender := map[string]*estimate{}, map[string]*estimate{}
	names := map[string]string{}
	coat, salt := about(0, coatPrior), about(saltMid, saltPrior)
	at := func(m map[string]*estimate, key string, sd float64) *estimate {
		if m[key] == nil {
			e := about(0, sd)
			m[key] = &e
		}
		return m[key]
	}
	for _, c := range all {
		ran := map[string][]Piece{}
		for _, p := range c.Pieces {
			if p.PitID != "" {
				ran[p.PitID] = append(ran[p.PitID], p)
				names[p.PitID] = p.PitName
			}
			if known, ok := cut.Find(p.Cut); ok {
				if served := p.Served(known.BoneShare()); served > 0 && p.Yield.Mid > 0 {
					at(yields, p.Cut, yieldPrior).add(math.Log(served/p.Yield.Mid), yieldVaries)
				}
			}
			if p.Tender != 0 {
				at(tender, p.Cut, softPrior).add(p.Tender, softVaries)
			}
			if used := p.Used(); used > 0 {
				coat.add(math.Log(used), coatVaries)
			}
			if score, ok := p.Mean("salt"); ok && p.Salt > 0 {
				salt.add(p.Salt-perPoint*(score-Right), saltVaries)
			}
		}
		for id, pieces := range ran {
			if off, ok := offOf(pieces); ok {
				at(offs, id, pitPrior).add(off, pitVaries)
			}
			if pace, ok := paceOf(pieces); ok {
				at(paces, id, pacePrior).add(min(max(pace, -paceMost), paceMost), paceVaries)
			}
		}
	}
	for id := range names {
		one := PitLessons{Name: names[id], Off: about(0, pitPrior).lesson(), Pace: about(0, pacePrior).lesson()}
		if e := offs[id]; e != nil {
			one.Off = e.lesson()
		}
		if e := paces[id]; e != nil {
			one.Pace = e.lesson()
		}
		if one.Off.Cooks+one.Pace.Cooks > 0 {
			out.Pits[id] = one
		}
	}
	for id, e := range yields {
		out.Yields[id] = e.lesson()
	}
	for id, e := range tender {
		out.Tender[id] = e.lesson()
	}
	out.Coat, out.Salt = coat.lesson(), salt.lesson()
	return out
}

// offOf is how far a pit ran from what it was set to at one cook: its pieces shared its thermometer.
func offOf(pieces []Piece) (float64, bool) {
	sum, n := 0.0, 0
	for _, p := range pieces {
		if p.AirN >= leastAir {
			sum, n = sum+p.AirOffC, n+1
		}
	}
	return sum / math.Max(1, float64(n)), n > 0
}

// paceOf is how much longer the cores took at one cook on a pit than they would have by its
// temperature: a pit of which nothing was read does not tell.
func paceOf(pieces []Piece) (float64, bool) {
	sum, n := 0.0, 0
	for _, p := range pieces {
		if p.AirN >= leastAir && p.Pace != 0 {
			sum, n = sum+p.Pace, n+1
		}
	}
	return sum / math.Max(1, float64(n)), n > 0
}
