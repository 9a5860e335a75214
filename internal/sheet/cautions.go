package sheet

import (
	"maps"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
)

// Caution is a food-safety rule that applies.
type Caution struct {
	ID        string           `json:"id" example:"counter-time"`
	Severity  caution.Severity `json:"severity" enum:"note,care,stop"`
	Stage     string           `json:"stage" doc:"Stage of the cook it belongs to" enum:"piece,brine,season,wait,fire,rest"`
	Values    field.Values     `json:"values,omitempty" doc:"What the message names, in SI units; an acknowledgement names them"`
	Message   string           `json:"message" doc:"What is so, and why it matters"`
	Action    string           `json:"action" doc:"What to do"`
	Authority string           `json:"authority" doc:"What it restates"`
	Read      string           `json:"read,omitempty" doc:"When it was read and acknowledged; empty when it was not"`
}

// becauses say why a rule applies.
var becauses = map[any]string{
	"injected": "the needle has pushed germs from the outside in",
	"needled":  "blades have pushed germs from the outside in", "rolled": "germs from the outside are now inside",
	"stuffed": "the stuffing is raw, too",
	"pork":    "pork is cooked through", "trichinella": "Wild pig and bear can carry trichinella, which freezing does not always kill.", "tularemia": "Rabbit can carry tularemia, which is killed by cooking through.",
}

// cautions are those of a piece.
func (w writer) cautions(p cooking.Piece, f facts.Facts) []Caution {
	out := []Caution{}
	for _, one := range p.Findings {
		c := w.caution(one)
		if c.Read == "" {
			if ack, ok := f.AcknowledgedAs(p.Line.Key, one.ID, c.Message); ok {
				c.Read = ack.At
			}
		}
		out = append(out, c)
	}
	return out
}

// caution writes one, by its id and, where that makes a difference, its severity or
// what it is because of.
func (w writer) caution(f caution.Finding) Caution {
	out := Caution{ID: f.ID, Severity: f.Severity, Stage: f.Stage, Values: f.Values, Read: f.Read}
	values := maps.Clone(f.Values)
	if values == nil {
		values = field.Values{}
	}
	values["way"] = map[any]string{"dry": "dry-cured", "wet": "pumped or immersed", "ground": "ground"}[values["way"]]
	values["because"] = becauses[values["because"]]
	for _, id := range []string{f.ID, f.ID + "." + string(f.Severity)} {
		if t, ok := cautionTexts[id]; ok {
			out.Message, out.Action = t.message, t.action
			if t.authority != "" {
				out.Authority = t.authority
			}
		}
	}
	if f.Values["wrapped"] == "yes" {
		out.Message += " A wrap that leaks fat on the fire flares, and its steam burns."
	}
	out.Message = field.Capital(w.fill(out.Message, values))
	out.Action = w.fill(out.Action, values)
	out.Authority = w.fill(out.Authority, values)
	return out
}

// cautionText says a rule; an empty authority is that of the rule without severity.
type cautionText struct{ message, action, authority string }

