package api_test

import (
	"bytes"
	"compress/gzip"
	"fmt"
	"io"
	"maps"
	"math"
	"net/http"
	"os"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/formula"
	"verjuice/internal/demo"
)

const goldenFile = "testdata/baseline.txt.gz"

// sentences are the fields that hold words for the cook: they may be put better at
// any time. Everything else is a figure, a time or an id.
var sentences = regexp.MustCompile(`\.(words|source|inputs|says|told|what|do|authority|note|verdict|compare|advice|follows|surface|even_at|window|rule|floats|fits|runs|bore|warm|keep|parts_say|coarse|keeping|round_note|label|hold|sleep|first|closing|grain_says|why|lasts|late|pit|from_words|doc|range_words|profile|pattern)(\.|$)`)

// ids are the fields that are another at each start.
var ids = regexp.MustCompile(`^jars\..*\bid$`)

// flatten lists the figures of an answer as "path value", one a line.
func flatten(out map[string]string, path string, v any) {
	switch v := v.(type) {
	case map[string]any:
		for k, one := range v {
			flatten(out, path+"."+k, one)
		}
	case []any:
		for i, one := range v {
			flatten(out, path+"."+strconv.Itoa(i), one)
		}
	case float64:
		out[path] = strconv.FormatFloat(v, 'g', 9, 64)
	case nil:
	default:
		out[path] = fmt.Sprint(v)
	}
}

// demoFigures are all results of the demo, on one day.
func demoFigures(t *testing.T) map[string]string {
	day := time.Date(2026, 11, 23, 12, 0, 0, 0, time.UTC)
	app := apptest.StartAt(t, day)
	require.NoError(t, demo.Load(t.Context(), app.Store, day))
	out := map[string]string{}
	ask := func(name, method, path string, body any) {
		got := call(t, app, method, path, body)
		require.Equal(t, http.StatusOK, got.StatusCode, "%s: %s", name, got.body)
		var v any
		got.into(t, &v)
		flatten(out, name, v)
	}
	for i, name := range []string{"Launch", "trial", "supper"} {
		var rec api.CookRecord
		id := i + 1
		call(t, app, "GET", "/api/cooks/{"+name+"}", nil).into(t, &rec)
		for _, measure := range []string{"units=metric&spoons=us", "units=us&spoons=metric"} {
			query := "?" + measure + "&served_at=" + rec.Doc.ServeAt
			name := fmt.Sprintf("cook%d.%s", id, measure[6:8])
			ask(name+".sheet", "POST", "/api/sheet"+query, rec.Doc)
			ask(name+".shopping", "POST", "/api/shopping"+query, rec.Doc)
		}
	}
	for _, f := range formula.ReadyMade() {
		ask("formula."+f.ID, "POST", "/api/calc/formula", map[string]any{"formula": f, "batch": formula.Batch{Fix: "total", Amount: "250 g", Round: "spoons"}})
	}
	ask("jars", "GET", "/api/jars?need=100", nil)
	ask("compare", "POST", "/api/calc/compare", map[string]any{"formulas": formula.ReadyMade()[:3]})
	ask("trainer", "POST", "/api/guess", map[string]any{"seed": 12, "guesses": []string{"40", "1", "20"}})
	for path := range out {
		if sentences.MatchString(path) {
			delete(out, path)
		}
	}
	return out
}

// renamed says what a field of the baseline is called now, in the order in which the
// names are put right.
var renamed = []struct{ was, is string }{
	{`\.clock\.from$`, ".clock.source"}, {`\.judged$`, ".verdict"}, {`\.demand\.`, ".portions_needed."}, {`\.cost_each$`, ".cost_per_portion"}, {`\.choices\.`, ".decisions."}, {`\.usual_done$`, ".usual_core"}, {`\.clock\.usual_(pit|rest)$`, ".usual_$1"},
	{`\.coat_words$`, ".coat_name"}, {`\.depth\.across$`, ".depth.thickness"}, {`\.worst$`, ".bad_moment"}, {`\.woken$`, ".wakings"},
	{`\.plan\.safe_at$`, ".plan.safer_at"}, {`\.plan\.safe$`, ".plan.safer"}, {`\.can$`, ".can_mark"}, {`\.thing$`, ".id"}, {`\.have$`, ".in_stock"},
	{`shopping\.no_cost\.`, "shopping.cost.missing."}, {`shopping\.total\.`, "shopping.cost.total."},
}

