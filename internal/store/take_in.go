package store

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"maps"
	"math"
	"reflect"
	"slices"
	"time"
	"unicode/utf8"

	"github.com/google/uuid"
	"gorm.io/gorm"
	"gorm.io/gorm/clause"

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
			_, err := within.Learn(ctx, nil)
			return err
		})
	})
	return out, err
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
		if math.IsNaN(l.Speed) || l.Speed < 0 || l.Speed > mostSpeed {
			return nil, refused("a clock that goes %v times as fast", l.Speed)
		}
		return m, canBe(m.clock().Began, m.clock().At)
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

// mostSpeed is how many times faster than the one on the wall a clock goes at most.
const mostSpeed = 240

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
	if err := t.tx.Table("fresh").Where("id = ?", l.ID).Count(&new).Error; err != nil || new == 0 {
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

// misplaced refuses the line at i of so many that are pending.
func misplaced(i, of int, format string, args ...any) error {
	return &Misplaced{of - 1 - i, refused(format, args...)}
}

// atMost refuses more of something than a cook holds.
func (t *taker) atMost(most int, table, sum string, cooks []string) error {
	var over []string
	err := t.tx.Table(table).Where("cook IN ?", cooks).Group("cook").Having(sum+" > ?", most).Pluck("cook", &over).Error
	if err == nil && len(over) > 0 {
		return refused("%s holds more than %d %s", over[0], most, table)
	}
	return err
}

// known refuses lines of a record that is neither in the book nor here; all are the ids that they name,
// empty for none.
func (t *taker) known(kind string, all []string) error {
	var here []string
	ids := slices.Compact(slices.Sorted(slices.Values(all)))
	if len(ids) == 1 && ids[0] == "" {
		return nil
	}
	if err := t.tx.Model(&row{}).Unscoped().Where("kind = ? AND id IN ?", kind, ids).Pluck("id", &here).Error; err != nil {
		return err
	}
	for i, id := range all {
		if id != "" && !slices.Contains(here, id) {
			return misplaced(i, len(all), "there is no %s %.80q", kind, id)
		}
	}
	return nil
}

// rows adds records, and remembers those that were not here.
func (t *taker) rows(all []any) error {
	ids := make([]string, len(all))
	for i, m := range all {
		ids[i] = m.(row).ID
	}
	var here []string
	if err := t.tx.Model(&row{}).Unscoped().Where("id IN ?", ids).Pluck("id", &here).Error; err != nil {
		return err
	}
	if err := write[row](t, all); err != nil {
		return err
	}
	// One that was not written for another reason is here in other words: the price of the same thing.
	var now []string
	if err := t.tx.Model(&row{}).Unscoped().Where("id IN ?", ids).Pluck("id", &now).Error; err != nil {
		return err
	}
	return t.remember(
		now,
		func(id string) bool { return !slices.Contains(here, id) },
		func(string) (string, int) { return "", 0 },
	)
}

// remember notes what is new, with the cook that it is of and how many lines it may still have.
func (t *taker) remember(ids []string, new func(string) bool, of func(string) (string, int)) error {
	var fresh []map[string]any
	for _, id := range ids {
		if new(id) {
			cook, n := of(id)
			fresh = append(fresh, map[string]any{"id": id, "cook": cook, "remain": n})
		}
	}
	if len(fresh) == 0 {
		return nil
	}
	return t.tx.Table("fresh").Clauses(clause.Insert{Modifier: "IGNORE"}).Create(fresh).Error
}

// clocks adds the clocks of cooks that are new: a cook that is here is not made one that is practised.
func (t *taker) clocks(all []any) error {
	var ids, fresh, practised []string
	for _, m := range all {
		ids = append(ids, m.(clockModel).Cook)
	}
	if err := t.tx.Table("fresh").Where("id IN ?", ids).Pluck("id", &fresh).Error; err != nil {
		return err
	}
	n := len(all)
	all = slices.DeleteFunc(all, func(m any) bool { return !slices.Contains(fresh, m.(clockModel).Cook) })
	if t.taken.Here += int64(n - len(all)); len(all) == 0 {
		return nil
	}
	for _, m := range all {
		if c := m.(clockModel); !c.clock().Wall() {
			practised = append(practised, c.Cook)
		}
	}
	if err := t.db.practice(t.ctx(), practised...); err != nil {
		return err
	}
	return write[clockModel](t, all)
}

// write adds rows that are not here yet.
func write[M any](t *taker, all []any) error {
	rows := make([]M, len(all))
	for i, m := range all {
		rows[i] = m.(M)
	}
	done := t.tx.Clauses(clause.Insert{Modifier: "IGNORE"}).Create(&rows)
	t.taken.Added += done.RowsAffected
	t.taken.Here += int64(len(rows)) - done.RowsAffected
	return done.Error
}

// handIns adds hand-ins, and remembers those that were not here: only their readings are new.
func (t *taker) handIns(all []any) error {
	ids, of := make([]string, len(all)), map[string]handInModel{}
	for i, m := range all {
		h := m.(handInModel)
		ids[i], of[h.ID] = h.ID, h
	}
	var here []string
	if err := t.tx.Model(&handInModel{}).Where("id IN ?", ids).Pluck("id", &here).Error; err != nil {
		return err
	}
	if err := t.remember(ids, func(id string) bool { return !slices.Contains(here, id) },
		func(id string) (string, int) { return of[id].Cook, of[id].Count }); err != nil {
		return err
	}
	return write[handInModel](t, all)
}

// readings adds the readings of hand-ins that were not here.
func (t *taker) readings(all []any) error {
	many := map[string]int{}
	for _, m := range all {
		many[m.(readingModel).HandIn]++
	}
	ids := slices.Collect(maps.Keys(many))
	var fresh []struct {
		ID, Cook string
		Remain   int
	}
	if err := t.tx.Table("fresh").Where("id IN ?", ids).Find(&fresh).Error; err != nil {
		return err
	}
	of := map[string]string{}
	for _, f := range fresh {
		of[f.ID] = f.Cook
		if many[f.ID] > f.Remain {
			return misplaced(len(all)-1, len(all), "there are more readings of the hand-in %s than it says", f.ID)
		}
		if err := t.tx.Table("fresh").Where("id = ?", f.ID).Update("remain", f.Remain-many[f.ID]).Error; err != nil {
			return err
		}
	}
	here := ids
	if len(fresh) < len(ids) {
		here = nil
		if err := t.tx.Model(&handInModel{}).Where("id IN ?", ids).Pluck("id", &here).Error; err != nil {
			return err
		}
	}
	for i, m := range all {
		switch r := m.(readingModel); {
		case !slices.Contains(here, r.HandIn):
			return misplaced(i, len(all), "there is no hand-in %.80q", r.HandIn)
		case of[r.HandIn] != "" && of[r.HandIn] != r.Cook:
			return misplaced(i, len(all), "it is of another cook-out than its hand-in")
		}
	}
	n := len(all)
	all = slices.DeleteFunc(all, func(m any) bool { return of[m.(readingModel).HandIn] == "" })
	t.taken.Here += int64(n - len(all))
	if len(all) == 0 {
		return nil
	}
	rows := make([]readingModel, len(all))
	for i, m := range all {
		rows[i] = m.(readingModel)
	}
	t.taken.Added += int64(len(rows))
	return insertReadings(t.tx, rows)
}

// photo adds a photograph that is not here.
func (t *taker) photo(l CarriedPhoto) error {
	l.Piece, l.Note = field.Clean(l.Piece), field.Clean(l.Note)
	if err := t.flush(); err != nil {
		return err
	}
	if sum := sha256.Sum256(l.Data); hex.EncodeToString(sum[:]) != l.SHA256 {
		return fmt.Errorf("%w: the picture is not the one that was carried away", ErrCarried)
	}
	if err := t.known("cook", []string{l.Cook}); err != nil {
		return err
	}
	if err := checkPhoto(Photo{Cook: l.Cook, Piece: l.Piece, Note: l.Note, Width: l.Width, Height: l.Height,
		Data: l.Data}); err != nil {
		return refused("%v", err)
	}
	if err := canBe(l.Created, orNow(l.Deleted, l.Created)); err != nil {
		return err
	}
	var here int64
	if err := t.tx.Model(&Photo{}).Unscoped().Where("cook = ? AND piece = ? AND SHA2(data, 256) = ?", l.Cook, l.Piece,
		l.SHA256).Count(&here).Error; err != nil {
		return err
	}
	if here > 0 {
		t.taken.Here++
		return nil
	}
	t.taken.Added++
	return t.tx.Create(
		&Photo{
			Cook:      l.Cook,
			Piece:     l.Piece,
			Note:      l.Note,
			Width:     l.Width,
			Height:    l.Height,
			Data:      l.Data,
			CreatedAt: l.Created,
			DeletedAt: deletedAt(l.Deleted),
		},
	).Error
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
