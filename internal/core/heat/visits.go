package heat

import (
	"time"

	"verjuice/internal/core/when"
)

// Spritzed is a spritz so often, from when a surface is usually set.
func Spritzed(every time.Duration) Visit {
	return Visit{Every: when.Every{Each: every, From: when.At(when.Cond{After: 2 * time.Hour})}, Wets: true}
}

// Looseness is what a wrap leaks against the usual.
var Looseness = map[string]float64{"tight": 0.5, "usual": 1, "loose": 2.5}
