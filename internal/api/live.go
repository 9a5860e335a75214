package api

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/sse"
	"golang.org/x/sync/singleflight"

	lru "github.com/hashicorp/golang-lru/v2"

	"verjuice/internal/core/facts"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

// How often a stream asks whether anything was added, and how long a forecast is shown before
// it is renewed though nothing was pressed.
const (
	looksEvery = 400 * time.Millisecond
	renews     = 5 * time.Second
)

// mostLive is how many cooks a program follows at once.
const mostLive = 32

// lives are the cooks that somebody stands beside. What they hold is a cache of what is on
// record: another program has its own.
type lives struct {
	mu   sync.Mutex
	kept *lru.Cache[string, *liveCook]
}

// liveCook is one cook as it was worked out last.
type liveCook struct {
	mu       sync.Mutex
	told     store.Told
	asked    time.Time // when told was
	failed   error     // of that question
	answers  map[sheet.Reader]liveAnswer
	broken   error      // why it could not be worked out
	brokenAt store.Told // as it was on record then

	work singleflight.Group // whoever asks while it is worked out waits for that answer
}

type liveAnswer struct {
	told store.Told
	at   time.Time
	raw  []byte
	out  sheet.LiveSheet
}

func newLives() *lives {
	kept, err := lru.New[string, *liveCook](mostLive)
	if err != nil {
		panic("api: a cache of no size")
	}
	return &lives{kept: kept}
}

func (l *lives) of(id string) *liveCook {
	l.mu.Lock()
	defer l.mu.Unlock()
	if c, ok := l.kept.Get(id); ok {
		return c
	}
	c := &liveCook{answers: map[sheet.Reader]liveAnswer{}}
	l.kept.Add(id, c)
	return c
}

// LiveAsked is a cook that somebody stands beside.
type LiveAsked struct {
	ByID
	Measure
}

// live is how a cook stands: worked out anew when anything was pressed or changed, and else at most every few
// seconds, once for all who look. How far what is on record has come is asked at most every so often.
func (s *server) live(ctx context.Context, id string, as sheet.Reader, every time.Duration) (liveAnswer, error) {
	c := s.lives.of(id)
	told, err := c.ask(ctx, s.Store, id, every)
	if err != nil {
		return liveAnswer{}, problemOf(err)
	}
	if was, ok, err := c.known(as, told); ok || err != nil {
		return was, err
	}
	// It goes on for the others when the first who asked has left.
	answer := c.work.DoChan(fmt.Sprint(as, told), func() (any, error) {
		ctx, cancel := context.WithTimeout(context.WithoutCancel(ctx), patience)
		defer cancel()
		out, err := guarded(id, func() (sheet.LiveSheet, error) { return s.workLive(ctx, id, as) })
		if err != nil {
			c.keepBroken(err, told)
			return liveAnswer{}, err
		}
		raw, err := json.Marshal(out)
		if err != nil {
			return liveAnswer{}, err
		}
		return c.keep(as, liveAnswer{told, time.Now(), raw, out}), nil
	})
	select {
	case got := <-answer:
		out, _ := got.Val.(liveAnswer)
		return out, got.Err
	case <-ctx.Done():
		return liveAnswer{}, problemOf(ctx.Err())
	}
}

// ask asks how far what is on record of the cook has come, at most every so often.
func (c *liveCook) ask(ctx context.Context, db *store.Store, id string, every time.Duration) (store.Told, error) {
	c.mu.Lock()
	defer c.mu.Unlock()
	if away := store.Away(c.failed) && time.Since(c.asked) < time.Second; away { // those who waited need not wait again
		return c.told, c.failed
	}
	if time.Since(c.asked) >= every {
		c.told, c.failed = db.Told(ctx, id)
		c.asked = time.Now()
		return c.told, c.failed
	}
	return c.told, nil
}

// known is the answer of before, while it still tells how the cook stands; an error is why it cannot be worked
// out, which will not be otherwise before anything has changed.
func (c *liveCook) known(as sheet.Reader, told store.Told) (liveAnswer, bool, error) {
	c.mu.Lock()
	defer c.mu.Unlock()
	was, ok := c.answers[as]
	pressed := was.told.Facts != told.Facts || was.told.Version != told.Version ||
		was.told.Generation != told.Generation
	if ok && !pressed && time.Since(was.at) < renews {
		return was, true, nil
	}
	if c.broken != nil && c.brokenAt == told {
		return was, false, c.broken
	}
	return was, false, nil
}

func (c *liveCook) keep(as sheet.Reader, out liveAnswer) liveAnswer {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.answers[as], c.broken = out, nil
	return out
}

func (c *liveCook) keepBroken(err error, told store.Told) {
	c.mu.Lock()
	defer c.mu.Unlock()
	if c.broken, c.brokenAt = nil, told; errors.Is(err, errBroken) {
		c.broken = err
	}
}

