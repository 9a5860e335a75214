package sheet

import (
	"fmt"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/trace"
)

// rule is how the figures of one rule are written.
type rule struct {
	as          shape
	explanation string // a template over the figure's inputs
	source      string
	more        func(w writer, inputs map[string]any) string // what else to say, in a sentence
}

// Sources of rules and constants.
const (
	cutSource       = "typical butchery yields and proportions, kept with the cut; weigh and measure to replace them"
	blockSource     = "geometry of a rounded block, exact for slab, cylinder and sphere"
	coatSource      = "coverage by eye in mL per 100 cm², ±30 %, a binder holding 20 % more; 5–15 % is lost while sprinkling, 5–25 % drips off before it is taken up"
	larderSource    = "public food-composition tables, typical values; spoon weights ±10 % for powders, ±20 % for flakes and leaves"
	layerSource     = "field judgement by where a dose goes; its range is part of the figure"
	diffusionSource = "Fick’s law; diffusivity after Fox (1980), J. Food Sci. 45, 1740, with a spread of ±35 %"
	bathSource      = "Fick’s law in a stirred bath of limited volume (Crank, 2nd ed., eq. 4.37); meat is 74 % water, and its salt lives in that"
	gainSource      = "field range for brined meat"
	needleSource    = "geometry of the piece and your grid"
	sodiumSource    = "US dietary guideline"
	timingSource    = "heat computed from the meat’s way to its middle, the pit, the wrap and the sweat of its surface; one in ten is quicker than the lower end, one in ten slower than the upper"
	priceSource     = "the prices in your larder"
	judgement       = "field judgement"
	labelSource     = "21 CFR 101.9(c): sodium to 5 mg up to 140 mg and to 10 mg above, sugars to 1 g; weights as printed"
)

const shrinks = "Trimmed weight less bone, times what is left of the meat after the cook."

