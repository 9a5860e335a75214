// Command eachday runs the tests that know dates with their clock on each of testclock.Days but the
// first, which is that of every other run:
//
//	go run ./internal/testclock/eachday            # the packages whose tests ask for the day, short
//	go run ./internal/testclock/eachday -days 2027-05-01T07:00:00Z,… -whole ./...
//
// Test programs are built once and run in the folders of their packages, two at a time.
package main

import (
	"encoding/json"
	"flag"
	"fmt"
	"maps"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"sync"

	"verjuice/internal/testclock"
)

// asking are the packages by which a test comes to know the day.
var asking = []string{"verjuice/internal/testclock", "verjuice/internal/anycook", "verjuice/internal/apptest"}

// left are packages that import one of those, and run on the first day alone: the journeys and the
// program under fire take minutes, and the others' cooks have days of their own.
var left = []string{
	"verjuice/e2e",
	"verjuice/cmd/verjuice",
	// These count hours from when a piece went on, and know no date.
	"verjuice/internal/core/heat",
	"verjuice/internal/core/forecast",
	"verjuice/internal/core/live",
	"verjuice/internal/core/review",
	"verjuice/internal/testclock",
}

func main() {
	days := flag.String("days", strings.Join(testclock.Days[1:], ","), "when the tests think it is, RFC 3339")
	whole := flag.Bool("whole", false, "not only what is short")
	flag.Parse()
	if err := run(strings.Split(*days, ","), *whole, flag.Args()); err != nil {
		fmt.Fprintln(os.Stderr, "eachday:", err)
		os.Exit(1)
	}
}

// job is one package on one day.
type job struct{ day, program, folder string }

func run(days []string, whole bool, patterns []string) error {
	folders, err := dated(patterns)
	if err != nil {
		return err
	}
	to, err := os.MkdirTemp("", "verjuice-days-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(to)
	build := exec.Command("go", append([]string{"test", "-c", "-o", to}, slices.Sorted(maps.Keys(folders))...)...)
	if out, err := build.CombinedOutput(); err != nil {
		return fmt.Errorf("building the tests: %w\n%s", err, out)
	}
	jobs := make(chan job)
	var failed []string
	var mu sync.Mutex
	var all sync.WaitGroup
	for range 2 {
		all.Go(func() {
			for j := range jobs {
				args := []string{"-test.timeout=20m", "-test.short"}
				if whole {
					args = args[:1]
				}
				cmd := exec.Command(j.program, args...)
				cmd.Dir, cmd.Env = j.folder, append(os.Environ(), testclock.Env+"="+j.day)
				if out, err := cmd.CombinedOutput(); err != nil {
					mu.Lock()
					failed = append(failed, j.day+" "+j.folder)
					fmt.Printf("--- the tests' clock at %s, in %s\n%s", j.day, j.folder, out)
					mu.Unlock()
				}
			}
		})
	}
	for _, day := range days {
		for pkg, folder := range folders {
			jobs <- job{day, filepath.Join(to, filepath.Base(pkg)+".test"), folder}
		}
	}
	close(jobs)
	all.Wait()
	if len(failed) > 0 {
		return fmt.Errorf("red:\n%s", strings.Join(failed, "\n"))
	}
	fmt.Printf("ok  \t%d packages with the tests' clock at %s\n", len(folders), strings.Join(days, ", "))
	return nil
}

// dated are the packages whose tests come to know the day, or those of the patterns, with their
// folders.
func dated(patterns []string) (map[string]string, error) {
	all := len(patterns) == 0
	if all {
		patterns = []string{"./..."}
	}
	cmd := exec.Command(
		"go",
		append([]string{"list", "-json=ImportPath,Dir,TestImports,XTestImports,TestGoFiles,XTestGoFiles"}, patterns...)...)
	cmd.Stderr = os.Stderr
	out, err := cmd.Output()
	if err != nil {
		return nil, fmt.Errorf("listing the packages: %w", err)
	}
	folders := map[string]string{}
	for dec := json.NewDecoder(strings.NewReader(string(out))); dec.More(); {
		var p struct {
			ImportPath, Dir                                      string
			TestImports, XTestImports, TestGoFiles, XTestGoFiles []string
		}
		if err := dec.Decode(&p); err != nil {
			return nil, err
		}
		tested := len(p.TestGoFiles)+len(p.XTestGoFiles) > 0
		asks := slices.ContainsFunc(
			append(p.TestImports, p.XTestImports...),
			func(i string) bool { return slices.Contains(asking, i) },
		)
		if tested && (asks && !slices.Contains(left, p.ImportPath) || !all) {
			folders[p.ImportPath] = p.Dir
		}
	}
	return folders, nil
}
