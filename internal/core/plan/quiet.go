package plan

import (
	"fmt"
	"strconv"
	"strings"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/when"
)

// QuietHours are those in which nobody is to be woken, by the clock of the place, in
// minutes after midnight. The zero QuietHours are none.
type QuietHours struct{ From, To int }

// ParseQuiet reads quiet hours: "23:00-06:00", "22-5"; "none" is none.
func ParseQuiet(s string) (QuietHours, error) {
	typed := s
	s = strings.ToLower(strings.TrimSpace(s))
	if s == "none" || s == "no" {
		return QuietHours{}, nil
	}
	from, to, ok := strings.Cut(strings.NewReplacer("–", "-", " to ", "-").Replace(s), "-")
	if !ok {
		return QuietHours{}, field.Because("quiet.unreadable", "typed", fmt.Sprintf("%.20s", typed))
	}
	q := QuietHours{}
	var err error
	if q.From, err = clockMinutes(from); err == nil {
		q.To, err = clockMinutes(to)
	}
	if err == nil && q.From == q.To {
		err = field.Because("quiet.empty")
	}
	if err == nil && q.length() > 14*time.Hour {
		err = field.Because("quiet.too-long", "most", 14*time.Hour)
	}
	return q, err
}

// clockMinutes reads a time of day as minutes after midnight; a number alone is an hour, 24 the end of the day.
func clockMinutes(s string) (int, error) {
	text := strings.TrimSpace(s)
	if _, err := strconv.Atoi(text); err == nil {
		text += ":00"
	}
	if text == "24:00" {
		return 0, nil
	}
	minutes, ok := when.TimeOfDay(text)
	if !ok {
		return 0, field.Because("quiet.clock", "typed", fmt.Sprintf("%.20s", s))
	}
	return minutes, nil
}

// None reports whether there are no quiet hours.
func (q QuietHours) None() bool { return q.From == q.To }

// String writes it as it is typed.
func (q QuietHours) String() string {
	if q.None() {
		return "none"
	}
	return fmt.Sprintf("%02d:%02d-%02d:%02d", q.From/60, q.From%60, q.To/60, q.To%60)
}

func (q QuietHours) length() time.Duration {
	m := q.To - q.From
	if m <= 0 {
		m += 24 * 60
	}
	return time.Duration(m) * time.Minute
}

// night is the stretch of quiet that begins on the day so many days from t's.
func (q QuietHours) night(t time.Time, days int) (from, to time.Time) {
	y, m, d := t.Date()
	from = time.Date(y, m, d+days, 0, q.From, 0, 0, t.Location())
	end := d + days
	if q.To <= q.From {
		end++
	}
	return from, time.Date(y, m, end, 0, q.To, 0, 0, t.Location())
}

// Within returns the quiet period that t is in.
func (q QuietHours) Within(t time.Time) (from, to time.Time, ok bool) {
	if q.None() {
		return from, to, false
	}
	for _, days := range []int{0, -1} {
		if from, to = q.night(t, days); !t.Before(from) && t.Before(to) {
			return from, to, true
		}
	}
	return time.Time{}, time.Time{}, false
}

// usualNight is the night of a cook who has no quiet hours, which is planned around all the same.
var usualNight = QuietHours{23 * 60, 6 * 60}

// Before returns the last stretch of quiet that is over by t. Without quiet hours
// it is the night of 23:00 to 06:00, which cooks plan around all the same.
func (q QuietHours) Before(t time.Time) (from, to time.Time) {
	if q.None() {
		q = usualNight
	}
	for days := 0; ; days-- {
		if from, to = q.night(t, days); !to.After(t) {
			return from, to
		}
	}
}

// Overlap is how long the stretch from a to b is quiet.
func (q QuietHours) Overlap(a, b time.Time) time.Duration {
	if q.None() || !b.After(a) {
		return 0
	}
	sum := time.Duration(0)
	for days := -1; ; days++ {
		from, to := q.night(a, days)
		if !from.Before(b) {
			return sum
		}
		if from.Before(a) {
			from = a
		}
		if to.After(b) {
			to = b
		}
		sum += max(0, to.Sub(from))
	}
}
