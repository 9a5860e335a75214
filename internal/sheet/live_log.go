package sheet

import (
	"cmp"
	"fmt"
	"slices"
	"time"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/live"
)

// LiveLog is something that was done or seen.
type LiveLog struct {
	ID     string `json:"id" doc:"Of the fact"`
	Time   string `json:"time"`
	Local  string `json:"local" doc:"The same as it is typed; empty for what has no other time"`
	Label  string `json:"label"`
	Author string `json:"author"`
	// Of a reading by eye, which is no fact.
	Probe string `json:"probe,omitempty" doc:"Of a reading: where it was read; else empty"`
	From  string `json:"from,omitempty" doc:"Of a reading: when, RFC 3339"`
	Typed string `json:"typed,omitempty" doc:"Of a reading: what it showed"`
}

// LiveAside are readings that do not count, and why.
type LiveAside struct {
	Label string `json:"label"`
	Why   string `json:"why" doc:"In a sentence"`
	Probe string `json:"probe"`
	From  string `json:"from" doc:"The first of them, RFC 3339"`
	To    string `json:"to" doc:"The last of them, RFC 3339"`
}

// asideWhys say why readings do not count.
var asideWhys = map[string]string{
	facts.TooHot:  "No meat gets hotter than its water boils: is the tip out of the meat, or a digit too many?",
	facts.TooCold: "No meat goes on a fire that cold: is the plug wet, or a sign too many?",
	facts.Jump:    "Meat does not change that fast: is the probe out, or in another piece?",
}

// WriteDoubt says what looks wrong in so many readings from elsewhere.
func WriteDoubt(d facts.Doubt, of int, zone *time.Location, as Reader) string {
	switch d.ID {
	case facts.AheadOfNow:
		return "It is dated ahead of today, as by a thermometer whose clock was wrong."
	case facts.AnotherDay:
		return "It is of another day than this cook-out, which began on " + d.Lit.Format("Mon 2 Jan 2006") + "."
	}
	return fmt.Sprintf("%d of %d readings cannot be, the first %s at %s: they are kept, and set aside.",
		d.Count, of, Warm(float64(d.C), as), d.At.In(zone).Format("15:04"))
}

// WriteDoubtOffer says what else readings that look wrong may be, for a button.
func WriteDoubtOffer(d facts.Doubt) string {
	if d.Fahrenheit {
		return "They are in °F"
	}
	return "Let it begin when the first piece went on, " + d.Lit.Format("Mon 2 Jan 2006, 15:04")
}

// aside are the readings that were set aside and that nobody took back, the last first.
func (w writer) aside(r live.Result) []LiveAside {
	out := []LiveAside{}
	now, zone := r.Cook.Now, r.Cook.Order.Serving.Value.Zone
	for _, a := range slices.Backward(r.Aside) {
		if zone == nil || a.Why == facts.TookBack || a.From.After(now.Add(facts.ClockSkew)) || len(out) == 5 {
			continue
		}
		label := fmt.Sprintf("%s %s at %s", w.probeName(r.Cook, a.Probe), w.short(float64(a.C)), a.From.In(zone).Format("15:04"))
		if a.Count > 1 {
			label = fmt.Sprintf("%s, %d readings from %s on, %s to %s", w.probeName(r.Cook, a.Probe), a.Count,
				w.short(float64(a.C)),
				a.From.In(zone).Format("15:04"), a.To.In(zone).Format("15:04"))
		}
		why := asideWhys[a.Why]
		if p, err := facts.ParseProbe(a.Probe); err == nil && p.Piece == "" {
			why = "No pit gets that hot: a digit too many?"
		}
		out = append(out, LiveAside{label, why, a.Probe, a.From.UTC().Format(time.RFC3339Nano),
			a.To.UTC().Format(time.RFC3339Nano)})
	}
	return out
}

// probeName is what a probe is called, as a sentence begins.
func (w writer) probeName(r cooking.Result, probe string) string {
	p, err := facts.ParseProbe(probe)
	if err != nil || p.Piece == "" {
		return "Pit"
	}
	out := "Core"
	if len(r.Pieces) > 1 {
		out = w.pieces[p.Piece] + ": core"
	}
	return join(out, ", ", p.Place)
}

// logged is how many lines of the log are told.
const logged = 12

// log is what was done and seen, the last first.
func (w writer) log(l live.Result) []LiveLog {
	out, r := []LiveLog{}, l.Cook
	zone := r.Order.Serving.Value.Zone
	if zone == nil {
		return out
	}
	type line struct {
		at time.Time
		LiveLog
	}
	var all []line
	for _, f := range slices.Backward(r.Facts.Standing()) {
		at, err := f.Time(zone)
		if err != nil || f.Kind != facts.Done && f.Kind != facts.Seen && f.Kind != facts.Uncounted &&
			f.Kind != facts.Counted {
			continue
		}
		label := pressed(f.What)
		if f.Kind == facts.Uncounted || f.Kind == facts.Counted {
			from, _, _ := f.Span()
			label = w.probeName(r, f.What) + " of " + from.In(zone).Format("15:04") +
				map[facts.Kind]string{facts.Uncounted: ": taken back", facts.Counted: ": it counts"}[f.Kind]
		}
		if f.Kind == facts.Seen {
			how, place := f.How()
			label = join(seenWords[f.What]+": "+cmp.Or(howWords[how], how), ", ", place)
		}
		if c, err := f.Set(); err == nil && f.What == "set" {
			label = "Pit set to " + w.short(float64(c))
		}
		if len(r.Pieces) > 1 && f.Piece != "" {
			label = join(w.pieces[f.Piece], ": ", label)
		}
		local := at.Format("2006-01-02T15:04")
		if f.Kind == facts.Uncounted || f.Kind == facts.Counted {
			local = ""
		}
		all = append(all, line{at, LiveLog{
			ID: f.ID, Time: at.Format("15:04"), Local: local, Label: label, Author: f.Author,
		}})
	}
	for _, one := range l.ByEye {
		at := one.At.In(zone)
		all = append(all, line{at, LiveLog{
			ID: one.Probe + one.At.UTC().Format(time.RFC3339Nano), Time: at.Format("15:04"),
			Local: at.Format("2006-01-02T15:04"),
			Label: w.probeName(r, one.Probe) + " " + w.short(float64(one.C)), Probe: one.Probe,
			From: one.At.UTC().Format(time.RFC3339Nano), Typed: w.value(one.C, ""),
		}})
	}
	slices.SortStableFunc(all, func(a, b line) int { return b.at.Compare(a.at) })
	for _, l := range all[:min(logged, len(all))] {
		out = append(out, l.LiveLog)
	}
	return out
}
