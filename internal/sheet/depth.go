package sheet

import (
	"fmt"
	"math"
	"time"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
)

// DepthSheet is a cut across the piece, and where the salt is in it.
type DepthSheet struct {
	PathMM    float64  `json:"path_mm" doc:"From the coated face to the middle, or to the bare face, mm"`
	OneBare   bool     `json:"one_bare" doc:"The salt comes from one side only"`
	Thickness string   `json:"thickness" doc:"Of the piece, in words"`
	Depth     Figure   `json:"depth" doc:"How deep salt can be tasted at the fire"`
	TakenUp   Figure   `json:"taken_up" doc:"When the coat is drawn in, min"`
	Even      Figure   `json:"even" doc:"Salt of the centre over the mean, %, at the fire"`
	EvenNote  string   `json:"even_note" doc:"What that means, in words"`
	EvenAt    string   `json:"even_at" doc:"When it is even, in a sentence"`
	Surface   string   `json:"surface" doc:"What the surface looks like when the fire starts, in a sentence"`
	BadMoment bool     `json:"bad_moment" doc:"The fire starts while the surface is wet with brine"`
	WaitNote  string   `json:"wait_note" doc:"How the plan's wait stands to what was asked and to its school; may be empty"`
	Advice    string   `json:"advice" doc:"What covering or leaving open, and this wait, do"`
	End       int      `json:"end" doc:"Which moment is the start of the fire"`
	Moments   []Moment `json:"moments" nullable:"false"`
	MaxSalt   float64  `json:"max_salt" doc:"% that is drawn darkest"`
	Seasoned  float64  `json:"seasoned" doc:"Salt % at which meat tastes seasoned: the lower end of the chosen band"`
}

// Moment is the state at one time after salting.
type Moment struct {
	Hours     float64   `json:"hours"`
	Label     string    `json:"label"`
	Heading   string    `json:"heading" doc:"The label with what it counts from"`
	Mark      string    `json:"mark" doc:"Name of the time when cooks have one: 10 min, 3 h, overnight, 24 h, fire"`
	MarkLabel string    `json:"mark_label" doc:"The mark as it is shown"`
	Profile   []float64 `json:"profile" nullable:"false" doc:"Salt above the meat’s own, %, from the far end (centre or bare face) to the coated face at equal steps"`
	DepthMM   float64   `json:"depth_mm"`
	Depth     string    `json:"depth"`
	OnSurface float64   `json:"on_surface" doc:"% of the salt still lying on the surface"`
	Centre    float64   `json:"centre" doc:"%"`
	Note      string    `json:"note" doc:"Where the salt is, in words"`
	Summary   string    `json:"summary" doc:"The same for those who do not see the picture"`
}

func (w writer) depth(d *cooking.Depth, band salt.Band) *DepthSheet {
	out := &DepthSheet{
		PathMM:    d.Brine.Path.Depth.MM(),
		OneBare:   d.OneBare,
		Thickness: w.value(d.Across, ""),
		Depth:     w.figure(d.Depth),
		TakenUp:   w.figure(d.TakenUp),
		Even:      w.figure(d.Even),
		EvenNote:  evenNote(d),
		EvenAt:    evenAt(d),
		Surface:   surfaceNote(d),
		BadMoment: d.Surface == "beads",
		Advice:    advice(d),
		Moments:   []Moment{},
		Seasoned:  band.Low,
		MaxSalt:   math.Max(1.5, math.Min(6, 300*d.Course.End.Mean)),
		WaitNote:  join(plannedWait(d), " ", schoolNote(d)),
	}
	if d.Brine.Load <= 0 {
		out.TakenUp.Text, out.TakenUp.Range = "no salt", ""
	}
	for i, m := range d.Course.Moments {
		if m.At == d.Wait {
			out.End = i
		}
		if !w.Plain {
			out.Moments = append(out.Moments, w.moment(m, d))
		}
	}
	return out
}

var markNames = map[time.Duration]string{
	10 * time.Minute: "10 min",
	3 * time.Hour:    "3 h",
	10 * time.Hour:   "overnight",
	24 * time.Hour:   "24 h",
}

// drawn rounds what a picture is drawn with to a thousandth.
func drawn(v float64) float64 { return math.Round(v*1000) / 1000 }

