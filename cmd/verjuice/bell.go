package main

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"os/exec"
	"time"

	"verjuice/internal/api"
)

// How often it is asked what somebody has to be called for, and how long a bell may take.
const (
	bellAsks  = 5 * time.Second
	bellTakes = 30 * time.Second
)

// bell runs a command of the cook's at each alarm: a bell, or a message to a phone.
type bell struct {
	command string
	url     string
	every   time.Duration // between two questions; zero is bellAsks
	rung    map[string]bool
}

// ring runs the command, with what it is about in its environment.
func (b *bell) ring(ctx context.Context, cook, label, note string) error {
	ctx, cancel := context.WithTimeout(ctx, bellTakes)
	defer cancel()
	cmd := exec.CommandContext(ctx, "sh", "-c", b.command)
	cmd.Env = append(os.Environ(), "VERJUICE_COOK="+cook, "VERJUICE_ALARM="+label, "VERJUICE_NOTE="+note)
	out, err := cmd.CombinedOutput()
	if err != nil {
		return fmt.Errorf("the bell did not ring: %w: %.200s", err, out)
	}
	return nil
}

// run tries the bell, then rings it once for each alarm until the context ends.
func (b *bell) run(ctx context.Context) {
	if err := b.ring(ctx, "", "Verjuice rings like this", "This is only a try."); err != nil {
		fmt.Fprintln(os.Stderr, err)
	}
	b.rung = map[string]bool{}
	for {
		select {
		case <-ctx.Done():
			return
		case <-time.After(cmp.Or(b.every, bellAsks)):
		}
		for _, one := range b.asked(ctx) {
			for _, a := range one.Alarms {
				if b.rung[one.ID+a.ID] {
					continue
				}
				b.rung[one.ID+a.ID] = true
				if err := b.ring(ctx, one.Name, a.Label, a.Note); err != nil {
					fmt.Fprintln(os.Stderr, err)
				}
			}
		}
	}
}

// asked is what is on the fire; nothing while the program cannot tell.
func (b *bell) asked(ctx context.Context) []api.OnNow {
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, b.url+"/api/live", nil)
	if err != nil {
		return nil
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return nil
	}
	defer res.Body.Close()
	var out []api.OnNow
	if json.NewDecoder(res.Body).Decode(&out) != nil {
		return nil
	}
	return out
}
