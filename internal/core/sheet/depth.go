package sheet

import (
	"fmt"
	"math"
	"time"

	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/trace"
)

// DepthSheet is a cut across the piece, and where the salt is in it.
type DepthSheet struct {
	PathMM   float64      `json:"path_mm" doc:"From the coated face to the middle, or to the bare face, mm"`
	OneBare  bool         `json:"one_bare" doc:"The salt comes from one side only"`
	Across   string       `json:"across" doc:"Thickness of the piece in words"`
	Depth    trace.Figure `json:"depth" doc:"How deep salt can be tasted at the fire"`
	TakenUp  trace.Figure `json:"taken_up" doc:"When the coat is drawn in, min"`
	Even     trace.Figure `json:"even" doc:"Salt of the centre over the mean, %, at the fire"`
	EvenAt   string       `json:"even_at" doc:"When it is even, in words"`
	Surface  string       `json:"surface" doc:"What the surface looks like when the fire starts"`
	Worst    bool         `json:"worst" doc:"The fire starts while the surface is wet with brine"`
	Follows  string       `json:"follows" doc:"How the plan's wait stands to what was asked and to its school; may be empty"`
	Advice   string       `json:"advice" doc:"What covering or leaving open, and this wait, do"`
	End      int          `json:"end" doc:"Which moment is the start of the fire"`
	Moments  []Moment     `json:"moments" nullable:"false"`
	MaxSalt  float64      `json:"max_salt" doc:"% that is drawn darkest"`
	Seasoned float64      `json:"seasoned" doc:"Salt % at which meat tastes seasoned: the lower end of the chosen band"`
}

// Moment is the state at one time after salting.
type Moment struct {
	Hours     float64   `json:"hours"`
	Label     string    `json:"label"`
	Mark      string    `json:"mark" doc:"Name of the time when cooks have one: 10 min, 3 h, overnight, 24 h, fire"`
	Profile   []float64 `json:"profile" nullable:"false" doc:"Salt above the meat’s own, %, from the far end (centre or bare face) to the coated face at equal steps"`
	DepthMM   float64   `json:"depth_mm"`
	Depth     string    `json:"depth"`
	OnSurface float64   `json:"on_surface" doc:"% of the salt still lying on the surface"`
	Centre    float64   `json:"centre" doc:"%"`
}

// brine is the piece under its coat.
func (p *piece) brine(d dose) salt.Brine {
	temperature := p.fridge
	if p.temper >= p.wait {
		temperature = p.room // salted on the counter, while the fire comes up
	}
	return salt.Brine{
		Load:        float64(d.salt) * d.stays.Mid / p.salted(),
		Path:        p.geometry.Path(p.oneBare),
		Temperature: temperature,
		Wait:        p.wait,
	}
}

func (p *piece) course(d dose) salt.Course { return salt.DryBrine(p.brine(d)) }

func (p *piece) brineInputs(d dose) []trace.Input {
	b := p.brine(d)
	return []trace.Input{
		{Name: "salt on the surface", Text: fmt.Sprintf("%.0f g/m² that stays", 1000*b.Load)},
		{Name: "wait", Text: quantity.FormatDuration(p.wait)},
		{Name: "temperature", Text: quantity.FormatTemperature(b.Temperature, p.opt.Units)},
		{Name: "way in", Text: quantity.FormatLength(b.Path.Depth, p.opt.Units)},
		{Name: "diffusivity", Text: fmt.Sprintf("%.1f × 10⁻¹⁰ m²/s ± 35 %%", salt.Diffusivity(b.Temperature)*1e10)},
	}
}

func (p *piece) depthSheet(d dose, c salt.Course) *DepthSheet {
	b := p.brine(d)
	inputs := p.brineInputs(d)
	slow, fast := salt.EndOfWait(b, 1-salt.DiffusivitySpread), salt.EndOfWait(b, 1+salt.DiffusivitySpread)
	sys := p.opt.Units
	depth := trace.New(c.End.Depth.MM(), slow.Depth.MM(), fast.Depth.MM(), 0, "mm", trace.Origin{
		Words:  "Where the salt is 0.25 % above the meat’s own: it goes with the root of time, not with weight.",
		Source: salt.DiffusionSource, Inputs: inputs})
	depth.Text, depth.Unit = quantity.FormatLength(c.End.Depth, sys), ""
	depth.Range = ""
	if l, h := quantity.FormatLength(slow.Depth, sys), quantity.FormatLength(fast.Depth, sys); l != h {
		depth.Range = l + "–" + h
	}
	if c.End.Depth <= 0 {
		depth.Text = "0 mm"
	}
	minutes := c.TakenUp.Minutes()
	taken := trace.New(minutes, minutes/(1+salt.DiffusivitySpread), minutes/(1-salt.DiffusivitySpread), 0, "min", trace.Origin{
		Words:  "Drawn-out water dissolves the salt; while any is left the surface is saturated, then it is all inside.",
		Source: salt.DiffusionSource, Inputs: inputs})
	taken.Text, taken.Unit = quantity.FormatDuration(c.TakenUp), ""
	taken.Range = quantity.FormatDuration(time.Duration(taken.Low*float64(time.Minute))) + "–" + quantity.FormatDuration(time.Duration(taken.High*float64(time.Minute)))
	if b.Load <= 0 {
		taken.Text, taken.Range = "no salt", ""
	}
	even := 100 * c.End.Evenness()
	out := &DepthSheet{
		PathMM: b.Path.Depth.MM(), OneBare: p.oneBare, Across: quantity.FormatLength(p.geometry.Thickness, sys),
		Depth: depth, TakenUp: taken,
		Even: trace.New(even, 100*slow.Evenness(), 100*fast.Evenness(), 0, "%", trace.Origin{
			Words: "Salt in the centre over the mean of the meat: 100 % is the same everywhere.", Source: salt.DiffusionSource, Inputs: inputs}),
		EvenAt: evenWords(c, p.cut.Noun, b.Load), Advice: p.waitAdvice(), Moments: []Moment{}, Seasoned: p.band.Low,
	}
	out.Surface, out.Worst = surfaceWords(p.wait, c.TakenUp, b.Load, p.typed.Wait.Open)
	out.Follows = joinSentences(p.planned(), p.school(c.TakenUp))
	out.MaxSalt = math.Max(1.5, math.Min(6, 300*c.End.Mean))
	for i, m := range c.Moments {
		if m.At == p.wait {
			out.End = i
		}
		out.Moments = append(out.Moments, moment(m, p.wait, sys))
	}
	return out
}

