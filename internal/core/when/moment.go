package when

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Around is what a day and a time are read by.
type Around struct {
	Now        time.Time // in the zone of the place; what has no year, day or time lies near it
	Was        time.Time // what stood there before, whose day a time alone keeps; zero for nothing
	Past       bool      // it is a time that has passed: "Sunday" is the last one
	MonthFirst bool      // 12/5 is the fifth of December
}

// ReadMoment reads a day and a time of it in any form that this program shows, and as people write them:
//
//	Sat 5 Dec 2026, 19:00 · 2026-12-05T19:00 · 5.12. 19:30 · 12/5 7:30 pm · tomorrow 7pm · Saturday at noon
//	19:00 · in 3 hours · 20 min ago · now
//
// The error is a field.Wrong: of a word that is not understood, a day that does not exist or is another weekday, or a
// day without its time.
func ReadMoment(typed string, a Around) (time.Time, error) {
	m, err := readMoment(typed, a)
	if err != nil {
		return time.Time{}, err
	}
	if !m.at.IsZero() {
		return m.at, nil
	}
	if m.minutes < 0 {
		if a.Was.IsZero() {
			return time.Time{}, field.Because("moment.no-time", "typed", typed)
		}
		m.minutes = 60*a.Was.Hour() + a.Was.Minute()
	}
	if !m.dated {
		if !a.Was.IsZero() {
			return on(a.Was, m.minutes), nil
		}
		at := on(a.Now, m.minutes)
		switch {
		case a.Past && at.After(a.Now):
			at = on(a.Now.AddDate(0, 0, -1), m.minutes)
		case !a.Past && at.Before(a.Now):
			at = on(a.Now.AddDate(0, 0, 1), m.minutes)
		}
		return at, nil
	}
	a.Past = (a.Past || m.last) && !m.next
	return on(m.day(a), m.minutes), nil
}

// ReadDay reads a day as ReadMoment does, without its time: it is midnight at its beginning.
func ReadDay(typed string, a Around) (time.Time, error) {
	m, err := readMoment(typed, a)
	switch {
	case err != nil:
		return time.Time{}, err
	case !m.at.IsZero():
		return on(m.at, 0), nil
	case !m.dated:
		return time.Time{}, field.Because("moment.no-day", "typed", typed)
	}
	return on(m.day(a), 0), nil
}

// on is a day at so many minutes by its clock.
func on(day time.Time, minutes int) time.Time {
	return time.Date(day.Year(), day.Month(), day.Day(), minutes/60, minutes%60, 0, 0, day.Location())
}

// momentRead is what was read of a moment so far.
type momentRead struct {
	at      time.Time // all of it
	minutes int       // of its clock; -1 for none
	dated   bool
	year    int // 0 where it is not said
	month   time.Month
	date    int
	weekday time.Weekday // -1 for none
	from    time.Time    // of a day that is said by now
	last    bool         // it is said to be the last one of that weekday
	next    bool
}

var (
	months   = []string{"jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"}
	weekdays = []string{"sun", "mon", "tue", "wed", "thu", "fri", "sat"}

	clockForm  = regexp.MustCompile(`^(\d{1,2})(?:[:.h](\d{2}))?(?::\d{2})?(am|pm|h|uhr)?$`)
	isoForm    = regexp.MustCompile(`^(\d{4})-(\d{1,2})-(\d{1,2})$`)
	dotForm    = regexp.MustCompile(`^(\d{1,2})\.(\d{1,2})\.(\d{4}|\d{2})?$`)
	slashForm  = regexp.MustCompile(`^(\d{1,2})[/-](\d{1,2})(?:[/-](\d{4}|\d{2}))?$`)
	dateForm   = regexp.MustCompile(`^(\d{1,2})(?:st|nd|rd|th|\.)?$`)
	yearForm   = regexp.MustCompile(`^(?:19|20|21)\d{2}$`)
	splitHalf  = regexp.MustCompile(`(\d)\s+([ap])\.?m\.?\b`)
	joinedHalf = regexp.MustCompile(`(\d)([ap])\.?m\.?(\s|,|$)`)
	spanForm   = regexp.MustCompile(`^(?:in (.+)|(.+) ago)$`)
)

