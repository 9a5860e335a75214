package plan_test

import (
	"fmt"
	"time"

	"verjuice/internal/core/gear"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/uncertain"
)

// A roast of about four hours for half past six.
func ExampleMake() {
	pellet, _ := gear.FindPit("pellet")
	night, err := plan.ParseQuiet("23:00-06:00")
	if err != nil {
		panic(err)
	}
	result := plan.Make(plan.Ask{
		Serve: time.Date(2026, 11, 28, 18, 30, 0, 0, time.UTC),
		Quiet: night,
		Hands: 1,
		Pits:  []plan.Pit{{Pit: pellet, Name: "Cabinet", Room: 40}},
		Jobs: []plan.Job{{
			Key: "a", Fire: uncertain.Typed(4*time.Hour, "a"), Rest: 45 * time.Minute, LeastRest: 15 * time.Minute,
			HoldMax: 2 * time.Hour,
			Wait:    12 * time.Hour, WaitMin: time.Hour, WaitMax: 72 * time.Hour,
			Prep: 15 * time.Minute, Slice: 10 * time.Minute,
		}},
	})
	best := result.Plans[0]
	fmt.Printf("%s, %.0f %% sure to be in time\n", best.Kind, 100*best.Chance)
	for _, task := range best.Tasks {
		fmt.Println(task.At.Format("Mon 15:04"), task.Stage)
	}
	// Output:
	// same-day, 96 % sure to be in time
	// Fri 22:45 salt
	// Sat 12:15 light
	// Sat 12:35 fire
	// Sat 16:35 off
	// Sat 18:20 slice
}
