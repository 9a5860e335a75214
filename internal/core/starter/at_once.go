package starter

import (
	"cmp"
	"strings"
	"time"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/retelling"
)

// AtOnce is a piece that is on its fire already, as typed, of a cook that was never planned.
type AtOnce struct {
	Name      string `json:"name,omitempty" required:"false" maxLength:"100" doc:"What the cook-out is called; empty is named after the cut"`
	Cut       string `json:"cut" doc:"Cut id" example:"pork-shoulder-bone-in"`
	Count     string `json:"count,omitempty" required:"false" maxLength:"10" doc:"How many; empty means one"`
	Weight    string `json:"weight" maxLength:"60" doc:"Of one, as it went on" example:"3.6 kg"`
	Thickness string `json:"thickness,omitempty" required:"false" maxLength:"60" doc:"Measured at the thickest point; empty means estimated"`
	Kind      string `json:"kind" doc:"Kind of pit by id; empty means a cabinet" example:"pellet"`
	Pit       string `json:"pit" maxLength:"60" doc:"What it is set to; empty means the cut's usual" example:"120 °C"`
	Wrap      string `json:"wrap" doc:"none, foil or paper; empty means as usual for the cut"`
	On        string `json:"on" maxLength:"40" doc:"When it went on, local time (YYYY-MM-DDTHH:MM); empty is now"`
	ServeAt   string `json:"serve_at,omitempty" required:"false" maxLength:"40" doc:"When it is eaten, local time; empty is not told"`
	Zone      string `json:"zone" maxLength:"60" doc:"IANA time zone of the place"`
}

// Places tell where what is wrong with the cook of an AtOnce was typed.
var places = strings.NewReplacer(
	"/pieces/0/cut",
	"/cut",
	"/pieces/0/count",
	"/count",
	"/pieces/0/trimmed",
	"/weight",
	"/pieces/0/bought",
	"/weight",
	"/pieces/0/thickness",
	"/thickness",
	"/pieces/0/fire/pit",
	"/pit",
	"/pieces/0/choices/wrap",
	"/wrap",
	"/pits/0/kind",
	"/kind",
)

// longOn is how long ago a piece may have gone on that is on its fire now.
const longOn = 72 * time.Hour

// WentOn is when the piece went on, as of now. The error is a field.Errors.
func (a AtOnce) WentOn(now time.Time) (time.Time, error) {
	zone, err := a.zone()
	if err != nil || a.On == "" {
		return now.In(zone), err
	}
	var wrong field.Errors
	on, err := retelling.WentOn(a.On, zone, now)
	switch {
	case wrong.Take("/on", err):
	case on.After(now.Add(facts.ClockSkew)):
		wrong.Add("/on", "on.ahead")
	case now.Sub(on) > longOn:
		wrong.Add("/on", "on.long-ago")
	}
	return on, wrong.Err()
}

func (a AtOnce) zone() (*time.Location, error) {
	zone, err := time.LoadLocation(a.Zone)
	if err != nil {
		return time.UTC, field.Errors{{Pointer: "/zone", Wrong: field.Because("zone.unknown")}}
	}
	return zone, nil
}

// Past is a cook that is over, told afterwards.
type Past struct {
	AtOnce
	// What is asked about is put on record as it was written, as a remark.
	AsRemarks bool   `json:"as_remarks,omitempty" required:"false" doc:"Keep what is not clear as remarks, instead of asking"`
	Told      string `json:"told" maxLength:"4000" doc:"How it went, as its cook tells it" example:"wrapped about four hours in, 165, foil; off at nine hours, 203"`
}

// Telling is what it tells, to be read.
func (p Past) Telling() retelling.TellRequest {
	return retelling.TellRequest{Cut: p.Cut, On: p.On, Zone: p.Zone, Told: p.Told}
}

// Began is when the cook went on the fire, as of now. The error is a field.Errors.
func (p Past) Began(now time.Time) (time.Time, error) {
	zone, err := p.zone()
	if err != nil {
		return time.Time{}, err
	}
	var wrong field.Errors
	on, err := retelling.WentOn(p.On, zone, now)
	wrong.Take("/on", err)
	return on, wrong.Err()
}

// Became is a page of p as it is told: its finish is the one that it had, so that it is not held against a forecast of
// another.
func (p Past) Became(told retelling.Told) cook.Cook {
	out := p.Cook()
	known, ok := cut.Find(p.Cut)
	if f, says := told.Finish(known); ok && says && f != known.Finish {
		if out.Pieces[0].Choices == nil {
			out.Pieces[0].Choices = map[string]string{}
		}
		out.Pieces[0].Choices[decision.Finish.String()] = string(f)
	}
	return out
}

// Place is where in an AtOnce a mistake was typed that stands at a pointer into its cook.
func (a AtOnce) Place(pointer string) string { return places.Replace(pointer) }

// Cook is a page of a. Nothing is known of how it was salted, so nothing is.
func (a AtOnce) Cook() cook.Cook {
	name := cmp.Or(a.Name, "On the fire now")
	if c, ok := cut.Find(a.Cut); ok && a.Name == "" {
		name = field.Capital(c.Name)
	}
	p := cook.Piece{
		Key: "now", Cut: a.Cut, Bought: a.Weight, Trimmed: a.Weight, TrimStyle: "usual", Thickness: a.Thickness,
		Season: cook.Season{
			Formula: formula.Formula{Basis: formula.ByVolume, Rows: []formula.Row{}},
			Target:  cook.UsualTarget,
			Coat:    cook.UsualCoat,
			Band:    cook.UsualBand,
		},
		Wait: cook.Wait{Style: cook.UsualStyle, Open: true}, Fire: cook.Fire{Pit: a.Pit},
	}
	p.Count = "1"
	if a.Count != "" {
		p.Count = quantity.Count(a.Count)
	}
	if a.Wrap != "" {
		p.Choices = map[string]string{"wrap": a.Wrap}
	}
	out := cook.Cook{Name: name, Zone: a.Zone, ServeAt: a.ServeAt, Pieces: []cook.Piece{p}}
	if a.Kind != "" {
		out.Pits = []cook.Pit{{Name: a.Kind, Kind: a.Kind}}
	}
	return out
}
