package store

import (
	"context"
	"errors"
	"maps"
	"slices"
	"strings"
	"time"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/meal"
	"verjuice/internal/core/order"
)

// Every kind of record has one check here. Whatever way a record comes in by, from a page, a book, the
// demo or the telling of a cook, it passes its check on the way into its row: Create, Update and TakeIn
// have no other way. What is wrong comes back as a field.Errors.

// kitchens give a check what the cook has, with formulas of these ids and what they use.
type kitchens func(ctx context.Context, formulas ...string) (kitchen.Kitchen, error)

// Typed is the same database for what a cook types today: dates that have gone by, or that are still
// to come, are mistakes there, too. What was on record before may keep its date.
func (s *Store) Typed(now func() time.Time) *Store {
	out := *s
	out.now = now
	return &out
}

// at is the time by which what is typed is checked; the zero time when its date does not matter.
func (s *Store) at() time.Time {
	if s.now == nil {
		return time.Time{}
	}
	return s.now()
}

// stocked is the kitchen as it is now.
func (s *Store) stocked(ctx context.Context, formulas ...string) (kitchen.Kitchen, error) {
	now := s.at()
	if now.IsZero() {
		now = time.Now()
	}
	return s.Kitchen(ctx, now, formulas...)
}

// soundCook refuses a cook with a mistake.
func (s *Store) soundCook(ctx context.Context, _ string, c cook.Cook, has kitchens) error {
	at := cooking.Clock{
		Now:      s.at(),
		Forecast: forecast.WhileTyping{},
	} // only the mistakes are asked for, and they are those that previews show
	k, err := has(ctx, c.Formulas()...)
	if err != nil {
		return err
	}
	out, err := cooking.Work(ctx, order.Parse(c, k), nil, k, at)
	if err != nil {
		return err
	}
	return out.Mistakes.Err()
}

// soundFormula refuses a formula with a mistake, or one that would use itself.
func (s *Store) soundFormula(ctx context.Context, id string, f formula.Formula, has kitchens) error {
	k, err := has(ctx, f.Uses()...)
	if err != nil {
		return err
	}
	f.ID = id
	return f.Check(k).Err()
}

func (s *Store) soundJar(ctx context.Context, _ string, j formula.Jar, has kitchens) error {
	k, err := has(ctx, j.Formula.Uses()...)
	if err != nil {
		return err
	}
	_, wrong := j.Stand(k, s.at())
	return wrong.Err()
}

func (s *Store) soundMeal(_ context.Context, _ string, m meal.Meal, _ kitchens) error {
	return m.Check(s.at()).Err()
}

func (s *Store) soundIngredient(_ context.Context, _ string, o larder.Own, _ kitchens) error {
	_, wrong := o.Ingredient("")
	return wrong.Err()
}

func (s *Store) soundPit(_ context.Context, _ string, p cook.Pit, _ kitchens) error {
	return order.CheckPit(p).Err()
}

func (s *Store) soundMethod(_ context.Context, _ string, m cook.Method, _ kitchens) error {
	return m.Check().Err()
}

// soundThing refuses a price or a stock that cannot be read, and what is not in any larder.
func (s *Store) soundThing(ctx context.Context, _ string, t Thing, has kitchens) error {
	k, err := has(ctx)
	if err != nil {
		return err
	}
	return larder.CheckThing(t.Thing, t.Price, t.Stock, t.Pack, func(id string) bool {
		_, ingredient := formula.FindIngredient(id, k)
		_, meat := cut.Find(id)
		return ingredient || meat
	}).Err()
}

// mostWithout is how many cooks may be left out of what is learnt.
const mostWithout = 10_000

func (s *Store) soundLessons(_ context.Context, _ string, l Lessons, _ kitchens) error {
	var errs field.Errors
	if _, err := time.Parse(time.DateOnly, l.Since); l.Since != "" && err != nil {
		errs.Add("/since", "date.unreadable")
	}
	if len(l.Without) > mostWithout {
		errs.Add("/without", "list.too-long", "most", mostWithout)
	}
	return errs.Err()
}

// packed is a kitchen for the records of a book: all that is in it counts, deleted or not, since a
// record may rest on another one that was deleted later. What every record may rest on is loaded once.
func (s *Store) packed() kitchens {
	var base *kitchen.Kitchen
	return func(ctx context.Context, formulas ...string) (kitchen.Kitchen, error) {
		if base == nil {
			k, err := s.loadKitchen(ctx, time.Time{}, nil)
			if err != nil {
				return k, err
			}
			base = &k
		}
		k := *base
		k.Formulas = maps.Clone(base.Formulas)
		return k, s.loadFormulas(ctx, true, formulas, k.Formulas)
	}
}

// judged are the rules that hold what is typed against the tables of this version of the program, or
// one line of a page against another. A record from before a rule, or from before a table was changed,
// may break one: its page shows that when it is opened, and a book is not kept out for it.
var judged = []string{
	"meat.weight", "meat.weight-needed", "meat.thickness", "meat.gained", "weighed.", "salt.", "bath.", "inject.",
	"dose.", "mix.", "move.", "rest.", "when.", "pit.sets",
	"decision.not-this-cut", "amount.", "layer.amount", "batch.", "wait.too-long", "season.free", "formula.has-mistake",
	"jar.too-little", "reheat.weight-needed", "reheat.cooked-",
}

// bookWrong is what of a check keeps a record of a book out, as an ErrCarried.
func bookWrong(err error) error {
	var wrong field.Errors
	if !errors.As(err, &wrong) {
		return err
	}
	wrong = slices.DeleteFunc(slices.Clone(wrong), func(e field.Error) bool {
		return slices.ContainsFunc(judged, func(rule string) bool { return strings.HasPrefix(e.ID, rule) })
	})
	if err := wrong.Err(); err != nil {
		return refused("%v", err)
	}
	return nil
}
