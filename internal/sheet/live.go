package sheet

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strconv"
	"time"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/live"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
)

// LiveSheet is what stands at the pit now.
type LiveSheet struct {
	Name      string      `json:"name"`
	Zone      string      `json:"zone"`
	Now       string      `json:"now" doc:"The cook's clock, RFC 3339"`
	Speed     float64     `json:"speed" doc:"How fast that clock goes: 1 is the clock on the wall"`
	Practised bool        `json:"practised" doc:"Its pit and thermometers are simulated"`
	Clock     string      `json:"clock" doc:"The same as a time of day"`
	Serve     string      `json:"serve"`
	Chance    string      `json:"chance" doc:"Of serving on time; empty when there is no plan"`
	Next      []LiveNext  `json:"next" nullable:"false" doc:"What is to be done, the soonest first"`
	Pieces    []LivePiece `json:"pieces" nullable:"false"`
	Log       []LiveLog   `json:"log" nullable:"false" doc:"What was done and seen, the last first"`
	Aside     []LiveAside `json:"aside" nullable:"false" doc:"Readings that cannot be, and count for nothing until somebody says that they do"`
	Alarms    []LiveAlarm `json:"alarms" nullable:"false" doc:"What somebody has to be called for, and nobody has seen to"`
	Waits     string      `json:"waits" doc:"Why a practice has not begun, in a sentence; else empty"`
	Bell      string      `json:"bell" doc:"Why the bell does not ring, in a sentence; else empty"`
	Problem   string      `json:"problem" doc:"Why there are no figures, in a sentence; else empty"`
}

// WaitsForItsTurn says that a practice has not begun.
const WaitsForItsTurn = "Many cook-outs are being practised at once. This one starts when another one ends; its clock waits."

// WriteAhead says of so many of some readings that are ahead of a clock that they are not shown yet; empty
// for none.
func WriteAhead(n, of int, now time.Time) string {
	if n == 0 {
		return ""
	}
	return fmt.Sprintf("%d of %d are dated ahead of this cook-out's clock (%s): they show when their time comes. "+
		"Check the clock and the time zone of the thermometer.", n, of, now.UTC().Format(time.RFC3339))
}

// WriteBell says why the bell does not ring; empty while it does.
func WriteBell(why string) string {
	if why == "" {
		return ""
	}
	return "The bell does not work: " + why + ". It is tried again at every alarm; until it works, watch this page."
}

// LiveNext is something to do.
type LiveNext struct {
	ID    string `json:"id"`
	Piece string `json:"piece" doc:"Key; empty for a pit"`
	Label string `json:"label"`
	At    string `json:"at" doc:"RFC 3339"`
	Time  string `json:"time"`
	Note  string `json:"note"`
	What  string `json:"what" doc:"The press that says it is done; empty when there is none"`
}

// LivePiece is a piece at the pit.
type LivePiece struct {
	Key      string        `json:"key"`
	Title    string        `json:"title"`
	State    string        `json:"state" enum:"before,on,again,resting,done"`
	Since    string        `json:"since" doc:"How long it has been on, or what it waits for"`
	Core     BigFigure     `json:"core" doc:"Of its coldest place; text is empty when nothing was read lately"`
	Pit      BigFigure     `json:"pit"`
	PitNo    int           `json:"pit_no" doc:"Which pit it is on, from 0"`
	Places   []BigFigure   `json:"places" nullable:"false" doc:"Where there is more than one probe"`
	Probed   []string      `json:"probed" nullable:"false" doc:"Places in it that can be probed"`
	Ready    BigFigure     `json:"ready" doc:"When it is most likely off; text is empty when that is not known"`
	Narrows  string        `json:"narrows" doc:"What would make that surer now; may be empty"`
	Verdict  string        `json:"verdict" doc:"How done it is by its places and its feel, in a sentence; may be empty"`
	Catch    []CatchLine   `json:"catch" nullable:"false" doc:"What would make up for being late, or for being early"`
	Moved    string        `json:"moved" doc:"How that has moved since it went on, in a sentence"`
	Advice   *LiveAdvice   `json:"advice,omitempty"`
	Curve    []DrawnPoint  `json:"curve" nullable:"false"`
	Read     []ReadPoint   `json:"read" nullable:"false" doc:"What was read of the core"`
	NowH     float64       `json:"now_h" doc:"Hours since it went on"`
	Target   float64       `json:"target" doc:"Core at which it is taken off; zero is by feel"`
	Axis     Axis          `json:"axis" doc:"Of the curve and what was read"`
	Cautions []LiveCaution `json:"cautions" nullable:"false" doc:"Of what was read, and of what is planned and still to come; care and stop alone"`
	Done     []Press       `json:"done" nullable:"false" doc:"What can be said to be done, what was planned first"`
	Seen     []SignLine    `json:"seen" nullable:"false" doc:"What can be said to be seen"`
}

