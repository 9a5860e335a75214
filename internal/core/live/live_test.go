package live_test

import (
	"slices"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/live"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
)

// pit is a shoulder on its fire since on, h hours ago.
type pit struct {
	t      *testing.T
	on     time.Time
	all    facts.Facts
	course facts.Course
	serve  time.Duration // after it went on
	off    string        // what it is taken off by; empty is as usual
	roast  bool          // a venison roast in its place
	moves  []cook.Move   // of the cook's own
}

func lit(t *testing.T, serve time.Duration) *pit {
	p := &pit{t: t, on: time.Date(2026, 11, 28, 7, 0, 0, 0, time.UTC), course: facts.Course{}, serve: serve}
	p.say("fire", 0, nil)
	return p
}

func (p *pit) say(what string, h float64, values field.Values) {
	piece := "a"
	if what == "set" || what == "fuel" {
		piece = ""
	}
	at := p.on.Add(time.Duration(h * float64(time.Hour)))
	p.all = append(
		p.all,
		facts.Fact{
			ID:     uuid.NewString(),
			Kind:   facts.Done,
			Piece:  piece,
			What:   what,
			At:     at.Format(time.RFC3339),
			Values: values,
		},
	)
}

func (p *pit) see(sign string, h float64, values field.Values) {
	p.say(sign, h, values)
	p.all[len(p.all)-1].Kind = facts.Seen
}

// read is a core and a pit each minute of some hours.
func (p *pit) read(from, to float64, core func(h float64) float64, air float64) {
	hours := func(h float64) time.Time { return p.on.Add(time.Duration(h * float64(time.Hour))) }
	for at := hours(from); at.Before(hours(to)); at = at.Add(time.Minute) {
		p.course.Add(
			facts.Reading{Probe: "core:a", At: at, C: quantity.Celsius(core(at.Sub(p.on).Hours()))},
			facts.Reading{Probe: "pit:0", At: at, C: quantity.Celsius(air)},
		)
	}
}

func (p *pit) at(h float64) (cooking.Result, []live.Piece) {
	p.t.Helper()
	one := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	if p.roast {
		one = anycook.Coated("venison-haunch", "2 kg")
	}
	one.Key, one.Choices = "a", map[string]string{"wrap": "foil"}
	if p.off != "" {
		one.When = map[string]string{"off": p.off}
	}
	one.Moves = p.moves
	c := anycook.Supper(one)
	c.Zone, c.ServeAt = "UTC", p.on.Add(p.serve).Format("2006-01-02T15:04")
	now := p.on.Add(time.Duration(h * float64(time.Hour)))
	r, err := cooking.Work(
		p.t.Context(),
		order.Parse(c, kitchen.Kitchen{}),
		p.all,
		kitchen.Kitchen{},
		cooking.Clock{Now: now, Read: p.course.Readings()},
	)
	require.NoError(p.t, err)
	require.Empty(p.t, r.Mistakes)
	out, err := live.Of(p.t.Context(), r, p.course)
	require.NoError(p.t, err)
	return r, out
}

func (p *pit) alarms(h float64) (ids, kinds []string) {
	r, pieces := p.at(h)
	for _, a := range live.Alarms(r, pieces, p.course) {
		ids, kinds = append(ids, a.ID), append(kinds, a.Kind)
	}
	return ids, kinds
}

func rising(h float64) float64 { return 5 + 12*h }