// rules are all of them, by id.
var rules = map[string]rule{
	"servings": {as: portions, explanation: "The portions of all pieces added up.", source: "this cook-out"},
	"portions_needed": {
		as:          needed,
		explanation: "Adults, and children at half a portion, times the appetite; and the leftovers you want.",
		source:      judgement,
	},

	"meat.trimmed-weighed": {as: mass, explanation: "As you weighed it after trimming.", source: cutSource},
	"meat.trimmed-estimated": {
		as:          mass,
		explanation: "Weight as bought less what this trim style usually takes off.",
		source:      cutSource,
	},
	"meat.thickness-estimated": {
		as:          length,
		explanation: "Estimated from the cut’s proportions and its weight. Measure the thickest point to replace it.",
		source:      cutSource,
	},
	"meat.thickness-measured": {
		as:          length,
		explanation: "As you measured it; length and width follow from the weight.",
		source:      cutSource,
	},
	"meat.block": {
		as:          length,
		explanation: "Thickest point times the share that a block of the same meat has of it in this cut: meat is thinner over most of its length.",
		source:      cutSource,
	},
	"meat.surface": {
		as:          area,
		explanation: "The sides of a rounded block of this length, width and thickness. 1 dm² is 100 cm².",
		source:      blockSource,
		more: func(_ writer, in map[string]any) string {
			if in["one_bare"] == "yes" {
				return "One broad face is left bare."
			}
			return ""
		},
	},
	"meat.per-kilo": {
		as:          perKilo,
		explanation: "Coated surface ÷ boneless meat. The more surface per kilo, the saltier the same coat makes it.",
		source:      cutSource,
	},
	"meat.served":   {as: mass, explanation: shrinks, source: cutSource},
	"meat.servings": {as: portions, explanation: "Cooked meat ÷ one portion, less what is kept back and chilled.", source: cutSource},

	"row.mass": {as: grams, explanation: "Its share of the mix by weight.", source: larderSource,
		more: func(w writer, in map[string]any) string {
			return fmt.Sprintf("Measured by spoon instead it is ±%s off.", w.value(in["spread"], ""))
		}},
	"season.by-coat": {
		as:          grams,
		explanation: "The coat’s volume per area times the surface, times what a mL of this mix weighs.",
		source:      coatSource,
	},
	"season.by-target": {
		as:          grams,
		explanation: "Salt wanted in the boneless meat ÷ the share of a coat that stays ÷ the share of salt in this mix.",
		source:      coatSource,
	},
	"season.by-amount": {
		as:          grams,
		explanation: "The amount you gave, less the tenth or so that falls off while sprinkling.",
		source:      coatSource,
	},
	"season.weighed": {
		as:          grams,
		explanation: "What you weighed, less the spare and the tenth or so that falls off while sprinkling.",
		source:      coatSource,
	},
	"season.by-habit": {
		as:          grams,
		explanation: "Salt alone is sprinkled far thinner than a rub: a fifth of that coat’s volume, times the surface, times what a mL of this salt weighs.",
		source:      judgement,
	},
	"season.was-said": {
		as:          grams,
		explanation: "The amount you gave.",
		source:      "you; by spoon it is off by what its ingredients’ packets differ",
	},
	"season.was-weighed": {as: grams, explanation: "The sum of what you weighed.", source: "your scale, ± 1 %"},
	"season.to-mix": {
		as:          grams,
		explanation: "What stays on the meat, plus what falls off while sprinkling, plus your margin.",
		source:      coatSource,
	},
	"season.salt": {
		as:          grams,
		explanation: "Salt in the rub on the meat: each ingredient’s salt by weight.",
		source:      larderSource,
	},
	"season.coat": {
		as:          thick,
		explanation: "Volume of rub on 100 cm² of surface: light 2.5, medium 4, heavy 6, crust 9.",
		source:      coatSource,
	},
	"season.salt-share": {
		as:          percent0,
		explanation: "Each ingredient’s share of the mix by weight, times the salt it holds.",
		source:      larderSource,
	},

	"salt.percent": {
		as:          percent2,
		explanation: "Salt that stays in the meat ÷ its raw boneless weight.",
		source:      coatSource,
		more: func(_ writer, in map[string]any) string {
			n, _ := in["per_kilo"].(trace.Number)
			return compare(n.Value)
		},
	},
	"salt.plate": {
		as:          percent2,
		explanation: "The same salt ÷ the cooked meat: the meat shrinks, the salt stays.",
		source:      cutSource,
	},
	"salt.sodium": {
		as:          fixed(1, 0, "mg"),
		explanation: "Salt in a portion of cooked meat ÷ " + sodiumPerSalt + " (that much salt holds one gram of sodium). Added salt only; meat has 50–80 mg in 100 g of its own.",
		source:      larderSource,
	},
	"salt.day": {as: percent0, explanation: "Sodium of a serving ÷ a day’s 2 300 mg.", source: sodiumSource},
	"salt.outer": {
		as:          percent1,
		explanation: "Salt in the outer 5 mm when the fire starts, from bath, needle and rub: what the first bite tastes. What goes on later comes on top.",
		source:      diffusionSource,
	},

	"amount.on-meat": {
		as:          grams,
		explanation: "Salt still missing to the target ÷ the share of it that stays ÷ the salt in it.",
		source:      layerSource,
	},
	"amount.pumped": {
		as:          percent1,
		explanation: "How much to inject to meet the target, as a share of the trimmed weight.",
		source:      layerSource,
	},
	"amount.strength": {
		as:          percent1,
		explanation: "The strength at which the bath brings the missing salt in its time.",
		source:      layerSource,
	},

	"depth.depth": {
		as:          depth,
		explanation: "Where the salt is 0.25 % above the meat’s own. Depth grows with the square root of time, whatever the weight.",
		source:      diffusionSource,
	},
	"depth.taken-up": {
		as:          minutes,
		explanation: "Water drawn out of the meat dissolves the salt. While any is left the surface is saturated; after that all of it is inside.",
		source:      diffusionSource,
	},
	"depth.even": {
		as:          percent0,
		explanation: "Salt in the centre ÷ average salt in the meat. 100 % means the same everywhere.",
		source:      diffusionSource,
	},

	"bath.liquid-given": {as: liquid, explanation: "As you set it.", source: bathSource},
	"bath.liquid-covers": {
		as:          liquid,
		explanation: "Loosely packed pieces fill about 57 % of the room, so it takes three quarters of their volume to cover them.",
		source:      bathSource,
	},
	"bath.salt-strong": {
		as:          grams,
		explanation: "The strength you chose, of brine by weight.",
		source:      bathSource,
		more:        lessTheRest,
	},
	"bath.salt-recipe": {as: grams, explanation: "As the recipe says.", source: bathSource},
	"bath.salt-solved": {
		as:          grams,
		explanation: "The value at which this bath brings the salt that is still missing.",
		source:      layerSource,
		more:        lessTheRest,
	},
	"bath.salt-equilibrium": {
		as:          grams,
		explanation: "Target × (meat + water ÷ 0.74): shared evenly between the bath and the water in the meat it gives the target, however long it takes.",
		source:      bathSource,
		more:        lessTheRest,
	},
	"bath.strength": {as: percent1, explanation: "Salt ÷ (salt + water), by weight.", source: bathSource},
	"bath.degrees": {
		as:          fixed(1, 0, "°"),
		explanation: "Strength ÷ 26.4 %, the strength of a saturated brine.",
		source:      bathSource,
	},
	"bath.density": {
		as:          heavy,
		explanation: "What a hydrometer shows at 20 °C: 998.2 + 7.03 p + 0.023 p² kg/m³ for p % of salt, and 4 kg/m³ for each percent of sugar.",
		source:      bathSource,
	},
	"bath.takes": {
		as:          percent2,
		explanation: "Salt taken up from the bath in its time ÷ the raw boneless meat.",
		source:      bathSource,
	},
	"bath.ice": {
		as:          grams,
		explanation: "Enough ice from −18 °C to cool the hot part to 4 °C: it takes up as much heat as the hot part gives off. Only plain water is boiled and frozen; everything else goes in cold.",
		source:      bathSource,
	},
	"bath.water": {
		as:          grams,
		explanation: "The liquid less the water in everything else that is poured in.",
		source:      bathSource,
	},
	"bath.gain": {
		as:          percent1,
		explanation: "Each gram of salt taken up carries about four of water with it (two to six): swelling of the proteins.",
		source:      gainSource,
	},

	"inject.volume": {
		as:          fixed(1e6, 0, "mL").or(volumes),
		explanation: "Pump × trimmed weight ÷ density of the liquid.",
		source:      needleSource,
	},
	"inject.batch": {
		as:          grams,
		explanation: "For all pieces, with a tenth over for the cup and the needle.",
		source:      larderSource,
	},
	"inject.sites": {
		as:          fixed(1, 0, "sites"),
		explanation: "Length ÷ spacing, times width ÷ spacing, less the sites you avoid.",
		source:      needleSource,
	},
	"inject.per-site": {
		as:          little,
		explanation: "The volume ÷ the number of sites. Give more to lean and thin parts, less to fat.",
		source:      needleSource,
	},
	"inject.refills": {
		as:          fixed(1, 0, "syringes"),
		explanation: "The volume ÷ what the syringe holds.",
		source:      needleSource,
	},
	"inject.salt": {
		as:          percent2,
		explanation: "Salt of the injection that stays ÷ the raw boneless meat.",
		source:      layerSource,
	},
	"inject.even": {
		as:          percent0,
		explanation: "Each site’s pocket spreads in a cylinder as wide as its square of the grid. This is the salt at its rim ÷ the average.",
		source:      diffusionSource,
	},

	"plan.chance": {as: fixed(100, 0, "%"), source: timingSource,
		explanation: "For each piece, the chance that it is off the fire and rested before slicing; all of them together, since pieces on one pit share its error. The time on the fire varies as the forecast says."},

	"buy.raw": {
		as:          mass,
		explanation: "The portions from this piece ÷ what cooking, bone and trim leave of it.",
		source:      cutSource,
	},
	"cost.mix": {as: fixed(1, 2, ""), explanation: "Each ingredient’s grams times its price.", source: priceSource},
	"cost.piece": {
		as:          fixed(1, 2, ""),
		explanation: "Weight as bought times its price, and all that is mixed for it.",
		source:      priceSource,
	},
	"cost.all": {
		as:          fixed(1, 2, ""),
		explanation: "Meat and mixes of all pieces, and the fuel, wood and wraps that they take.",
		source:      priceSource,
	},
	"cost.shopping": {as: fixed(1, 2, ""), explanation: "What is missing, each at its price.", source: priceSource},

	"bench.batch": {as: grams, explanation: "All rows together, in the batch you fixed.", source: larderSource},
	"bench.spoon": {
		as:          fixed(1000, 1, "g").or(mass),
		explanation: "A level tablespoon of the mix.",
		source:      larderSource,
	},
	"bench.spoon-salt": {
		as:          fixed(1000, 1, "g").or(mass),
		explanation: "A level tablespoon times the share of salt in the mix.",
		source:      larderSource,
	},
	"bench.total": {
		as:          percent1,
		explanation: "Each ingredient’s share of the mix by weight, times what it holds of it.",
		source:      larderSource,
	},

	"label.salt": {
		as:          percent0,
		explanation: "Sodium × " + sodiumPerSalt + " ÷ the serving, with the range that rounding on the label allows.",
		source:      labelSource,
	},
	"label.sugar": {
		as:          percent0,
		explanation: "Sugars ÷ the serving, with the range that rounding on the label allows.",
		source:      labelSource,
	},
	"label.mixed": {
		as:          percent1,
		explanation: "The powder’s salt ÷ powder and liquid together; a spooned powder weighs about 0.9 g/mL, ± 20 %.",
		source:      labelSource,
	},
}

