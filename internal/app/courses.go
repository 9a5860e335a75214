package app

import (
	"context"
	"sync"
	"time"

	lru "github.com/hashicorp/golang-lru/v2"

	"verjuice/internal/core/facts"
	"verjuice/internal/store"
)

// mostFollowed is how many cooks a program follows at once.
const mostFollowed = 64

// afresh is after how long a course is read anew: what is thinned meanwhile has no number any more.
const afresh = time.Hour

// courses are what the thermometers of cooks have read, as far as this program has followed them: there are
// thousands of readings, of which a few are new each time.
type courses struct {
	mu   *sync.Mutex
	kept *lru.Cache[string, *followed]
}

// followed is the course of one cook.
type followed struct {
	mu     sync.Mutex
	course facts.Course // nil until it was asked for; never changed once it was given away
	last   uint64       // number of the last reading in it
	book   uint64       // generation of the book that it is of
	since  time.Time    // it was read anew
}

func newCourses() courses {
	kept, err := lru.New[string, *followed](mostFollowed)
	if err != nil {
		panic("app: a cache of no size")
	}
	return courses{&sync.Mutex{}, kept}
}

// follow is the course of a cook up to now, in a book of that generation. It must not be changed.
func (c courses) follow(ctx context.Context, db *store.Store, id string, book uint64) (facts.Course, error) {
	c.mu.Lock()
	f, ok := c.kept.Get(id)
	if !ok {
		f = &followed{}
		c.kept.Add(id, f)
	}
	c.mu.Unlock()
	f.mu.Lock()
	defer f.mu.Unlock()
	if f.course == nil || f.book != book || time.Since(f.since) > afresh {
		course, last, err := db.Course(ctx, id)
		if err != nil {
			return nil, err
		}
		f.course, f.last, f.book, f.since = course, last, book, time.Now()
		return f.course, nil
	}
	fresh, err := db.Readings(ctx, id, f.last, 0)
	if err != nil {
		return nil, err
	}
	read := make([]facts.Reading, len(fresh))
	for i, r := range fresh {
		read[i], f.last = r.Reading, r.Seq
	}
	f.course = f.course.With(read...)
	return f.course, nil
}