func (s *server) workLive(ctx context.Context, id string, as sheet.Reader) (sheet.LiveSheet, error) {
	inputs, err := s.app.Load(ctx, id)
	if err != nil {
		return sheet.LiveSheet{}, problemOf(err)
	}
	stands, err := inputs.Live(ctx)
	if err != nil {
		return sheet.LiveSheet{}, problemOf(err)
	}
	out, clock := sheet.WriteLive(stands, as), inputs.Clock
	if s.Bell != nil {
		out.Bell = sheet.WriteBell(s.Bell.Broken())
	}
	if !clock.Wall() {
		out.Speed, out.Practised = clock.Speed, true
		if clock.Waits {
			out.Waits = sheet.WaitsForItsTurn
		}
	}
	return out, nil
}

func (s *server) registerLive(a huma.API) {
	huma.Register(
		a,
		op(http.MethodGet, "/api/cooks/{id}/live", "getCookLive", "Tell how a cook stands at the pit now", patiently),
		func(ctx context.Context, in *LiveAsked) (*body[sheet.LiveSheet], error) {
			out, err := s.live(ctx, in.ID, in.reader(), 0)
			if err != nil {
				return nil, err
			}
			return answer(out.out), nil
		},
	)
	stream := op(
		http.MethodGet,
		"/api/cooks/{id}/live/stream",
		"streamCookLive",
		"Stream how a cook stands at the pit, as server-sent events: each time that anything has changed", endless)
	stream.Middlewares = huma.Middlewares{s.thereIs(a)}
	sse.Register(a, stream,
		map[string]any{"live": sheet.LiveSheet{}, "gone": liveGone{}},
		func(ctx context.Context, in *LiveAsked, send sse.Sender) {
			tick := time.NewTicker(looksEvery)
			defer tick.Stop()
			var sent []byte
			for {
				asked, cancel := context.WithTimeout(ctx, patience)
				out, err := s.live(asked, in.ID, in.reader(), looksEvery*3/4)
				cancel()
				switch {
				case err != nil && ctx.Err() == nil:
					if send.Data(liveGone{said(err)}) != nil {
						return
					}
					sent = nil
				case !bytes.Equal(out.raw, sent):
					if send.Data(out.out) != nil {
						return
					}
					sent = out.raw
				}
				select {
				case <-ctx.Done():
					return
				case <-s.Stopping:
					return
				case <-tick.C:
				}
			}
		})
	huma.Register(
		a,
		op(
			http.MethodGet,
			"/api/live",
			"listLive",
			"List the cooks that are on the fire, with their alarms",
			patiently,
		),
		s.onNow,
	)
	s.registerReadings(a)
	s.registerDevices(a)
	s.registerPractice(a)
	s.registerNow(a)
	s.registerPast(a)
	s.registerReview(a)
	s.registerLogbook(a)
	s.registerBook(a)
	s.registerTable(a)
}

// thereIs answers that a cook is not there before a stream of it begins.
func (s *server) thereIs(a huma.API) func(huma.Context, func(huma.Context)) {
	return func(hc huma.Context, next func(huma.Context)) {
		ctx, cancel := context.WithTimeout(hc.Context(), shortly)
		_, err := s.Store.Told(ctx, hc.Param("id"))
		cancel()
		if errors.Is(err, store.ErrNotFound) {
			_ = huma.WriteErr(a, hc, http.StatusNotFound, said(err))
			return
		}
		next(hc)
	}
}

func (s *server) registerReadings(a huma.API) {
	handed := holding(2<<20, 0)
	byKey := refusing(http.StatusUnauthorized, http.StatusForbidden, http.StatusConflict)
	sent := op(
		http.MethodPost,
		"/api/cooks/{id}/readings",
		"createCookReadings",
		"Hand readings in; the same hand-in twice is once, and another with its id is a conflict",
		patiently, making, handed, byKey)
	huma.Register(a, sent, func(ctx context.Context, in *struct {
		ByID
		Keyed
		Body facts.HandIn
	}) (*body[HandedIn], error) {
		return s.handedBy(ctx, in.ID, in.Keyed, in.Body)
	})
	table := op(
		http.MethodPost,
		"/api/cooks/{id}/readings.csv",
		"createCookReadingsFromTable",
		"Hand readings in as lines of probe, time and temperature, with their unit",
		patiently, making, handed, byKey)
	huma.Register(a, table, func(ctx context.Context, in *struct {
		ByID
		Keyed
		HandIn  string `query:"hand_in" required:"true" maxLength:"36" doc:"A UUID of the sender's; the same hand-in sent twice is one"`
		Device  string `query:"device" maxLength:"60" doc:"What measured"`
		RawBody []byte `contentType:"text/csv"`
	}) (*body[HandedIn], error) {
		read, err := facts.ReadCSV(bytes.NewReader(in.RawBody))
		if err != nil {
			return nil, problemOf(err)
		}
		return s.handedBy(ctx, in.ID, in.Keyed, facts.HandIn{ID: in.HandIn, Device: in.Device, Readings: read})
	})
	huma.Register(
		a,
		op(
			http.MethodGet,
			"/api/cooks/{id}/readings",
			"listCookReadings",
			"List what was read at a cook since yesterday, in the order in which it was handed in", patiently),
		func(ctx context.Context, in *struct {
			ByID
			After uint64 `query:"after" doc:"The last of a page before; none begins at the first"`
		}) (*body[ReadingsPage], error) {
			if _, err := s.Store.Cooks().Get(ctx, in.ID); err != nil {
				return nil, problemOf(err)
			}
			all, err := s.Store.Readings(ctx, in.ID, in.After, readingsAPage)
			if err != nil {
				return nil, problemOf(err)
			}
			out := ReadingsPage{Items: make([]ReadingLine, len(all)), Last: in.After}
			for i, r := range all {
				out.Items[i] = ReadingLine{r.Probe, r.At.Format(time.RFC3339Nano), float64(r.C), r.HandIn}
				out.Last = r.Seq
			}
			return answer(out), nil
		},
	)
}

