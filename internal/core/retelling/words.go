package retelling

import (
	"strings"
	"sync"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/larder"
)

// set of words, given as one text.
func words(texts ...string) map[string]bool {
	out := map[string]bool{}
	for _, t := range texts {
		for _, w := range strings.Fields(t) {
			out[w] = true
		}
	}
	return out
}

// What the words of a text may be.
var (
	fillers = words(`a an the this that these those it its it's i i'd we you they them he she my our your his her their me us
		was were is are be been being am had have has having did do does got get getting gave let
		of in at to with for by from into onto inside over under on up down out as so just still again also only
		about around roughly approximately approx ca circa maybe probably nearly almost nice nicely good well very really
		quite pretty fairly finally first last there here some any each both all every whole
		when once while where then now which who what how because since until till through during between
		too more less another other one time times way bit little lot few couple enough kept keep
		went go going gone came come started start starting began begin total altogether straight back
		early late soon thin thinly thickly crisp crispy juicy moist perfect perfectly beautiful beautifully properly mixed
		somewhere sometime pink peach against across grain along
		temp temps temperature temperatures degrees internal internally reading readings heat
		hot warm cool cold low high slow slowly quick quickly gently carefully lightly loosely tightly tight loose
		fresh clean open seen double doubled layer layers sheet sheets heavy duty lid door pencil
		nothing else thing things stuff
		am pm o'clock morning afternoon evening night noon midday midnight day today overnight
		least everywhere new chimney anyway yet ever finish fork forks claws hands splash dash drizzle squeeze knob probe probes thermometer inch inches cm mm mark part minute minutes min mins hour hours h hr hrs`)

	// what is cooked, as cooks call it.
	meats = sync.OnceValue(func() map[string]bool {
		out := words(`meat piece pieces brisket briskets packer flat point pork shoulder shoulders butt butts rib ribs rack racks
			chicken chickens bird birds turkey turkeys duck roast roasts beef lamb leg legs wing wings thigh thighs breast
			breasts
			slab slabs loin loins chuck cheek cheeks shank shanks hog pig whole half halves joint joints ham hams bits cubes
			chunks
			sausage sausages link links loaf fish goat venison fat cap side sides bone bones skin ends end burnt middle
			thick thin
			thickest thinnest centre center core bottom top`)
		for _, c := range cut.All() {
			for _, w := range strings.Fields(strings.ToLower(strings.Join(append(c.Also, c.Name, c.Noun), " "))) {
				w = strings.Trim(w, ",;")
				out[w], out[w+"s"] = true, true
			}
		}
		for w := range fillers { // "bone and skin on, for pulling"
			delete(out, w)
		}
		for w := range verbWords() {
			delete(out, w)
		}
		for _, w := range strings.Fields("and on off for of pulling slicing back ready cut shaped ground with") {
			delete(out, w)
		}
		out["flat"], out["point"] = true, true
		return out
	})

	// around are words for what was around it, that nobody does: they make a remark.
	around = words(`rain rained raining rainy wind windy gusty gusts snow snowed snowing sun sunny storm stormy weather cloudy
		freezing guests neighbours neighbors music dog kids`)

	// pits are what it is cooked on.
	pits = words(`pit pits smoker smokers cooker grill barbecue bbq oven kettle drum cabinet offset ceramic fire fires firebox vent
		vents dial thermostat controller damper dampers heat temp temperature setpoint`)

	// what is put on it, by the larder's names: never a verb of this language.
	larderWords = sync.OnceValue(func() map[string]bool {
		out := words(`butter juice stock broth vinegar cider apple beer water sauce rub mop glaze honey sugar mustard oil tallow
			lard mix mixture baste spray bottle brush brown drippings juices marinade seasoning
			salt pepper`)
		for _, i := range larder.All() {
			for _, w := range strings.FieldsFunc(strings.ToLower(i.Name), func(r rune) bool {
				return r == ' ' ||
					r == ',' || r == '-'
			}) {
				out[w] = true
			}
		}
		for w := range fillers {
			delete(out, w)
		}
		return out
	})

	woods  = words(`wood chunk chunks log logs split splits kindling oak beech apple cherry hickory pecan mesquite maple alder ash chips`)
	fuels  = words(`charcoal coal coals briquettes briquets pellets pellet fuel gas lump`)
	denial = words(`not didn't didnt don't dont never no without wasn't wasnt weren't hadn't haven't isn't couldn't wouldn't skipped forgot missed failed
		instead nor neither`)
	// What begins a remark, not something that was done.
	remarks = []string{
		"next time", "should have", "should've", "could have", "could've", "would have", "would've", "would be", "will be",
		"i'd", "i would", "i'll", "i will", "too salty", "too dry", "too sweet", "too soft", "too much", "too little", "wish",
		"note to self", "remember", "learned", "learnt", "lesson",
	}
)

// wrapWords name what it was wrapped in, by the id of the wrap.
var wrapWords = sync.OnceValue(func() map[string]string {
	out := map[string]string{
		"foil": "foil", "foiled": "foil", "aluminium": "foil", "aluminum": "foil", "tinfoil": "foil", "paper": "paper",
		"butcher": "paper", "parchment": "brown-paper", "pan": "pan", "tray": "pan", "tin": "pan", "boat": "boat",
		"boated": "boat",
		"leaves": "leaves", "leaf": "leaves", "bag": "brown-paper", "bags": "brown-paper",
	}
	for _, w := range gear.Wraps {
		if w.OnFire && w.Also != "" {
			out[w.Also] = w.ID
		}
	}
	delete(out, "bacon")
	return out
})

// restWords name where it was held, by the id of the place.
var restWords = map[string]string{
	"cooler": "cooler", "coolbox": "cooler", "icebox": "cooler", "towel": "cooler", "towels": "cooler",
	"oven": "oven", "counter": "counter", "bench": "counter", "table": "counter", "board": "board", "tray": "tray",
	"holder": "holder", "warmer": "holder", "box": "holder", "cabinet": "holder", "drawer": "holder",
	"pit": "pit", "smoker": "pit", "cooker": "pit", "grill": "pit",
}
