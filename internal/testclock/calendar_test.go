package testclock

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
)

// allowed are the lines that may ask, by their file and what stands in them; empty is any.
var allowed = map[string]string{
	"e2e/bench_pit_test.go":           "", // a benchmark: how long something took is what it prints
	"internal/api/book_bench_test.go": "",
	"internal/store/store_test.go":    "INSERT INTO leases", // a lease ends so long after the database's own now
}

// clocks is how the time on the wall is asked for in each kind of file that a run of the tests
// reads.
var clocks = []struct {
	name  string
	files func(path string) bool
	asks  *regexp.Regexp
}{
	{"Go that only tests run", ofTests, regexp.MustCompile(`\btime\.(Now|Since|Until)\b`)},
	{"scripts in it", func(path string) bool {
		return ofTests(path) || strings.HasSuffix(path, ".test.ts") || strings.HasSuffix(path, ".test.tsx")
	}, regexp.MustCompile(`\bDate\.now\b|\bnew Date\(\)`)},
	{
		"SQL",
		func(path string) bool { return ofTests(path) || strings.HasSuffix(path, ".sql") },
		regexp.MustCompile(`\b(NOW|CURDATE|CURTIME|SYSDATE|UNIX_TIMESTAMP|UTC_TIMESTAMP)\(|\bCURRENT_TIMESTAMP\b`),
	},
	{"what runs them", func(path string) bool {
		return path == "Makefile" || strings.HasPrefix(path, ".ci/") || strings.HasPrefix(path, "scripts/")
	}, regexp.MustCompile("(?m)(^|[\\s;|&(`])date([\\s)`]+[-+)`]|[\\s)`]*$)")},
}

// ofTests reports whether a file is Go that only tests run.
func ofTests(path string) bool {
	for _, folder := range []string{"e2e/", "internal/apptest/", "internal/testdb/", "internal/anycook/",
		"internal/hostile/", "internal/testclock/eachday/"} {
		if strings.HasPrefix(path, folder) {
			return strings.HasSuffix(path, ".go")
		}
	}
	return strings.HasSuffix(path, "_test.go") && !strings.HasPrefix(path, "internal/testclock/")
}

// Nothing that the tests run asks what day or time it is on the machine: they say the same on every
// day.
func TestNoCalendar(t *testing.T) {
	root := os.DirFS("../..")
	read := map[string]int{}
	require.NoError(t, fs.WalkDir(root, ".", func(path string, d fs.DirEntry, err error) error {
		switch {
		case err != nil:
			return err
		case d.IsDir() && slices.Contains([]string{"node_modules", "dist", ".git", "var", "bin"}, filepath.Base(path)):
			return fs.SkipDir
		case d.IsDir():
			return nil
		}
		for _, c := range clocks {
			if !c.files(path) {
				continue
			}
			raw, err := fs.ReadFile(root, path)
			if err != nil {
				return err
			}
			read[c.name]++
			for n, line := range strings.Split(string(raw), "\n") {
				if part, ok := allowed[path]; ok && strings.Contains(line, part) {
					continue
				}
				assert.NotRegexp(t, c.asks, line, "%s:%d asks what time it is on the machine", path, n+1)
			}
		}
		return nil
	}))
	for _, c := range clocks {
		assert.NotZero(t, read[c.name], c.name)
	}
	for path := range allowed {
		_, err := fs.Stat(root, path)
		assert.NoError(t, err, "a file of the list that is not there any more")
	}
}

// What asks is found.
func TestWhatAsksForTheTimeIsFound(t *testing.T) {
	for n, lines := range [][]string{
		{"began := time.Now()", "assert.Less(t, time.Since(began), 3)", "Now: time.Now,"},
		{"const at = Date.now();", "new Date().getDay()"},
		{"VALUES (1, NOW())", "created DATETIME DEFAULT CURRENT_TIMESTAMP"}, {"DAY := $(shell date -u -d '+1 year')", "\tdate +%F", "now=`date`", "at=$(date)", "date"},
	} {
		for _, line := range lines {
			assert.Regexp(t, clocks[n].asks, line)
		}
	}
	for n, line := range []string{"testclock.Now()", "new Date(at)", "know()", "# dates are up to date, mostly"} {
		assert.NotRegexp(t, clocks[n].asks, line)
	}
}
