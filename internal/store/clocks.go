package store

import (
	"context"
	"math"
	"time"

	"gorm.io/gorm"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/facts"
)

// Clock is the clock of a cook that is practised: at Began it was At there, and it goes Speed times
// as fast as the one on the wall.
type Clock struct {
	Began, At time.Time
	Speed     float64
	Seed      uint64
	Running   bool // the instruments are simulated
	Waits     bool // for others that are practised: until then it stands still
	Practised bool // by the record of the cook
}

// Now is what it shows at a time on the wall.
func (c Clock) Now(real time.Time) time.Time {
	if c.Speed == 0 {
		return real
	}
	if c.Waits {
		return c.At
	}
	return c.At.Add(time.Duration(float64(real.Sub(c.Began)) * c.Speed))
}

// Wall reports whether it is the clock on the wall: only the instruments of the cook are simulated.
func (c Clock) Wall() bool {
	return !c.Practised && (c.Speed == 0 || c.Speed == 1 && c.Began.Equal(c.At))
}

type clockModel struct {
	Cook    string `gorm:"primaryKey"`
	BeganMs int64
	CookMs  int64
	Speed   float64
	Seed    uint64
	Running int // how its instruments stand
}

// How the instruments of a cook stand.
const (
	stand = iota
	run
	wait
)

func (clockModel) TableName() string { return "clocks" }

func (m clockModel) clock() Clock {
	return Clock{
		Began:   time.UnixMilli(m.BeganMs).UTC(),
		At:      time.UnixMilli(m.CookMs).UTC(),
		Speed:   m.Speed,
		Seed:    m.Seed,
		Running: m.Running == run,
		Waits:   m.Running == wait,
	}
}

// Clock is the clock of a cook; the zero Clock, which shows the time on the wall, when it has none
// of its own.
func (s *Store) Clock(ctx context.Context, cook string) (Clock, error) {
	cook = s.Cooks().known(cook)
	var m clockModel
	err := s.db.WithContext(ctx).Where(is("cook", cook)).Limit(1).Find(&m).Error
	if err != nil || m.Cook == "" {
		return Clock{}, err
	}
	out := m.clock()
	out.Practised, err = s.practised(ctx, cook)
	return out, err
}

// SetClock gives a cook a clock of its own.
func (s *Store) SetClock(ctx context.Context, cook string, c Clock) error {
	cook = s.Cooks().known(cook)
	if err := s.Cooks().there(ctx, cook); err != nil {
		return err
	}
	how := stand
	switch {
	case c.Waits:
		how = wait
	case c.Running:
		how = run
	}
	m := clockModel{cook, c.Began.UnixMilli(), c.At.UnixMilli(), c.Speed, c.Seed, how}
	if err := c.check(); err != nil {
		return err
	}
	return transaction(ctx, s.db, func(tx *gorm.DB) error {
		if !c.Wall() {
			if err := (&Store{db: tx}).practice(ctx, cook); err != nil {
				return err
			}
		}
		return tx.Save(&m).Error
	})
}

// mostSpeed is how many times faster than the one on the wall a clock goes at most.
const mostSpeed = 240

// check refuses a clock that no cook can have.
func (c Clock) check() error {
	if math.IsNaN(c.Speed) || c.Speed < 0 || c.Speed > mostSpeed {
		return refused("a clock that goes %v times as fast", c.Speed)
	}
	return canBe(c.Began, c.At)
}

// practised is the class of a cook that is only practised.
const practised = "practice"

func (s *Store) practised(ctx context.Context, cook string) (is bool, err error) {
	err = s.db.WithContext(ctx).Raw("SELECT class = ? FROM records WHERE id = ?", practised, cook).Scan(&is).Error
	return is, err
}

// practice makes cooks ones that are only practised, for good.
func (s *Store) practice(ctx context.Context, cooks ...string) error {
	if len(cooks) == 0 {
		return nil
	}
	return s.db.WithContext(ctx).
		Model(&row{}).
		Unscoped().
		Where("kind = 'cook' AND id IN ?", cooks).
		UpdateColumn("class", practised).
		Error
}

// MostPractised is how many cooks are practised at once; who comes later waits for a turn.
const MostPractised = 12

// Practised are the cooks whose instruments are simulated now. Where there is room for more, the next
// that waits begins: one program at a time looks for that, so that they never are too many.
func (s *Store) Practised(ctx context.Context, now time.Time) (map[string]Clock, error) {
	all, waits, err := s.practising(ctx)
	if err != nil {
		return nil, err
	}
	if len(all) < MostPractised && waits > 0 {
		err := s.Alone(ctx, "practice", func(ctx context.Context) error {
			all, _, err := s.practising(ctx)
			if err != nil {
				return err
			}
			begin := func() error {
				return s.db.WithContext(ctx).Exec(`UPDATE clocks SET running = ?, began_ms = ? WHERE cook IN (SELECT cook FROM
				(SELECT c.cook FROM clocks c `+thereStill+` WHERE c.running = ? ORDER BY c.began_ms, c.cook LIMIT ?) first)`,
					run, now.UnixMilli(), wait, max(0, MostPractised-len(all))).Error
			}
			return again(s.db, begin)
		})
		if err != nil {
			return nil, err
		}
		if all, _, err = s.practising(ctx); err != nil {
			return nil, err
		}
	}
	out := map[string]Clock{}
	for _, m := range all {
		out[m.Cook] = m.clock()
	}
	return out, nil
}

// thereStill leaves out the clocks of cooks that were deleted.
const thereStill = "JOIN records r ON r.id = c.cook AND r.deleted_at IS NULL"

// practising are the clocks that run, the first one first, and how many wait.
func (s *Store) practising(ctx context.Context) (all []clockModel, waits int64, err error) {
	db := s.db.WithContext(ctx)
	err = db.Raw("SELECT c.* FROM clocks c "+thereStill+" WHERE c.running = ? ORDER BY c.began_ms, c.cook LIMIT ?", run,
		MostPractised).
		Scan(&all).
		Error
	if err == nil {
		err = db.Raw("SELECT COUNT(*) FROM clocks c "+thereStill+" WHERE c.running = ?", wait).Scan(&waits).Error
	}
	return all, waits, err
}

// Practise makes a cook that is only practised, with its clock and what was done before it: all or
// nothing. It begins when its turn comes.
func (s *Store) Practise(
	ctx context.Context,
	c cook.Cook,
	clock Clock,
	done []facts.Fact,
) (out Record[cook.Cook], err error) {
	clock.Running, clock.Waits = false, true
	err = s.Together(ctx, func(db *Store) (err error) {
		if out, err = db.Cooks().Create(ctx, c); err != nil {
			return err
		}
		if err := db.SetClock(ctx, out.ID, clock); err != nil {
			return err
		}
		for _, f := range done {
			if err := db.AddFact(ctx, out.ID, f); err != nil {
				return err
			}
		}
		return nil
	})
	if err == nil {
		_, err = s.Practised(ctx, clock.Began)
	}
	return out, err
}
