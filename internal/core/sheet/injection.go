package sheet

import (
	"fmt"
	"math"
	"slices"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/trace"
)

// injection is one, understood.
type injection struct {
	mix     formula.Mix
	mass    quantity.Mass // into one piece
	spacing quantity.Length
	syringe quantity.Volume
	bore    quantity.Length
	avoid   []string
}

func (p *piece) readInjection(at string, errs *field.Errors) {
	t := p.typed.Inject
	if t == nil {
		return
	}
	before := len(*errs)
	in := &injection{}
	mix, wrong := formula.Blend(t.Formula, p.opt.Shelf)
	for _, w := range wrong {
		errs.Add(at+"/formula"+w.Pointer, "%s", w.Detail)
	}
	in.mix = mix
	pump, err := quantity.ParsePercent(or(t.Pump, UsualPump))
	if !errs.Take(at+"/pump", err) && (pump < 0.5 || pump > 30) {
		errs.Add(at+"/pump", "between 0.5 and 30 %% of the meat; usual is 5 to 15 %%")
	}
	length := func(pointer, typed, usual string, low, high quantity.Length) quantity.Length {
		v, err := quantity.ParseLength(or(typed, usual))
		if !errs.Take(pointer, err) && (v < low || v > high) {
			errs.Add(pointer, "between %s and %s", quantity.FormatLength(low, p.opt.Units), quantity.FormatLength(high, p.opt.Units))
		}
		return v
	}
	in.spacing = length(at+"/spacing", t.Spacing, UsualSpacing, 10*quantity.MM, 80*quantity.MM)
	in.bore = length(at+"/bore", t.Bore, UsualBore, 0.5*quantity.MM, 6*quantity.MM)
	if in.syringe, err = quantity.ParseVolume(or(t.Syringe, UsualSyringe)); !errs.Take(at+"/syringe", err) &&
		(in.syringe < 5*quantity.Millilitre || in.syringe > quantity.Litre) {
		errs.Add(at+"/syringe", "between 5 mL and 1 L")
	}
	for i, a := range t.Avoid {
		if !slices.Contains(avoidable, a) {
			errs.Add(fmt.Sprintf("%s/avoid/%d", at, i), "edge, bone or thin-end")
		}
	}
	in.avoid = t.Avoid
	in.mass = quantity.Mass(float64(pump)/100) * p.green
	if len(*errs) == before {
		p.inject = in
	}
}

// InjectionSheet is an injection, worked out.
type InjectionSheet struct {
	Volume   trace.Figure `json:"volume" doc:"Into one piece, mL"`
	Batch    trace.Figure `json:"batch" doc:"To mix for all pieces, g, with a tenth over"`
	Sites    trace.Figure `json:"sites" doc:"Needle sites on one piece"`
	PerSite  trace.Figure `json:"per_site" doc:"mL a site"`
	Refills  trace.Figure `json:"refills" doc:"Syringes for one piece"`
	Salt     trace.Figure `json:"salt" doc:"Salt it leaves, % of raw boneless meat"`
	Even     trace.Figure `json:"even" doc:"Salt halfway between sites over the mean, %, at the fire"`
	Runs     string       `json:"runs" doc:"What runs out, in words"`
	Bore     string       `json:"bore" doc:"Whether the grains pass the needle"`
	Clogs    bool         `json:"clogs"`
	Warm     string       `json:"warm" doc:"How warm it may be"`
	Across   int          `json:"across" doc:"Sites across the width"`
	Along    int          `json:"along" doc:"Sites along the grain"`
	LengthMM float64      `json:"length_mm"`
	WidthMM  float64      `json:"width_mm"`
	Pattern  []Site       `json:"pattern" nullable:"false" doc:"Every site of the grid"`
	Spread   []Pocket     `json:"spread" nullable:"false" doc:"How far the pockets have spread, over the hours"`
	Keep     string       `json:"keep" doc:"Where the needle stays out, in words"`
	Rows     []RowSheet   `json:"rows" nullable:"false"`
}

// Site is one place of the needle's grid.
type Site struct {
	X   float64 `json:"x" doc:"Along the grain, mm from the end"`
	Y   float64 `json:"y" doc:"Across, mm from the side"`
	Use bool    `json:"use" doc:"False where the needle stays out"`
}

// Pocket is the brine of one site after some hours.
type Pocket struct {
	Hours   float64   `json:"hours"`
	Label   string    `json:"label"`
	Even    float64   `json:"even" doc:"Salt halfway between sites over the mean, %"`
	Profile []float64 `json:"profile" nullable:"false" doc:"Salt over the mean, from the needle's track to halfway to the next, at equal steps"`
	ReachMM float64   `json:"reach_mm" doc:"Half the way to the next site"`
}

// avoidable are the places a cook may keep the needle out of.
var avoidable = []string{"edge", "bone", "thin-end"}

