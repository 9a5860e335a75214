package sheet

import (
	"fmt"
	"strings"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
)

// BathSheet is a wet brine, worked out.
type BathSheet struct {
	Liquid    Figure       `json:"liquid" doc:"Liquid in the pot, L"`
	Salt      Figure       `json:"salt" doc:"Salt to dissolve in it, g"`
	Strength  Figure       `json:"strength" doc:"% of salt by weight"`
	Salometer Figure       `json:"salometer" doc:"Degrees; 100 is saturated"`
	Density   Figure       `json:"density" doc:"kg/L at 20 °C"`
	Egg       string       `json:"egg" doc:"What a fresh egg does in it"`
	Fits      string       `json:"fits" doc:"Whether meat and liquid fit the pot, in a sentence; empty without a pot"`
	TooFull   bool         `json:"too_full"`
	Ice       Figure       `json:"ice" doc:"Of the liquid, what goes in as ice so that it ends at 4 °C, g"`
	Hot       Figure       `json:"hot" doc:"What is boiled up, g"`
	Takes     Figure       `json:"takes" doc:"Salt in the meat when it is lifted out, %"`
	Gain      Figure       `json:"gain" doc:"Weight gained, % of the trimmed weight"`
	Window    string       `json:"window" doc:"When to lift it out and how forgiving that is"`
	At        []BathMoment `json:"at" nullable:"false"`
	School    string       `json:"school" doc:"The school, and what it buys and costs"`
	Chill     string       `json:"chill" doc:"What to do with the liquid that is not water; empty when all is water"`
	Water     Figure       `json:"water" doc:"Plain water to pour, ice counted in, g"`
	Parts     []BathPart   `json:"parts" nullable:"false" doc:"What goes in besides water and salt"`
	PartsNote string       `json:"parts_note" doc:"What those do, in words; may be empty"`
}

// BathMoment is what the meat holds after some hours.
type BathMoment struct {
	Hours   float64 `json:"hours"`
	Percent float64 `json:"percent"`
	Centre  float64 `json:"centre"`
	Text    string  `json:"text" doc:"The percentage as a cook reads it" example:"0.24 %"`
	Inside  string  `json:"inside" doc:"The centre, in words"`
}

// BathPart is something else in a bath.
type BathPart struct {
	Name   string `json:"name"`
	Amount string `json:"amount" doc:"By weight"`
	Salt   string `json:"salt" doc:"Salt it brings; empty when that is next to nothing"`
}

