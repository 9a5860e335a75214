package store

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Taken is how many lines of a book were taken in, and how many were left since they are here already.
type Taken struct{ Added, Here int64 }

// batch is how many lines are written at once.
const batch = 400

// mostPending is how many bytes of documents wait to be written, and mostDoc how long one is: what a page
// saves is half of that at most.
const mostPending, mostDoc = 4 << 20, 1 << 20

// batchOfReadings is how many readings are written at once, of which there are the most.
const batchOfReadings = 4000

// Checked is a record of a book once more, after all of them were taken in: those that are new are
// checked as if they were typed, since now what they rest on is there, too.
type Checked CarriedRecord

// taker writes lines in the order in which they come, those of one kind together.
type taker struct {
	db      *Store
	tx      *gorm.DB
	kinds   map[string]carriedKind
	has     kitchens
	taken   Taken
	pending []any        // models of one kind
	size    int          // of their documents, bytes
	kind    reflect.Type // of the line that came last
}

// bookLock is held while a book is taken in, so that one is never taken in twice at once.
const bookLock = "book"

// TakeIn takes the lines of a book in, all or none. What is here already, by its id, stays as it is.
// give is called with a function that takes a line; it may be called again from the beginning. A line
// that no page would take is an ErrCarried.
func (s *Store) TakeIn(ctx context.Context, give func(take func(line any) error) error) (Taken, error) {
	return s.takeIn(ctx, false, give)
}

// Replace puts the lines of a book in the place of all that is on record, but for the devices' keys: all
// or none.
func (s *Store) Replace(ctx context.Context, give func(take func(line any) error) error) (Taken, error) {
	return s.takeIn(ctx, true, give)
}

func (s *Store) takeIn(
	ctx context.Context,
	emptied bool,
	give func(take func(line any) error) error,
) (out Taken, err error) {
	patient := s.Patient()
	err = patient.Alone(ctx, bookLock, func(ctx context.Context) error {
		return transaction(ctx, patient.db, func(tx *gorm.DB) error {
			within := &Store{db: tx, kitchens: s.kitchens}
			if emptied {
				if err := within.empty(ctx); err != nil {
					return err
				}
			}
			t := &taker{db: within, tx: tx, kinds: within.carries(), has: within.packed()}
			for _, first := range []string{
				"CREATE TEMPORARY TABLE IF NOT EXISTS fresh (id CHAR(36) NOT NULL PRIMARY KEY, cook CHAR(36) NOT NULL, remain INT NOT NULL)",
				"DELETE FROM fresh", "UPDATE generations SET n = n + 1",
			} {
				if err := tx.Exec(first).Error; err != nil {
					return err
				}
			}
			if err := give(t.take); err != nil {
				return err
			}
			if err := t.flush(); err != nil {
				return err
			}
			out = t.taken
			if err := markTold(tx); err != nil { // a book of an earlier version does not say it
				return err
			}
			_, err := within.Learn(ctx, nil)
			return err
		})
	})
	return out, err
}

// markTold marks the cooks that an earlier version read from words which it did not keep, as the migration does.
func markTold(tx *gorm.DB) error {
	raw, err := migrations.ReadFile("migrations/00017_told.sql")
	if err != nil {
		return err
	}
	up, _, _ := strings.Cut(string(raw), "-- +goose Down")
	for _, statement := range strings.Split(up, ";\n") {
		if strings.TrimSpace(statement) == "" {
			continue
		}
		if err := tx.Exec(statement).Error; err != nil {
			return err
		}
	}
	return nil
}

// ErrCarried is a line of a book that cannot be.
var ErrCarried = errors.New("this line cannot be taken in")

// Misplaced is a line of a book that cannot be, found some lines after it.
type Misplaced struct {
	Back int // lines before the one at which it was found
	err  error
}

func (m *Misplaced) Error() string { return m.err.Error() }
func (m *Misplaced) Unwrap() error { return m.err }

// End is taken at the end of each file of a book: what is wrong with its last lines is told there.
type End struct{}

func refused(format string, args ...any) error {
	return fmt.Errorf("%w: %s", ErrCarried, fmt.Sprintf(format, args...))
}

// named reports whether an id is a UUID as this program writes it.
func named(id string) bool {
	u, err := uuid.Parse(id)
	return err == nil && u.String() == id
}

