package core

import (
	"go/parser"
	"go/token"
	"io/fs"
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
	outside := map[string]bool{"os": true, "net": true, "net/http": true, "database/sql": true, "os/exec": true, "log": true}
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
