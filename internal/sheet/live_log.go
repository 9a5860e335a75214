package sheet

import (
	"cmp"
	"slices"
	"time"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
)

// LiveLog is something that was done or seen.
type LiveLog struct {
	ID     string `json:"id" doc:"Of the fact"`
	Time   string `json:"time"`
	Local  string `json:"local" doc:"The same as it is typed"`
	Label  string `json:"label"`
	Author string `json:"author"`
}

// logged is how many lines of the log are told.
const logged = 12

// log is what was done and seen, the last first.
func (w writer) log(r cooking.Result) []LiveLog {
	out := []LiveLog{}
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
		if err != nil || f.Kind != facts.Done && f.Kind != facts.Seen {
			continue
		}
		label := pressed(f.What)
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
		all = append(all, line{at, LiveLog{f.ID, at.Format("15:04"), at.Format("2006-01-02T15:04"), label, f.Author}})
	}
	slices.SortStableFunc(all, func(a, b line) int { return b.at.Compare(a.at) })
	for _, l := range all[:min(logged, len(all))] {
		out = append(out, l.LiveLog)
	}
	return out
}