var cautionTexts = map[string]cautionText{
	"cold-side": {"Your fridge is at {fridge:both}. Above 4 °C / 40 °F germs grow on raw and salted meat.",
		"Turn it down, or keep the meat on ice, and check with a thermometer before salting.",
		"USDA FSIS: raw meat at or below 4 °C / 40 °F"},
	"counter-time": {
		"{counter:exact} on the counter is over the limit of {limit}: raw meat between 4 and 60 °C / 40 and 140 °F grows germs fast.",
		"Shorten it, or go to the fire straight from the fridge: a cold, wet surface takes more smoke anyway.",
		"USDA FSIS: two hours between 4 and 60 °C / 40 and 140 °F, one hour above 32 °C / 90 °F",
	},
	"raw-keeping": {
		"{wait} raw in the fridge, thawing and bath counted in, is longer than {cut} keeps at 4 °C / 40 °F ({longest}).",
		"Salt it later, or buy it later.",
		"USDA FSIS cold storage chart",
	},
	"nitrite": {
		"Curing salt here brings {ppm} ppm nitrite; the limit for {way} meat is {limit} ppm. It is not a seasoning, and a spoon of it taken for table salt is dangerous.",
		"Weigh it to 0.1 g, keep it apart and labelled, and follow a tested cure.",
		"9 CFR 424.21: {limit} ppm ingoing for {way} meat",
	},
	"nitrite.stop": {
		"Curing salt here brings {ppm} ppm nitrite; the limit for {way} meat is {limit} ppm. It is not a seasoning, and a spoon of it taken for table salt is dangerous.",
		"Take curing salt out of this mix, or use so little that it stays below the limit.",
		"",
	},
	"phosphate": {
		"The injection leaves {percent:2} % phosphate in the meat; the limit is 0.5 %.",
		"Use less of the blend, or pump less.",
		"9 CFR 424.21: 0.5 % of the product",
	},
	"injected": {
		"Injected meat is no longer sterile inside, so a pink finish is not for it. The needle carries raw germs back into the cup.",
		"Cook it through: 63 °C / 145 °F and three minutes for whole muscle, 74 °C / 165 °F for poultry. Inject cool liquid (never above 40 °C / 104 °F), keep the meat at or under 4 °C / 40 °F, pour off only what you use, throw the rest away (as a sauce only after a rolling boil), wash and count the needles.",
		"USDA FSIS: non-intact meat; used injection is thrown away",
	},
	"bath": {"A bath is safe only cold, and never twice. Salt and acid eat bare aluminium and galvanised pails.",
		"Chill it to 4 °C / 40 °F before the meat goes in, in a food-grade pot of steel, glass or plastic, and throw it away after: as a sauce only after a rolling boil.", "USDA FSIS: brining at or below 4 °C / 40 °F"},
	"oversalt": {
		"{percent:2} % salt in the meat is more than most people like (ham is 1.8–2.5 %). It cannot be taken out again.",
		"Use a lighter coat, or a mix with less salt.",
		"salt bands by % of raw boneless meat",
	},
	"sodium": {
		"A serving has {mg} mg of sodium, {day} % of a day’s 2 300 mg.",
		"Keep sauce and sides low in salt; tell guests who watch theirs.",
		"US dietary guideline: 2 300 mg sodium a day",
	},
	"sugar-scorch": {"The surface holds {sugar} % sugar, and the pit is at {pit:both}: it will darken and then scorch.",
		"Run the pit below 150 °C / 300 °F, or put the sugar on late, in the glaze.",
		"sugar darkens fast above about 150 °C / 300 °F"},
	"allergens": {
		"Contains {allergens:and}.",
		"Tell your guests.",
		"declared per ingredient; read the packet, which decides",
	},
	"honey": {
		"Honey can carry spores that harm infants.",
		"Not for children under 12 months.",
		"CDC: no honey under 12 months",
	},
	"raw-touched": {
		"Rub that has touched raw meat, or the hand that did, carries its germs.",
		"Portion the rub into a bowl first; what is left in that bowl is thrown away.",
		"USDA FSIS: cross-contamination",
	},
	"thawing": {
		"Frozen, it takes about {thaw} in the fridge. On the counter its outside is warm long before its middle thaws.",
		"Thaw it in the cold, in a tray, below other food.",
		"USDA FSIS: thawing in the refrigerator, 24 h for each 2.2 kg (5 lb)",
	},
	"pit-cool": {
		"A pit at {pit:both} is below 107 °C / 225 °F: the meat warms too slowly through the range where germs grow.",
		"Run it at 107 °C / 225 °F or above until the core has passed 60 °C / 140 °F.",
		"USDA FSIS, smoking meat: air at 107–149 °C / 225–300 °F",
	},
	"never-done": {
		"In a pit at {pit:both} the core does not get to {core:both} in a day and a half.",
		"Set the pit hotter, or take it off at a lower core where that is safe.",
		"the forecast: a surface that sweats stays far below the pit",
	},
	"slow-to-warm": {
		"Its inside has been opened, and its core takes about {warms_in} to 60 °C / 140 °F; within four hours is the rule.",
		"Run the pit hotter at first, cook smaller pieces, or leave it whole.",
		"the usual smoker’s rule: 4–60 °C / 40–140 °F within 4 h; FSIS cooking guideline 2021: 10–54.4 °C / 50–130 °F within 6 h; the middle of the forecast",
	},
	"ground-done": {
		"Ground meat taken off at {core:both} is not safe: grinding spreads germs all through it.",
		"Take it to 71 °C / 160 °F in the middle (74 °C / 165 °F for ground poultry).",
		"USDA FSIS: ground meat and links 71 °C / 160 °F",
	},
	"poultry-done": {
		"Poultry taken off at {core:both} relies on what it warms after; it has to reach 74 °C / 165 °F in its thickest places.",
		"Log a reading of 74 °C / 165 °F during the rest, in breast and thigh, or put it back.",
		"USDA FSIS: poultry 74 °C / 165 °F",
	},
	"wild": {
		"{because}",
		"Cook it to 71 °C / 160 °F and more, everywhere.",
		"CDC, trichinellosis and tularemia; USDA FSIS: game 71 °C / 160 °F",
	},
	"much-trimmed": {
		"Trimming took {percent} % off; usual is {low}–{high} %.",
		"Check both weights: is one of them of all pieces together?",
		"butchery yields of this cut",
	},
	"no-salt": {
		"Nothing salts this piece yet.",
		"Choose a rub, a bath or an injection, or salt it at the table.",
		"salt bands by % of raw boneless meat",
	},
	"pink-finish": {
		"Taken off at {core:both} it ends below 63 °C / 145 °F. A pink finish is your own choice, for meat whose inside was never opened.",
		"Sear every side, serve at once, and not to children, the old, the pregnant or the ill.",
		"USDA FSIS: whole muscle 63 °C / 145 °F and 3 minutes of rest",
	},
	"pink-finish.stop": {
		"Taken off at {core:both} it ends below 63 °C / 145 °F, and this meat is not safe pink: {because}.",
		"Take it to 63 °C / 145 °F and let it rest three minutes.",
		"",
	},
	"hot-hold": {"It is held for {hold}: never under 60 °C / 140 °F in that time.",
		"Warm the holder first, leave a probe in, and reheat to 74 °C / 165 °F or serve at once what comes near the floor.",
		"FDA Food Code: 57 °C / 135 °F; USDA FSIS, at home: 60 °C / 140 °F"},
	"pink-hold": {
		"Taken off at {core:both} it waits {hold}: it is too cool to be held hot.",
		"Slice and serve it within two hours of coming off, or chill it and warm the slices.",
		"USDA FSIS: food does not stand between 4 and 60 °C / 40 and 140 °F for over two hours",
	},
	"cooling": {"Food cooked ahead has to cool fast and be reheated fast.",
		"Cut or pull it, spread it in shallow trays with its juice, chill it at once, and reheat it covered to 74 °C / 165 °F.", "FDA Food Code: 57→21 °C in 2 h, then to 5 °C in 4 h more (135→70→41 °F)"},
	"leftovers": {
		"What is left keeps three to four days in the cold.",
		"Chill it within two hours, in shallow trays; reheat it to 74 °C / 165 °F.",
		"USDA FSIS: leftovers 3–4 days at 4 °C / 40 °F",
	},
	"reheat": {"Reheated food has to reach 74 °C / 165 °F in its middle. Reheat it once only, straight from the fridge.",
		"Probe the middle of each tray, in two places; throw away what is left after.",
		"USDA FSIS: reheat leftovers to 74 °C / 165 °F"},
	"reheat-slow": {
		"It takes about {takes} to get hot. Food that is reheated to be kept hot has to be at 74 °C / 165 °F within two hours.",
		"Spread it in shallower trays, cut it up, or warm it in two lots.",
		"FDA Food Code 3-403.11: to 74 °C / 165 °F within 2 h",
	},
	"reheat-late": {
		"It cooled too slowly after it was cooked: reheating does not make it safe.",
		"Throw it away.",
		"FDA Food Code: 57→21 °C in 2 h, then to 5 °C in 4 h more (135→70→41 °F)",
	},
	"reheat-too-old": {
		"Its last day in the fridge was {last}.",
		"Throw it away, or freeze it in time next time.",
		"USDA FSIS: leftovers 3–4 days at 4 °C / 40 °F",
	},
	"reheat-unverified": {
		"Nothing says when it was cold: unverified, not safe.",
		"Use it only if you know that it was in the fridge within two hours of slicing.",
		"no time was written down",
	},
	"reheat-undated": {
		"Nothing says when it was cooked.",
		"Write down the day; cooked meat keeps three to four days in the fridge.",
		"USDA FSIS: leftovers 3–4 days at 4 °C / 40 °F",
	},
	"fire-and-air": {
		"Charcoal and wood give carbon monoxide: never indoors, in a garage or a tent. Hot ash stays hot for a day.",
		"Burn only clean, untreated wood, away from walls, with water at hand.",
		"US CPSC and NFPA on grills and charcoal",
	},
	"unverified": {
		"It is off the fire and no core temperature is on record: unverified, not safe.",
		"Read it in the thickest place, and write it down.",
		"no temperature was read",
	},
	"poultry-shown": {"The highest core on record is {core:both}: this poultry was not shown to be done.",
		"Read 74 °C / 165 °F in its thickest places before you slice it, or put it back.",
		"USDA FSIS: poultry 74 °C / 165 °F"},
	"poultry-shown.stop": {
		"It was sliced, and the highest core on record is {core:both}: this poultry was not shown to be done.",
		"Do not serve it before a reading of 74 °C / 165 °F: put it back on the heat.",
		"",
	},
	"warmed-slowly": {
		"Its inside has been opened, and its core was {warming} between 4 and 60 °C / 40 and 140 °F; within four hours is the rule.",
		"Run the pit hotter now, and cook it well past 74 °C / 165 °F.",
		"the usual smoker’s rule: 4–60 °C / 40–140 °F within 4 h",
	},
	"warmed-slowly.stop": {
		"Its inside has been opened, and its core was {warming} on its way to 60 °C / 140 °F, over six hours of it where germs grow and make poison.",
		"Do not serve it: heat does not undo the poison.",
		"FSIS cooking guideline 2021: 10–54.4 °C / 50–130 °F within 6 h",
	},
	"ran-cool": {
		"For {cool} the pit read about {pit:both} while the meat was still cool: below 107 °C / 225 °F it warms too slowly.",
		"Run it at 107 °C / 225 °F or above until the core has passed 60 °C / 140 °F.",
		"USDA FSIS, smoking meat: air at 107–149 °C / 225–300 °F",
	},
	"held-cool": {"It was held below 60 °C / 140 °F for {under}, down to {core:both}.",
		"Serve it at once, or reheat it to 74 °C / 165 °F.",
		"FDA Food Code: 57 °C / 135 °F; USDA FSIS, at home: 60 °C / 140 °F"},
	"held-cool.stop": {"It was held below 60 °C / 140 °F for {under}, down to {core:both}: over the two hours.",
		"Throw it away.", "USDA FSIS: two hours between 4 and 60 °C / 40 and 140 °F"},
}
