package guess_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/guess"
)

// A player who knows the answers gets every point; one who is always off by so much,
// fewer, and the game tells which way.
func TestGame(t *testing.T) {
	for _, off := range []float64{1, 1.6} {
		g := guess.Game{Seed: 7, Guesses: []string{}}
		for range guess.Rounds {
			s, err := guess.Play(t.Context(), g)
			require.NoError(t, err)
			require.NotNil(t, s.Next)
			// The answer comes only with a guess.
			told, err := guess.Play(t.Context(), guess.Game{Seed: 7, Guesses: append(append([]string{}, g.Guesses...), "1")})
			require.NoError(t, err)
			answer := told.Answers[len(told.Answers)-1]
			right := answer.Answer.Mid
			if s.Next.Asks != "percent" {
				right *= 1000
			}
			g.Guesses = append(g.Guesses, fmt.Sprintf("%.6f", right*off))
		}
		s, err := guess.Play(t.Context(), g)
		require.NoError(t, err)
		assert.Nil(t, s.Next)
		assert.InEpsilon(t, off, s.Lean, 1e-3)
		if off == 1 {
			assert.Equal(t, 100, s.Points)
		} else {
			assert.Less(t, s.Points, 70)
		}
	}
	_, err := guess.Play(t.Context(), guess.Game{Guesses: []string{"lots"}})
	assert.ErrorContains(t, err, "/guesses/0")
}