// named is a name of a list by its beginning, of three letters at least; -1 for none.
func named(list []string, word string) int {
	return slices.IndexFunc(list, func(n string) bool {
		full := map[string]string{"tue": "tuesday", "wed": "wednesday", "thu": "thursday", "sat": "saturday",
			"sep": "september"}[n]
		return word == n || len(word) > 3 && strings.HasPrefix(word, n) && (full == "" || strings.HasPrefix(full, word)) &&
			strings.Trim(word, "abcdefghijklmnopqrstuvwxyz") == ""
	})
}

func number(s string) int {
	n, _ := strconv.Atoi(s)
	return n
}

// fullYear is a year of two digits in this century.
func fullYear(s string) int {
	if n := number(s); len(s) != 2 {
		return n
	} else {
		return 2000 + n
	}
}

// readMoment reads the parts of a moment, in any order.
//
// It has many branches because each way to say a part is one of them.
//
//gocyclo:ignore
func readMoment(typed string, a Around) (momentRead, error) {
	m := momentRead{minutes: -1, weekday: -1}
	unread := func(word string) error { return field.Because("moment.unread", "typed", typed, "word", word) }
	text := strings.ToLower(strings.TrimSpace(typed))
	if len(text) > 100 || text == "" {
		return m, unread(typed[:min(len(typed), 40)])
	}
	if text == "now" || text == "just now" {
		m.at = a.Now
		return m, nil
	}
	if s := spanForm.FindStringSubmatch(text); s != nil {
		d, err := quantity.ParseDuration(strings.TrimSpace(s[1] + s[2]))
		if err != nil {
			return m, unread(s[1] + s[2])
		}
		if s[2] != "" {
			d = -d
		}
		m.at = a.Now.Add(d).Truncate(time.Minute)
		return m, nil
	}
	for _, layout := range []string{time.RFC3339, "2006-01-02T15:04", "2006-01-02T15:04:05"} {
		if t, err := time.ParseInLocation(layout, strings.ToUpper(text), a.Now.Location()); err == nil {
			m.at = t.In(a.Now.Location())
			return m, nil
		}
	}
	text = splitHalf.ReplaceAllString(text, "$1${2}m")
	text = joinedHalf.ReplaceAllString(text, "$1${2}m$3")
	words := strings.FieldsFunc(text, func(r rune) bool {
		return r == ' ' || r == ',' || r == '\u00a0' ||
			r == '\u202f' || r == '·'
	})
	half := func(minutes int) error {
		if m.minutes >= 0 || minutes < 0 {
			return unread(typed)
		}
		m.minutes = minutes
		return nil
	}
	date := func(y int, mon, d int) error {
		if m.dated && m.weekday < 0 || m.month > 0 {
			return unread(typed)
		}
		m.dated, m.year, m.month, m.date = true, y, time.Month(mon), d
		if mon < 1 || mon > 12 || d < 1 || d > time.Date(max(y, 2000), time.Month(mon)+1, 0, 0, 0, 0, 0, time.UTC).Day() {
			return field.Because("moment.no-such-day", "typed", typed)
		}
		return nil
	}
	away := func(days int) error {
		if m.dated {
			return unread(typed)
		}
		m.dated, m.from = true, a.Now.AddDate(0, 0, days)
		return nil
	}
	for i := 0; i < len(words); i++ {
		w, next := words[i], ""
		if i+1 < len(words) {
			next = words[i+1]
		}
		var err error
		switch {
		case w == "at" || w == "on" || w == "the" || w == "of" || w == "this" || w == "around" || w == "about" ||
			w == "o'clock":
		case w == "today":
			err = away(0)
		case w == "tonight":
			err = away(0)
		case w == "tomorrow":
			err = away(1)
		case w == "yesterday":
			err = away(-1)
		case w == "noon" || w == "midday":
			err = half(12 * 60)
		case w == "midnight":
			err = half(0)
		case (w == "last" || w == "next") && named(weekdays, next) >= 0:
			m.last, m.next = w == "last", w == "next"
		case named(weekdays, w) >= 0 && named(months, w) < 0:
			if m.weekday >= 0 {
				return m, unread(w)
			}
			m.weekday, m.dated = time.Weekday(named(weekdays, w)), true
		case isoForm.MatchString(w):
			s := isoForm.FindStringSubmatch(w)
			err = date(number(s[1]), number(s[2]), number(s[3]))
		case dotForm.MatchString(w):
			s := dotForm.FindStringSubmatch(w)
			y := fullYear(s[3])
			if s[3] == "" && yearForm.MatchString(next) { // 5.12. 2026
				y, i = number(next), i+1
			}
			err = date(y, number(s[2]), number(s[1]))
		case slashForm.MatchString(w):
			s := slashForm.FindStringSubmatch(w)
			d, mon := number(s[1]), number(s[2])
			if a.MonthFirst && d <= 12 || mon > 12 {
				d, mon = mon, d
			}
			err = date(fullYear(s[3]), mon, d)
		case named(months, w) >= 0: // Dec 5 2026
			s := dateForm.FindStringSubmatch(next)
			if s == nil {
				return m, unread(w)
			}
			i++
			y := 0
			if i+1 < len(words) && yearForm.MatchString(words[i+1]) {
				i++
				y = number(words[i])
			}
			err = date(y, named(months, w)+1, number(s[1]))
		case dateForm.MatchString(w) && (named(months, next) >= 0 || next == "of" && i+2 < len(words) &&
			named(months, words[i+2]) >= 0):
			i++
			if next == "of" {
				i++
			}
			mon, y := named(months, words[i])+1, 0
			if i+1 < len(words) && yearForm.MatchString(words[i+1]) {
				i++
				y = number(words[i])
			}
			err = date(y, mon, number(dateForm.FindStringSubmatch(w)[1]))
		case clockForm.MatchString(w):
			s := clockForm.FindStringSubmatch(w)
			err = half(minutesOf(number(s[1]), number(s[2]), s[3], s[2] != "", w))
		default:
			return m, unread(w)
		}
		if err != nil {
			return m, err
		}
	}
	if m.weekday >= 0 && m.month > 0 && m.year > 0 &&
		time.Date(m.year, m.month, m.date, 12, 0, 0, 0, time.UTC).Weekday() != m.weekday {
		return m, field.Because("moment.weekday", "typed", typed)
	}
	return m, nil
}

