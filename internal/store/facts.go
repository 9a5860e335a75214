package store

import (
	"context"
	"encoding/json"
	"errors"
	"time"

	"gorm.io/gorm"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
)

// Why a fact cannot be added.
var (
	ErrOther = errors.New("another fact has this id")
	ErrFull  = errors.New("this cook holds no more facts")
)

type factModel struct {
	Seq       uint64 `gorm:"primaryKey"`
	ID        string
	Cook      string
	Kind      string
	Piece     string
	What      string
	Happened  string
	Author    string
	Body      string
	CreatedAt time.Time
}

func (factModel) TableName() string { return "facts" }

// factBody is what only some facts have.
type factBody struct {
	Values field.Values `json:"values,omitempty"`
	Said   string       `json:"said,omitempty"`
	Device string       `json:"device,omitempty"`
}

func (m factModel) fact() (facts.Fact, error) {
	var b factBody
	err := json.Unmarshal([]byte(m.Body), &b)
	return facts.Fact{
		ID:     m.ID,
		Kind:   facts.Kind(m.Kind),
		Piece:  m.Piece,
		What:   m.What,
		At:     m.Happened,
		Author: m.Author,
		Values: b.Values,
		Said:   b.Said,
		Device: b.Device,
	}, err
}

// Facts are what happened at a cook, in the order in which it was said.
func (s *Store) Facts(ctx context.Context, cook string) (facts.Facts, error) {
	cook = s.Cooks().known(cook)
	var models []factModel
	if err := s.db.WithContext(ctx).Where(is("cook", cook)).Order("seq").Find(&models).Error; err != nil {
		return nil, err
	}
	out := make(facts.Facts, len(models))
	for i, m := range models {
		var err error
		if out[i], err = m.fact(); err != nil {
			return nil, err
		}
	}
	return out, nil
}

func modelOf(cook string, f facts.Fact) (factModel, error) {
	body, err := json.Marshal(factBody{f.Values, f.Said, f.Device})
	return factModel{
		ID:       f.ID,
		Cook:     cook,
		Kind:     string(f.Kind),
		Piece:    f.Piece,
		What:     f.What,
		Happened: f.At,
		Author:   f.Author,
		Body:     string(body),
	}, err
}

// AddFact saves a fact. The same fact sent twice is saved once; another fact with its
// id is ErrOther; a cook that is not there is ErrNotFound, one with facts.Most ErrFull. What
// is wrong with a fact is a field.Errors.
func (s *Store) AddFact(ctx context.Context, cook string, f facts.Fact) error {
	cook = s.Cooks().known(cook)
	if err := s.Cooks().there(ctx, cook); err != nil {
		return err
	}
	if err := f.Check().Err(); err != nil {
		return err
	}
	var held int64
	if err := s.db.WithContext(ctx).Model(&factModel{}).Where(is("cook", cook)).Count(&held).Error; err != nil {
		return err
	}
	if held >= facts.Most {
		return ErrFull
	}
	m, err := modelOf(cook, f)
	if err != nil {
		return err
	}
	err = again(s.db, func() error { return s.db.WithContext(ctx).Create(&m).Error })
	if !errors.Is(err, gorm.ErrDuplicatedKey) {
		return err
	}
	var other factModel
	if err := s.db.WithContext(ctx).Where(is("id", f.ID)).Take(&other).Error; err != nil {
		return err
	}
	there, err := other.fact()
	if err != nil {
		return err
	}
	if other.Cook != cook || !there.Same(f) {
		return ErrOther
	}
	return nil
}
