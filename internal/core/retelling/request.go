package retelling

import (
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
)

// TellRequest is a text to be read.
type TellRequest struct {
	Cut  string `json:"cut" doc:"Cut of the catalogue; it decides what fits" example:"pork-shoulder-bone-in"`
	On   string `json:"on" doc:"When it went on: local time of the zone (YYYY-MM-DDTHH:MM) or RFC 3339" example:"2026-11-22T08:00"`
	Zone string `json:"zone,omitempty" required:"false" doc:"IANA time zone; UTC without one" example:"Europe/London"`
	Told string `json:"told" maxLength:"4000" doc:"How it went" example:"wrapped about four hours in, 165, foil; off at nine hours, 203"`
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
	on, err := facts.Fact{At: r.On}.Time(zone)
	if err != nil || !facts.CanBe(on) {
		wrong.Add("/on", "time.unreadable")
	}
	if out.On = on.In(zone); !now.IsZero() && on.After(now) {
		wrong.Add("/on", "on.future")
	}
	return out, wrong
}

// Read reads the text, with pointers into the request where it is not sound.
func (r TellRequest) Read(now time.Time) (Told, field.Errors) {
	scene, wrong := r.scene(now)
	if len(wrong) > 0 {
		return Told{}, wrong
	}
	return Read(r.Told, scene), nil
}