// ReadPoint is a core that was read.
type ReadPoint struct {
	H    float64 `json:"h"`
	Core float64 `json:"core"`
}

// LiveAdvice is whether to wrap.
type LiveAdvice struct {
	Now    bool   `json:"now"`
	Head   string `json:"head"`
	Figure string `json:"figure" doc:"How long until then; may be empty"`
	At     string `json:"at" doc:"What it waits for"`
	Why    string `json:"why"`
}

// WriteLive says what stands at the pit.
func WriteLive(r live.Result, as Reader) LiveSheet {
	result := r.Cook
	w := newWriter(result, as)
	now := result.Now
	if zone := result.Order.Serving.Value.Zone; zone != nil {
		now = now.In(zone)
	}
	out := LiveSheet{
		Name:   result.Order.Cook.Name,
		Zone:   result.Order.Cook.Zone,
		Now:    iso(now),
		Clock:  now.Format("15:04"),
		Speed:  1,
		Next:   w.next(r, now.Location()),
		Pieces: []LivePiece{},
		Log:    w.log(r),
		Aside:  w.aside(r),
		Alarms: w.alarms(result, r.Alarms),
	}
	if s := result.Order.Serving.Value.At; !s.IsZero() {
		out.Serve = "serving at " + s.Format("15:04")
	}
	if result.Plan != nil {
		out.Chance = fmt.Sprintf("%.0f %%", 100*math.Min(0.99, result.Plan.Result.Plans[result.Plan.Chosen].Chance))
	}
	if len(result.Mistakes) > 0 {
		out.Problem = "Some of what was typed cannot be read: fix the fields marked in red on the cook sheet to see all figures."
	}
	for i, p := range r.Pieces {
		out.Pieces = append(out.Pieces, w.livePiece(p, now, r.Next))
		for _, c := range p.Catch {
			out.Pieces[i].Catch = append(out.Pieces[i].Catch, w.catch(c, p, servesAt(result.Order, i)))
		}
	}
	return out
}

// ordinals tell the pieces of a line apart, each of which may have a probe.
var ordinals = []string{"first one", "second one", "third one", "fourth one", "fifth one", "sixth one"}

// probed are the places that can be probed: those of the cut, and each piece where there are a few.
func probed(m order.Meat) []string {
	out := m.Cut.Places()
	if m.Count > 1 && m.Count <= len(ordinals) {
		out = slices.Concat(out, ordinals[:m.Count])
	}
	return out
}

// next are the jobs that come next.
func (w writer) next(r live.Result, zone *time.Location) []LiveNext {
	out := []LiveNext{}
	for _, d := range r.Next {
		line, at := w.task(r.Cook, d.Task, d.Piece), d.At.In(zone)
		out = append(out, LiveNext{
			ID: line.ID, Piece: d.Task.Key, Label: line.Label, At: iso(at), Time: at.Format("15:04"),
			Note: line.Note, What: d.What,
		})
	}
	return out
}

// warm is a temperature to read at arm's length: no unit but the sign, and tenths only where
// there is room for them.
func (w writer) warm(c float64, places int) string {
	if w.Units == quantity.US || c >= 99.95 {
		places = 0
	}
	return strconv.FormatFloat(w.degrees(c), 'f', places, 64) + "°"
}

// Warm is a temperature with its unit, for a reader.
func Warm(c float64, as Reader) string { return writer{Reader: as}.short(c) }

