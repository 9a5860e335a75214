package main

import (
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/sheet"
)

// The bell is tried at the start, then rings once for each alarm, with what it is about; an answer
// that is none, and a command that fails, end nothing.
func TestTheBell(t *testing.T) {
	var asked atomic.Int32
	there := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		if asked.Add(1) == 1 {
			w.WriteHeader(http.StatusServiceUnavailable)
			return
		}
		_ = json.NewEncoder(w).Encode([]api.OnNow{{ID: "a", Name: "Regatta", Alarms: []sheet.LiveAlarm{{ID: "alarm:off:p1", Label: "Chuck roll is at 95 °C: take it off"}}}})
	}))
	t.Cleanup(there.Close)
	log := filepath.Join(t.TempDir(), "log")
	go (&bell{command: `echo "$VERJUICE_COOK: $VERJUICE_ALARM" >> ` + log + `; false`, url: there.URL, every: 5 * time.Millisecond}).run(t.Context())
	require.Eventually(t, func() bool { return asked.Load() > 20 }, 20*time.Second, 5*time.Millisecond)
	raw, err := os.ReadFile(log)
	require.NoError(t, err)
	assert.Equal(t, []string{": Verjuice rings like this", "Regatta: Chuck roll is at 95 °C: take it off"}, strings.Split(strings.TrimSpace(string(raw)), "\n"))
}
