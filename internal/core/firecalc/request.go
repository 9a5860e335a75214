// Package firecalc reads what is asked of a fire, as plain numbers, and answers in numbers: the
// JSON of the shell and of the API.
//
//	var r firecalc.FireRequest
//	err := json.Unmarshal(raw, &r)
//	out, err := firecalc.Calc(ctx, r) // a mistake is a field.Errors, each at its pointer
package firecalc

import (
	"context"
	"math"
	"time"

	"verjuice/internal/core/gear"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/salt"
)

// FirePiece is a piece as numbers.
type FirePiece struct {
	Cut         string   `json:"cut" example:"pork-shoulder-bone-in"`
	MassKG      float64  `json:"mass_kg" doc:"Trimmed, with bone"`
	ThicknessMM float64  `json:"thickness_mm,omitempty" required:"false" doc:"At the thickest point, measured; 0 means estimated from cut and weight"`
	StartC      *float64 `json:"start_c,omitempty" required:"false" doc:"All through when it goes on, °C; without it 4"`
	Finish      string   `json:"finish,omitempty" required:"false" doc:"One of the cut's finishes; empty means its usual one"`
}

func (p FirePiece) start() float64 {
	if p.StartC == nil {
		return 4
	}
	return *p.StartC
}

// FireRequest asks for a forecast.
type FireRequest struct {
	Piece          FirePiece     `json:"piece"`
	Pit            FirePit       `json:"pit"`
	Wraps          []FireWrap    `json:"wraps,omitempty" required:"false" doc:"Each when the core reaches a temperature, or after so many hours; the first of the two"`
	Ambient        *FireWeather  `json:"ambient,omitempty" required:"false" doc:"The weather; without it a mild day"`
	OpenedEveryMin float64       `json:"opened_every_min,omitempty" required:"false"`
	SpritzEveryMin float64       `json:"spritz_every_min,omitempty" required:"false"`
	WrapTight      string        `json:"wrap_tight,omitempty" required:"false" enum:",tight,usual,loose"`
	ThresholdsC    []float64     `json:"thresholds_c,omitempty" required:"false"`
	Readings       []FireReading `json:"readings,omitempty" required:"false" doc:"What was read of this cook so far"`
	BarkAtH        float64       `json:"bark_at_h,omitempty" required:"false" doc:"When its surface was seen dry and dark; 0 means not seen"`
	Members        int           `json:"members,omitempty" required:"false" doc:"20 to 1000; 0 means 200"`
	Seed           uint64        `json:"seed,omitempty" required:"false"`
	Salt           *FireSalt     `json:"salt,omitempty" required:"false" doc:"A dry brine before the fire: what the slice will hold of it"`
}

// FirePit is a pit and what it is set to.
type FirePit struct {
	Kind  string     `json:"kind,omitempty" required:"false" doc:"A kind of pit of the plan; empty means a charcoal cabinet"`
	Steps []FireStep `json:"steps" doc:"What the pit is set to, from which hour on; the first from the start"`
}

// FireStep is what a pit is set to from an hour on.
type FireStep struct {
	AtH  float64 `json:"at_h"`
	SetC float64 `json:"set_c"`
}

// FireWrap is a wrap and when it goes on.
type FireWrap struct {
	AtCoreC float64 `json:"at_core_c,omitempty" required:"false"`
	AtH     float64 `json:"at_h,omitempty" required:"false"`
	Kind    string  `json:"kind" enum:"foil,paper,pan,boat,bacon,none"`
	PitC    float64 `json:"pit_c,omitempty" required:"false" doc:"The pit is set to this then; the latest event wins"`
}

// FireWeather is the weather about the pit.
type FireWeather struct {
	AirC float64 `json:"air_c"`
	Wind float64 `json:"wind_m_s,omitempty" required:"false"`
	Rain bool    `json:"rain,omitempty" required:"false"`
}

// FireReading is a core temperature that was read.
type FireReading struct {
	AtH   float64 `json:"at_h"`
	CoreC float64 `json:"core_c"`
	ByEye bool    `json:"by_eye,omitempty" doc:"With a thermometer that is put in and read: 2 °C off, not 1"`
}

// FireSalt is a dry brine before the fire.
type FireSalt struct {
	Grams float64 `json:"grams" doc:"Salt that stays on the coated faces of the piece"`
	WaitH float64 `json:"wait_h" doc:"In the cold, at 4 °C"`
}

// SaltHeld is salt in the meat, % by weight.
type SaltHeld struct {
	Mean   float64 `json:"mean"`
	Outer  float64 `json:"outer" doc:"Of the outer 5 mm"`
	Middle float64 `json:"middle"`
}