func (w writer) livePiece(p live.Piece, now time.Time, due []live.Due) LivePiece {
	key := p.Piece.Line.Key
	h := p.Piece.Happened
	out := LivePiece{
		Key:    key,
		Title:  Title(p.Piece),
		State:  string(p.State),
		PitNo:  p.Pit,
		Places: []BigFigure{},
		Probed: probed(p.Piece.Line.Meat.Value),
		Curve:  []DrawnPoint{},
		Read:   []ReadPoint{},
		Catch:  []CatchLine{},
		NowH:   math.Round(1000*h.NowH) / 1000,
	}
	if p.Core != nil {
		out.Core = BigFigure{Text: w.warm(float64(p.Core.C), 1), Note: w.rising(p)}
	} else {
		out.Core.Note = "no reading of the core"
	}
	out.Pit.Note = "set to " + w.warm(float64(p.SetC), 0)
	if p.Air != nil {
		out.Pit.Text = w.warm(float64(p.Air.C), 0)
	}
	if len(p.Places) > 1 {
		for _, one := range p.Places {
			at, _ := facts.ParseProbe(one.Probe)
			out.Places = append(out.Places, BigFigure{Text: w.warm(float64(one.C), 1), Note: cmp.Or(at.Place, "first probe")})
		}
	}
	switch p.State {
	case live.Before:
		if c := p.Piece.Clock; c != nil && c.Known {
			out.Since = "on at " + c.Times.Fire.Format("Mon 15:04")
		}
	case live.On:
		if out.Since = duration(now.Sub(h.On)) + " on"; now.Sub(h.On) < time.Minute {
			out.Since = "just on"
		}
		if n := p.Piece.Line.Meat.Value.Count; h.Some > 0 && h.Some < n {
			out.Since += fmt.Sprintf(", %d of %d off", h.Some, n)
		}
		w.goesOn(&out, p, h.On)
	case live.Again:
		last := h.Again[len(h.Again)-1].On
		if out.Since = duration(now.Sub(last)) + " on again"; now.Sub(last) < time.Minute {
			out.Since = "just on again"
		}
		if until := p.AgainUntil(); !until.IsZero() {
			out.Ready = BigFigure{Text: until.In(now.Location()).Format("15:04"), Note: "off again, as planned"}
		}
	case live.Resting:
		if out.Since = "off for " + duration(now.Sub(h.Off)); now.Sub(h.Off) < time.Minute {
			out.Since = "just off"
		}
	case live.Done:
		out.Since = "served"
	}
	out.Axis = w.axis(60, append(append(hottest(out.Curve), cores(out.Read)...), out.Target)...)
	out.Done, out.Seen, out.Cautions = presses(p, now, due), signs(p), w.atPit(p)
	return out
}

// rising says how the core went in the last hour.
func (w writer) rising(p live.Piece) string {
	if math.IsNaN(p.RateCH) {
		return "core"
	}
	rate, sweats := p.RateCH, p.Core.C > 55 && p.Core.C < 85
	if w.Units == quantity.US {
		rate *= 1.8
	}
	switch {
	case p.State != live.On:
		return fmt.Sprintf("core, %+.1f° in the last hour", rate)
	case p.RateCH < -1:
		return fmt.Sprintf("core, down %.1f° in the last hour", -rate)
	case p.RateCH < 0.3 && sweats:
		return "core, hardly moving: sweating"
	case p.RateCH < 0.3:
		return "core, hardly moving"
	case p.RateCH < 4 && sweats:
		return fmt.Sprintf("core, up %.1f° in the last hour: sweating", rate)
	}
	return fmt.Sprintf("core, up %.1f° in the last hour", rate)
}