// Somebody is called once for one thing: when a pit has been off what it was set to for a while,
// not for an open lid; when a probe falls silent; when a piece is ready; and not any more once it
// is over.
func TestWhatIsCalledFor(t *testing.T) {
	p := lit(t, 12*time.Hour)
	p.read(0, 3, rising, 119)
	_, kinds := p.alarms(2.95)
	assert.Empty(t, kinds)
	p.read(3, 3.1, rising, 70) // the lid was open
	p.read(3.1, 4, rising, 121)
	_, kinds = p.alarms(3.98)
	assert.Empty(t, kinds)
	p.read(4, 5, rising, 98)
	ids, kinds := p.alarms(4.6)
	assert.Equal(t, []string{"pit-low"}, kinds)
	later, _ := p.alarms(4.95)
	assert.Equal(t, ids, later, "the same thing is called by the same name")
	p.say("set", 4.97, field.Values{"pit": 0.0, "typed": "105 °C"})
	_, kinds = p.alarms(4.99)
	assert.Empty(t, kinds, "it was set anew")
	p.read(5, 5.2, rising, 105)
	_, kinds = p.alarms(5.5)
	assert.Equal(t, []string{"probe"}, kinds)
	p.read(5.5, 6, rising, 105)
	_, kinds = p.alarms(5.98)
	assert.Equal(t, []string{"wrap"}, kinds)
	p.say("wrap", 5.99, field.Values{"kind": "foil"})
	p.read(6, 8, rising, 105)
	_, kinds = p.alarms(7.9)
	assert.Equal(t, []string{"off"}, kinds)
	p.say("off", 7.9, nil)
	_, kinds = p.alarms(7.95)
	assert.Empty(t, kinds)
	p.read(8, 11, func(h float64) float64 { return 95 - 11*(h-8) }, 30)
	_, kinds = p.alarms(10.98)
	assert.Equal(t, []string{"hold"}, kinds)
}

// When it is late, what would catch up is offered with its chance, which is better than without;
// when it is not, nothing is. Wrapping is not offered twice.
func TestCatchingUp(t *testing.T) {
	slow := func(h float64) float64 { return 5 + 8*h }
	p := lit(t, 14*time.Hour)
	p.read(0, 5, slow, 110)
	_, pieces := p.at(4.98)
	assert.Positive(t, pieces[0].Moved)
	assert.Less(t, pieces[0].PitOff, -5.0)
	ids := []string{}
	for _, c := range pieces[0].Catch {
		ids = append(ids, c.ID)
		assert.GreaterOrEqual(t, c.Chance, c.Was, c.ID)
		assert.Positive(t, c.Saves)
	}
	assert.Contains(t, ids, "hotter")
	p.say("wrap", 5, field.Values{"kind": "foil"})
	_, pieces = p.at(5.1)
	assert.False(t, slices.ContainsFunc(pieces[0].Catch, func(c live.Catch) bool { return c.ID == "wrap" }))
	assert.True(
		t,
		slices.ContainsFunc(
			pieces[0].Catch,
			func(c live.Catch) bool { return c.ID == "later" && c.Chance >= 0.8 && c.Serve.After(p.on.Add(p.serve)) },
		),
	)
	early := lit(t, 26*time.Hour)
	early.read(0, 3, rising, 121)
	_, pieces = early.at(2.98)
	require.Len(t, pieces[0].Catch, 1, "it would wait for hours")
	assert.Equal(t, "cooler", pieces[0].Catch[0].ID)
	assert.Negative(t, pieces[0].Catch[0].Saves)
	assert.GreaterOrEqual(t, pieces[0].Catch[0].Chance, 0.9)
}

// One that is to be soft, too, is not called for by its core alone.
func TestSoftIsNotACoreAlone(t *testing.T) {
	for off, called := range map[string]bool{"": true, "95 °C and soft": false} {
		p := lit(t, 12*time.Hour)
		p.off = off
		p.say("wrap", 6, field.Values{"kind": "foil"})
		p.read(0, 8, rising, 119)
		_, kinds := p.alarms(7.9)
		assert.Equal(t, called, slices.Contains(kinds, "off"), off)
	}
}

// Who reads by eye has no probe that could fall silent.
func TestNobodyMissesAReadingByEye(t *testing.T) {
	p := lit(t, 12*time.Hour)
	for _, h := range []float64{1, 2.5, 3} {
		p.read(h, h+0.01, rising, 119)
		_, kinds := p.alarms(h + 0.5)
		assert.Empty(t, kinds)
	}
	p.read(3, 4, rising, 119)
	_, kinds := p.alarms(4.5)
	assert.Equal(t, []string{"probe"}, kinds)
}

