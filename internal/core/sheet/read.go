package sheet

import (
	"strings"
	"time"
	_ "time/tzdata" // zones on machines without a zone database
	"unicode"
	"unicode/utf8"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
)

// kitchen is what all pieces of a cook share.
type kitchen struct {
	serve     time.Time // zero when it is not known
	portion   quantity.Mass
	fridge    quantity.Celsius
	room      quantity.Celsius
	zone      *time.Location
	quiet     plan.Quiet
	hands     int
	pits      []plan.Pit
	marks     []plan.Mark
	leftovers bool // some is kept for later
	opt       Options
}

// piece is one typed piece, understood.
type piece struct {
	kitchen
	typed     Piece
	cut       cut.Cut
	count     int
	bought    quantity.Mass // of each; zero when not given
	green     quantity.Mass // of each, trimmed
	greenLow  quantity.Mass
	greenHigh quantity.Mass
	weighed   bool // green was weighed after trimming
	geometry  cut.Geometry
	oneBare   bool

	mix      formula.Mix
	byTarget bool
	target   quantity.Percent
	coat     formula.Coat
	band     salt.Band
	spare    float64   // share
	free     string    // which source gives way to the target
	freed    *Freed    // that source, once worked out
	onScale  []float64 // g of each row, for all pieces; nil until it was weighed

	bath   *bath
	inject *injection
	layers []layer

	wait   time.Duration // as the plan has it
	asked  time.Duration // as it was typed; zero without a plan
	times  plan.Times
	on     int
	done   quantity.Celsius
	temper time.Duration
	rest   time.Duration
	pit    quantity.Celsius
	fire   plan.Span
	timed  bool // the time on the fire was typed
}

// or returns the typed text, or the usual one when nothing was typed.
func or(typed, usual string) string {
	if strings.TrimSpace(typed) == "" {
		return usual
	}
	return typed
}

// readKitchen reads what all pieces share. Mistakes are noted in errs.
func readKitchen(c Cook, opt Options, errs *field.Errors) kitchen {
	k := kitchen{opt: opt}
	var err error
	if k.portion, err = quantity.ParseMass(or(c.Portion, UsualPortion)); !errs.Take("/portion", err) &&
		(k.portion < 0.02 || k.portion > 2) {
		errs.Add("/portion", "a portion is between 20 g and 2 kg of cooked meat")
	}
	if k.fridge, err = quantity.ParseTemperature(or(c.Fridge, UsualFridge)); !errs.Take("/fridge", err) &&
		(k.fridge < -2 || k.fridge > 15) {
		errs.Add("/fridge", "a fridge is between −2 and 15 °C (28 and 59 °F)")
	}
	if k.room, err = quantity.ParseTemperature(or(c.Room, UsualRoom)); !errs.Take("/room", err) &&
		(k.room < -30 || k.room > 50) {
		errs.Add("/room", "the air is between −30 and 50 °C (−22 and 122 °F)")
	}
	k.serve, k.zone = readServe(c, opt, errs)
	k.readPlanning(c, errs)
	k.leftovers = c.Leftovers > 0
	return k
}

// readServe reads the serving time, and the zone of the place; UTC when it is none.
func readServe(c Cook, opt Options, errs *field.Errors) (time.Time, *time.Location) {
	zone, err := time.LoadLocation(c.Zone)
	if err != nil || c.Zone == "Local" {
		errs.Add("/zone", "“%.40s” is not a time zone, such as Europe/Dublin", c.Zone)
		return time.Time{}, time.UTC
	}
	if c.ServeAt == "" {
		return time.Time{}, zone
	}
	serve, err := time.ParseInLocation(timeLayout, c.ServeAt, zone)
	if err != nil {
		errs.Add("/serve_at", "give a day and a time, for example 2026-11-28T18:30")
		return time.Time{}, zone
	}
	if !opt.Now.IsZero() && c.ServeAt != opt.ServedAt {
		if serve.Before(opt.Now) {
			errs.Add("/serve_at", "this was %s: choose a time that is still to come", plan.Away(serve, opt.Now))
		} else if serve.After(opt.Now.AddDate(2, 0, 0)) {
			errs.Add("/serve_at", "that is more than two years away")
		}
	}
	return serve, zone
}

