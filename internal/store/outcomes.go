package store

import (
	"context"
	"encoding/json"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"verjuice/internal/core/logbook"
)

// Logged is the outcome of a cook on record.
type Logged struct {
	Cook    string
	Told    string // up to what on record it was worked out
	Outcome logbook.Outcome
}

// String is Told as an outcome keeps it.
func (t Told) String() string { return fmt.Sprint(t.Facts, " ", t.Readings, " ", t.Version) }

type outcomeModel struct {
	Cook      string `gorm:"primaryKey"`
	Day       string
	Name      string
	Finished  bool
	Cuts      string
	Finishes  string
	Pits      string
	Wraps     string
	Formulas  string
	Weather   string
	Score     float64
	Model     int
	Told      string
	Body      string
	UpdatedAt time.Time
}

func (outcomeModel) TableName() string { return "outcomes" }

func (m outcomeModel) logged() (Logged, error) {
	out := Logged{Cook: m.Cook, Told: m.Told}
	return out, json.Unmarshal([]byte(m.Body), &out.Outcome)
}

// listed are words between bars, by which a filter finds each; clipped to what a column holds.
func listed(most int, words []string) string {
	slices.Sort(words)
	out := ""
	for _, w := range slices.Compact(words) {
		if w = strings.ReplaceAll(w, "|", " "); w != "" && len(out)+len(w)+2 <= most {
			out += "|" + w
		}
	}
	if out == "" {
		return ""
	}
	return out + "|"
}

// PutOutcome keeps what became of a cook. The last who works it out is right.
func (s *Store) PutOutcome(ctx context.Context, cook string, told Told, o logbook.Outcome) error {
	if !o.Sound() {
		return fmt.Errorf("what became of the cook %s cannot be kept: %+v", cook, o)
	}
	m, err := outcomeOf(s.Cooks().known(cook), told.String(), o)
	if err != nil {
		return err
	}
	m.UpdatedAt = time.Now().UTC()
	return again(s.db, func() error { return s.db.WithContext(ctx).Save(&m).Error })
}

// outcomeOf is an outcome as it is kept, with what it is found by.
func outcomeOf(cook, told string, o logbook.Outcome) (outcomeModel, error) {
	raw, err := json.Marshal(o)
	m := outcomeModel{
		Cook:     cook,
		Day:      clipped(o.Day, 10),
		Name:     clipped(o.Name, 200),
		Finished: o.Finished,
		Weather:  clipped(o.Weather, 20),
		Model:    o.Model,
		Told:     clipped(told, 100),
		Body:     string(raw),
		Score:    o.Score(),
	}
	var cuts, finishes, pits, wraps, formulas []string
	for _, p := range o.Pieces {
		cuts, finishes, pits = append(cuts, p.Cut), append(finishes, p.Finish), append(pits, p.PitName)
		wraps, formulas = append(wraps, p.Wrap), append(formulas, p.Formula)
	}
	m.Cuts = listed(1000, cuts)
	m.Finishes = listed(200, finishes)
	m.Pits = listed(500, pits)
	m.Wraps = listed(200, wraps)
	m.Formulas = listed(1000, formulas)
	return m, err
}

func clipped(s string, most int) string {
	if r := []rune(s); len(r) > most {
		return string(r[:most])
	}
	return s
}

// Outcome is what became of a cook; false when that is not on record.
func (s *Store) Outcome(ctx context.Context, cook string) (Logged, bool, error) {
	var all []outcomeModel
	if err := s.db.WithContext(ctx).Where("cook = ?", s.Cooks().known(cook)).Limit(1).Find(&all).Error; err != nil ||
		len(all) == 0 {
		return Logged{}, false, err
	}
	out, err := all[0].logged()
	return out, err == nil, err
}

// Sought is what is looked for in the logbook; empty is everything.
type Sought struct {
	Search, Cut, Finish, Pit, Wrap, Formula, Weather string
	Score                                            float64 // at least
	Limit, Offset                                    int
}