// FireSalted is what becomes of a dry brine on the fire.
type FireSalted struct {
	Before SaltHeld `json:"before" doc:"When it goes on, of raw boneless meat"`
	After  SaltHeld `json:"after" doc:"When it is done, still of the raw weight"`
	Served SaltHeld `json:"served" doc:"Of the meat as it is sliced, which has lost water"`
	Lost   float64  `json:"lost" doc:"That went with the juice, % of raw boneless meat"`
}

// HourBand is a figure with its band: one in ten members lies below p10, one in ten above p90.
// A part that the members do not reach is null.
type HourBand struct {
	P10 *float64 `json:"p10_h"`
	P50 *float64 `json:"p50_h"`
	P90 *float64 `json:"p90_h"`
}

// Threshold is when the core reaches a temperature.
type Threshold struct {
	CoreC float64 `json:"core_c"`
	HourBand
	Never float64 `json:"never" doc:"Share of the members that do not reach it"`
}

// DoneBand is when a piece is done, and by what that is judged.
type DoneBand struct {
	By string `json:"by" enum:"core,tenderness" doc:"What decides that it is done"`
	HourBand
	CoreC float64 `json:"core_c,omitempty" doc:"When its core decides: at this temperature"`
	Never float64 `json:"never" doc:"Share of the members that are never done"`
}

// NumberBand is a number with its band.
type NumberBand struct {
	P10 float64 `json:"p10"`
	P50 float64 `json:"p50"`
	P90 float64 `json:"p90"`
}

// Narrowing is something that would narrow the band of the time to done.
type Narrowing struct {
	What  string  `json:"what" enum:"thickness,grate,pit,openings,wrap,reading" doc:"The thickest point, the temperature at the grate, the kind of pit, how often it is opened, how tight the wrap is, a first reading after two hours"`
	BandH float64 `json:"band_h" doc:"Hours that it takes off between p10 and p90"`
}

// FireAnswer is a forecast as numbers.
type FireAnswer struct {
	Thresholds []Threshold  `json:"thresholds" nullable:"false"`
	Done       DoneBand     `json:"done"`
	Curve      []CurvePoint `json:"curve" nullable:"false" doc:"The core every five minutes"`
	Yield      NumberBand   `json:"yield" doc:"Served meat, bone out, as a share of the trimmed weight"`
	CarryOverC NumberBand   `json:"carry_over_c" doc:"How far the core rises after it is off, on the counter, loosely covered"`
	Bark       HourBand     `json:"bark" doc:"When its surface is dry and dark"`
	Salt       *FireSalted  `json:"salt,omitempty" doc:"When a dry brine was given"`
	Narrows    []Narrowing  `json:"narrows" nullable:"false" doc:"What could be measured or told, the most useful first"`
	Stall      HourBand     `json:"stall" doc:"When the core is slowest between 55 and 85 °C; null for a piece that is off before"`
}

// CurvePoint is the core at one time, °C.
type CurvePoint struct {
	H    float64 `json:"h"`
	P10  float64 `json:"p10_c"`
	P50  float64 `json:"p50_c"`
	P90  float64 `json:"p90_c"`
	PitC float64 `json:"pit_c,omitempty" doc:"The pit at its middle"`
}

// Calc answers a request.
func Calc(ctx context.Context, r FireRequest) (FireAnswer, error) {
	c, ask, err := r.Parse()
	if err != nil {
		return FireAnswer{}, err
	}
	f, err := heat.Of(ctx, c, ask)
	if err != nil {
		return FireAnswer{}, err
	}
	out := FireAnswer{
		Thresholds: []Threshold{},
		Curve:      []CurvePoint{},
		Narrows:    []Narrowing{},
		Bark:       spread(f.Bark),
		Stall:      spread(f.Stall),
	}
	for i, t := range ask.Cores {
		out.Thresholds = append(out.Thresholds, Threshold{CoreC: t, HourBand: spread(f.Reach[i]), Never: f.Reach[i].Never})
	}
	out.Done = DoneBand{By: "core", CoreC: c.DoneC, HourBand: spread(f.Done), Never: f.Done.Never}
	if c.Feel {
		out.Done.By = "tenderness"
	}
	for _, p := range f.Curve {
		out.Curve = append(
			out.Curve,
			CurvePoint{round(p.H, 4), round(p.Core.Low, 2), round(p.Core.Mid, 2), round(p.Core.High, 2), round(p.PitC, 1)},
		)
	}
	for _, n := range f.Narrows {
		out.Narrows = append(out.Narrows, Narrowing{n.What, round(n.Hours, 2)})
	}
	if r.Salt != nil {
		out.Salt = salted(c, *r.Salt)
	}
	out.Yield, out.CarryOverC = numbers(f.Yield, 4), numbers(f.Carry, 2)
	return out, nil
}