// readPiece reads p. Mistakes are noted in errs with pointers below at; the
// piece is usable when none was.
func readPiece(p Piece, k kitchen, at string, errs *field.Errors) (out piece, ok bool) {
	before := len(*errs)
	out = piece{kitchen: k, typed: p, count: max(1, p.Count)}
	if len(p.Label) > maxText {
		errs.Add(at+"/label", "a name has at most %d letters", maxText)
	}
	if p.Count < 0 || p.Count > maxCount {
		errs.Add(at+"/count", "between 1 and %d pieces", maxCount)
	}
	var known bool
	if out.cut, known = cut.Find(p.Cut); !known {
		errs.Add(at+"/cut", "choose a cut")
	} else {
		out.readWeight(at, errs)
		out.readFire(at+"/fire", errs)
		out.readWait(at+"/wait", errs)
	}
	out.readSeason(at+"/season", errs)
	if len(p.Key) > 60 {
		errs.Add(at+"/key", "a key has at most 60 letters")
	}
	if len(p.TrimNote) > 1000 {
		errs.Add(at+"/trim_note", "a note has at most 1000 letters")
	}
	if known {
		out.readChoices(at+"/choices", errs)
		out.readGrain(at+"/grain", errs)
		out.readBath(at+"/bath", errs)
		out.readInjection(at+"/inject", errs)
		out.readLayers(at+"/layers", errs)
	}
	return out, len(*errs) == before
}

// readWeight reads weights, thickness and faces.
func (p *piece) readWeight(at string, errs *field.Errors) {
	t := p.typed
	each := func(pointer, text string) quantity.Mass {
		if strings.TrimSpace(text) == "" {
			return 0
		}
		m, err := quantity.ParseMass(text)
		if errs.Take(pointer, err) {
			return 0
		}
		if t.Together {
			m /= quantity.Mass(p.count)
		}
		low, high := p.cut.LowKG*0.5, p.cut.HighKG*1.6
		if m.KG() < low || m.KG() > high {
			errs.Add(pointer, "one %s weighs between about %s and %s: check the number and its unit", p.cut.Noun,
				quantity.FormatMass(quantity.Mass(p.cut.LowKG), p.opt.Units), quantity.FormatMass(quantity.Mass(p.cut.HighKG), p.opt.Units))
			return 0
		}
		return m
	}
	before := len(*errs)
	p.bought = each(at+"/bought", t.Bought)
	trimmed := each(at+"/trimmed", t.Trimmed)
	loss := p.cut.TrimLoss
	mid := loss.Mid
	switch t.TrimStyle {
	case "", "usual":
	case "light":
		mid = loss.Low
	case "close":
		mid = loss.High
	default:
		errs.Add(at+"/trim_style", "light, usual or close")
	}
	switch {
	case len(*errs) > before:
		return
	case p.bought == 0 && trimmed == 0:
		errs.Add(at+"/bought", "a weight is needed, for example 2.4 kg or 5 lb 4 oz")
		return
	case trimmed > 0:
		if p.bought > 0 && trimmed > p.bought {
			errs.Add(at+"/trimmed", "it cannot weigh more after trimming than as bought")
			return
		}
		p.green, p.greenLow, p.greenHigh, p.weighed = trimmed, trimmed, trimmed, true
	default:
		// A style is held to within a third of the range of all styles.
		slack := (loss.High - loss.Low) / 3
		keep := func(percent float64) quantity.Mass { return p.bought * quantity.Mass(1-max(0, percent)/100) }
		p.green, p.greenLow, p.greenHigh = keep(mid), keep(mid+slack), keep(mid-slack)
	}
	var thickness quantity.Length
	if strings.TrimSpace(t.Thickness) != "" {
		var err error
		if thickness, err = quantity.ParseLength(t.Thickness); errs.Take(at+"/thickness", err) {
			return
		}
	}
	var err error
	p.geometry, err = cut.New(p.cut, p.green, thickness)
	errs.Take(at+"/thickness", err)
	switch t.Faces {
	case "":
		p.oneBare = p.cut.Sealed != ""
	case "all", "one":
		p.oneBare = t.Faces == "one"
	default:
		errs.Add(at+"/faces", "all, or one")
	}
}

func (p *piece) readSeason(at string, errs *field.Errors) {
	s := p.typed.Season
	mix, wrong := formula.Blend(s.Formula, p.opt.Shelf)
	for _, w := range wrong {
		errs.Add(at+"/formula"+w.Pointer, "%s", w.Detail)
	}
	p.mix = mix
	switch s.Mode {
	case "":
		p.byTarget = mix.SaltLed()
	case "target", "coat":
		p.byTarget = s.Mode == "target"
	default:
		errs.Add(at+"/mode", "target or coat")
	}
	var err error
	if p.target, err = quantity.ParsePercent(or(s.Target, UsualTarget)); !errs.Take(at+"/target", err) &&
		(p.target <= 0 || p.target > 5) {
		errs.Add(at+"/target", "between 0.1 and 5 %% of the meat; most like 0.8 to 1.3 %%")
	}
	p.readFree(at+"/free", errs)
	if p.rubSolved() && len(wrong) == 0 && mix.SaltShare() < 0.005 {
		errs.Add(at+"/mode", "this mix holds no salt, so no amount of it meets a target: choose a coat")
	}
	var ok bool
	if p.coat, ok = formula.FindCoat(or(s.Coat, "medium")); !ok {
		errs.Add(at+"/coat", "light, medium, heavy or crust")
	}
	if p.band, ok = salt.FindBand(or(s.Band, "seasoned")); !ok {
		errs.Add(at+"/band", "mild, seasoned, bold or cured")
	}
	spare, err := quantity.ParsePercent(or(s.Spare, UsualSpare))
	if !errs.Take(at+"/spare", err) && spare > 300 {
		errs.Add(at+"/spare", "between 0 and 300 %%")
	}
	p.spare = float64(spare) / 100
	if len(wrong) == 0 {
		p.readWeighed(strings.TrimSuffix(at, "/season")+"/weighed", errs)
	}
}

