package cooking

import (
	"context"
	"encoding/json"
	"math/rand/v2"
	"reflect"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/order"
	"verjuice/internal/testclock"
)

// values are what may be typed into fields of a page, the first of which that is no mistake there and moves a
// figure is taken.
var values = []string{
	"3.3 kg", "93 mm", "123 °C", "5 h", "11", "heavy", "20 %", "1.4 %", "4 Tbsp", "90 g", "amount", "coat",
	"bold", "long", "paper", "12 L", "2 L", "45", "19:30", "every 30 min", "light", "close", "equilibrium",
	"minutes", "32 g/L", "hearty", "22-7", "2", "kosher-salt", "dense flake", "table-salt",
	"coarse crystals, 1–2 mm", "0.5 kg", "0.4 kg", "0.33 kg", "15 mm", "40 mm", "pellet", "fire", "pork-loin",
	"88 °C", "after 3 h", "turn", "wrap", "rub", "2026-12-05T19:00", "gas", "overnight", "holder", "8 °C",
	"2026-11-28T12:30", "20 min after it is off", "beer", "0.3 %", "rinse", "tight", "all", "metric", "sauce",
	"cold and windy",
}

// still are fields of a page that move no figure of the pieces, by the end of their path, and why.
var still = map[*regexp.Regexp]string{
	regexp.MustCompile(`(^|\.)(Name|Zone|Label|ID|Note|TrimNote|Author|Spoons)$`): "only said, or how what is typed is meant",
	regexp.MustCompile(`^(Guests|Children|Appetite|Leftovers)$`):                  "of what is bought",
	regexp.MustCompile(`\.(Key|Piece|Together)$`):                                 "which is meant",
	regexp.MustCompile(`\.(Grain|Guess|Faces|Spare|Syringe|Bore|Spacing|Band)$`):  "said beside the figures",
	regexp.MustCompile(`\.Formula\.(Kind|Keeps\w*|Basis)$`):                       "of a mix by itself",
	regexp.MustCompile(`\.Rows\.[1-9]\.`):                                         "as the first row",
	regexp.MustCompile(`\.Rows\.\d\.Formula$`):                                    "there is no other formula",
	regexp.MustCompile(`\.(With\.0|Inject|Moves\.\d)\.Formula\.Rows\.0\.Form$`):   "a liquid has one form",
	regexp.MustCompile(`\.Season\.(Amount|Target|Free|Coat)$`):                    "of another way to say how much",
	regexp.MustCompile(`\.Fire\.Wood$`):                                           "of what is bought",
	regexp.MustCompile(`\.Avoid\.0$`):                                             "where the needle goes, not how much",
	regexp.MustCompile(`\.Moves\.\d\.(What|With|Amount)$`):                        "they go together: another kind brings something else",
	regexp.MustCompile(`\.Moves\.\d\.Some$`):                                      "for so many; what is kept back counts at the table",
	regexp.MustCompile(`\.Moves\.[01]\.(For|Pit)$`):                               "of what goes on the fire again",
}

// quick forecasts with single runs that count as settled, so that what answers do follows at once.
type quick struct{}

func (quick) Forecast(ctx context.Context, b forecast.FireInput) (forecast.FireResult, error) {
	out, err := forecast.SingleRun{}.Forecast(ctx, b)
	out.Rough = false
	return out, err
}

// paths calls do with each text, number and yes or no of a page, and where it is.
func paths(v reflect.Value, name string, do func(string, reflect.Value)) {
	switch v.Kind() {
	case reflect.Pointer:
		if !v.IsNil() {
			paths(v.Elem(), name, do)
		}
	case reflect.Struct:
		for i := range v.NumField() {
			paths(v.Field(i), strings.TrimPrefix(name+"."+v.Type().Field(i).Name, "."), do)
		}
	case reflect.Slice:
		for i := range v.Len() {
			paths(v.Index(i), name+"."+strconv.Itoa(i), do)
		}
	case reflect.String, reflect.Bool, reflect.Int, reflect.Float64:
		do(name, v)
	}
}

// Every field of a page counts: with another value in it, worked out after the page before it, the pieces are
// what they are by themselves, and some figure moves, but for fields that a reason is given for. So nothing
// is taken over that a field has changed, whatever fields there will be.
func TestEveryFieldOfAPageCounts(t *testing.T) {
	testclock.Undated(t)
	var c cook.Cook
	var f facts.Facts
	none := kitchen.Kitchen{Stand: "one"}
	for seed := uint64(1); ; seed++ { // a page without a mistake
		c, f = anycook.Whole(rand.New(rand.NewPCG(seed, 21)))
		if c.Pieces[1].Cut != "" && len(order.Parse(c, none).Wrong()) == 0 {
			break
		}
	}
	at := Clock{Now: testclock.Now(), Forecast: quick{}}
	copied := func() (out cook.Cook) { // a page that is typed on is another one
		raw, err := json.Marshal(c)
		require.NoError(t, err)
		require.NoError(t, json.Unmarshal(raw, &out))
		return out
	}
	work := func(before Result) Result {
		out, err := WorkAfter(t.Context(), before, order.ParseAfter(before.Order, copied(), none), f, none, at)
		require.NoError(t, err)
		return out
	}
	figures := func(r Result) string {
		for i := range r.Pieces { // what is typed is no figure
			r.Pieces[i].Line = order.Line{}
		}
		raw, err := json.Marshal([]any{r.Pieces, r.Servings, r.Needed, r.Buy, r.Plan})
		require.NoError(t, err)
		return string(raw)
	}
	before := work(Result{})
	was, wrong := figures(before), len(before.Mistakes)
	before = work(Result{})
	seen := 0
	paths(reflect.ValueOf(&c).Elem(), "", func(name string, leaf reflect.Value) {
		seen++
		for at, reason := range still {
			if at.MatchString(name) {
				require.NotEmpty(t, reason)
				return
			}
		}
		kept := reflect.New(leaf.Type()).Elem()
		kept.Set(leaf)
		defer leaf.Set(kept)
		moves := false
		try := func() {
			if len(order.Parse(c, none).Wrong()) > 0 {
				return
			}
			alone := work(Result{})
			if len(alone.Mistakes) > wrong {
				return
			}
			by := figures(alone)
			if moves = by != was; !moves {
				return
			}
			if now := figures(work(before)); now != by {
				n := 0
				for n < min(len(now), len(by)) && now[n] == by[n] {
					n++
				}
				t.Errorf("%s = %v: …%.200s…, by itself …%.200s…", name, leaf, now[max(0, n-100):], by[max(0, n-100):])
			}
		}
		switch leaf.Kind() {
		case reflect.Bool:
			leaf.SetBool(!leaf.Bool())
			try()
		case reflect.Int:
			leaf.SetInt(1 - leaf.Int())
			try()
		case reflect.String:
			for _, v := range values {
				if leaf.SetString(v); v != kept.String() && !moves {
					try()
				}
			}
		}
		if !moves {
			t.Errorf("%s (%v) moves nothing: say why", name, kept)
		}
	})
	assert.Greater(t, seen, 80)
}
