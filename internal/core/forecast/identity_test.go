package forecast

import (
	"reflect"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/heat"
	"verjuice/internal/core/when"
)

// leaves calls do with each value in v that holds no other, and what it is called.
func leaves(v reflect.Value, name string, do func(name string, leaf reflect.Value)) {
	switch v.Kind() {
	case reflect.Struct:
		for i := range v.NumField() {
			if v.Type().Field(i).IsExported() {
				leaves(v.Field(i), name+"."+v.Type().Field(i).Name, do)
			}
		}
	case reflect.Slice:
		for i := range v.Len() {
			leaves(v.Index(i), name+"."+strconv.Itoa(i), do)
		}
	default:
		do(strings.TrimPrefix(name, "."), v)
	}
}

// others are texts that a field of an input may hold, the first other one of which is put there.
var others = map[string][]string{
	"Weather": {"cold"}, "Shine": {"dull"}, "Tight": {"tight"}, "Pit": {"cabinet"}, "Sealed": {"skin"},
	"Family": {"poultry"}, "Kind": {"paper"}, "Place": {"cooler"}, "Sign": {"bark"}, "Species": {"beef"},
}

// moved puts another value into a leaf.
func moved(name string, leaf reflect.Value) {
	switch leaf.Kind() {
	case reflect.Bool:
		leaf.SetBool(!leaf.Bool())
	case reflect.Int, reflect.Int64:
		if leaf.Type() == reflect.TypeFor[time.Duration]() {
			leaf.SetInt(leaf.Int() + int64(40*time.Minute))
		} else {
			leaf.SetInt(leaf.Int() + 25)
		}
	case reflect.Uint64:
		leaf.SetUint(leaf.Uint() + 1)
	case reflect.Float64:
		leaf.SetFloat(1.07*leaf.Float() + 0.3)
	case reflect.String:
		last := name[strings.LastIndex(name, ".")+1:]
		to := "other"
		if known := others[last]; len(known) > 0 {
			to = known[0]
		}
		leaf.SetString(to)
	}
}

// unmoved are fields of an input that do not move how it fares, and why.
var unmoved = map[string]string{
	"Cut.ID": "what it is made of stands in the other fields", "Cut.Name": "only said", "Cut.Noun": "only said",
	"Cut.Also": "only said", "Cut.Species": "only said", "Cut.Finishes": "what may be chosen",
	"Cut.Finish": "its figures stand in the other fields", "Cut.Length": "is in the geometry",
	"Cut.Width": "is in the geometry", "Cut.Thickness": "is in the geometry", "Cut.Rounding": "is in the geometry",
	"Cut.Surface": "is in the geometry", "Cut.NativeSalt": "of salt alone", "Cut.TrimLoss": "of what is bought",
	"Cut.TypicalKG": "of what is bought", "Cut.LowKG": "of what is bought", "Cut.HighKG": "of what is bought",
	"Cut.PitC": "the usual one: this one stands in PitC", "Cut.RestMin": "after the fire",
	"Cut.Wrap": "the usual one: this one's are in Wraps", "Rests": "after the fire", "VentsShut": "after the fire",
	"PitOff": "the pit was read", "Weather": "Skies say it", "Skies.0.AtH": "the first is from the start",
	"Skies.0.Ambient": "the pit was read in it",
	"Off":             "Core says when it comes off, until Off does", "UndoneH": "what was read tells it, too",
	"Cut.Family": "its figures stand in the other fields", "Cut.Block": "is in the geometry",
	"Cut.CookYield": "of what is served at another core: the loss is computed", "Cut.YieldC": "as CookYield",
	"Geometry.Rounding": "of its mass and its surface for rub", "Geometry.Spread": "of its surface for rub",
	"Geometry.Mass": "heat goes by its measures", "Learnt": "the pit was read, which says more",
	"Cut.TenderH": "it is done by its core", "Bark.NotH": "it was seen set later",
	"Wraps.0.NotBeforeH":           "its core comes later anyway",
	"Wraps.0.When.First.Range.Off": "of a moment by hours: this one is by its core",
	"Visits.0.Every.Until":         "the piece is in its wrap by then",
}

// unmovedParts are parts of a moment that say nothing beside its other parts, and why.
var unmovedParts = map[string]string{
	".Clock": "of a piece that stands on the clock: Anchor puts hours there", ".Of": "as Clock", ".By": "goes with Of",
	".Both": "there is no second part", ".After": "the core says when", ".Share": "as Clock",
	".Sign": "the core says when",
}

// Every field of an input counts: another value in it is another key, and moves how the piece fares, but for
// those that a reason is given for.
func TestEveryFieldCounts(t *testing.T) {
	base := input(t, "pork-shoulder-bone-in", 120)
	base.Temper, base.RoomC, base.Weather, base.Tight, base.Shine = time.Hour, 21, "windy", "loose", "shiny"
	base.Pit, base.Number, base.Piece = "pellet", 1, 4
	base.Steps = []heat.SetPoint{{AtH: 3, SetC: 125}}
	base.Skies = []heat.Spell{{Ambient: heat.Ambient{AirC: 3}}, {AtH: 4, Ambient: heat.Ambient{AirC: 5, Wind: 3}}}
	base.Wraps = []heat.Wrap{{Kind: "foil", When: when.At(when.Cond{CoreC: 71})}}
	base.Visits = []heat.Visit{heat.Spritzed(45 * time.Minute)}
	base.Rests = []heat.Phase{{Place: "counter", H: 1}}
	base.PitRead = []heat.SetPoint{{AtH: 1, SetC: 118}, {AtH: 2, SetC: 117}}
	base.Read = []heat.Reading{{AtH: 1, CoreC: 12}, {AtH: 2.5, CoreC: 35}}
	base.Bark.SetH, base.Sugar = 2.2, 0.3
	fares := func(b FireInput) (out FireResult) {
		out, err := SingleRun{}.Forecast(t.Context(), b)
		require.NoError(t, err)
		return out
	}
	spread := func(b FireInput) FireResult {
		out, err := Ensemble{}.Forecast(t.Context(), b)
		require.NoError(t, err)
		return out
	}
	was, wide, seen := fares(base), spread(base), 0
	leaves(reflect.ValueOf(&base).Elem(), "", func(name string, leaf reflect.Value) {
		seen++
		kept := reflect.New(leaf.Type()).Elem()
		kept.Set(leaf)
		key := base.Key()
		moved(name, leaf)
		assert.NotEqual(t, key, base.Key(), name)
		why := ""
		for at, reason := range unmoved {
			if name == at || strings.HasPrefix(name, at+".") {
				why = reason
			}
		}
		for part, reason := range unmovedParts {
			if strings.HasSuffix(name, part) {
				why = reason
			}
		}
		if why == "" && reflect.DeepEqual(was, fares(base)) && reflect.DeepEqual(wide, spread(base)) {
			t.Errorf("%s moves nothing: say why", name)
		}
		leaf.Set(kept)
	})
	assert.Greater(t, seen, 60)
}
