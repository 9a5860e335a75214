package api

import (
	"bytes"
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"maps"
	"net/http"
	"reflect"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	jsonpatch "github.com/evanphx/json-patch/v5"
	lru "github.com/hashicorp/golang-lru/v2"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/forecast"
	"verjuice/internal/sheet"
)

// A page that is being typed on sends what has changed since what it sent before, and
// is answered with what that changes. Both sides name what they build on by its hash:
// a program that does not know it, because it was started since or is another one, says
// so with 409 and is sent the whole page.

// PageAsked is a page, whole or as changes to one that was worked out before.
type PageAsked struct {
	Whole *cooking.CookRequest `json:"whole,omitempty" doc:"The page; absent when it is sent as changes"`
	Base  string               `json:"base,omitempty" required:"false" maxLength:"64" doc:"Which page the patch changes, as it was answered"`
	Patch []PagePatch          `json:"patch,omitempty" required:"false" nullable:"false" maxItems:"1000" doc:"What has changed since then (RFC 6902)"`
}

// PagePatch is one change of a page.
type PagePatch struct {
	Op    string `json:"op" enum:"add,replace,remove"`
	Path  string `json:"path" maxLength:"400" doc:"JSON pointer into the page"`
	Value any    `json:"value,omitempty"`
}

// PageAnswer is a page worked out: whole, or what has changed since its base.
type PageAnswer struct {
	Page    string       `json:"page" doc:"Hash of the page and its figures, to build the next change on"`
	Base    string       `json:"base,omitempty" doc:"What the changes below build on"`
	Whole   *sheet.Sheet `json:"whole,omitempty" doc:"Every figure; absent when only the changes are sent"`
	Changes []PageChange `json:"changes,omitempty" nullable:"false" doc:"Sections that are other than at the base"`
	Again   int          `json:"again" doc:"Seconds after which to ask again, since a piece is on the fire; 0 means that nothing is"`
	Rough   bool         `json:"rough,omitempty" doc:"Times on the fire are from single runs: ask once more, settled, for their forecasts"`
}

// PageChange is a section of the sheet that has changed.
type PageChange struct {
	Path  string `json:"path" doc:"JSON pointer into the sheet"`
	Value any    `json:"value,omitempty" doc:"What is there now; absent when there is nothing any more"`
}

// worked is a page that was worked out.
type worked struct {
	page     []byte // the request, as JSON
	written  sheet.Written
	sections map[string]section
}

// section is a part of a sheet that is sent again when anything in it has changed.
type section struct {
	json []byte
	sum  [sha256.Size]byte
}

// Bounds of what is kept of pages that were worked out: three for each of sixty-four who
// type at once. The largest page is some 1.5 MB with its figures; one of five pieces is a
// tenth of that, and shares with the next what has not changed.
const (
	mostPages   = 192
	largestPage = 1 << 20
)

// pages are the pages that were worked out last. They make answers short, and are never
// needed for one to be right.
type pages struct {
	kept  *lru.Cache[string, worked]
	whole *lru.Cache[[sha256.Size]byte, PageAnswer] // to whole pages, by all that they were worked out from
}

// mostWhole is how many answers to whole pages are kept, for those who open one at one moment.
const mostWhole = 8

func newPages() pages {
	kept, err := lru.New[string, worked](mostPages)
	whole, wrong := lru.New[[sha256.Size]byte, PageAnswer](mostWhole)
	if err != nil || wrong != nil {
		panic("api: a cache of no size")
	}
	return pages{kept, whole}
}

// answered is the answer to a whole page that was worked out from the same, while it can be built on.
func (p pages) answered(from [sha256.Size]byte) (PageAnswer, bool) {
	out, ok := p.whole.Get(from)
	if ok {
		_, ok = p.kept.Get(out.Page)
	}
	return out, ok
}

// divide divides a sheet into its fields, and those of its pieces and its plan. What is as it
// was at the base is taken over from there.
func divide(w sheet.Written, base worked) (map[string]section, error) {
	d := divider{w.Kept, base, map[string]section{}}
	return d.out, d.fields(reflect.ValueOf(w.Sheet), reflect.ValueOf(base.written.Sheet), "")
}

type divider struct {
	kept []bool
	base worked
	out  map[string]section
}