// More readings leave less to guess.
func TestTheFanNarrows(t *testing.T) {
	p := lit(t, 14*time.Hour)
	width := func(h float64) float64 {
		_, pieces := p.at(h)
		d := pieces[0].Seen.Fire.Done
		return d.High - d.Low
	}
	first := width(0.1)
	p.read(0, 2, rising, 118)
	second := width(1.98)
	p.read(2, 5, rising, 118)
	assert.Less(t, second, first)
	assert.Less(t, width(4.98), 0.8*second)
}

// A piece is done where its coldest place is, and where it was felt everywhere it was soft: not by
// the core alone of one that is still tough, and before its core where it is soft already.
func TestDoneByPlacesAndByFeel(t *testing.T) {
	feel := func(p *pit, h float64, place, how string) {
		p.see("feel", h, field.Values{"how": how, "place": place})
	}
	for name, c := range map[string]struct {
		thick, thin float64
		felt        map[string]string
		done        bool
	}{
		"every place is hot":       {96, 97, nil, true},
		"one place is not":         {90, 97, nil, false},
		"hot, and tough somewhere": {96, 97, map[string]string{"thick end": "tough", "blade": "soft"}, false},
		"soft before it is hot":    {89, 90, map[string]string{"thick end": "soft", "blade": "soft"}, true},
		"soft, and far from hot":   {70, 72, map[string]string{"thick end": "soft"}, false},
	} {
		p := lit(t, 14*time.Hour)
		p.say("wrap", 6, field.Values{"kind": "foil"})
		p.read(0, 9, func(h float64) float64 { return 5 + (c.thick-5)*h/9 }, 119)
		p.course.Add(
			facts.Reading{Probe: "core:a:blade", At: p.on.Add(8*time.Hour + 58*time.Minute), C: quantity.Celsius(c.thin)},
		)
		for place, how := range c.felt {
			feel(p, 8.97, place, how)
		}
		_, pieces := p.at(9)
		assert.Equal(t, c.done, pieces[0].Done(), name)
	}
	p := lit(t, 14*time.Hour)
	p.read(0, 9, rising, 119)
	feel(p, 8, "blade", "tough")
	feel(p, 8.5, "blade", "soft")
	_, pieces := p.at(8.9)
	assert.True(t, pieces[0].Tender(), "how it felt last counts")
}

// What was read after the fire counts for what is held, and what was read on it for how it warmed.
func TestTheLogOfAPiece(t *testing.T) {
	p := lit(t, 12*time.Hour)
	p.read(0, 8, rising, 95)
	p.say("off", 8, nil)
	p.read(8.1, 12, func(h float64) float64 { return 95 - 12*(h-8) }, 30)
	_, pieces := p.at(11.9)
	ids := map[string]string{}
	for _, f := range pieces[0].Found {
		ids[f.ID] = string(f.Severity)
	}
	assert.Equal(t, map[string]string{"ran-cool": "care", "held-cool": "care"}, ids)
	silent := lit(t, 12*time.Hour)
	silent.say("off", 8, nil)
	_, pieces = silent.at(8.5)
	require.Len(t, pieces[0].Found, 1)
	assert.Equal(t, "unverified", pieces[0].Found[0].ID)
}

// What was read not to be done is not: a roast whose fire died half way, though it would have been
// done by then.
func TestAFireThatDied(t *testing.T) {
	p := lit(t, 8*time.Hour)
	p.roast = true
	p.read(0, 1, func(h float64) float64 { return 5 + 25*h }, 118)
	p.read(1, 6, func(h float64) float64 { return 30 - 2*(h-1) }, 20)
	_, pieces := p.at(5.9)
	assert.False(t, pieces[0].Done())
	assert.Greater(t, pieces[0].Seen.Fire.Done.Low, 20.0)
}