// salted follows the salt of a dry brine through the fire.
func salted(c heat.Cook, s FireSalt) *FireSalted {
	path := c.Geometry.Path(c.Cut.Sealed != "")
	// Bone holds no salt and is not in its way: the boneless meat lies behind this much face.
	face := (1 + path.Shape) * float64(
		c.Geometry.Mass,
	) * (1 - c.Cut.BoneShare()) / (salt.MeatDensity * float64(path.Depth))
	brine := salt.Brine{
		Load:        s.Grams / 1000 / face,
		Path:        path,
		Temperature: 4,
		Wait:        time.Duration(s.WaitH * float64(time.Hour)),
	}
	before := salt.EndOfWait(brine, 1)
	history := c.History()
	fire := make([]salt.Warmth, len(history))
	for i, w := range history {
		fire[i] = salt.Warmth(w)
	}
	held := salt.ThroughFire(before.Left(), brine.Path, fire)
	percent := func(mean, outer, middle float64) SaltHeld {
		return SaltHeld{round(100*mean, 3), round(100*outer, 3), round(100*middle, 3)}
	}
	return &FireSalted{
		Before: percent(before.Mean, before.Outer, before.Centre), After: percent(held.Mean, held.Outer, held.Middle),
		Served: percent(held.ServedMean, held.ServedOuter, held.ServedMiddle), Lost: round(100*held.Lost, 3),
	}
}

func spread(b heat.Band) HourBand { return HourBand{finite(b.Low), finite(b.Mid), finite(b.High)} }

func numbers(b heat.Band, digits int) NumberBand {
	return NumberBand{round(b.Low, digits), round(b.Mid, digits), round(b.High, digits)}
}

// finite is a number for JSON, which has no infinity.
func finite(v float64) *float64 {
	if math.IsInf(v, 0) || math.IsNaN(v) {
		return nil
	}
	v = round(v, 4)
	return &v
}

func round(v float64, digits int) float64 {
	k := math.Pow(10, float64(digits))
	return math.Round(v*k) / k
}

// RestRequest asks how a piece cools after the fire.
type RestRequest struct {
	Piece   FirePiece `json:"piece"`
	FromC   float64   `json:"from_c" doc:"All through when it comes off, °C"`
	Wrap    string    `json:"wrap,omitempty" required:"false" enum:",none,foil,paper,pan,boat"`
	VentMin float64   `json:"vent_min,omitempty" required:"false" doc:"Opened first, min"`
	Place   string    `json:"place" enum:"counter,cooler,oven_off,pit_off,pit_shut,holder"`
	PlaceC  float64   `json:"place_c,omitempty" required:"false" doc:"What the place is at; 0 means the usual"`
	Hours   float64   `json:"hours,omitempty" required:"false" doc:"How long it is followed; 0 means 16"`
}

// RestAnswer is how it cools.
type RestAnswer struct {
	FloorC float64      `json:"floor_c"`
	Floor  HourBand     `json:"floor" doc:"Hours to the floor; null when it stays above it that long. Cautions use the early end"`
	Curve  []CurvePoint `json:"curve" nullable:"false" doc:"The core every five minutes; p10 loses the most heat"`
}

// CalcRest answers a request.
func CalcRest(r RestRequest) (RestAnswer, error) {
	c := checker{}
	rest := heat.Rest{FromC: r.FromC, Wrap: r.Wrap, VentMin: r.VentMin, Place: r.Place, PlaceC: r.PlaceC}
	rest.Cut, rest.Geometry = c.piece(r.Piece)
	c.within("/from_c", r.FromC, 20, 110)
	c.oneOf("/wrap", r.Wrap, append(gear.WrapIDs(gear.OnFire), "", gear.NoWrap)...)
	c.within("/vent_min", r.VentMin, 0, 120)
	c.oneOf("/place", r.Place, "counter", "cooler", "oven_off", "pit_off", "pit_shut", "holder")
	if r.PlaceC != 0 {
		c.within("/place_c", r.PlaceC, -30, 250)
	}
	hours := r.Hours
	if hours == 0 {
		hours = 16
	}
	c.within("/hours", hours, 0.1, 48)
	if err := c.errs.Err(); err != nil {
		return RestAnswer{}, err
	}
	cooled := rest.Of(hours)
	out := RestAnswer{FloorC: cooled.FloorC, Floor: spread(cooled.Floor), Curve: []CurvePoint{}}
	for _, p := range cooled.Curve {
		out.Curve = append(
			out.Curve,
			CurvePoint{H: round(p.H, 4), P10: round(p.Core.Low, 2), P50: round(p.Core.Mid, 2), P90: round(p.Core.High, 2)},
		)
	}
	return out, nil
}
