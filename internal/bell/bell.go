// Package bell runs a command of the cook's at each alarm of what is on the fire: a bell, or a message
// to a phone.
//
//	b := bell.New("notify-me")
//	go b.Run(ctx, "http://127.0.0.1:8470")
//	b.Broken()   // why it does not ring; empty while it does
//
// Each alarm is rung by itself, within 30 seconds, and again until it has rung or its cause is gone:
// one that fails or hangs keeps no other back.
package bell

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"os"
	"os/exec"
	"strings"
	"sync"
	"syscall"
	"time"
	"unicode"
)

// How often it is asked what somebody has to be called for, how long a ring may take, how long it is
// waited after one that failed, and how many ring at once.
const (
	asks   = 5 * time.Second
	takes  = 30 * time.Second
	waits  = 20 * time.Second
	atOnce = 50
)

// mostText is how much of a text the command is told, in characters.
const mostText = 500

// Bell is the command, and how its alarms stand.
type Bell struct {
	command      string
	asks         time.Duration
	takes, waits time.Duration

	mu     sync.Mutex
	rings  map[string]*ring
	broken string
}

// ring is an alarm, and how it stands.
type ring struct {
	rung, ringing bool
	next          time.Time // not again before
}

// alarm is what somebody has to be called for.
type alarm struct{ id, cook, label, note string }

// New is a bell that runs a command of a shell. What it is about is in its environment: VERJUICE_COOK,
// VERJUICE_ALARM and VERJUICE_NOTE.
func New(command string) *Bell {
	return &Bell{command: command, asks: asks, takes: takes, waits: waits, rings: map[string]*ring{}}
}

// Broken is why the bell does not ring, in words; empty while it does.
func (b *Bell) Broken() string {
	b.mu.Lock()
	defer b.mu.Unlock()
	return b.broken
}

// Run tries the bell, then rings for the alarms of the program at that address until the context ends.
func (b *Bell) Run(ctx context.Context, url string) {
	var all sync.WaitGroup
	defer all.Wait()
	try := alarm{"", "", "Verjuice rings like this", "This is only a try."}
	b.rings[try.id] = &ring{ringing: true}
	all.Go(func() { b.sound(ctx, try) })
	for {
		select {
		case <-ctx.Done():
			return
		case <-time.After(b.asks):
		}
		now, err := asked(ctx, url)
		if err != nil {
			continue // the program cannot tell just now: what is to be rung stays so
		}
		for _, a := range b.due(now, time.Now()) {
			all.Go(func() { b.sound(ctx, a) })
		}
	}
}

// due are the alarms that are to be rung now; those whose cause is gone are no longer tried.
func (b *Bell) due(now []alarm, at time.Time) (out []alarm) {
	b.mu.Lock()
	defer b.mu.Unlock()
	busy, still := 0, map[string]bool{}
	for _, r := range b.rings {
		if r.ringing {
			busy++
		}
	}
	for _, a := range now {
		still[a.id] = true
		r := b.rings[a.id]
		if r == nil {
			r = &ring{}
			b.rings[a.id] = r
		}
		if r.rung || r.ringing || at.Before(r.next) || busy == atOnce {
			continue
		}
		r.ringing = true
		busy++
		out = append(out, a)
	}
	for id, r := range b.rings {
		if !still[id] && !r.rung && !r.ringing {
			delete(b.rings, id)
		}
	}
	return out
}

// sound rings one alarm, and notes how that went.
func (b *Bell) sound(ctx context.Context, a alarm) {
	err := b.run(ctx, a)
	if ctx.Err() != nil {
		return
	}
	b.mu.Lock()
	defer b.mu.Unlock()
	r := b.rings[a.id]
	r.ringing, r.rung, r.next = false, err == nil, time.Now().Add(b.waits)
	if b.broken = ""; err != nil {
		b.broken = err.Error()
		fmt.Fprintln(os.Stderr, "the bell did not ring: "+b.broken)
	}
}

// run runs the command, and ends it with all that it has started when it takes too long.
func (b *Bell) run(ctx context.Context, a alarm) error {
	ctx, cancel := context.WithTimeout(ctx, b.takes)
	defer cancel()
	cmd := exec.CommandContext(ctx, "sh", "-c", b.command)
	cmd.Env = append(
		os.Environ(),
		"VERJUICE_COOK="+plain(a.cook),
		"VERJUICE_ALARM="+plain(a.label),
		"VERJUICE_NOTE="+plain(a.note),
	)
	cmd.SysProcAttr = &syscall.SysProcAttr{Setpgid: true}
	cmd.Cancel = func() error { return syscall.Kill(-cmd.Process.Pid, syscall.SIGKILL) }
	cmd.WaitDelay = time.Second
	out, err := cmd.CombinedOutput()
	switch said := plain(strings.TrimSpace(string(out))); {
	case err == nil || errors.Is(err, exec.ErrWaitDelay): // what it has started may go on by itself
		return nil
	case errors.Is(ctx.Err(), context.DeadlineExceeded):
		return fmt.Errorf("the command took more than %.0f seconds", b.takes.Seconds())
	case said != "":
		return fmt.Errorf("the command failed: %s", said)
	}
	return fmt.Errorf("the command failed: %w", err)
}

// plain is a text as an environment can hold it: without what controls a terminal, and not too long.
func plain(text string) string {
	text = strings.Map(func(r rune) rune {
		if unicode.IsControl(r) {
			return ' '
		}
		return r
	}, text)
	if r := []rune(text); len(r) > mostText {
		return string(r[:mostText])
	}
	return text
}

// asked are the alarms of what is on the fire.
func asked(ctx context.Context, url string) ([]alarm, error) {
	ctx, cancel := context.WithTimeout(ctx, takes)
	defer cancel()
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, url+"/api/live", nil)
	if err != nil {
		return nil, err
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return nil, err
	}
	defer res.Body.Close()
	var cooks []struct {
		ID, Name string
		Alarms   []struct{ ID, Label, Note string }
	}
	if err := json.NewDecoder(res.Body).Decode(&cooks); err != nil || res.StatusCode != http.StatusOK {
		return nil, cmp.Or(err, errors.New(res.Status))
	}
	var out []alarm
	for _, c := range cooks {
		for _, a := range c.Alarms {
			out = append(out, alarm{c.ID + a.ID, c.Name, a.Label, a.Note})
		}
	}
	return out, nil
}
