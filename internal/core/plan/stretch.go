package plan

import "time"

// Stretch is a stretch of time.
type Stretch struct{ From, To time.Time }

// QuietHours are the quiet hours from the first task to serving.
func (a Ask) QuietHours(p Plan) []Stretch {
	out := []Stretch{}
	if len(p.Tasks) == 0 || a.Quiet.None() {
		return out
	}
	first := p.Tasks[0].At
	for t := first.AddDate(0, 0, -1); t.Before(a.lastServing().AddDate(0, 0, 1)); t = t.AddDate(0, 0, 1) {
		noon := time.Date(t.Year(), t.Month(), t.Day(), 12, 0, 0, 0, t.Location())
		from, to := a.Quiet.Before(noon.AddDate(0, 0, 1))
		if to.After(first) && from.Before(a.lastServing()) {
			out = append(out, Stretch{from, to})
		}
	}
	return out
}