// minutesOf are the minutes of a clock that shows that; -1 where none does, or a number alone may be anything.
func minutesOf(h, minutes int, half string, exact bool, word string) int {
	switch {
	case minutes > 59 || half == "" && !exact && !strings.Contains(word, "h"):
		return -1
	case half == "am" || half == "pm":
		if h < 1 || h > 12 {
			return -1
		}
		h %= 12
		if half == "pm" {
			h += 12
		}
	case h > 23:
		return -1
	}
	return 60*h + minutes
}

// day is the day that was said, the one nearest to now where more than one suits.
func (m momentRead) day(a Around) time.Time {
	if !m.from.IsZero() {
		return m.from
	}
	if m.month == 0 { // a weekday alone
		days := (int(m.weekday) - int(a.Now.Weekday()) + 7) % 7
		at := a.Now.AddDate(0, 0, days)
		switch {
		case a.Past && (days > 0 || m.minutes >= 0 && on(at, m.minutes).After(a.Now)):
			at = at.AddDate(0, 0, -7)
		case !a.Past && m.minutes >= 0 && on(at, m.minutes).Before(a.Now):
			at = at.AddDate(0, 0, 7)
		}
		return at
	}
	date := func(year int) time.Time { return time.Date(year, m.month, m.date, 12, 0, 0, 0, a.Now.Location()) }
	if m.year > 0 {
		return date(m.year)
	}
	best := date(a.Now.Year())
	suits := func(t time.Time) bool { return m.weekday < 0 || t.Weekday() == m.weekday }
	distance := func(t time.Time) time.Duration {
		d := t.Sub(a.Now)
		if a.Past {
			d = -d
		}
		switch {
		case !suits(t) || t.Day() != m.date: // 29 February
			return 1 << 62
		case a.Past && d < -36*time.Hour:
			return 1<<61 - d
		case d < -36*time.Hour: // on the other side of now: only where nothing else is near
			return -2 * d
		}
		return max(d, -d)
	}
	for years := -4; years <= 4; years++ {
		if t := date(a.Now.Year() + years); distance(t) < distance(best) {
			best = t
		}
	}
	return best
}
