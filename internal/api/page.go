package api

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"maps"
	"net/http"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	jsonpatch "github.com/evanphx/json-patch/v5"
	lru "github.com/hashicorp/golang-lru/v2"

	"verjuice/internal/core/forecast"
	"verjuice/internal/sheet"
)

// A page that is being typed on sends what has changed since what it sent before, and
// is answered with what that changes. Both sides name what they build on by its hash:
// a program that does not know it, because it was started since or is another one, says
// so with 409 and is sent the whole page.

// PageAsked is a page, whole or as changes to one that was worked out before.
type PageAsked struct {
	Whole *sheet.CookRequest `json:"whole,omitempty" doc:"The page; absent when it is sent as changes"`
	Base  string             `json:"base,omitempty" required:"false" maxLength:"64" doc:"Which page the patch changes, as it was answered"`
	Patch []PagePatch        `json:"patch,omitempty" required:"false" nullable:"false" maxItems:"1000" doc:"What has changed since then (RFC 6902)"`
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

// Bounds of what is kept of pages that were worked out: two for each of sixty-four who
// type at once. The largest page is some 1.5 MB with its figures; one of five pieces is a
// tenth of that, and shares with the next what has not changed.
const (
	mostPages   = 128
	largestPage = 1 << 20
)

// pages are the pages that were worked out last. They make answers short, and are never
// needed for one to be right.
type pages struct{ kept *lru.Cache[string, worked] }

func newPages() pages {
	kept, err := lru.New[string, worked](mostPages)
	if err != nil {
		panic(err) // only for a size below one
	}
	return pages{kept}
}

// divide divides a sheet into its fields, and those of its pieces and its plan. What was taken over
// from the base is so here, too.
func divide(w sheet.Written, base worked) (map[string]section, error) {
	out := map[string]section{}
	var fields func(v reflect.Value, at string) error
	fields = func(v reflect.Value, at string) error {
		for i := range v.NumField() {
			name, options, _ := strings.Cut(v.Type().Field(i).Tag.Get("json"), ",")
			path, one := at+"/"+name, v.Field(i)
			if list, ok := one.Interface().([]sheet.PieceSheet); ok {
				for n := range list {
					piece := path + "/" + strconv.Itoa(n)
					if w.Kept[n] {
						for where, was := range base.sections {
							if strings.HasPrefix(where, piece+"/") {
								out[where] = was
							}
						}
					} else if err := fields(reflect.ValueOf(list[n]), piece); err != nil {
						return err
					}
				}
				continue
			}
			if strings.Contains(options, "omitempty") && one.IsZero() {
				continue
			}
			if plan, ok := one.Interface().(*sheet.PlanSheet); ok {
				if err := fields(reflect.ValueOf(*plan), path); err != nil {
					return err
				}
				continue
			}
			raw, err := json.Marshal(one.Interface())
			if err != nil {
				return err
			}
			if was, ok := base.sections[path]; ok && bytes.Equal(was.json, raw) {
				out[path] = was
			} else {
				out[path] = section{raw, sha256.Sum256(raw)}
			}
		}
		return nil
	}
	return out, fields(reflect.ValueOf(w.Sheet), "")
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

func (s *server) registerPage(a huma.API) {
	known := newPages()
	huma.Register(a, op(http.MethodPost, "/api/page", "page", "Calculate a cook's page while it is typed: what changed is sent, and what that changes is answered"),
		func(ctx context.Context, in *struct {
			CookAsked
			Settled bool `query:"settled" doc:"Run the forecasts, too, which takes longer than a keystroke"`
			Body    PageAsked
			RawBody []byte
		}) (*body[PageAnswer], error) {
			base, have := known.kept.Get(in.Body.Base)
			if in.Body.Whole == nil && !have {
				return nil, newProblem(http.StatusConflict, "This program does not know the page that the changes are made to. Send the whole page.")
			}
			request, raw, err := in.Body.request(in.RawBody, base)
			if err != nil {
				return nil, err
			}
			k, err := s.kitchen(ctx, request.Formulas()...)
			if err != nil {
				return nil, err
			}
			now, at := worked{page: raw}, s.clock(in.ServedAt)
			if !in.Settled {
				at.Forecast = forecast.Typing{}
			}
			if now.written, err = sheet.OfCookAfter(ctx, base.written, request, k, at, in.reader()); err != nil {
				return nil, problemOf(err)
			}
			if now.sections, err = divide(now.written, base); err != nil {
				return nil, problemOf(err)
			}
			reply := PageAnswer{Rough: now.written.Result.Rough}
			if changes, ok := now.changes(base); have && ok {
				reply.Base, reply.Changes = in.Body.Base, changes
			} else {
				reply.Whole = &now.written.Sheet
			}
			reply.Page = known.keep(now)
			return answer(reply), nil
		})
}

// registerWhere serves where one figure of a page comes from.
func (s *server) registerWhere(a huma.API) {
	huma.Register(a, op(http.MethodPost, "/api/page/where", "where", "Tell where one figure of a cook comes from"),
		func(ctx context.Context, in *struct {
			Measure
			ServedAt string `query:"served_at" doc:"The saved serving time, which may have passed"`
			At       string `query:"at" maxLength:"400" doc:"JSON pointer to the figure in the sheet"`
			Body     sheet.CookRequest
		}) (*body[sheet.Where], error) {
			k, err := s.kitchen(ctx, in.Body.Formulas()...)
			if err != nil {
				return nil, err
			}
			at := s.clock(in.ServedAt)
			at.Forecast = forecast.Typing{}
			out, err := sheet.OfCook(ctx, in.Body, k, at, in.reader())
			if err != nil {
				return nil, problemOf(err)
			}
			raw, err := json.Marshal(out)
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
func (p PageAsked) request(sent []byte, base worked) (sheet.CookRequest, []byte, error) {
	var out sheet.CookRequest
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
		return out, nil, newProblem(http.StatusUnprocessableEntity, "The changes do not fit the page that they are made to. Send the whole page.")
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