// canBe refuses times at which nothing was saved: a clock that was not set yet shows 1970.
func canBe(times ...time.Time) error {
	for _, t := range times {
		if y := t.Year(); y < 1970 || y > facts.LastYear {
			return refused("the year %d; it has to be from 1970 to %d", y, facts.LastYear)
		}
	}
	return nil
}

func orNow(t *time.Time, now time.Time) time.Time {
	if t == nil {
		return now
	}
	return *t
}

func (t *taker) take(line any) error {
	switch l := line.(type) {
	case End:
		return t.flush()
	case Checked:
		return t.check(l)
	case CarriedPhoto:
		return t.photo(l)
	}
	if kind := reflect.TypeOf(line); kind != t.kind { // what comes may rest on what is pending
		if err := t.next(); err != nil {
			return err
		}
		t.kind = kind
	}
	model, err := t.model(line)
	if err != nil {
		return err
	}
	most := batch
	if _, ok := model.(readingModel); ok {
		most = batchOfReadings
	}
	if len(t.pending) >= most || t.size > mostPending {
		if err := t.next(); err != nil {
			return err
		}
	}
	switch l := line.(type) {
	case CarriedRecord:
		t.size += len(l.Doc)
	case CarriedVersion:
		t.size += len(l.Doc)
	}
	t.pending = append(t.pending, model)
	return nil
}

// next writes what is pending before another line, which is not among it.
func (t *taker) next() error {
	err := t.flush()
	var at *Misplaced
	if errors.As(err, &at) {
		at.Back++
	}
	return err
}

// model is a line as a row, when it is one that can be.
func (t *taker) model(line any) (any, error) {
	switch l := line.(type) {
	case CarriedRecord:
		return t.record(l)
	case CarriedVersion:
		return t.version(l)
	case CarriedFact:
		field.CleanAll(&l.Fact)
		if err := l.Fact.Check().Err(); err != nil {
			return nil, refused("%v", err)
		}
		m, err := modelOf(l.Cook, l.Fact)
		m.CreatedAt = l.Said
		return m, errors.Join(err, canBe(l.Said))
	case CarriedHandIn:
		l.Device = field.Clean(l.Device)
		if _, err := hex.DecodeString(l.Digest); err != nil || len(l.Digest) != 2*sha256.Size || !named(l.ID) ||
			l.Count < 1 || l.Count > facts.MostReadings || utf8.RuneCountInString(l.Device) > MostDeviceName {
			return nil, refused("a hand-in of %d readings from %.80q under %.80q", l.Count, l.Device, l.ID)
		}
		return handInModel{l.ID, l.Cook, l.Device, l.Digest, l.Count, l.Came}, canBe(l.Came)
	case CarriedReading:
		if err := (facts.Reading{Probe: l.Probe, At: time.UnixMilli(l.AtMs).UTC(),
			C: quantity.Celsius(l.C)}).Check().Err(); err != nil {
			return nil, refused("%v", err)
		}
		return readingModel{Cook: l.Cook, HandIn: l.HandIn, Probe: l.Probe, AtMs: l.AtMs, Celsius: l.C}, nil
	case CarriedMinute:
		m := minuteModel{l.Cook, l.Probe, l.AtMs, l.FirstMs, l.LastMs, l.First, l.Last, l.Low, l.High, l.Count}
		if _, err := facts.ParseProbe(l.Probe); err != nil || !m.minute().Sound() {
			return nil, refused("no minute can be like this")
		}
		return m, nil
	case CarriedClock:
		m := clockModel{l.Cook, l.Began, l.At, l.Speed, l.Seed, stand}
		return m, m.clock().check()
	case CarriedOutcome:
		field.CleanAll(&l.Outcome)
		if !l.Outcome.Sound() {
			return nil, refused("a figure in it is none that a cook-out can have")
		}
		m, err := outcomeOf(l.Cook, l.Told, l.Outcome)
		m.UpdatedAt = l.Updated
		return m, errors.Join(err, canBe(l.Updated))
	}
	return nil, refused("%T", line)
}