// lessTheRest says that salt comes with the rest of a bath.
func lessTheRest(_ writer, in map[string]any) string {
	if _, ok := in["salt_with_rest"]; ok {
		return "Less what comes with the rest of the bath."
	}
	return ""
}

// compare says how hard a coat salts a piece beside a pork shoulder, on which a coat
// is mostly judged; ratio is of their surfaces per kilo of boneless meat.
func compare(ratio float64) string {
	if ratio > 0.9 && ratio < 1.1 {
		return "Per kilo of meat this piece has about as much surface as a pork shoulder."
	}
	taste := "so the same coat makes it %.1f × as salty"
	return fmt.Sprintf("Per kilo of meat this piece has %.1f × the surface of a pork shoulder, "+taste+".", ratio, ratio)
}

// inputNames say what went into figures. An id that is missing here is used in an
// explanation only.
var inputNames = map[string]string{
	"adults": "adults", "children": "children", "appetite": "appetite", "leftovers": "leftovers",
	"as_bought": "as bought", "trim_style": "trim style", "usual_trim": "usual trim", "trimmed_weight": "trimmed weight",
	"bone":       "bone",
	"cook_yield": "cook yield", "portion": "portion", "kept_back": "kept back for later",
	"proportions": "length : width : thickness", "size": "size",
	"rounding": "rounding",
	"surface":  "surface", "block_share": "block over thickest point", "thickest": "thickest point",
	"boneless": "boneless meat of one", "surface_of_all": "surface of all", "coat": "coat", "per_ml": "a mL of this mix",
	"on_the_meat": "rub on the meat", "lost_sprinkling": "lost while sprinkling", "spare": "margin",
	"salt_in_mix": "salt in this mix",
	"parts_by":    "parts by", "as_written": "as written", "share_by_weight": "share by weight",
	"teaspoon":    "a level teaspoon weighs",
	"salt_on_one": "salt on one piece", "stays": "share that stays", "other_sources": "other sources",
	"salt_in_raw":    "salt in the raw meat",
	"salt_in_cooked": "salt in the cooked meat", "serving": "a serving", "salt_on_surface": "salt on the surface",
	"wait":        "wait",
	"temperature": "temperature", "way_in": "way in", "diffusivity": "diffusivity", "target": "target",
	"salt_wanted":   "salt it has to bring to one piece",
	"meat_boneless": "meat, boneless", "water_in_bath": "water in the bath",
	"salt_with_rest": "salt that comes with the rest", "time": "time", "at": "at",
	"pump": "pump", "grid": "grid", "piece": "piece", "rest": "rest", "portions": "portions", "trim": "trim",
	"mass": "of it", "per_100g": "100 g of it",
	"meat": "meat", "rub": "rub", "mixes": "rub and other mixes", "supplies": "fuel, wood and wraps",
	"settles_to": "dry grains settle to", "sodium": "sodium of a serving", "serving_size": "serving",
	"powder": "powder", "liquid": "liquid",
}

func isSpan(v any) bool {
	_, ok := v.(cooking.PercentSpan)
	return ok
}

// weight writes a mass of ingredients, with its unit.
func (w writer) weight(m quantity.Mass) string {
	if w.Units == quantity.US {
		return quantity.FormatMass(m, quantity.US)
	}
	return quantity.FormatGrams(m) + " g"
}
