package sheet

import (
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/testclock"
)

// retired are ways of saying things that nobody would say aloud.
var retired = []string{
	`wanted are`, `to buy is what`, `buy so much`, `of the house\b`, `who and what there is`, `when nothing is marked`, `on the counter first`, `this was to be`, `take it on me`, `to have left`,
	`of coated surface to a kg`, `weight of as bought`, `\bwoken \d`, `gets you down to`, `shown as soon as`, `is enough here`, `raw, it keeps`, `of the mean in the centre`, `in it a fresh egg`, `it runs out again`,
	`it would be surer`, `cannot overshoot`, `\bis not to be\b.*\bbefore\b`, `(^|[^\w])nought\b`,
	`name of the cook\b`, `by the clock this`, `it fits: meat`, `runs out again`, `no such cook($|[^-])`, `\bthis cook (is|was|cannot)`, `your cooks\b`, `carry what is outside`, `what was outside is inside`,
	`is in it yet`, `does not get done`, `by what was on the plates`, `it is off about`, `never even in practice`,
	`burns low from now`, `\bletters\b.*maxCell`, `is no (line|row) of a`, `is not within three days`, `empty is whenever`,
	`no cook-out is like that`, `what does not go together`, `laying them over`, `it went cannot be told`, `\bnot noted\b`,
	`in dates the month`, `in ice water your`, `program is away`, `rub lies as`, `for who does not see`, `it is other when`,
	`as it grew`, `\ba hand of\b`, `drives the amount`, `gives way to the target`, `not on record\.`,
}

// Nothing that a cook reads, on a page or in a document, says any of them.
func TestRetiredPhrases(t *testing.T) {
	testclock.Undated(t)
	bad := regexp.MustCompile(`(?i)` + strings.Join(retired, "|"))
	files := 0
	for _, root := range []string{".", "../exchange", "../api", "../demo", "../core/cut", "../core/larder",
		"../core/formula", "../../web/src", "../../docs", "../../README.md"} {
		require.NoError(t, filepath.WalkDir(root, func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || strings.HasSuffix(path, "_test.go") || strings.HasSuffix(path, "schema.d.ts") ||
				!slices.Contains([]string{".go", ".tsx", ".ts", ".md", ".csv"}, filepath.Ext(path)) {
				return err
			}
			files++
			raw, err := os.ReadFile(path)
			for n, line := range strings.Split(string(raw), "\n") {
				assert.False(t, bad.MatchString(line), "%s:%d: %s", path, n+1, bad.FindString(line))
			}
			return err
		}))
	}
	assert.Greater(t, files, 150)
}