// changed are figures that differ from the baseline on purpose, with the reason.
var changed = []struct{ path, why string }{
	{`(meat\.(green|all_green|served|thickness)|depth\.(depth|taken_up)|buy)\.range$`, "a range names its unit once, and that of a thickness is in the reader's units"},
	{`cook(1\...\.sheet\.pieces\.1|3\...\.sheet\.pieces\.2)\.(ledger|season\.percent|cautions)\b`, "a ticked binder is a dose: prepared mustard brings salt and an allergen"},
	{`shopping\.cost\.missing\.`, "by name, whatever the order of the pieces; and the mustard has no price"},
}

var clockFire = regexp.MustCompile(`^(.*) \((.*)\)$`)

// canonical puts the figures of the baseline or of today under names that both have:
// what is on a shopping list goes by its id, wherever it stands.
func canonical(in map[string]string) map[string]string {
	item := regexp.MustCompile(`^(.*\.shopping)\.(?:shelf|groceries|stock)\.(\d+)\.(.*)$`)
	group := regexp.MustCompile(`^(.*\.shopping)\.(shelf|groceries|stock)\.(\d+)\.`)
	out := map[string]string{}
	for path, v := range in {
		for _, r := range renamed {
			path = regexp.MustCompile(r.was).ReplaceAllString(path, r.is)
		}
		if !sentences.MatchString(path) && !ids.MatchString(path) {
			out[path] = v
		}
	}
	for _, path := range slices.Sorted(maps.Keys(out)) {
		if m := item.FindStringSubmatch(path); m != nil {
			id := out[group.FindString(path)+"id"]
			if id == "" {
				continue
			}
			defer delete(out, path)
			out[m[1]+".item."+id+"."+m[3]] = out[path]
		}
		if m := clockFire.FindStringSubmatch(out[path]); m != nil && strings.HasSuffix(path, ".clock.fire") {
			out[path], out[path+"_range"] = m[1], m[2]
		}
	}
	return out
}

// Every figure of the demo is what it was at the baseline that docs/benchmarks.md
// names, but for those that were changed on purpose.
func TestDemoFiguresAreThoseOfTheBaseline(t *testing.T) {
	now := demoFigures(t)
	was := canonical(readGolden(t, now))
	now = canonical(now)
	excused := map[string]int{}
	for _, path := range slices.Sorted(maps.Keys(was)) {
		if same(was[path], now[path]) {
			continue
		}
		i := slices.IndexFunc(changed, func(c struct{ path, why string }) bool { return regexp.MustCompile(c.path).MatchString(path) })
		if i < 0 {
			assert.Failf(t, "a figure has changed", "%s was %s and is %s", path, was[path], now[path])
			continue
		}
		excused[changed[i].path]++
	}
	for _, c := range changed {
		assert.NotZero(t, excused[c.path], "%s: nothing differs, so there is nothing to excuse", c.path)
	}
}

// same tells whether two figures are the same in the seven digits that are sent; those
// of pictures have three after the point.
func same(was, now string) bool {
	a, notA := strconv.ParseFloat(was, 64)
	b, notB := strconv.ParseFloat(now, 64)
	if notA != nil || notB != nil {
		return was == now
	}
	return math.Abs(a-b) <= max(5e-4, 1e-6*math.Abs(a))
}

// readGolden returns the figures of the baseline; with VERJUICE_GOLDEN set it
// writes those of now in their place first, which is done at the baseline only.
func readGolden(t *testing.T, now map[string]string) map[string]string {
	if os.Getenv("VERJUICE_GOLDEN") != "" {
		var packed bytes.Buffer
		z := gzip.NewWriter(&packed)
		for _, path := range slices.Sorted(maps.Keys(now)) {
			fmt.Fprintf(z, "%s\t%s\n", path, now[path])
		}
		require.NoError(t, z.Close())
		require.NoError(t, os.WriteFile(goldenFile, packed.Bytes(), 0o644))
	}
	file, err := os.Open(goldenFile)
	require.NoError(t, err)
	defer file.Close()
	z, err := gzip.NewReader(file)
	require.NoError(t, err)
	raw, err := io.ReadAll(z)
	require.NoError(t, err)
	out := map[string]string{}
	for line := range strings.Lines(string(raw)) {
		path, want, _ := strings.Cut(strings.TrimSuffix(line, "\n"), "\t")
		out[path] = want
	}
	require.Greater(t, len(out), 10000)
	return out
}
