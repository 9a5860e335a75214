package retelling

import (
	"math"
	"slices"
	"strings"
	"time"

	"verjuice/internal/core/field"
)

// What a core and a pit can be, °C.
const lowCore, highCore, lowPit, highPit = 0, 103, 40, 320

// warm puts the temperature of a draft into its act; false when it had to be asked for.
func (t *teller) warm(d *draft, a *Act) bool {
	if d.temp == nil {
		if oneOf(d.what, "set", "read") {
			t.ask(d, "tale.degrees")
			return false
		}
		return true
	}
	v := d.temp.mid()
	low, high := float64(lowCore), float64(highCore)
	if d.what == "set" {
		low, high = lowPit, highPit
	}
	c, f := v, (v-32)/1.8
	switch d.temp.scale {
	case "c":
		f = math.NaN()
	case "f":
		c = math.NaN()
	default:
		if d.what == "set" && v >= 180 { // no pit for this is at 180 °C and more, but few are asked for by a bare number
			c = math.NaN()
		}
		if d.what == "set" && v < 150 {
			f = math.NaN()
		}
		if d.what != "set" {
			early := a.At.Sub(t.scene.On) < 4*time.Hour && v >= 70 && v <= 104
			if !(early && (oneOf(d.what, "read", "look"))) && c <= highCore {
				f = math.NaN()
			}
		}
	}
	fits := func(c float64) bool { return c >= low && c <= high }
	asC, asF := fits(c), fits(f)
	if asC && asF {
		offer := func(scale string) Offer {
			return Offer{field.Because("tale.scale", "degrees", number2(v), "scale", scale), t.scaled(d, scale)}
		}
		t.ask(d, "tale.scales", offer("F"), offer("C"))
		return false
	}
	got := c
	if asF {
		got = f
	} else if !asC {
		t.ask(d, "tale.degrees")
		return false
	}
	switch {
	case d.what == "set":
		a.SetC = got
	case d.what == "rest" && d.clause.rest != "" && !d.clause.cores: // the oven is at that, not the core
	default:
		a.CoreC = got
	}
	return true
}

// scaled is the text of a draft with its scale told.
func (t *teller) scaled(d *draft, scale string) string {
	for i := d.from; i < d.to; i++ {
		if h, n, ok := t.temperature(i); ok && h == *d.temp && t.at(i).kind == number {
			if _, _, timed := t.time(i); !timed {
				text, _ := t.piece(i, n)
				return t.edit(d, i, n, text+" °"+scale)
			}
		}
	}
	return t.edit(d, d.to, d.to, "°"+scale)
}

// falls is by how much a core does not fall for no reason, °C.
const falls = 20

// again reports whether an act was told twice in a breath: into a towel, and into the cooler; flipped and rotated.
func (t *teller) again(a Act) bool {
	return slices.ContainsFunc(t.told.Acts, func(o Act) bool {
		o.From, a.From = [2]int{}, [2]int{}
		return o == a
	})
}

// check asks about what cannot be in this order, and takes it out of the acts.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (t *teller) check() {
	var out []Act
	why := func(a Act, id string) {
		text := strings.TrimSpace(t.text[a.From[0]:a.From[1]])
		for _, ask := range t.told.Asks {
			if ask.From == a.From {
				return
			}
		}
		t.told.Asks = append(t.told.Asks, Ask{Why: field.Because(id, "said", text), From: a.From})
	}
	all := slices.Clone(t.told.Acts)
	slices.SortStableFunc(all, func(a, b Act) int { return a.At.Compare(b.At) })
	wrapped, off, core, coreOff := "", false, 0.0, false
	first := func(what string) (time.Time, bool) {
		for _, a := range all {
			if a.What == what {
				return a.At, true
			}
		}
		return time.Time{}, false
	}
	taken, isOff := first("off")
	for _, a := range all {
		last := a.At
		if a.Until.After(last) {
			last = a.Until
		}
		switch {
		case a.At.Before(t.scene.On.Add(-24*time.Hour)) || last.Sub(t.scene.On) > Longest:
			why(a, "tale.long")
			continue
		case !t.scene.Now.IsZero() && a.At.After(t.scene.Now):
			why(a, "tale.future")
			continue
		case !oneOf(a.What, "light", "set", "fuel", "wood", "fire") && a.At.Before(t.scene.On):
			why(a, "tale.before-on")
			continue
		case a.What == "slice" && isOff && a.At.Before(taken):
			why(a, "tale.sliced-on")
			continue
		case a.What == "rest" && isOff && a.At.Before(taken):
			why(a, "tale.rested-on")
			continue
		case a.What == "wrap" && wrapped != "" && a.Which == "" && !off:
			why(a, "tale.wrapped-twice")
			continue
		case a.What == "off" && off && a.Which == "":
			why(a, "tale.off-twice")
			continue
		case oneOf(a.What, "spritz", "turn", "wood", "wrap", "baste") && off && a.Which == "":
			why(a, "tale.off-by-then")
			continue
		}
		if a.CoreC > 0 && a.Place == "" && a.Which == "" {
			if core > 0 && a.CoreC < core-falls && !off && !coreOff {
				why(a, "tale.fell")
				continue
			}
			core, coreOff = a.CoreC, false
		}
		switch a.What {
		case "wrap":
			wrapped = a.Kind + "x"
		case "unwrap":
			wrapped = ""
		case "off":
			off = a.Which == ""
		case "on":
			off, wrapped, coreOff = false, "", true
		case "out":
			coreOff = true
		}
		out = append(out, a)
	}
	t.told.Acts = out
}
