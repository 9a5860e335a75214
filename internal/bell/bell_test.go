package bell

import (
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// program is what tells of alarms, as /api/live does.
type program struct {
	mu     sync.Mutex
	away   bool
	alarms []map[string]string
	*httptest.Server
}

func tells(t *testing.T, labels ...string) *program {
	p := &program{}
	for _, l := range labels {
		p.alarms = append(p.alarms, map[string]string{"id": "alarm:" + l, "label": l})
	}
	p.Server = httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		p.mu.Lock()
		defer p.mu.Unlock()
		if p.away {
			w.WriteHeader(http.StatusServiceUnavailable)
			return
		}
		_ = json.NewEncoder(w).Encode([]map[string]any{{"id": "a", "name": "Regatta\x00\n", "alarms": p.alarms}})
	}))
	t.Cleanup(p.Close)
	return p
}

func (p *program) gone() {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.alarms = nil
}

// quick is a bell that waits for nothing long.
func quick(command string) *Bell {
	b := New(command)
	b.asks, b.takes, b.waits = 5*time.Millisecond, 300*time.Millisecond, 10*time.Millisecond
	return b
}

func lines(t *testing.T, log string) []string {
	raw, _ := os.ReadFile(log)
	return strings.FieldsFunc(string(raw), func(r rune) bool { return r == '\n' })
}

// One alarm that fails at first, one that hangs and one that rings: each is rung apart, until it has
// rung, and once; the bell says that it does not ring while it does not.
func TestEachAlarmIsRung(t *testing.T) {
	dir := t.TempDir()
	log, mended := filepath.Join(dir, "log"), filepath.Join(dir, "mended")
	p := tells(t, "hangs", "fails", "rings")
	b := quick(`case "$VERJUICE_ALARM" in
		hangs) test -e ` + mended + ` || sleep 60 ;;
		fails) test -e ` + mended + ` || { echo no wire; exit 3; } ;;
	esac; echo "$VERJUICE_COOK:$VERJUICE_ALARM" >> ` + log)
	go b.Run(t.Context(), p.URL)
	has := func(label string) func() bool {
		return func() bool { return slices.Contains(lines(t, log), "Regatta  :"+label) }
	}
	require.Eventually(t, has("rings"), 10*time.Second, 5*time.Millisecond, "while another hangs")
	require.Eventually(t, func() bool { return strings.Contains(b.Broken(), "no wire") }, 10*time.Second, time.Millisecond)
	require.Eventually(
		t,
		func() bool { return strings.Contains(b.Broken(), "took more than") },
		10*time.Second,
		time.Millisecond,
	)
	assert.False(t, has("hangs")())
	require.NoError(t, os.WriteFile(mended, nil, 0o600))
	require.Eventually(
		t,
		func() bool { return has("hangs")() && has("fails")() && b.Broken() == "" },
		10*time.Second,
		5*time.Millisecond,
	)
	assert.Len(t, lines(t, log), 4, "the try, and each once")
}

// What has no cause any more is not rung, and a program that cannot tell changes nothing.
func TestACauseThatIsGone(t *testing.T) {
	log := filepath.Join(t.TempDir(), "log")
	p := tells(t, "one")
	b := quick(`echo "$VERJUICE_ALARM" >> ` + log + `; false`)
	go b.Run(t.Context(), p.URL)
	rung := func() int { return strings.Count(strings.Join(lines(t, log), "\n"), "one") }
	require.Eventually(t, func() bool { return rung() > 3 }, 10*time.Second, 5*time.Millisecond, "it is tried again")
	p.mu.Lock()
	p.away = true
	p.mu.Unlock()
	p.gone()
	p.mu.Lock()
	p.away = false
	p.mu.Unlock()
	require.Eventually(t, func() bool {
		b.mu.Lock()
		defer b.mu.Unlock()
		return b.rings["aalarm:one"] == nil
	}, 10*time.Second, 5*time.Millisecond, "it is no longer tried")
	assert.NotEmpty(t, b.Broken())
}
