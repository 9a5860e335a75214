package core

import (
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The core imports the standard library, gonum and itself, and nothing of the
// standard library that reaches outside.
func TestCoreIsPure(t *testing.T) {
	outside := map[string]bool{
		"os":           true,
		"net":          true,
		"net/http":     true,
		"database/sql": true,
		"os/exec":      true,
		"log":          true,
	}
	files := 0
	err := filepath.WalkDir(".", func(path string, _ fs.DirEntry, err error) error {
		require.NoError(t, err)
		if !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return nil
		}
		files++
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		require.NoError(t, err)
		for _, spec := range file.Imports {
			name, _ := strconv.Unquote(spec.Path.Value)
			own := strings.HasPrefix(name, "verjuice/internal/core/") || strings.HasPrefix(name, "gonum.org/v1/gonum")
			standard := !strings.Contains(strings.Split(name, "/")[0], ".") && !strings.HasPrefix(name, "verjuice")
			assert.True(t, own || standard && !outside[name], "%s imports %s", path, name)
		}
		return nil
	})
	require.NoError(t, err)
	assert.Greater(t, files, 10)
}

// What may import what inside the core: a line names a package and all that it may
// know of ours. No package is one that everything passes through, but cooking.
var knows = map[string]string{
	"amounts":    "dose field formula kitchen larder quantity",
	"bench":      "cook cooking cut dose field formula kitchen quantity shop trace",
	"caution":    "cut field quantity",
	"cook":       "dose field formula larder quantity salt",
	"cooking":    "amounts caution cook cut decision dose facts field forecast formula gear kitchen move order plan quantity salt shop trace uncertain weather when",
	"cut":        "field quantity table",
	"decision":   "cut field gear",
	"dose":       "cut field formula quantity salt trace",
	"facts":      "field move quantity",
	"field":      "",
	"firecalc":   "cut field gear heat quantity salt when",
	"forecast":   "cut facts gear heat memo move quantity uncertain weather when",
	"formula":    "cut field larder quantity",
	"gear":       "field quantity table",
	"guess":      "cook cooking cut dose field formula kitchen quantity trace",
	"heat":       "cut gear thermal when",
	"kitchen":    "field formula larder logbook quantity",
	"larder":     "field quantity table",
	"live":       "caution cooking cut decision facts forecast heat move order plan quantity when",
	"logbook":    "cut facts heat",
	"meal":       "caution cut field quantity table",
	"memo":       "",
	"move":       "table",
	"order":      "amounts cook cut decision dose facts field forecast formula gear heat kitchen logbook move plan quantity salt weather when",
	"outlook":    "caution cook cooking cut decision facts forecast heat kitchen order plan quantity uncertain when",
	"plan":       "field gear quantity uncertain when",
	"provisions": "cooking decision dose order shop weather",
	"quantity":   "field",
	"retelling":  "cook cut facts field gear larder table when",
	"review":     "caution cooking cut decision facts forecast heat live logbook order quantity uncertain weather",
	"salt":       "cut field larder memo quantity",
	"shop":       "cut dose formula gear kitchen larder order quantity trace",
	"starter":    "cook cut decision facts field formula logbook quantity retelling",
	"table":      "",
	"thermal":    "cut gear",
	"trace":      "quantity",
	"uncertain":  "quantity",
	"weather":    "field heat quantity when",
	"when":       "field quantity",
}

// What may import what outside the core: a line names a package and what of ours it may know besides the core.
var outside = map[string]string{
	"app": "store", "api": "app book exchange instrument picture practice sheet store", "sheet": "", "store": "picture",
	"exchange": "", "book": "exchange store", "instrument": "", "practice": "app instrument store",
	"demo": "app instrument practice store", "picture": "", "bell": "", "localdb": "",
}

// One direction: nothing in the core knows what is outside it, words know the core alone, and whoever shows a
// cook asks app for it.
func TestOneDirection(t *testing.T) {
	for name, knows := range outside {
		files, err := filepath.Glob("../" + name + "/*.go")
		require.NoError(t, err)
		require.NotEmpty(t, files, name)
		for _, path := range files {
			if strings.HasSuffix(path, "_test.go") {
				continue
			}
			file, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
			require.NoError(t, err)
			for _, spec := range file.Imports {
				imported, _ := strconv.Unquote(spec.Path.Value)
				ours, ok := strings.CutPrefix(imported, "verjuice/internal/")
				if ok && !strings.HasPrefix(ours, "core/") {
					assert.Contains(t, strings.Fields(knows), ours, "%s imports %s", path, ours)
				}
			}
		}
	}
}

// drives are the functions of the core that work a cook out: only app may call them.
var drives = []string{
	"cooking.Work(", "cooking.WorkAfter(", "order.Parse(", "live.Work(", "live.Of(", "review.Of(", "outlook.Of(",
}

// Nobody but app, and the core itself, works a cook out; the demo reads its own pages to simulate them, and the
// store checks what it keeps.
func TestAppAloneDrivesTheCore(t *testing.T) {
	for name := range outside {
		if name == "app" || name == "store" {
			continue
		}
		files, err := filepath.Glob("../" + name + "/*.go")
		require.NoError(t, err)
		for _, path := range files {
			raw, err := os.ReadFile(path)
			require.NoError(t, err)
			if strings.HasSuffix(path, "_test.go") {
				continue
			}
			for _, call := range drives {
				if name != "demo" || call != "order.Parse(" {
					assert.NotContains(t, string(raw), call, path)
				}
			}
		}
	}
}

// Each package knows only what it has to, and explains itself with an example.
func TestTheHouseStaysInOrder(t *testing.T) {
	docs := map[string]string{}
	require.NoError(t, filepath.WalkDir("..", func(path string, _ fs.DirEntry, err error) error {
		require.NoError(t, err)
		if !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return nil
		}
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ParseComments)
		require.NoError(t, err)
		name, inCore := strings.CutPrefix(filepath.ToSlash(filepath.Dir(path)), "../core/")
		if !inCore {
			return nil
		}
		docs[name] += file.Doc.Text()
		for _, spec := range file.Imports {
			imported, _ := strconv.Unquote(spec.Path.Value)
			if ours, ok := strings.CutPrefix(imported, "verjuice/internal/core/"); ok {
				assert.Contains(t, strings.Fields(knows[name]), ours, "%s imports %s", path, ours)
			}
		}
		return nil
	}))
	assert.Len(t, docs, len(knows))
	for name := range docs {
		assert.Contains(t, docs[name], "\n\t", "package %s explains itself with an example", name)
	}
}