var markNames = map[time.Duration]string{10 * time.Minute: "10 min", 3 * time.Hour: "3 h", 10 * time.Hour: "overnight", 24 * time.Hour: "24 h"}

func moment(m salt.Moment, wait time.Duration, sys quantity.System) Moment {
	out := Moment{
		Hours: m.At.Hours(), Label: quantity.FormatDuration(m.At), Mark: markNames[m.At],
		DepthMM: m.Depth.MM(), Depth: quantity.FormatLength(m.Depth, sys), OnSurface: 100 * m.OnSurface, Centre: 100 * m.Centre,
		Profile: make([]float64, len(m.Profile)),
	}
	if m.At == wait {
		out.Mark = "fire"
	}
	for i, c := range m.Profile {
		out.Profile[i] = math.Round(c*1e5) / 1e3 // percent, to a thousandth
	}
	return out
}

func evenWords(c salt.Course, noun string, load float64) string {
	switch {
	case load <= 0:
		return "there is no salt to spread"
	case c.Even == 0:
		return "never even in practice: that takes over a week"
	case c.Even > 72*time.Hour:
		return fmt.Sprintf("even after %s, longer than raw meat keeps", quantity.FormatDuration(c.Even))
	default:
		return fmt.Sprintf("a %s this thick is even after %s", noun, quantity.FormatDuration(c.Even))
	}
}

// surfaceWords says what the cook sees when the fire starts. Beads stand on the
// meat until the coat is taken up; starting the fire among them steams the bark.
func surfaceWords(wait, taken time.Duration, load float64, open bool) (words string, worst bool) {
	switch {
	case load <= 0:
		return "as it was", false
	case wait < 5*time.Minute:
		return "still dry: the salt has not drawn water yet", false
	case wait < taken:
		return fmt.Sprintf("beads of water: the worst moment to start. Wait until it glistens, %s from salting, or start within five minutes", quantity.FormatDuration(taken)), true
	case wait < 2*taken+30*time.Minute || wait < 3*time.Hour:
		return "a wet glisten: the salt is in, the surface not yet dry", false
	case open:
		return "dry and darker: ready to take smoke", false
	default:
		return "tacky: pat it dry, or uncover it for the last hours", false
	}
}

func (p *piece) waitAdvice() string {
	if p.wait <= 2*time.Hour {
		return "Sugar and spice stay on the surface whatever the time; only salt moves."
	}
	if p.typed.Wait.Open {
		return "Open: a dry surface, better skin and bark. Keep it below other food in the fridge."
	}
	return "Covered: the meat keeps wet and the fridge clean. Sugar and spice stay on the surface."
}

// planned says what the plan makes of the wait that was asked.
func (p *piece) planned() string {
	if p.moved() == "" {
		return ""
	}
	return fmt.Sprintf("The plan gives %s instead of %s.", quantity.FormatDuration(p.wait), quantity.FormatDuration(p.asked))
}

// school holds the wait against what its school asks for: minutes while the fire
// comes up, a night of 8 to 12 hours, or a day and more.
func (p *piece) school(takenUp time.Duration) string {
	short := func(least time.Duration, of string) string {
		return fmt.Sprintf("%s too short for %s.", upper(quantity.FormatDuration((least - p.wait).Round(5*time.Minute))), of)
	}
	const slack = 20 * time.Minute
	switch or(p.typed.Wait.Style, "overnight") {
	case "minutes":
		switch {
		case p.wait < takenUp-time.Minute && p.wait >= 5*time.Minute:
			return fmt.Sprintf("%s too short: this coat is taken up after %s. Or salt within five minutes of the fire.", upper(quantity.FormatDuration((takenUp - p.wait).Round(time.Minute))), quantity.FormatDuration(takenUp))
		case p.wait > takenUp+90*time.Minute && p.wait > 2*time.Hour:
			return fmt.Sprintf("%s longer than a short salting needs: that is a school of its own, overnight.", upper(quantity.FormatDuration(p.wait-takenUp)))
		}
	case "day":
		if p.wait < 20*time.Hour-slack {
			return short(20*time.Hour, "a day’s salting")
		}
	default:
		switch {
		case p.wait < 8*time.Hour-slack:
			return short(8*time.Hour, "a night’s salting, 8 to 12 h")
		case p.wait > 16*time.Hour:
			return fmt.Sprintf("%s longer than a night: the salt gets deeper, and the surface drier.", upper(quantity.FormatDuration((p.wait - 12*time.Hour).Round(5*time.Minute))))
		}
	}
	return ""
}

func joinSentences(a, b string) string {
	if a == "" || b == "" {
		return a + b
	}
	return a + " " + b
}
