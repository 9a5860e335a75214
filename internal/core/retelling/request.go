package retelling

import (
	"time"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/when"
)

// TellRequest is a text to be read.
type TellRequest struct {
	Cut  string `json:"cut" doc:"Cut of the catalogue; it decides what fits" example:"pork-shoulder-bone-in"`
	On   string `json:"on" doc:"When it went on: local time of the zone (YYYY-MM-DDTHH:MM), RFC 3339, or as it is written" example:"2026-11-22T08:00"`
	Zone string `json:"zone,omitempty" required:"false" doc:"IANA time zone; UTC without one" example:"Europe/London"`
	Told string `json:"told" maxLength:"4000" doc:"How it went" example:"wrapped about four hours in, 165, foil; off at nine hours, 203"`
}

// Telling is a piece that can be told of afterwards.
type Telling struct {
	Piece, Cut string // key of the piece, and id of its cut
	On         string // when it went on, as it is on record; empty before it was told
	Pressed    bool   // that was pressed: only what came after it is told
	Words      string // in which it was told; empty when it was not, or they were not kept
	Before     bool   // it was told before
}

// Tellings are the pieces of a cook that can be told of at a time: those that were told before, and those of a cook
// that is over of which nothing was pressed.
func Tellings(c cook.Cook, all facts.Facts, serve, now time.Time) []Telling {
	var out []Telling
	for _, p := range c.Pieces {
		was := all.ToldAfterwards(p.Key)
		one := Telling{Piece: p.Key, Cut: p.Cut, Words: all.Told(p.Key), Before: len(was) > 0}
		on, lit := all.Done(p.Key, "fire")
		one.On, one.Pressed = on.At, lit && on.Device != facts.ToldDevice
		if !one.Before && (lit || serve.IsZero() || !serve.Before(now)) {
			continue
		}
		out = append(out, one)
	}
	return out
}

// scene is what the text is told of.
func (r TellRequest) scene(now time.Time) (Scene, field.Errors) {
	var wrong field.Errors
	out := Scene{Now: now}
	if c, known := cut.Find(r.Cut); known {
		out.Cut = c
	} else {
		wrong.Add("/cut", "cut.unknown")
	}
	zone, err := time.LoadLocation(r.Zone)
	if err != nil {
		wrong.Add("/zone", "zone.unknown")
		zone = time.UTC
	}
	on, err := WentOn(r.On, zone, now)
	wrong.Take("/on", err)
	if out.On = on; !now.IsZero() && on.After(now) {
		wrong.Add("/on", "on.future")
	}
	return out, wrong
}

// WentOn is when a piece went on that is told of afterwards, in the zone of its place: in any form that
// when.ReadMoment reads. The error is a field.Wrong.
func WentOn(typed string, zone *time.Location, now time.Time) (time.Time, error) {
	on, err := when.ReadMoment(typed, when.Around{Now: now.In(zone), Past: true})
	switch {
	case typed == "":
		return on, field.Because("time.unreadable")
	case err == nil && !facts.CanBe(on):
		return on, field.Because("time.year", "first", facts.FirstYear, "last", facts.LastYear)
	}
	return on, err
}

// Read reads the text, with pointers into the request where it is not sound.
func (r TellRequest) Read(now time.Time) (Told, field.Errors) {
	scene, wrong := r.scene(now)
	if len(wrong) > 0 {
		return Told{}, wrong
	}
	return Read(r.Told, scene), nil
}