func (w writer) moment(m salt.Moment, d *cooking.Depth) Moment {
	out := Moment{
		Hours:     drawn(m.At.Hours()),
		Label:     quantity.FormatDuration(m.At),
		Mark:      markNames[m.At],
		MarkLabel: markNames[m.At],
		DepthMM:   drawn(m.Depth.MM()),
		Depth:     w.value(m.Depth, ""),
		OnSurface: drawn(100 * m.OnSurface),
		Centre:    drawn(100 * m.Centre),
		Profile:   make([]float64, len(m.Profile)),
		Note:      "all of it in the meat",
	}
	out.Heading = out.Label + " after salting"
	if m.At == d.Wait {
		out.Mark, out.MarkLabel, out.Heading = "fire", "fire, "+out.Label, out.Label+": at the fire"
	}
	if out.OnSurface >= 0.5 {
		out.Note = fmt.Sprintf("%.0f %% still on the surface", out.OnSurface)
	}
	far := "centre"
	if d.OneBare {
		far = "far side"
	}
	out.Note += fmt.Sprintf(" · %.2f %% in the %s", out.Centre, far)
	out.Summary = out.Label + ": salt " + out.Depth + " deep"
	for i, c := range m.Profile {
		out.Profile[i] = drawn(100 * c)
	}
	return out
}

func evenNote(d *cooking.Depth) string {
	if d.Even.Mid < 0.5 {
		return "no salt has reached the centre yet"
	}
	return "as salty in the centre as on average"
}

func evenAt(d *cooking.Depth) string {
	switch even := d.Course.Even; {
	case d.Brine.Load <= 0:
		return "There is no salt to spread."
	case even == 0:
		return "It never evens out: that takes over a week."
	case even > 72*time.Hour:
		return fmt.Sprintf("It is even after %s, longer than raw meat keeps.", quantity.FormatDuration(even))
	default:
		return fmt.Sprintf("A %s this thick is even after %s.", d.Noun, quantity.FormatDuration(even))
	}
}

// surfaceNote says what the cook sees when the fire starts.
func surfaceNote(d *cooking.Depth) string {
	const head = "When the fire starts the surface is "
	switch d.Surface {
	case "bare":
		return head + "as it was."
	case "dry":
		return head + "still dry: the salt has not drawn water yet."
	case "beads":
		return fmt.Sprintf(
			head+"beads of water: the worst moment to start. Wait until it glistens, %s from salting, or start within five minutes.",
			quantity.FormatDuration(d.Course.TakenUp),
		)
	case "glisten":
		return head + "a wet glisten: the salt is in, the surface not yet dry."
	case "ready":
		return head + "dry and darker: ready to take smoke."
	}
	return head + "tacky: pat it dry, or uncover it for the last hours."
}

func advice(d *cooking.Depth) string {
	switch {
	case d.Wait <= 2*time.Hour:
		return "Sugar and spice stay on the surface whatever the time; only salt moves."
	case d.Open:
		return "Open: a dry surface, better skin and bark. Keep it below other food in the fridge."
	}
	return "Covered: the meat keeps wet and the fridge clean. Sugar and spice stay on the surface."
}

// movedFrom is the wait that was asked, when the plan gives another.
func movedFrom(wait, asked time.Duration) (time.Duration, bool) {
	d := wait - asked
	return asked, asked > 0 && (d > 20*time.Minute || d < -20*time.Minute)
}

func plannedWait(d *cooking.Depth) string {
	if asked, moved := movedFrom(d.Wait, d.Asked); moved {
		return fmt.Sprintf(
			"The plan gives %s instead of %s.",
			quantity.FormatDuration(d.Wait),
			quantity.FormatDuration(asked),
		)
	}
	return ""
}

// schoolNote says how the wait stands to what its school asks for.
func schoolNote(d *cooking.Depth) string {
	by := field.Capital(quantity.FormatDuration(d.School.By))
	switch d.School.ID {
	case "short-minutes":
		return fmt.Sprintf(
			"%s too short: this coat is taken up after %s. Or salt within five minutes of the fire.",
			by,
			quantity.FormatDuration(d.School.Per),
		)
	case "long-minutes":
		return by + " longer than a short salting needs: for that much time, choose overnight."
	case "short-day":
		return by + " too short for a day’s salting."
	case "short-overnight":
		return by + " too short for a night’s salting, 8 to 12 h."
	case "long-overnight":
		return by + " longer than a night: the salt gets deeper, and the surface drier."
	}
	return ""
}