func (p *piece) readWait(at string, errs *field.Errors) {
	style := or(p.typed.Wait.Style, "overnight")
	usual, ok := usualWait[style]
	if !ok {
		errs.Add(at+"/style", "minutes, overnight or day")
		return
	}
	var err error
	if p.wait, err = quantity.ParseDuration(or(p.typed.Wait.For, usual)); !errs.Take(at+"/for", err) && p.wait > 10*24*time.Hour {
		errs.Add(at+"/for", "raw meat does not keep ten days")
	}
}

func (p *piece) readFire(at string, errs *field.Errors) {
	f := p.typed.Fire
	var err error
	p.pit = quantity.Celsius(p.cut.PitC)
	if f.Pit != "" {
		if p.pit, err = quantity.ParseTemperature(f.Pit); !errs.Take(at+"/pit", err) && (p.pit < 80 || p.pit > 350) {
			errs.Add(at+"/pit", "a pit is between 80 and 350 °C (176 and 662 °F)")
		}
	}
	duration := func(pointer, text, usual string, limit time.Duration) time.Duration {
		d, err := quantity.ParseDuration(or(text, usual))
		if !errs.Take(pointer, err) && d > limit {
			errs.Add(pointer, "at most %s", quantity.FormatDuration(limit))
		}
		return d
	}
	p.rest = duration(at+"/rest", f.Rest, quantity.Number(p.cut.RestMin)+" min", 24*time.Hour)
	p.temper = duration(at+"/temper", f.Temper, "0 min", 24*time.Hour)
	p.done = quantity.Celsius(p.cut.DoneC())
	if f.Done != "" {
		if p.done, err = quantity.ParseTemperature(f.Done); !errs.Take(at+"/done", err) && (p.done < 40 || p.done > 105) {
			errs.Add(at+"/done", "between 40 and 105 °C (104 and 221 °F)")
		}
	}
	if p.on = f.On; f.On < 0 || f.On > 0 && f.On >= len(p.pits) {
		errs.Add(at+"/on", "choose one of the pits")
		p.on = 0
	}
	if p.timed = strings.TrimSpace(f.Time) != ""; p.timed {
		p.fire = plan.Typed(duration(at+"/time", f.Time, "", 48*time.Hour))
	}
}

// estimate fills in the time on the fire when it was not typed.
func (p *piece) estimate() {
	if !p.timed {
		p.fire = p.opt.forecast().Fire(p.burn())
	}
}

// salted is the area that takes the coat, of one piece, m².
func (p *piece) salted() float64 { return p.geometry.Seasoned(p.oneBare) }

// meat is the ledger's view of one piece.
func (p *piece) meat() salt.Piece {
	y := p.cut.CookYield
	return salt.Piece{
		Green: p.green, BoneShare: p.cut.BoneShare(),
		Yield: salt.Share{Low: y.Low / 100, Mid: y.Mid / 100, High: y.High / 100},
	}
}

// name is what the cook calls the piece.
func (p *piece) name() string { return title(p.typed, p.cut) }

func title(p Piece, c cut.Cut) string {
	name := or(p.Label, c.Name)
	if name == "" {
		return ""
	}
	return upper(name)
}

// upper begins s with a capital.
func upper(s string) string {
	first, size := utf8.DecodeRuneInString(s)
	return string(unicode.ToUpper(first)) + s[size:]
}

// readGrain checks the mark of the grain.
func (p *piece) readGrain(at string, errs *field.Errors) {
	if p.typed.Grain == "" {
		return
	}
	v, err := quantity.ParseParts(strings.TrimSuffix(strings.TrimSpace(p.typed.Grain), "°"))
	if !errs.Take(at, err) && v >= 180 {
		errs.Add(at, "between 0 (along the length) and 179 degrees")
	}
}
