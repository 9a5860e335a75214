package store

import (
	"context"
	"errors"
	"fmt"

	"github.com/google/uuid"
	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// ErrMade is returned by Create, beside the record, where the same request made it before.
var ErrMade = errors.New("made before")

type onceKey struct{}

// Once gives what is made in a context the id of its sender's key, so that the same request sent twice makes one
// record: after an answer that was lost, or a button that was pressed twice.
func Once(ctx context.Context, key uuid.UUID) context.Context {
	return context.WithValue(ctx, onceKey{}, key)
}

// onceOf is the context of one of several records that a request makes.
func onceOf(ctx context.Context, n int) context.Context {
	if key, told := ctx.Value(onceKey{}).(uuid.UUID); told {
		return Once(ctx, uuid.NewSHA1(key, fmt.Append(nil, n)))
	}
	return ctx
}

// newID is the id of a record that is made in a context.
func newID(ctx context.Context) string {
	if key, told := ctx.Value(onceKey{}).(uuid.UUID); told {
		return key.String()
	}
	return uuid.NewString()
}

// before is the record that the same request has made before, with ErrMade; ErrOther where its key is the id of
// something else, and the error of the insert where that failed for another reason.
func (r Records[T]) before(ctx context.Context, id string, failed error) (out Record[T], err error) {
	if _, told := ctx.Value(onceKey{}).(uuid.UUID); !told || !errors.Is(failed, gorm.ErrDuplicatedKey) {
		return out, failed
	}
	var m row
	// A lock reads what is committed now, not what was when this transaction began.
	locked := r.db.WithContext(ctx).Clauses(clause.Locking{Strength: clause.LockingStrengthShare})
	switch err := locked.Where(is("id", id)).Take(&m).Error; {
	case errors.Is(err, gorm.ErrRecordNotFound): // it was not the id that stood twice
		return out, failed
	case err != nil:
		return out, err
	case m.Kind != r.kind:
		return out, ErrOther
	}
	if out, err = r.read(m); err != nil {
		return out, err
	}
	return out, ErrMade
}
