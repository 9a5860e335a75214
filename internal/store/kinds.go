package store

import (
	"context"
	"strconv"

	"github.com/google/uuid"
	"gorm.io/gorm/clause"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/meal"
	"verjuice/internal/core/quantity"
)

const byName = "name, created_at, id"

// Cooks are the cooks' pages, the latest serving first.
func (s *Store) Cooks() Records[cook.Cook] {
	return Records[cook.Cook]{
		db: s.db, in: s, kind: "cook", sound: s.soundCook, first: "served_at DESC, created_at DESC, id DESC",
		index: func(c cook.Cook) found { return found{Name: c.Name, ServedAt: c.ServeAt} },
		open:  func(_ string, c *cook.Cook) { *c = keyed(*c) },
		packs: cook.Cook.Packs,
		shut:  func(c *cook.Cook) { *c = cook.Keyed(*c) },
	}
}

// keyed gives pieces from before there were keys one by their place, which is how
// photographs and fixed times have named them since.
func keyed(c cook.Cook) cook.Cook {
	taken := map[string]bool{}
	for _, p := range c.Pieces {
		taken[p.Key] = true
	}
	for i := range c.Pieces {
		for n := i + 1; c.Pieces[i].Key == ""; n++ {
			if key := "p" + strconv.Itoa(n); !taken[key] {
				c.Pieces[i].Key, taken[key] = key, true
			}
		}
	}
	if c.Pieces == nil {
		c.Pieces = []cook.Piece{}
	}
	return c
}

// Jars are the mixes made ahead.
func (s *Store) Jars() Records[formula.Jar] {
	return Records[formula.Jar]{
		db: s.db, in: s, kind: "jar", sound: s.soundJar, first: byName,
		index: func(j formula.Jar) found { return found{Name: j.Formula.Name} },
		// Draws from before they had ids are known by their place.
		open: func(_ string, j *formula.Jar) { *j = j.Numbered() },
	}
}

// Ingredients are the cook's own.
func (s *Store) Ingredients() Records[larder.Own] {
	return Records[larder.Own]{
		db:    s.db,
		in:    s,
		kind:  "ingredient",
		sound: s.soundIngredient,
		first: byName,
		index: func(o larder.Own) found { return found{Name: o.Name} },
	}
}

// Pits are the pits that cooks are on. Each has a name of its own.
func (s *Store) Pits() Records[cook.Pit] {
	return Records[cook.Pit]{
		db: s.db, in: s, kind: "pit", sound: s.soundPit, first: byName,
		index: func(p cook.Pit) found { return found{Name: p.Name} },
		open:  func(id string, p *cook.Pit) { p.ID = id },
		shut:  func(p *cook.Pit) { p.ID = "" },
	}
}

// Methods are how pieces are cooked, each kept under a name.
func (s *Store) Methods() Records[cook.Method] {
	return Records[cook.Method]{
		db:    s.db,
		in:    s,
		kind:  "method",
		sound: s.soundMethod,
		first: byName,
		index: func(m cook.Method) found { return found{Name: m.Name} },
	}
}

// Meals are later meals from what was kept, the latest first.
func (s *Store) Meals() Records[meal.Meal] {
	return Records[meal.Meal]{
		db: s.db, in: s, kind: "meal", sound: s.soundMeal, first: "served_at DESC, created_at DESC, id DESC",
		index: func(m meal.Meal) found { return found{Name: m.Name, ServedAt: clipped(m.ServeAt, 16)} },
	}
}

// Thing is price, stock and pack of an ingredient or a cut, as typed.
type Thing struct {
	Thing string `json:"thing"`
	Price string `json:"price"`
	Stock string `json:"stock"`
	Pack  string `json:"pack,omitempty"` // what a bottle, can or packet of it holds
}

func (s *Store) things() Records[Thing] {
	return Records[Thing]{
		db:    s.db,
		in:    s,
		kind:  "thing",
		sound: s.soundThing,
		first: byName,
		index: func(t Thing) found { return found{Name: t.Thing, Code: t.Thing} },
	}
}

// Things returns everything with a price or a stock.
func (s *Store) Things(ctx context.Context) ([]Thing, error) {
	list, _, err := s.things().List(ctx, Query{})
	out := make([]Thing, len(list))
	for i, r := range list {
		out[i] = r.Doc
	}
	return out, err
}

// SoundThing reports what keeps price and stock of one thing from being kept, as a field.Errors.
func (s *Store) SoundThing(ctx context.Context, t Thing) error { return s.things().Sound(ctx, "", t) }

// PutThing keeps price and stock of one thing; without either it is forgotten. The last
// who says so is right.
func (s *Store) PutThing(ctx context.Context, t Thing) error {
	if err := s.SoundThing(ctx, t); err != nil {
		return err
	}
	m, err := s.things().row(uuid.NewString(), 1, t)
	if err != nil {
		return err
	}
	if t.Price == "" && t.Stock == "" && t.Pack == "" {
		return again(s.db, func() error {
			return s.things().all(ctx).Where(is("code", t.Thing)).Delete(&row{}).Error
		})
	}
	return again(s.db, func() error {
		return s.db.WithContext(ctx).Clauses(clause.OnConflict{
			DoUpdates: append(clause.AssignmentColumns([]string{"body", "updated_at", "deleted_at"}),
				clause.Assignment{Column: clause.Column{Name: "version"}, Value: clause.Expr{SQL: "records.version + 1"}}),
		}).Create(&m).Error
	})
}

// rememberPack keeps what a bottle, can or packet of something holds.
func (s *Store) rememberPack(ctx context.Context, thing, size string) error {
	var m row
	t := Thing{Thing: thing}
	err := s.things().all(ctx).Where(is("code", thing)).Limit(1).Find(&m).Error
	if err == nil && m.ID != "" {
		err = s.things().parse(m.ID, m.Body, &t)
	}
	if err != nil || t.Pack == size {
		return err
	}
	t.Pack = size
	return s.PutThing(ctx, t)
}

// unmarked leaves the spoons out of a formula that were meant before there was a choice.
func unmarked(f *formula.Formula) {
	f.ID = ""
	if f.Kind == "" {
		f.Kind = formula.Rub
	}
	if f.Spoons == quantity.USSpoons {
		f.Spoons = ""
	}
}