func (q Sought) of(db *gorm.DB) *gorm.DB {
	has := func(column, word string) {
		if word != "" {
			db = db.Where("o."+column+" LIKE ?", "%|"+escaped(word)+"|%")
		}
	}
	has("cuts", q.Cut)
	has("finishes", q.Finish)
	has("pits", q.Pit)
	has("wraps", q.Wrap)
	has("formulas", q.Formula)
	if q.Weather != "" {
		db = db.Where("o.weather = ?", q.Weather)
	}
	if q.Score > 0 {
		db = db.Where("o.score >= ?", q.Score)
	}
	for _, word := range strings.Fields(q.Search) {
		like := "%" + escaped(word) + "%"
		if strings.Contains(word, "|") { // which stands between the words of the other columns
			db = db.Where("o.name LIKE ?", like)
			continue
		}
		db = db.Where("(o.name LIKE ? OR o.cuts LIKE ? OR o.pits LIKE ? OR o.formulas LIKE ?)", like, like, like, like)
	}
	return db
}

// escaped is a word to be found as it is.
func escaped(word string) string {
	return strings.NewReplacer(`\`, `\\`, "%", `\%`, "_", `\_`).Replace(word)
}

// there are the outcomes of cooks that were not deleted. Those that were are few: they are looked up
// once, and not each cook.
func (s *Store) there(ctx context.Context) *gorm.DB {
	return s.db.WithContext(ctx).
		Table("outcomes o").
		Where("o.cook NOT IN (SELECT id FROM records WHERE kind = 'cook' AND deleted_at IS NOT NULL)")
}

// Logbook are the outcomes that are looked for, the latest first, and how many there are. Cooks that
// were deleted or only practised are not among them.
func (s *Store) Logbook(ctx context.Context, q Sought) ([]Logged, int64, error) {
	from := func() *gorm.DB { return q.of(s.there(ctx)) }
	var total int64
	if err := from().Count(&total).Error; err != nil {
		return nil, 0, err
	}
	// Which they are is found without reading their bodies.
	var ids []string
	db := from().Order("o.day DESC, o.cook")
	if q.Limit > 0 {
		db = db.Limit(q.Limit).Offset(q.Offset)
	}
	if err := db.Pluck("o.cook", &ids).Error; err != nil {
		return nil, 0, err
	}
	if len(ids) == 0 {
		return []Logged{}, total, nil
	}
	var rows []outcomeModel
	if err := s.db.WithContext(ctx).Where(among("cook", ids)).Order("day DESC, cook").Find(&rows).Error; err != nil {
		return nil, 0, err
	}
	out := make([]Logged, len(rows))
	for i, m := range rows {
		var err error
		if out[i], err = m.logged(); err != nil {
			return nil, 0, err
		}
	}
	return out, total, nil
}

// LoggedSince are the outcomes of cooks since a day, the latest first.
func (s *Store) LoggedSince(ctx context.Context, since time.Time) ([]Logged, error) {
	var rows []outcomeModel
	err := s.there(ctx).
		Select("o.*").
		Where("o.day >= ?", since.Format(time.DateOnly)).
		Order("o.day DESC, o.cook").
		Limit(mostTeach).
		Find(&rows).
		Error
	if err != nil {
		return nil, err
	}
	out := make([]Logged, len(rows))
	for i, m := range rows {
		if out[i], err = m.logged(); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// Lessons are what is learnt from the logbook, and what the cook wants of that.
type Lessons struct {
	Since   string          `json:"since,omitempty" required:"false" doc:"Cooks from before that day teach nothing (YYYY-MM-DD)"`
	Without []string        `json:"without" nullable:"false" doc:"Cooks that are left out, by id"`
	Book    logbook.Lessons `json:"book"`
}

const lessonsCode = "lessons"

func (s *Store) lessons() Records[Lessons] {
	return Records[Lessons]{
		db:    s.db,
		in:    s,
		kind:  "lessons",
		sound: s.soundLessons,
		first: byName,
		index: func(Lessons) found { return found{Name: lessonsCode, Code: lessonsCode} },
	}
}

// Lessons are those on record; without any they are empty.
func (s *Store) Lessons(ctx context.Context) (Lessons, error) {
	list, _, err := s.lessons().List(ctx, Query{Limit: 1})
	if err != nil || len(list) == 0 {
		return Lessons{Without: []string{}}, err
	}
	return list[0].Doc, nil
}

// mostTeach is how many cooks are learnt from, the latest.
const mostTeach = 300

// Learn learns from the logbook anew, after change has said what the cook wants of it; nil leaves
// that as it is. Of two at once neither is lost.
func (s *Store) Learn(ctx context.Context, change func(*Lessons)) (Lessons, error) {
	if was, err := s.Lessons(ctx); err != nil ||
		change == nil && reflect.DeepEqual(was, Lessons{Without: []string{}}) && !s.logged(ctx) {
		return was, err
	}
	m, err := s.lessons().row(lessonsID, 1, Lessons{Without: []string{}})
	if err != nil {
		return Lessons{}, err
	}
	err = again(s.db, func() error {
		return s.db.WithContext(ctx).Clauses(clause.OnConflict{DoNothing: true}).Create(&m).Error
	})
	if err != nil {
		return Lessons{}, err
	}
	now, err := s.lessons().Change(ctx, lessonsID, func(l *Lessons) error {
		if change != nil {
			change(l)
		}
		return nil
	})
	if err != nil {
		return now.Doc, err
	}
	all, _, err := s.Logbook(ctx, Sought{Limit: mostTeach})
	if err != nil {
		return now.Doc, err
	}
	slices.Reverse(all)
	now, err = s.lessons().Change(ctx, lessonsID, func(l *Lessons) error {
		var teach []logbook.Outcome
		for _, one := range all {
			if o := one.Outcome; o.Finished && !o.Misread && o.Day >= l.Since && !slices.Contains(l.Without, one.Cook) {
				teach = append(teach, o)
			}
		}
		l.Book = logbook.Learn(teach)
		return nil
	})
	return now.Doc, err
}

// logged reports whether the logbook has a cook, or whether that cannot be told just now.
func (s *Store) logged(ctx context.Context) bool {
	_, n, err := s.Logbook(ctx, Sought{Limit: 1})
	return err != nil || n > 0
}

// lessonsID is the id of the one record of lessons.
const lessonsID = "6c1d3a7e-0b52-4b0e-9b7e-1e550a5e55a5"

// LogChoices are what there is to look for in the logbook.
type LogChoices struct {
	Cuts     []string `json:"cuts" nullable:"false" doc:"By id"`
	Finishes []string `json:"finishes" nullable:"false"`
	Pits     []string `json:"pits" nullable:"false" doc:"By name"`
	Wraps    []string `json:"wraps" nullable:"false"`
	Formulas []string `json:"formulas" nullable:"false" doc:"By name"`
	Weathers []string `json:"weathers" nullable:"false"`
}

// mostChoices is of how many unlike cooks choices are told.
const mostChoices = 5000

// LogChoices are what there is to look for in the logbook.
func (s *Store) LogChoices(ctx context.Context) (LogChoices, error) {
	var out LogChoices
	var rows []outcomeModel
	err := s.there(ctx).
		Distinct("cuts", "finishes", "pits", "wraps", "formulas", "weather").
		Limit(mostChoices).
		Find(&rows).
		Error
	if err != nil {
		return out, err
	}
	for _, m := range rows {
		for into, listed := range map[*[]string]string{&out.Cuts: m.Cuts, &out.Finishes: m.Finishes, &out.Pits: m.Pits,
			&out.Wraps: m.Wraps, &out.Formulas: m.Formulas, &out.Weathers: m.Weather} {
			*into = append(*into, strings.FieldsFunc(listed, func(r rune) bool { return r == '|' })...)
		}
	}
	for _, words := range []*[]string{&out.Cuts, &out.Finishes, &out.Pits, &out.Wraps, &out.Formulas, &out.Weathers} {
		slices.Sort(*words)
		*words = append([]string{}, slices.Compact(*words)...)
	}
	return out, nil
}