// pattern lays the grid out. The edge is its outermost ring, the bone its middle
// line, the thin end the last fifth of its length. A grid with nothing left keeps
// its middle site.
func (in *injection) pattern(along, across int, longMM, wideMM float64) []Site {
	out := make([]Site, 0, along*across)
	left := 0
	for j := range across {
		for i := range along {
			s := Site{X: tenth((float64(i) + 0.5) / float64(along) * longMM), Y: tenth((float64(j) + 0.5) / float64(across) * wideMM), Use: true}
			for _, a := range in.avoid {
				switch a {
				case "edge":
					s.Use = s.Use && i > 0 && j > 0 && i < along-1 && j < across-1
				case "bone":
					s.Use = s.Use && math.Abs(float64(j)+0.5-float64(across)/2) > 0.75
				case "thin-end":
					s.Use = s.Use && (float64(i)+0.5)/float64(along) < 0.8
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

// spread follows one site's pocket to the start of the fire.
func (in *injection) spread(pocket salt.Injected, wait time.Duration) []Pocket {
	out := []Pocket{}
	times := []time.Duration{0, time.Hour, 4 * time.Hour, 12 * time.Hour, 24 * time.Hour}
	times = slices.DeleteFunc(times, func(t time.Duration) bool { return t >= wait && t > 0 })
	for i, m := range pocket.Course(append(times, wait)...) {
		label := quantity.FormatDuration(m.At)
		switch {
		case i == 0:
			label = "just in"
		case i == len(times):
			label += ": at the fire"
		}
		for k, v := range m.Profile { // drawn, not computed with
			m.Profile[k] = math.Round(v*1000) / 1000
		}
		out = append(out, Pocket{Hours: m.At.Hours(), Label: label, Even: 100 * m.Even, Profile: m.Profile, ReachMM: pocket.Reach().MM()})
	}
	return out
}

// tenth rounds to a tenth of a millimetre.
func tenth(mm float64) float64 { return math.Round(mm*10) / 10 }

// keepOff says where the needle does not belong in this piece.
func (p *piece) keepOff() string {
	words := "Keep the needle out of fat seams and away from the outermost edge, where it runs out again."
	if p.cut.BonePercent > 0 {
		words = "Slide along the bone, not onto it: brine beside bone runs out, and the needle bends."
	}
	if p.cut.Sealed == "skin" {
		words += " Never through the skin."
	}
	return words
}

func (p *piece) injectionSheet() *InjectionSheet {
	in := p.inject
	g := grams{p.opt}
	ml := in.mix.Volume(in.mass).ML()
	long, wide := float64(p.geometry.Length), float64(p.geometry.Width)
	along, across := max(1, int(math.Round(long/float64(in.spacing)))), max(1, int(math.Round(wide/float64(in.spacing))))
	pattern := in.pattern(along, across, long*1e3, wide*1e3)
	sites := 0.0
	for _, s := range pattern {
		if s.Use {
			sites++
		}
	}
	sites = max(1, sites)
	batch := in.mass * quantity.Mass(p.count) * 1.1
	salty := float64(in.mass) * in.mix.SaltShare() / float64(p.meat().Edible()) * 100
	pocket := salt.Injected{Spacing: in.spacing, Share: math.Min(0.5, ml*1e-6/(float64(p.green)/p.cut.Density())), Temperature: p.fridge}
	spread := in.spread(pocket, p.wait)
	even := func(factor float64) float64 { return 100 * pocket.Evenness(p.wait, factor) }
	inputs := []trace.Input{
		{Name: "pump", Text: fmt.Sprintf("%.1f %% of %s", 100*float64(in.mass/p.green), quantity.FormatMass(p.green, p.opt.Units))},
		{Name: "grid", Text: quantity.FormatLength(in.spacing, p.opt.Units)}, {Name: "piece", Text: p.size()},
	}
	from := func(words string) trace.Origin {
		return trace.Origin{Words: words, Source: "geometry of the piece and your grid", Inputs: inputs}
	}
	out := &InjectionSheet{
		Volume:  trace.Exact(ml, 0, "mL", from("Pump share of the trimmed weight, over the liquid’s density.")),
		Batch:   g.figure(batch, 0, "For all pieces, with a tenth over for the cup and the needle.", larder.Source, inputs),
		Sites:   trace.Exact(sites, 0, "sites", from("Length and width over the spacing of the grid.")),
		PerSite: trace.Exact(ml/sites, 1, "mL", from("The volume over the sites; more into lean and thin parts, less into fat.")),
		Refills: trace.Exact(math.Ceil(ml/in.syringe.ML()), 0, "syringes", from("The volume over what the syringe holds.")),
		Salt: trace.New(salty*(1-injectionLoss.mid()), salty*(1-injectionLoss.high), salty*(1-injectionLoss.low), 2, "%", trace.Origin{
			Words: "Salt of the injection that stays, over the raw boneless meat.", Source: LayerSource, Inputs: inputs}),
		Even: trace.New(spread[len(spread)-1].Even, even(1-salt.DiffusivitySpread), even(1+salt.DiffusivitySpread), 0, "%", trace.Origin{
			Words: "Each site’s pocket spreads in a cylinder as wide as its square of the grid; salt at its rim over the mean.", Source: salt.DiffusionSource,
			Inputs: append(inputs, trace.Input{Name: "rest", Text: quantity.FormatDuration(p.wait)})}),
		Runs:   fmt.Sprintf("%.0f to %.0f mL runs out again: catch it, and use it as the binder.", ml*injectionLoss.low, ml*injectionLoss.high),
		Across: across, Along: along, LengthMM: long * 1e3, WidthMM: wide * 1e3,
		Rows:    g.rows(p.typed.Inject.Formula, in.mix.Weigh(batch)),
		Pattern: pattern, Spread: spread, Keep: p.keepOff(),
	}
	limit := in.bore.MM() / 3
	if out.Clogs = in.mix.CoarseMM > limit; out.Clogs {
		out.Bore = fmt.Sprintf("Grains of %s mm block a bore of %s mm (a third of it passes): strain it, grind finer, or dissolve it warm.", quantity.Number(in.mix.CoarseMM), quantity.Number(in.bore.MM()))
	} else {
		out.Bore = "Everything in it passes the needle."
	}
	out.Warm = "Inject it cool, at fridge temperature."
	if in.mix.Per100g.Fat > 5 {
		out.Warm = "There is fat in it: liquid from about 36 °C / 97 °F, never above 40 °C / 104 °F into cold meat. It sets again inside."
	}
	return out
}
