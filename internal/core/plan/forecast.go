package plan

import (
	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
)

// Burn is what decides how long a piece takes on the fire.
type Burn struct {
	Cut       cut.Cut
	Thickness quantity.Length
	PitC      quantity.Celsius
	Core      quantity.Celsius // at which it is taken off; zero is as usual
	Wrap      string           // none, paper, foil, pan or boat
	Looks     int              // minutes between spritzes; zero is never
	Pit       PitKind
}

// Forecaster says how long a piece takes on the fire.
type Forecaster interface {
	Fire(Burn) Span
}
