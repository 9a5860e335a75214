package sheet

import (
	"fmt"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/live"
)

// LiveAlarm is something that somebody has to be called for.
type LiveAlarm struct {
	ID    string `json:"id" doc:"The same for the same thing; ticking it off silences it"`
	Label string `json:"label"`
	Note  string `json:"note" doc:"What to do"`
	Piece string `json:"piece" doc:"Key; empty for a pit"`
}

// alarmWords are what is called out, and what to do.
var alarmWords = map[string][2]string{
	"pit-low": {
		"The %s is low: %s, set to %s",
		"Look to the fire: fuel, air, lid. Under 107 °C / 225 °F the meat warms too slowly while it is under 60 °C / 140 °F.",
	},
	"pit-high": {"The %s is hot: %s, set to %s", "Close its air a little. Sugar scorches above 150 °C / 300 °F."},
	"probe":    {"No reading of %s since %s", "Is the probe in, and its cable dry?"},
	"wrap":     {"Wrap %s now", ""},
	"off":      {"%s is at %s: take it off", "Probe it in several places first."},
	"felt":     {"%s is done by feel: take it off", "Feel it in several places first."},
	"again":    {"%s has been on again as long as planned: take it off", "Look at it first: it may want longer."},
	"hold":     {"%s is down to %s", "Serve it, or warm it: held food must not fall below 60 °C / 140 °F."},
	"feed":     {"Feed the %s", "Fuel is running low."},
}

// alarmPrefix marks the tick that silences an alarm.
const alarmPrefix = "alarm:"

// alarms are those that nobody has silenced.
func (w writer) alarms(r cooking.Result, all []live.Alarm) []LiveAlarm {
	out := []LiveAlarm{}
	for _, a := range all {
		if _, ticked := r.Facts.Ticked(alarmPrefix + a.ID); ticked {
			continue
		}
		words := alarmWords[a.Kind]
		if a.Felt {
			words = alarmWords["felt"]
		}
		one := LiveAlarm{ID: alarmPrefix + a.ID, Note: words[1], Piece: a.Piece}
		switch a.Kind {
		case "pit-low", "pit-high":
			one.Label = fmt.Sprintf(words[0], w.pit(a.Pit), w.short(float64(a.C)), w.short(float64(a.SetC)))
		case "probe":
			one.Label = fmt.Sprintf(words[0], w.pieces[a.Piece], a.Since.In(r.Order.Serving.Value.Zone).Format("15:04"))
		case "wrap", "again":
			one.Label = fmt.Sprintf(words[0], w.pieces[a.Piece])
		case "off", "hold":
			if a.Felt {
				one.Label = fmt.Sprintf(words[0], w.pieces[a.Piece])
				break
			}
			one.Label = fmt.Sprintf(words[0], w.pieces[a.Piece], w.short(float64(a.C)))
		case "feed":
			one.Label = fmt.Sprintf(words[0], w.pit(a.Pit))
		}
		out = append(out, one)
	}
	return out
}