func (w writer) bath(b *cooking.Bath) *BathSheet {
	out := &BathSheet{
		Liquid:    w.figure(b.Liquid),
		Salt:      w.figure(b.Salt),
		Strength:  w.figure(b.Strength),
		Salometer: w.figure(b.Degrees),
		Density:   w.figure(b.Density),
		Egg:       "A fresh egg floats in it.",
		TooFull:   b.TooFull,
		Ice:       w.figure(b.Ice),
		Hot:       w.figure(b.Hot),
		Takes:     w.figure(b.Takes),
		Gain:      w.figure(b.Gain),
		Window:    w.window(b),
		At:        []BathMoment{},
		School:    "Strong bath: quick, but too salty if you forget it. Lift it out in time.",
		Water:     w.figure(b.Plain),
		Parts:     []BathPart{},
	}
	if b.Strength.Mid < salt.FloatsEgg {
		out.Egg = fmt.Sprintf("A fresh egg sinks in it (it floats from about %.0f %%).", salt.FloatsEgg)
	}
	if b.Typed.Equilibrium {
		out.School = "Equilibrium bath: the meat cannot get too salty, but a thick piece takes days."
		switch {
		case b.Lift == 0 && b.Aim > cooking.MostLiked:
			out.School = "Equilibrium bath: the meat cannot get saltier than its target, but a thick piece takes days."
		case b.Lift > 0:
			out.School = "This bath is so strong that it makes the meat like ham if you forget it. Lift it out in time."
		}
	}
	if b.Typed.Pot > 0 {
		room := func(v quantity.Volume) string { return w.as(liquid, float64(v)) }
		verb := "Fits"
		if b.TooFull {
			verb = "Does not fit"
		}
		out.Fits = fmt.Sprintf(
			"%s: %s in a %s pot (meat %s, liquid %s).",
			verb,
			room(b.Meat+b.Brew.Liquid),
			room(b.Typed.Pot),
			room(b.Meat),
			room(b.Brew.Liquid),
		)
	}
	for _, m := range b.At {
		out.At = append(
			out.At,
			BathMoment{
				Hours:   drawn(m.At.Hours()),
				Percent: drawn(100 * m.Mean),
				Centre:  drawn(100 * m.Centre),
				Text:    decimal(100*m.Mean, 2) + " %",
				Inside:  "centre " + decimal(100*m.Centre, 2),
			},
		)
	}
	for _, p := range b.Parts {
		name := p.Formula.Name
		if name == "" {
			name = "something"
		}
		part := BathPart{Name: name, Amount: w.weight(p.Mass)}
		if p.Salt > 0.05*quantity.Gram {
			part.Salt = w.weight(p.Salt)
		}
		out.Parts = append(out.Parts, part)
	}
	if b.Shelf > 0 {
		out.Chill = fmt.Sprintf(
			"Chill everything that is not water first and pour it in cold: the bath ends at %s. Straight from the shelf it would end at %s.",
			w.temperature(salt.IceBathEnds, "both"),
			w.temperature(b.Shelf, ""),
		)
		if b.Plain.Mid < 0.05 {
			out.Chill = fmt.Sprintf(
				"There is no water to boil: stir the salt into the cold liquid until it is gone. Straight from the shelf the bath would be at %s.",
				w.temperature(b.Shelf, ""),
			)
		}
	}
	if len(b.Parts) > 0 && b.Sugar >= 1 {
		out.PartsNote = fmt.Sprintf("%.0f %% sugar: it stays near the surface, and colours there.", b.Sugar)
	}
	if len(b.Parts) > 0 && b.Acid >= 1 {
		out.PartsNote = join(
			out.PartsNote,
			" ",
			fmt.Sprintf("%.1f %% acid: past some hours it turns the outside mealy.", b.Acid),
		)
	}
	return out
}

// whole writes a figure with its unit.
func whole(f Figure) string { return withUnit(f.Text, f.Unit) }

// bathRecipe is what goes into a bath, in a line.
func (w writer) bathRecipe(b *cooking.Bath, out *BathSheet) string {
	line := fmt.Sprintf("Bath of %s: %s of salt", whole(out.Liquid), whole(out.Salt))
	for _, p := range out.Parts {
		line += ", " + p.Amount + " of " + p.Name
	}
	if b.Hot.Mid > 0 {
		line += fmt.Sprintf("; boil %s of water with the salt, then %s of ice", whole(out.Hot), whole(out.Ice))
	}
	return line + "."
}

// needleRecipe is what goes into an injection, in a line.
func needleRecipe(out *InjectionSheet) string {
	parts := []string{}
	for _, r := range out.Rows {
		parts = append(parts, whole(r.Mass)+" of "+r.Name)
	}
	return fmt.Sprintf(
		"Injection, %s in all: %s. %s into each, %s a site.",
		whole(out.Batch),
		strings.Join(parts, ", "),
		whole(out.Volume),
		whole(out.PerSite),
	)
}