// readingsAPage is how many readings are listed at once.
const readingsAPage = 2000

// ReadingsPage is a page of readings.
type ReadingsPage struct {
	Items []ReadingLine `json:"items" nullable:"false"`
	Last  uint64        `json:"last"                   doc:"Ask for what comes after this"`
}

// ReadingLine is a reading on record.
type ReadingLine struct {
	Probe  string  `json:"probe"`
	At     string  `json:"at"`
	C      float64 `json:"c"       doc:"°C"`
	HandIn string  `json:"hand_in" doc:"With which it came"`
}

// OnNow is a cook that is on the fire.
type OnNow struct {
	ID      string            `json:"id"`
	Name    string            `json:"name"`
	Alarms  []sheet.LiveAlarm `json:"alarms"  nullable:"false" doc:"What somebody has to be called for"`
	Problem string            `json:"problem"                  doc:"Why it cannot be told how this cook stands, in a sentence; else empty"`
}

// onNow are the cooks that are on the fire, with what somebody has to be called for.
func (s *server) onNow(ctx context.Context, in *struct {
	Measure
	Brief bool `query:"brief" doc:"Without the alarms, which take a forecast"`
}) (*body[[]OnNow], error) {
	ids, err := s.Store.OnNow(ctx, time.Now())
	if err != nil {
		return nil, problemOf(err)
	}
	out := []OnNow{}
	for _, id := range ids {
		r, err := s.Store.Cooks().Get(ctx, id)
		if errors.Is(err, store.ErrNotFound) { // it was deleted meanwhile
			continue
		}
		line := OnNow{ID: id, Name: r.Doc.Name, Alarms: []sheet.LiveAlarm{}}
		if err == nil && !in.Brief {
			var one liveAnswer
			if one, err = s.live(ctx, id, in.reader(), looksEvery); err == nil {
				line.Alarms = one.out.Alarms
			}
		}
		if err != nil {
			line.Problem = said(err)
		}
		out = append(out, line)
	}
	return answer(out), nil
}

// liveGone says that a cook cannot be told of just now.
type liveGone struct {
	Detail string `json:"detail"`
}

// HandedIn is what was taken of a hand-in.
type HandedIn struct {
	ID    string `json:"id"`
	Count int    `json:"count"          doc:"How many readings are on record of it"`
	Note  string `json:"note,omitempty" doc:"Why some of them are not shown yet, in a sentence"`
}

func (s *server) handIn(ctx context.Context, id string, h facts.HandIn) (*body[HandedIn], error) {
	r, err := s.Store.Cooks().Get(ctx, id)
	if err != nil {
		return nil, problemOf(err)
	}
	zone, err := time.LoadLocation(r.Doc.Zone)
	if err != nil {
		zone = time.UTC
	}
	read, err := h.Read(zone)
	if err != nil {
		return nil, problemOf(err)
	}
	if err := s.Store.HandIn(ctx, id, h, read); err != nil {
		return nil, problemOf(err)
	}
	note, err := s.ahead(ctx, r.ID, read)
	return answer(HandedIn{h.ID, len(read), note}), err
}

// ahead says of readings that are dated ahead of the clock of their cook that they are not shown yet.
func (s *server) ahead(ctx context.Context, id string, read []facts.Reading) (string, error) {
	clock, err := s.Store.Clock(ctx, id)
	if err != nil {
		return "", problemOf(err)
	}
	now := clock.Now(s.Now())
	return sheet.WriteAhead(facts.Ahead(read, now), len(read), now), nil
}
