package exchange_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/exchange"
)

// Files of other thermometers are read as they are: whatever divides them, however they write a time
// and in whichever scale.
func TestTemperaturesFromElsewhere(t *testing.T) {
	dublin, err := time.LoadLocation("Europe/Dublin")
	require.NoError(t, err)
	noon := time.Date(2026, 7, 13, 11, 0, 0, 0, time.UTC) // 12:00 in Dublin
	for name, c := range map[string]struct {
		file       string
		f, month   bool
		asks       bool
		start      time.Time
		gaps, skip int
	}{
		"iso": {"time,meat,pit\n2026-07-13 12:00:00,20,107\n2026-07-13 12:01:00,,107\n2026-07-13T12:30:00,21.5,108\n", false, false, false, time.Time{}, 1, 1},
		"semicolons": {"Zeit;Fleisch;Ofen\n13.07.2026 12:00;20,0;107,0\n13.07.2026 12:05;21,5;108\n", false, false, false,
			time.Time{}, 0, 0},
		"american": {"Date,Probe 1 (F),Pit (F)\n7/13/2026 12:00 PM,68,225\n7/13/26 12:05 PM,70.7,226\n", true, true,
			false, time.Time{}, 0, 0},
		"epoch":    {"ts,a,b\n1783940400,20,107\n1783940700,21.5,108\n", false, false, false, time.Time{}, 0, 0},
		"elapsed":  {"elapsed,a,b\n00:00,20,107\n00:05,21.5,108\n", false, false, false, noon, 0, 0},
		"no names": {"2026-07-13 12:00,20,107\n2026-07-13 12:05,21.5,108\n", false, false, false, time.Time{}, 0, 0},
		"who is first": {"t,a,b\n05/06/2026 12:00,20,107\n05/06/2026 12:05,21.5,108\n", false, false, true, time.Time{}, 0,
			0},
	} {
		table, err := exchange.ReadTable(t.Context(), c.file)
		require.NoError(t, err, name)
		assert.Equal(t, c.f, table.Fahrenheit, name)
		assert.Equal(t, c.month, table.MonthFirst, name)
		assert.Equal(t, c.asks, table.Asks, name)
		assert.Contains(t, []string{"time", "elapsed"}, table.Columns[0].Holds, name)
		assert.Equal(t, "temperature", table.Columns[1].Holds, name)
		read, gaps, skipped, err := table.Readings(
			t.Context(),
			exchange.As{
				Probes:     map[int]string{1: "core:a", 2: "pit:0"},
				Fahrenheit: c.f,
				MonthFirst: c.month,
				Zone:       dublin,
				Start:      c.start,
			},
		)
		require.NoError(t, err, name)
		assert.Len(t, gaps, c.gaps, name)
		assert.Equal(t, c.skip, skipped, name)
		require.GreaterOrEqual(t, len(read), 4, name)
		assert.InDelta(t, 20, float64(read[0].C), 0.01, name)
		assert.InDelta(t, 21.5, float64(read[len(read)-2].C), 0.01, name)
		if !c.asks {
			assert.True(t, read[0].At.Equal(noon), "%s: %v", name, read[0].At)
		}
	}
	for _, bad := range []string{"", "hello", "a,b\nc,d\n"} {
		table, err := exchange.ReadTable(t.Context(), bad)
		if err == nil {
			_, _, _, err = table.Readings(t.Context(), exchange.As{Probes: map[int]string{1: "pit:0"}, Zone: time.UTC})
		}
		require.Error(t, err, bad)
	}
}

func FuzzReadTable(f *testing.F) {
	f.Add("time,meat\n2026-07-13 12:00:00,20\n")
	f.Add("a;b\n99/99/9999 99:99;1e309\n")
	f.Fuzz(func(t *testing.T, text string) {
		table, err := exchange.ReadTable(t.Context(), text)
		if err == nil {
			_, _, _, _ = table.Readings(t.Context(), exchange.As{Probes: map[int]string{1: "pit:0"}, Zone: time.UTC})
		}
	})
}
