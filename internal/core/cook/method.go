package cook

import (
	"encoding/json"
	"maps"
	"strings"

	"verjuice/internal/core/field"
)

// Method is how a piece is cooked, kept under a name to be used on another one: everything from
// the wait to the knife, and nothing of what the piece is or how it is salted.
type Method struct {
	Name    string            `json:"name" doc:"What the cook calls it" example:"Overnight shoulder"`
	Cut     string            `json:"cut" required:"false" doc:"Cut that it was kept from"`
	Wait    Wait              `json:"wait" required:"false"`
	Fire    Fire              `json:"fire" required:"false"`
	Choices map[string]string `json:"choices,omitempty" required:"false" doc:"Answers to the decisions of the fire and the rest"`
	When    map[string]string `json:"when,omitempty" required:"false"`
	Moves   []Move            `json:"moves,omitempty" required:"false" nullable:"false"`
}

// maxMethod is how much text a method holds, in bytes.
const maxMethod = 512 << 10

// Check returns what keeps m from being kept, with pointers into it. What else of it is wrong is shown
// at the piece that it is used on.
func (m Method) Check() field.Errors {
	var errs field.Errors
	if strings.TrimSpace(m.Name) == "" {
		errs.Add("/name", "name.needed", "most", MaxText)
	}
	errs.Text("/name", m.Name, MaxText)
	if raw, err := json.Marshal(m); err != nil || len(raw) > maxMethod {
		errs.Add("", "text.too-long", "most", maxMethod)
	}
	return errs
}

// methodChoices are the decisions that belong to a method.
var methodChoices = []string{
	"finish",
	"wood",
	"spritz",
	"wrap",
	"wrap-at",
	"tight",
	"in-wrap",
	"side",
	"lies",
	"pan",
	"feel",
	"rest",
	"vent",
	"slice",
	"lid",
}

// MethodOf is how p is cooked, under a name. Which pit it is on is not part of it.
func MethodOf(name string, p Piece) Method {
	out := Method{
		Name:    name,
		Cut:     p.Cut,
		Wait:    p.Wait,
		Fire:    p.Fire,
		When:    p.When,
		Moves:   p.Moves,
		Choices: map[string]string{},
	}
	out.Fire.On, out.Fire.Guess, out.Fire.Time = 0, "", ""
	for _, key := range methodChoices {
		if v := p.Choices[key]; v != "" {
			out.Choices[key] = v
		}
	}
	return out
}

// On is p cooked by the method. p is not changed.
func (m Method) On(p Piece) Piece {
	on := p.Fire.On
	p.Wait, p.Fire, p.When, p.Moves = m.Wait, m.Fire, m.When, m.Moves
	p.Fire.On = on
	p.Choices = maps.Clone(p.Choices)
	if p.Choices == nil {
		p.Choices = map[string]string{}
	}
	for _, key := range methodChoices {
		delete(p.Choices, key)
	}
	maps.Copy(p.Choices, m.Choices)
	return p
}