// version is an earlier version of a formula as a row.
func (t *taker) version(l CarriedVersion) (any, error) {
	if len(l.Doc)+len(l.Changes) > mostDoc {
		return nil, refused("a document of %d bytes: it may have %d", len(l.Doc)+len(l.Changes), mostDoc)
	}
	m, err := t.kinds["formula"].read(l.Record, l.Version, string(l.Doc))
	if err != nil {
		return nil, refused("%v", err)
	}
	if l.Version < 1 {
		return nil, refused("version %d", l.Version)
	}
	return versionRow{l.Record, l.Version, m.Body, string(l.Changes), l.Saved.Round(time.Millisecond)},
		errors.Join(canBe(l.Saved), bookWrong(t.kinds["formula"].sound(t.ctx(), l.Record, m.Body, t.has)))
}

func (t *taker) ctx() context.Context { return t.tx.Statement.Context }

// record is a record as a row. Whether what it says can be is asked once all of them are there.
func (t *taker) record(l CarriedRecord) (row, error) {
	if len(l.Doc) > mostDoc {
		return row{}, refused("a document of %d bytes: it may have %d", len(l.Doc), mostDoc)
	}
	kind, ok := t.kinds[l.Kind]
	if !ok || !named(l.ID) || l.Version < 1 || l.Kind == "lessons" && l.ID != lessonsID {
		return row{}, refused("kind %.80q, id %.80q, version %d", l.Kind, l.ID, l.Version)
	}
	m, err := kind.read(l.ID, l.Version, string(l.Doc))
	if err != nil {
		return row{}, refused("%v", err)
	}
	m.CreatedAt, m.UpdatedAt, m.DeletedAt = l.Created, l.Updated, deletedAt(l.Deleted)
	return m, canBe(l.Created, l.Updated, orNow(l.Deleted, l.Updated))
}

// check checks a record that was not here before.
func (t *taker) check(l Checked) error {
	if err := t.flush(); err != nil {
		return err
	}
	var new int64
	if err := t.tx.Table("fresh").Where(is("id", l.ID)).Count(&new).Error; err != nil || new == 0 {
		return err
	}
	err := t.kinds[l.Kind].sound(t.ctx(), l.ID, string(l.Doc), t.has)
	return bookWrong(err)
}

func deletedAt(at *time.Time) gorm.DeletedAt {
	if at == nil {
		return gorm.DeletedAt{}
	}
	return gorm.DeletedAt{Time: *at, Valid: true}
}

// flush writes what is pending.
func (t *taker) flush() error {
	all := t.pending
	t.pending, t.size = nil, 0
	if len(all) == 0 {
		return nil
	}
	cooks, of := []string{}, make([]string, len(all))
	for i, m := range all {
		if of[i] = cookOf(m); of[i] != "" && !slices.Contains(cooks, of[i]) {
			cooks = append(cooks, of[i])
		}
	}
	if err := t.known("cook", of); err != nil {
		return err
	}
	switch all[0].(type) {
	case row:
		return t.rows(all)
	case versionRow:
		return t.versions(all)
	case factModel:
		if err := write[factModel](t, all); err != nil {
			return err
		}
		return t.atMost(facts.Most, "facts", "COUNT(*)", cooks)
	case minuteModel:
		return write[minuteModel](t, all)
	case clockModel:
		return t.clocks(all)
	case outcomeModel:
		return write[outcomeModel](t, all)
	case handInModel:
		if err := t.handIns(all); err != nil {
			return err
		}
		return t.atMost(facts.MostReadings, "hand_ins", "SUM(count)", cooks)
	case readingModel:
		return t.readings(all)
	}
	return nil
}

// cookOf is the cook that a row names, when that has to be there; readings are held against their
// hand-ins.
func cookOf(m any) string {
	switch m := m.(type) {
	case factModel:
		return m.Cook
	case handInModel:
		return m.Cook
	case minuteModel:
		return m.Cook
	case clockModel:
		return m.Cook
	case outcomeModel:
		return m.Cook
	}
	return ""
}

// empty takes all that is on record away, but for the devices' keys: only to put something else in
// its place, in one transaction with that.
func (s *Store) empty(ctx context.Context) error {
	for _, table := range []string{"photos", "facts", "readings", "minutes", "hand_ins", "clocks", "outcomes",
		"record_versions", "records"} {
		if err := s.db.WithContext(ctx).Exec("DELETE FROM " + table).Error; err != nil {
			return err
		}
	}
	return nil
}