// fields divides v, which was as was at the base.
func (d divider) fields(v, was reflect.Value, at string) error {
	for i := range v.NumField() {
		name, options, _ := strings.Cut(v.Type().Field(i).Tag.Get("json"), ",")
		path, one, old := at+"/"+name, v.Field(i), was.Field(i)
		var err error
		switch now := one.Interface().(type) {
		case []sheet.PieceSheet:
			err = d.pieces(now, old.Interface().([]sheet.PieceSheet), path)
		case *sheet.PlanSheet:
			if now != nil {
				then, _ := old.Interface().(*sheet.PlanSheet)
				err = d.fields(reflect.ValueOf(*now), reflect.ValueOf(*cmp.Or(then, &sheet.PlanSheet{})), path)
			}
		default:
			if !strings.Contains(options, "omitempty") || !one.IsZero() {
				err = d.section(now, old.Interface(), path)
			}
		}
		if err != nil {
			return err
		}
	}
	return nil
}

func (d divider) pieces(now, was []sheet.PieceSheet, at string) error {
	for n := range now {
		path, then := at+"/"+strconv.Itoa(n), sheet.PieceSheet{}
		if n < len(was) {
			then = was[n]
		}
		if d.kept[n] {
			for where, old := range d.base.sections {
				if strings.HasPrefix(where, path+"/") {
					d.out[where] = old
				}
			}
		} else if err := d.fields(reflect.ValueOf(now[n]), reflect.ValueOf(then), path); err != nil {
			return err
		}
	}
	return nil
}

func (d divider) section(now, was any, at string) error {
	if old, ok := d.base.sections[at]; ok && reflect.DeepEqual(now, was) {
		d.out[at] = old
		return nil
	}
	raw, err := json.Marshal(now)
	d.out[at] = section{raw, sha256.Sum256(raw)}
	return err
}

// keep remembers a page, and returns its hash.
func (p pages) keep(w worked) string {
	h, size := sha256.New(), len(w.page)
	h.Write(w.page)
	for _, path := range slices.Sorted(maps.Keys(w.sections)) {
		one := w.sections[path]
		h.Write([]byte(path))
		h.Write(one.sum[:])
		size += len(one.json)
	}
	hash := hex.EncodeToString(h.Sum(nil)[:16])
	if size <= largestPage {
		p.kept.Add(hash, w)
	}
	return hash
}

// changes are the sections of w that are other than those of the base; none when they
// cannot be told so.
func (w worked) changes(base worked) (out []PageChange, ok bool) {
	now, was := w.written.Sheet, base.written.Sheet
	if len(now.Pieces) != len(was.Pieces) || (now.Plan == nil) != (was.Plan == nil) {
		return nil, false
	}
	out = []PageChange{}
	for _, path := range slices.Sorted(maps.Keys(w.sections)) {
		if now := w.sections[path]; now.sum != base.sections[path].sum {
			out = append(out, PageChange{path, json.RawMessage(now.json)})
		}
	}
	for _, path := range slices.Sorted(maps.Keys(base.sections)) {
		if _, there := w.sections[path]; !there {
			out = append(out, PageChange{Path: path})
		}
	}
	return out, true
}

// turns are how many pages are worked out at once: more than there are processors only wait for
// one another, each with its memory.
type turns chan struct{}

// take waits for a turn, and gives what ends it. The error is that of ctx.
func (t turns) take(ctx context.Context) (end func(), err error) {
	select {
	case t <- struct{}{}:
		return func() { <-t }, nil
	case <-ctx.Done():
		return nil, ctx.Err()
	}
}

func (s *server) registerPage(a huma.API) {
	known, letters, forecasts := newPages(), make(turns, runtime.GOMAXPROCS(0)+1), make(turns, runtime.GOMAXPROCS(0))
	huma.Register(
		a,
		op(
			http.MethodPost,
			"/api/page",
			"calcPage",
			"Calculate a cook's page while it is typed: what changed is sent, and what that changes is answered",
			patiently, refusing(http.StatusConflict)),
		func(ctx context.Context, in *struct {
			CookAsked
			Settled bool `query:"settled" doc:"Run the forecasts, too, which takes longer than a keystroke"`
			Body    PageAsked
			RawBody []byte
		}) (*body[PageAnswer], error) {
			waiting := letters
			if in.Settled {
				waiting = forecasts // which take longer than a letter, and hold none up
			}
			end, err := waiting.take(ctx)
			if err != nil {
				return nil, problemOf(err)
			}
			defer end()
			base, have := known.kept.Get(in.Body.Base)
			if in.Body.Whole == nil && !have {
				return nil, newProblem(
					http.StatusConflict,
					"This program does not know the page that the changes are made to. Send the whole page.",
				)
			}
			request, raw, err := in.Body.request(in.RawBody, base)
			if err != nil {
				return nil, err
			}
			inputs, err := s.app.Page(ctx, request, in.Cook)
			if err != nil {
				return nil, problemOf(err)
			}
			now := worked{page: raw}
			from := sha256.Sum256(
				fmt.Appendf(
					nil,
					"%s %s %s %s %v %+v %s",
					inputs.Kitchen.Stand,
					in.Cook,
					inputs.Told,
					inputs.Now.Truncate(time.Minute),
					in.Settled,
					in.reader(),
					raw,
				),
			)
			if in.Body.Whole != nil {
				if reply, ok := known.answered(from); ok {
					return answer(reply), nil
				}
			}
			if !in.Settled {
				inputs.By = forecast.WhileTyping{}
			}
			result, err := inputs.Work(ctx, base.written.Result)
			if err != nil {
				return nil, problemOf(err)
			}
			now.written = sheet.WriteAfter(base.written, result, in.reader())
			if now.sections, err = divide(now.written, base); err != nil {
				return nil, problemOf(err)
			}
			reply := PageAnswer{Rough: result.Rough, Again: again(result)}
			if changes, ok := now.changes(base); have && ok {
				reply.Base, reply.Changes = in.Body.Base, changes
			} else {
				reply.Whole = &now.written.Sheet
			}
			if reply.Page = known.keep(now); reply.Whole != nil && in.Body.Whole != nil {
				known.whole.Add(from, reply)
			}
			return answer(reply), nil
		},
	)
}

