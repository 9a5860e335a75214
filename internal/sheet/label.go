package sheet

import (
	"fmt"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/trace"
)

// LabelSheet is what a nutrition label tells.
type LabelSheet struct {
	Salt    Figure  `json:"salt" doc:"% by weight"`
	Sugar   *Figure `json:"sugar,omitempty" doc:"% by weight"`
	Mixed   *Figure `json:"mixed,omitempty" doc:"Salt of the packet in its liquid, % by weight"`
	Message string  `json:"message" doc:"What it means, in a sentence"`
}

// WriteLabel says what a nutrition label tells.
func WriteLabel(l formula.Label, r formula.LabelReading, as Reader) LabelSheet {
	w := writer{Reader: as}
	printed := []any{"sodium", l.Sodium + " mg", "serving_size", l.Serving}
	out := LabelSheet{Salt: w.figure(trace.New("label.salt", r.Salt, printed...))}
	name := l.Name
	if name == "" {
		name = "It"
	}
	switch wide := r.Salt.High - r.Salt.Low; {
	case wide > 15:
		out.Message = fmt.Sprintf(
			"%s holds %.0f to %.0f %% salt: the serving is too small to say more. A label with a bigger serving narrows it.",
			name,
			r.Salt.Low,
			r.Salt.High,
		)
	case r.Salt.Mid > 50:
		out.Message = fmt.Sprintf("%s is mostly salt: dose it by the salt it brings, not by the look of the coat.", name)
	default:
		out.Message = fmt.Sprintf("%s holds about %.0f %% salt by weight.", name, r.Salt.Mid)
	}
	if l.Sugar != "" {
		f := w.figure(trace.New("label.sugar", r.Sugar, printed...))
		out.Sugar = &f
	}
	if r.Mixed != nil {
		f := w.figure(trace.New("label.mixed", *r.Mixed, "powder", l.Powder, "liquid", l.Liquid))
		out.Mixed = &f
	}
	return out
}
