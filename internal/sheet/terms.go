package sheet

import "verjuice/internal/core/decision"

// Terms are the words of the trade, and the schools where cooks disagree.
type Terms struct {
	Words   []Term   `json:"words" nullable:"false"`
	Schools []School `json:"schools" nullable:"false"`
}

// Term is a word and what it means.
type Term struct {
	Word  string `json:"word"`
	Means string `json:"means"`
}

// School is a question that cooks answer differently.
type School struct {
	Question string         `json:"question"`
	Answers  []SchoolAnswer `json:"answers" nullable:"false"`
}

// SchoolAnswer is one answer, and what it buys or costs.
type SchoolAnswer struct {
	Answer string `json:"answer"`
	Does   string `json:"does" doc:"May be empty"`
}

// words are those that a newcomer may not know, in the order of the work.
var words = []Term{
	{
		"trimmed weight",
		"What the piece weighs after hard fat, loose flaps and silver skin are off. Seasoning and time follow it.",
	},
	{"rub", "Salt, pepper and spices that go on the surface."},
	{
		"parts",
		"How much of each, beside the others. Two parts by volume are not two parts by weight: a spoon of flaky salt weighs half as much as one of fine salt.",
	},
	{
		"coat",
		"How thick the rub lies: light, medium, heavy or crust. A thin piece has more surface for its weight, so the same coat makes it saltier.",
	},
	{"binder", "Mustard, oil or the like, brushed on first so that more rub stays."},
	{"dry brine", "Salt on the surface, and time in the cold for it to go in."},
	{"wet brine", "Salted water that the meat lies in. An equilibrium bath is so weak that it cannot get too salty."},
	{"injection", "Cold liquid through a needle into big or lean pieces."},
	{
		"salt ledger",
		"All the salt that ends in a piece, from rub, bath, injection, glaze and sauce, as % of the raw meat without bones.",
	},
	{"pit", "Whatever it cooks on: cabinet, offset, kettle, drum, ceramic cooker."},
	{"spritz", "Vinegar, juice or water sprayed on the surface once it is set."},
	{"bark", "The dark, firm crust. It is set when it does not scratch off."},
	{
		"stall",
		"For hours, at about 65 to 75 °C / 150 to 167 °F, the core hardly rises: the surface sweats as fast as heat comes in.",
	},
	{"wrap", "Foil or butcher paper around it in the stall: quicker, with a softer bark."},
	{"core", "The temperature in the coldest place, where the probe should be."},
	{"probe-tender", "The probe slides in as into butter, in several places."},
	{"vent", "Open for a few minutes after the fire, so that it stops cooking."},
	{
		"rest, hold",
		"The time from the fire to the knife. The rest lets it settle; the hold keeps it hot until serving, never under 60 °C / 140 °F.",
	},
	{"chance", "Of so many cook-outs like this one, how many would be ready in time."},
}

// WriteTerms are the words and the schools.
func WriteTerms() Terms {
	out := Terms{Words: words, Schools: []School{}}
	for _, d := range decision.All {
		text, ok := decisionTexts[d.Key.String()]
		if !ok || len(d.Values) < 2 {
			continue
		}
		one := School{Question: text.label, Answers: []SchoolAnswer{}}
		for _, v := range d.Values {
			if a, ok := text.answers[v]; ok {
				one.Answers = append(one.Answers, SchoolAnswer{a.label, a.note})
			}
		}
		out.Schools = append(out.Schools, one)
	}
	return out
}