// again is after how many seconds a page is asked for again on its own.
func again(r cooking.Result) int {
	for _, p := range r.Pieces {
		if p.Lit && (p.Happened.Off.IsZero() || p.Happened.Stands()) {
			return int(readsOn / time.Second)
		}
	}
	return 0
}

// readsOn is how often a page is renewed while a piece of it is on the fire.
const readsOn = time.Minute

// registerWhere serves where one figure of a page comes from.
func (s *server) registerWhere(a huma.API) {
	huma.Register(a, op(http.MethodPost, "/api/page/where", "calcPageWhere", "Tell where one figure of a cook comes from", patiently, refusing(http.StatusNotFound)),
		func(ctx context.Context, in *struct {
			CookAsked
			At   string `query:"at" maxLength:"400" doc:"JSON pointer to the figure in the sheet"`
			Body cooking.CookRequest
		}) (*body[sheet.Where], error) {
			inputs, err := s.app.Page(ctx, in.Body, in.Cook)
			if err != nil {
				return nil, problemOf(err)
			}
			inputs.By = forecast.WhileTyping{}
			result, err := inputs.Work(ctx, cooking.Result{})
			if err != nil {
				return nil, problemOf(err)
			}
			raw, err := json.Marshal(sheet.Write(result, sheet.Reader{Units: in.Units, Spoons: in.Spoons}))
			if err != nil {
				return nil, problemOf(err)
			}
			for _, part := range strings.Split(strings.TrimPrefix(in.At, "/"), "/") {
				raw = within(raw, part)
			}
			var f sheet.Figure
			if json.Unmarshal(raw, &f) != nil || f.Where == nil {
				return nil, newProblem(http.StatusNotFound, "There is no such figure on this page any more.")
			}
			return answer(*f.Where), nil
		})
}

// within is a part of a JSON value: of an object by its name, of a list by its number.
func within(raw []byte, part string) []byte {
	var object map[string]json.RawMessage
	if json.Unmarshal(raw, &object) == nil {
		return object[part]
	}
	var list []json.RawMessage
	if n, err := strconv.Atoi(part); err == nil && json.Unmarshal(raw, &list) == nil && n >= 0 && n < len(list) {
		return list[n]
	}
	return nil
}

// request is the page that is asked for, and its JSON.
func (p PageAsked) request(sent []byte, base worked) (cooking.CookRequest, []byte, error) {
	var out cooking.CookRequest
	if p.Whole != nil {
		// As it was sent, since that is what later changes are made to.
		var as struct {
			Whole json.RawMessage `json:"whole"`
		}
		err := json.Unmarshal(sent, &as)
		return *p.Whole, as.Whole, problemOf(err)
	}
	patch, err := json.Marshal(p.Patch)
	if err != nil {
		return out, nil, problemOf(err)
	}
	changes, err := jsonpatch.DecodePatch(patch)
	if err != nil {
		return out, nil, newProblem(http.StatusUnprocessableEntity, "The changes are not a JSON patch.")
	}
	raw, err := changes.Apply(base.page)
	if err != nil {
		return out, nil, newProblem(
			http.StatusUnprocessableEntity,
			"The changes do not fit the page that they are made to. Send the whole page.",
		)
	}
	if len(raw) > maxBody {
		return out, nil, newProblem(http.StatusRequestEntityTooLarge, "The page is too long.")
	}
	in := json.NewDecoder(bytes.NewReader(raw))
	in.DisallowUnknownFields()
	if err := in.Decode(&out); err != nil {
		return out, nil, newProblem(http.StatusUnprocessableEntity, "The changes do not make a page. Send the whole page.")
	}
	return out, raw, nil
}
