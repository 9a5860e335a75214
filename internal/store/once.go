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

// before is the record that the same request has made before; false where an insert failed for another reason.
func (r Records[T]) before(ctx context.Context, id string, failed error) (out Record[T], made bool) {
	if _, told := ctx.Value(onceKey{}).(uuid.UUID); !told || !errors.Is(failed, gorm.ErrDuplicatedKey) {
		return out, false
	}
	var m row
	// A lock reads what is committed now, not what was when this transaction began.
	locked := r.db.WithContext(ctx).Clauses(clause.Locking{Strength: clause.LockingStrengthShare})
	if err := locked.Where(is("id", id)).Where(is("kind", r.kind)).Take(&m).Error; err != nil {
		return out, false
	}
	out, err := r.read(m)
	return out, err == nil
}