// window says when to lift the meat out, and how long it stays right.
func (w writer) window(b *cooking.Bath) string {
	aim := decimal(100*b.Aim, 2)
	switch {
	case b.Typed.Equilibrium && b.Lift > 0:
		return fmt.Sprintf("It ends at %s %%, which is like ham. Lift it out after %s, at %.1f %%.",
			aim, quantity.FormatDuration(b.Lift), 100*cooking.MostLiked)
	case b.Typed.Equilibrium && b.Early == 0:
		return "It takes over a week to get near its target; a stronger bath is quicker."
	case b.Typed.Equilibrium:
		end := "it cannot get saltier than that"
		if b.Aim > cooking.MostLiked {
			end = "which is like ham; it cannot get saltier"
		}
		return fmt.Sprintf("Nearly at its %s %% after %s, %s.", aim, quantity.FormatDuration(b.Early), end)
	case b.Lift > 0:
		return fmt.Sprintf("In %s it takes up %s %%, which is like ham. Lift it out after %s, at %.1f %%.",
			quantity.FormatDuration(b.Soaks), aim, quantity.FormatDuration(b.Lift), 100*cooking.MostLiked)
	case b.Reached == 0:
		return fmt.Sprintf("This bath does not bring %s %% within a week; make it stronger.", aim)
	case b.Late == 0:
		return fmt.Sprintf("%s %% after %s; it hardly goes above that.", aim, quantity.FormatDuration(b.Reached))
	}
	return fmt.Sprintf(
		"%s %% after %s. Lift it out between %s and %s, a window of %s.",
		aim,
		quantity.FormatDuration(
			b.Reached,
		),
		quantity.FormatDuration(b.Early),
		quantity.FormatDuration(b.Late),
		quantity.FormatDuration(b.Late-b.Early),
	)
}

// InjectionSheet is an injection, worked out.
type InjectionSheet struct {
	Volume   Figure      `json:"volume" doc:"Into one piece, mL"`
	Batch    Figure      `json:"batch" doc:"To mix for all pieces, g, with a tenth over"`
	Sites    Figure      `json:"sites" doc:"Needle sites on one piece"`
	PerSite  Figure      `json:"per_site" doc:"mL a site"`
	Refills  Figure      `json:"refills" doc:"Syringes for one piece"`
	Salt     Figure      `json:"salt" doc:"Salt it leaves, % of raw boneless meat"`
	Even     Figure      `json:"even" doc:"Salt halfway between sites over the mean, %, at the fire"`
	Pump     string      `json:"pump" doc:"How much that is of the trimmed weight" example:"8.0 % of the meat"`
	LeftOver string      `json:"left_over" doc:"What the meat does not take, in a sentence; empty when it takes all"`
	RunsOut  string      `json:"runs_out" doc:"How much leaks back out, in a sentence"`
	BoreNote string      `json:"bore_note" doc:"Whether the grains pass the needle"`
	Clogs    bool        `json:"clogs"`
	WarmNote string      `json:"warm_note" doc:"How warm it may be"`
	Across   int         `json:"across" doc:"Sites across the width"`
	Along    int         `json:"along" doc:"Sites along the grain"`
	LengthMM float64     `json:"length_mm"`
	WidthMM  float64     `json:"width_mm"`
	Pattern  []dose.Site `json:"pattern" nullable:"false" doc:"Every site of the grid"`
	Spread   []Pocket    `json:"spread" nullable:"false" doc:"How far the pockets have spread, over the hours"`
	Grid     string      `json:"grid" doc:"The grid, in words"`
	Length   string      `json:"length" doc:"The length along the grain, in words"`
	Spreads  string      `json:"spreads" doc:"What the spread pictures show, in words"`
	KeepOut  string      `json:"keep_out" doc:"Where the needle stays out, in words"`
	Rows     []RowSheet  `json:"rows" nullable:"false"`
}

// Pocket is the brine of one site after some hours.
type Pocket struct {
	Hours   float64   `json:"hours"`
	Label   string    `json:"label"`
	Even    float64   `json:"even" doc:"Salt halfway between sites over the mean, %"`
	Text    string    `json:"text" doc:"The same as a cook reads it" example:"85 %"`
	Summary string    `json:"summary" doc:"The same in words, for those who do not see the picture"`
	Profile []float64 `json:"profile" nullable:"false" doc:"Salt over the mean, from the needle's track to halfway to the next, at equal steps"`
	ReachMM float64   `json:"reach_mm" doc:"Half the way to the next site"`
}