// goesOn is how a piece goes on from now.
func (w writer) goesOn(out *LivePiece, p live.Piece, on time.Time) {
	done := p.Seen.Fire.Done
	at := func(h float64) time.Time {
		return on.Add(time.Duration(math.Max(h, out.NowH) * float64(time.Hour))).Round(5 * time.Minute)
	}
	if p.Done() {
		out.Ready = BigFigure{Text: "Done", Note: "take it off"}
	} else if !math.IsInf(done.Mid, 1) {
		out.Ready = BigFigure{Text: at(done.Mid).Format("15:04"), Note: "most likely off the fire; " + eightInTen(done, at)}
		out.Moved, out.Narrows = w.moved(p), w.narrowsNow(p)
	} else {
		out.Ready.Note = "it won’t finish in this pit"
	}
	// What is drawn is sent again and again: no more of it than a small picture shows.
	for i, point := range w.curve(p.Seen.Fire.Curve) {
		if point.H >= out.NowH-0.2 && (i%3 == 0 || len(out.Curve) == 0) {
			point.Pit = 0
			out.Curve = append(out.Curve, point)
		}
	}
	read := p.Piece.Happened.Core
	for i, r := range read {
		if i%(1+len(read)/60) == 0 || i == len(read)-1 {
			out.Read = append(out.Read, ReadPoint{math.Round(1000*r.AtH) / 1000, w.degrees(r.CoreC)})
		}
	}
	if c := p.Seen.Cook.DoneC; c > 0 {
		out.Target = w.degrees(c)
	}
	out.Advice, out.Verdict = w.advice(p), w.verdict(p)
}

// eightInTen is the band of when it is off.
func eightInTen(done heat.Band, at func(float64) time.Time) string {
	if math.IsInf(done.High, 1) {
		return "nine in ten not before " + at(done.Low).Format("15:04") + "; " + maybeNever(done.Never)
	}
	return "eight in ten between " + at(done.Low).Format("15:04") + " and " + at(done.High).Format("15:04")
}

// narrowsNow is what would make that surer now: a reading where the last one is old, else what tells most.
func (w writer) narrowsNow(p live.Piece) string {
	h := p.Piece.Happened
	if n := len(h.Core); n == 0 || h.NowH-h.Core[n-1].AtH > 1 {
		return "A reading of the core now would make this surer."
	}
	for _, n := range p.Seen.Fire.Narrows {
		if line, ok := w.narrow(n, p.Piece); ok && n.Hours >= 0.25 && n.What != "reading" {
			return "Surer still: " + line.Label + "."
		}
	}
	return ""
}

// moved says how the forecast has moved since the piece went on, and why.
func (w writer) moved(p live.Piece) string {
	d := p.Moved.Round(5 * time.Minute)
	if h := p.Piece.Happened; len(h.Core)+len(h.Pit) == 0 || h.NowH < 1 {
		return ""
	}
	if d.Abs() < 10*time.Minute {
		return "As thought when it went on."
	}
	why := map[bool]string{true: "it rises slower than usual", false: "it rises faster than usual"}[d > 0]
	switch {
	case d > 0 && p.PitOff < -3.5:
		why = "the pit ran " + w.gap(-p.PitOff) + " low"
	case d < 0 && p.PitOff > 3.5:
		why = "the pit ran " + w.gap(p.PitOff) + " high"
	}
	return fmt.Sprintf(
		"%s %s than thought when it went on: %s.",
		duration(d.Abs()),
		map[bool]string{true: "later", false: "earlier"}[d > 0],
		why,
	)
}

// advice says whether to wrap, and why.
func (w writer) advice(p live.Piece) *LiveAdvice {
	a := p.Advice
	switch {
	case a.Done:
		return nil
	case !a.Waited:
		return &LiveAdvice{Head: "No wrap, as you chose."}
	case a.Now:
		return &LiveAdvice{Now: true, Head: "Wrap it now", Why: "in " + wrapName(a.Kind) + ": " + w.waited(a.At)}
	}
	out := &LiveAdvice{Head: "Not yet: wrap it", At: w.waited(a.At)}
	if a.Known && a.In >= 5*time.Minute {
		out.Head, out.Figure = "Not yet: wrap in about", duration(a.In.Round(5*time.Minute))
	}
	if a.Bark {
		out.Head, out.Figure, out.Why = "Not yet: wrap when the bark holds", "", "The bark still scratches off."
	}
	if a.Saves >= 10*time.Minute {
		out.Why = join(
			out.Why,
			" ",
			"Wrapping now saves about "+duration(a.Saves.Round(5*time.Minute))+" and softens the bark.",
		)
	}
	return out
}
