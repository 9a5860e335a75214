package e2e

import (
	"bytes"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"verjuice/internal/apptest"
	"verjuice/internal/book"
)

// A cook weighs in tonnes by mistake and is asked; says that it is right; and learns at the pit that the
// bell does not work.
func TestWhatCannotBeIsAsked(t *testing.T) {
	b := start(t, apptest.Logbook)
	b.open("/log")
	b.press("Lamb for the committee")
	b.see("Off the fire, with its bones")
	b.write("Off the fire, with its bones", "1800 kg")
	b.write("Rub mixed", "") // the field is left
	b.see("This cannot be right for a piece of", "1800 kg is right")
	b.accessible("a weight that cannot be")
	b.press("1800 kg is right")
	b.until(`!document.body.innerText.includes("This cannot be right")`)
	b.app.Bell.Breaks("the command failed: no wire")
	b.onPhone(390, 844)
	b.open("/cooks/" + b.cook("Boathouse crew").ID + "/pit")
	b.see("The bell does not work")
	b.fits("a bell that does not work")
}

// A book is taken in from the logbook's page: how far it is is told, and what came of it.
func TestABookIsTakenInFromThePage(t *testing.T) {
	b := start(t, apptest.Demo)
	var file bytes.Buffer
	require.NoError(t, book.Write(t.Context(), apptest.Store(t, apptest.Logbook), &file, nil))
	at := filepath.Join(t.TempDir(), "book.zip")
	require.NoError(t, os.WriteFile(at, file.Bytes(), 0o600))
	broken := filepath.Join(t.TempDir(), "broken.zip")
	require.NoError(t, os.WriteFile(broken, file.Bytes()[:file.Len()/2], 0o600))
	b.open("/log")
	b.see("Carry it all away")
	b.upload(".carry input[type=file]", broken)
	b.see("Nothing was taken in.")
	b.upload(".carry input[type=file]", at)
	b.see("were here already")
	b.see("Lamb for the committee")
}
