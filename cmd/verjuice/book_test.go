package main

import (
	"archive/zip"
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// From the shell the book goes out, comes in elsewhere as the same, is backed up and put back; a file
// that is none changes nothing, and restoring asks first.
func TestTheBookFromTheShell(t *testing.T) {
	dir := t.TempDir()
	shell := func(args ...string) (string, error) {
		cmd := exec.Command(program(t), args...)
		cmd.Dir = dir
		out, err := cmd.CombinedOutput()
		return string(out), err
	}
	must := func(args ...string) string {
		out, err := shell(args...)
		require.NoError(t, err, out)
		return out
	}
	file := func(name string) []byte {
		raw, err := os.ReadFile(filepath.Join(dir, name))
		require.NoError(t, err)
		return raw
	}
	must("export", "empty.zip", "--var", "one")
	made := filepath.Join(dir, "made.zip")
	require.NoError(t, os.WriteFile(made, sample(t), 0o600))
	assert.Contains(t, must("import", "made.zip", "--var", "one"), "1 lines that are new")
	assert.Contains(t, must("import", "made.zip", "--var", "one"), "1 were here already")
	must("export", "one.zip", "--var", "one")
	must("import", "one.zip", "--var", "two")
	must("export", "two.zip", "--var", "two")
	assert.True(t, bytes.Equal(file("one.zip"), file("two.zip")))
	assert.NotEqual(t, file("empty.zip"), file("one.zip"))

	told, err := shell("restore", "empty.zip", "--var", "two")
	require.Error(t, err)
	assert.Contains(t, told, "--yes")
	require.NoError(t, os.WriteFile(filepath.Join(dir, "broken.zip"), []byte("PK"), 0o600))
	for _, args := range [][]string{{"import", "broken.zip", "--var", "two"},
		{"restore", "broken.zip", "--yes", "--var", "two"}} {
		told, err = shell(args...)
		require.Error(t, err)
		assert.Contains(t, told, "nothing was taken in")
	}
	// One bit wrong before a file of it, and a file missing from its list.
	damaged := file("one.zip")
	at := bytes.Index(damaged, []byte("facts.jsonl")) - 30
	damaged[at] ^= 1
	require.NoError(t, os.WriteFile(filepath.Join(dir, "damaged.zip"), damaged, 0o600))
	for _, args := range [][]string{{"import", "damaged.zip", "--var", "two"},
		{"restore", "damaged.zip", "--yes", "--var", "two"}} {
		told, err = shell(args...)
		require.Error(t, err)
		assert.Contains(t, told, "facts.jsonl")
		assert.Contains(t, told, "nothing was taken in")
	}
	must("export", "still.zip", "--var", "two")
	assert.True(t, bytes.Equal(file("two.zip"), file("still.zip")), "what failed changed nothing")
	assert.Contains(t, must("restore", "empty.zip", "--yes", "--var", "two"), "Backed up to")
	must("export", "restored.zip", "--var", "two")
	assert.True(t, bytes.Equal(file("empty.zip"), file("restored.zip")))
	backups, err := filepath.Glob(filepath.Join(dir, "backups", "*.zip"))
	require.NoError(t, err)
	require.NotEmpty(t, backups)
	halves, err := filepath.Glob(filepath.Join(dir, ".verjuice-*"))
	require.NoError(t, err)
	assert.Empty(t, halves, "no half file is left")
	told, err = shell("export", "nowhere/at/all.zip", "--var", "two")
	require.Error(t, err)
	assert.NotContains(t, told, "panic")
}

// sample is a book with one pit in it.
func sample(t *testing.T) []byte {
	t.Helper()
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	for name, text := range map[string]string{
		"book.json":     `{"format":"verjuice book","version":1}`,
		"records.jsonl": `{"id":"7d1c3b0e-58a1-4c53-9a5e-0c4c2f8f0a11","kind":"pit","version":1,"created":"2026-01-01T00:00:00Z","updated":"2026-01-01T00:00:00Z","doc":{"name":"Kettle","kind":"kettle","room":""}}` + "\n",
	} {
		w, err := z.Create(name)
		require.NoError(t, err)
		_, err = w.Write([]byte(text))
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	return out.Bytes()
}