func (w writer) needle(n *cooking.Needle) *InjectionSheet {
	out := &InjectionSheet{
		Volume:   w.figure(n.Volume),
		Batch:    w.figure(n.Batch),
		Sites:    w.figure(n.Sites),
		PerSite:  w.figure(n.PerSite),
		Refills:  w.figure(n.Refills),
		Salt:     w.figure(n.Salt),
		Even:     w.figure(n.Even),
		Clogs:    n.Clogs,
		Across:   n.Across,
		Along:    n.Along,
		LengthMM: n.Length.MM(),
		WidthMM:  n.Width.MM(),
		Pattern:  n.Pattern,
		Spread:   []Pocket{},
		Rows:     w.rows(n.Rows),
		WarmNote: "Inject it cool, at fridge temperature.",
		BoreNote: "Everything in it passes the needle.",
		RunsOut: fmt.Sprintf(
			"Between %s and %s leak back out: catch it, and use it as the binder.",
			w.as(little, float64(n.Runs.Low)),
			w.as(little, float64(n.Runs.High)),
		),
		KeepOut: "Keep the needle out of fat seams and away from the outermost edge, where it leaks back out.",
	}
	out.Grid = fmt.Sprintf("%d by %d sites, %s each", n.Along, n.Across, withUnit(out.PerSite.Text, out.PerSite.Unit))
	out.Pump = decimal(n.Pump, 1) + " % of the meat"
	if n.Over > 0 {
		out.LeftOver = fmt.Sprintf(
			"The meat takes about %s %% of its weight. The other %s is a marinade: put the meat in it, then throw it away.",
			decimal(dose.MaxPump, 0),
			w.as(little, float64(n.Over)),
		)
	}
	out.Length = w.value(n.Length, "") + " along the grain"
	out.Spreads = fmt.Sprintf(
		"Salt halfway to the next site, compared with the average. Each disc is %s across.",
		w.value(2*n.Reach, ""),
	)
	if n.Clogs {
		out.BoreNote = fmt.Sprintf(
			"Grains of %s mm block a bore of %s mm (a third of it passes): strain it or grind it finer.",
			quantity.Number(n.GrainMM),
			quantity.Number(n.Typed.Bore.MM()),
		)
	}
	if n.Typed.Mix.FatLed() {
		out.BoreNote = join(out.BoreNote, " ", "Salt does not dissolve in fat: shake it each time you fill the syringe.")
	}
	if n.Typed.Mix.Per100g.Fat > 5 {
		out.WarmNote = "There is fat in it: liquid from about 36 °C / 97 °F, never above 40 °C / 104 °F into cold meat. It sets again inside."
	}
	if n.Bone {
		out.KeepOut = "Slide along the bone, not onto it: brine beside bone leaks out, and the needle bends."
	}
	if n.Skin {
		out.KeepOut += " Never through the skin."
	}
	if w.Plain {
		return out
	}
	for i, m := range n.Pockets {
		label := quantity.FormatDuration(m.At)
		switch i {
		case 0:
			label = "just in"
		case len(n.Pockets) - 1:
			label += ": at the fire"
		}
		even := decimal(100*m.Even, 0) + " %"
		profile := make([]float64, len(m.Profile))
		for k, v := range m.Profile {
			profile[k] = drawn(v)
		}
		out.Spread = append(
			out.Spread,
			Pocket{
				Hours:   drawn(m.At.Hours()),
				Label:   label,
				Even:    drawn(100 * m.Even),
				Text:    even,
				Summary: label + ": " + even + " even",
				Profile: profile,
				ReachMM: drawn(n.Reach.MM()),
			},
		)
	}
	return out
}
