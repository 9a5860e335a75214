package facts

import (
	"math"
	"regexp"
	"strconv"
	"strings"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Reading is what a thermometer showed.
type Reading struct {
	Probe string // where it is: a Probe as text
	At    time.Time
	C     quantity.Celsius
}

// Probe is where a thermometer is: in a piece, or beside it in a pit.
type Probe struct {
	Piece string // key; empty for a pit
	Place string // in the piece, for example flat; may be empty
	Pit   int    // number in the cook, from 0, when Piece is empty
}

var probeText = regexp.MustCompile(`^(?:pit:(\d{1,2})|core:([A-Za-z0-9_-]{1,60})(?::([a-z ]{1,30}))?)$`)

// ParseProbe reads "pit:0", "core:k1" or "core:k1:flat". The error is a field.Wrong.
func ParseProbe(text string) (Probe, error) {
	m := probeText.FindStringSubmatch(text)
	if m == nil {
		return Probe{}, field.Because("probe.unreadable")
	}
	n, _ := strconv.Atoi(m[1])
	return Probe{Piece: m[2], Place: strings.TrimSpace(m[3]), Pit: n}, nil
}

// String is p as ParseProbe reads it.
func (p Probe) String() string {
	switch {
	case p.Piece == "":
		return "pit:" + strconv.Itoa(p.Pit)
	case p.Place == "":
		return "core:" + p.Piece
	}
	return "core:" + p.Piece + ":" + p.Place
}

// Temperatures that a thermometer at a pit can show, °C.
const LowRead, HighRead = -40, 600

// HandIn is readings that are handed in together. The same one twice is once.
type HandIn struct {
	ID       string        `json:"id" doc:"A UUID of the sender's; the same hand-in sent twice is one" example:"0b0e7a52-6a1f-4c0e-9d53-0d5f3c1e8a11"`
	Device   string        `json:"device,omitempty" required:"false" maxLength:"60" doc:"What measured or who typed"`
	Readings []ReadingSent `json:"readings" nullable:"false" maxItems:"5000"`
}

// ReadingSent is a reading as it is sent.
type ReadingSent struct {
	Probe string   `json:"probe" maxLength:"100" doc:"pit:0 for the first pit of the cook, core:KEY for a piece, core:KEY:flat for a place in it" example:"pit:0"`
	At    string   `json:"at" maxLength:"40" doc:"When: local time of the cook (YYYY-MM-DDTHH:MM[:SS]) or RFC 3339" example:"2026-11-28T07:20:15Z"`
	Typed string   `json:"typed,omitempty" required:"false" maxLength:"40" doc:"What it showed, with its unit" example:"154 °F"`
	C     *float64 `json:"c,omitempty" required:"false" doc:"The same in °C, as a number" example:"67.8"`
}

// MostReadings is how many readings a cook holds: six probes, each second for two days.
const MostReadings = 1_000_000

// CheckReadings returns what keeps readings from being put on record under a hand-in of that id, from
// that device.
func CheckReadings(id, device string, read []Reading) field.Errors {
	var errs field.Errors
	if !uuid.MatchString(id) {
		errs.Add("/id", "fact.id")
	}
	errs.Text("/device", device, maxKey)
	if len(read) == 0 || len(read) > MostReadings {
		errs.Add("/readings", "reading.count", "most", MostReadings)
	}
	known := map[string]bool{} // there are few probes and many readings
	for i, r := range read {
		if known[r.Probe] && r.sound() {
			continue
		}
		if wrong := r.Check(); len(wrong) > 0 {
			errs.Put("/readings/"+strconv.Itoa(i), wrong)
			break
		}
		known[r.Probe] = true
	}
	return errs
}

// sound reports whether r is a temperature at a time that there can be.
func (r Reading) sound() bool {
	return CanBe(r.At) && !math.IsNaN(float64(r.C)) && r.C >= LowRead && r.C <= HighRead
}

// Check returns what keeps r from being put on record.
func (r Reading) Check() field.Errors {
	var errs field.Errors
	_, err := ParseProbe(r.Probe)
	errs.Take("/probe", err)
	if !CanBe(r.At) {
		errs.Add("/at", "time.year", "first", FirstYear, "last", LastYear)
	}
	if math.IsNaN(float64(r.C)) || r.C < LowRead || r.C > HighRead {
		errs.Add("/typed", "temperature.range", "low", quantity.Celsius(LowRead), "high", quantity.Celsius(HighRead))
	}
	return errs
}

// MostRead is how many readings a hand-in holds.
const MostRead = 5000

// Read returns the readings of h, in the order sent; zone is the cook's. The error is a
// field.Errors with pointers into h.
func (h HandIn) Read(zone *time.Location) ([]Reading, error) {
	var errs field.Errors
	if !uuid.MatchString(h.ID) {
		errs.Add("/id", "fact.id")
	}
	errs.Text("/device", h.Device, maxKey)
	if n := len(h.Readings); n == 0 || n > MostRead {
		errs.Add("/readings", "reading.count", "most", MostRead)
		return nil, errs.Err()
	}
	out := make([]Reading, len(h.Readings))
	for i, r := range h.Readings {
		at := "/readings/" + strconv.Itoa(i)
		p, err := ParseProbe(r.Probe)
		errs.Take(at+"/probe", err)
		when, err := moment(r.At, zone)
		switch {
		case err != nil:
			errs.Add(at+"/at", "time.form", "typed", r.At)
		case !CanBe(when):
			errs.Add(at+"/at", "time.year", "first", FirstYear, "last", LastYear)
		}
		var c quantity.Celsius
		if err = nil; r.C != nil && r.Typed == "" {
			c = quantity.Celsius(*r.C)
		} else {
			c, err = quantity.ParseTemperatureWithin(r.Typed, LowRead, HighRead)
		}
		if !errs.Take(at+"/typed", err) && (math.IsNaN(float64(c)) || c < LowRead || c > HighRead) {
			errs.Add(at+"/typed", "temperature.range", "low", quantity.Celsius(LowRead), "high", quantity.Celsius(HighRead))
		}
		out[i] = Reading{p.String(), when.UTC(), c}
		if len(errs) > 20 {
			break
		}
	}
	return out, errs.Err()
}

// moment reads a local time, to the second or the minute, or one of RFC 3339.
func moment(typed string, zone *time.Location) (time.Time, error) {
	for _, layout := range []string{"2006-01-02T15:04:05", local} {
		if t, err := time.ParseInLocation(layout, typed, zone); err == nil {
			return t, nil
		}
	}
	return time.Parse(time.RFC3339, typed)
}