// A piece that goes on once more: a second On the fire wipes nothing, what is on again is called off when its time is
// up, and it is served once it was off again.
func TestOnAgain(t *testing.T) {
	p := lit(t, 14*time.Hour)
	p.moves = []cook.Move{{Key: "g", What: "again", With: "cubes in a pan", For: "1 h"}}
	p.say("fire", 3, nil)
	_, all := p.at(3.5)
	assert.Equal(t, 3.5, all[0].Piece.Happened.NowH, "the first time counts")
	p.say("off", 9, nil)
	_, all = p.at(9.1)
	assert.Equal(t, live.Resting, all[0].State)
	p.say("slice", 9.5, nil)
	r, all := p.at(9.6)
	assert.Equal(t, live.Resting, all[0].State, "it is still to go on again")
	due, err := live.Work(t.Context(), r, p.course)
	require.NoError(t, err)
	require.NotEmpty(t, due.Next)
	assert.Equal(t, "again", due.Next[0].What)
	_, all = p.at(17)
	assert.Equal(t, live.Done, all[0].State, "nobody put it on")
	p.say("fire", 9.7, nil) // however that is said
	_, all = p.at(10)
	require.Equal(t, live.Again, all[0].State)
	assert.Equal(t, "17:42", all[0].AgainUntil().Round(time.Minute).Format("15:04"))
	assert.Equal(t, 9.0, all[0].Piece.Happened.NowH, "the first fire ended when it ended")
	_, kinds := p.alarms(10.6)
	assert.Empty(t, kinds)
	_, kinds = p.alarms(10.8)
	assert.Equal(t, []string{"again"}, kinds)
	p.say("off", 10.9, nil)
	_, all = p.at(11)
	assert.Equal(t, live.Done, all[0].State)
	_, kinds = p.alarms(11)
	assert.Empty(t, kinds)
}

// A piece that comes off by a sign is done once that is seen, and a core that was asked for with it is there.
func TestOffByASign(t *testing.T) {
	for off, signs := range map[string][]string{
		"when the bones show": {"bones", "show"}, "when the fat has rendered": {"fat", "stays"}, "soft": {"feel", "soft"},
		"80 °C and rendered": {"fat", "stays"},
	} {
		p := lit(t, 14*time.Hour)
		p.off = off
		p.read(0, 7, rising, 119)
		_, before := p.at(6.9)
		assert.False(t, before[0].Done(), off)
		p.see(signs[0], 6.95, field.Values{"how": signs[1]})
		_, after := p.at(6.98)
		assert.True(t, after[0].Done(), off)
		_, kinds := p.alarms(6.98)
		assert.Contains(t, kinds, "off", off)
	}
	cool := lit(t, 14*time.Hour)
	cool.off = "95 °C and rendered"
	cool.read(0, 5, rising, 119)
	cool.see("fat", 4.9, field.Values{"how": "stays"})
	_, pieces := cool.at(4.98)
	assert.False(t, pieces[0].Done(), "its core is not there yet")
}

// What is cut and put on again so long after the fire does not wait for the knife: the rest is sliced at its time.
func TestCubesWhileTheRestWaits(t *testing.T) {
	p := lit(t, 14*time.Hour)
	p.moves = []cook.Move{{Key: "g", What: "again", With: "cubes in a pan", For: "1 h", When: "20 min after it is off"}}
	p.say("off", 9, nil)
	r, _ := p.at(9.1)
	tasks := map[string]time.Time{}
	for _, k := range r.Plan.Result.Plans[r.Plan.Chosen].Tasks {
		tasks[k.Stage] = k.At
	}
	assert.Equal(t, 20*time.Minute, tasks["again"].Sub(tasks["off"]))
	assert.True(t, tasks["again-off"].Before(tasks["slice"]))
	p.say("slice", 12, nil)
	_, all := p.at(12.1)
	assert.Equal(t, live.Done, all[0].State)
}
