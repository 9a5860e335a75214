package api

import (
	"context"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/logbook"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

// LogAsked is what is looked for in the logbook.
type LogAsked struct {
	Paged
	Per     int     `query:"per" minimum:"1" maximum:"100" default:"20"`
	Cut     string  `query:"cut" maxLength:"100" doc:"By id"`
	Finish  string  `query:"finish" maxLength:"40"`
	Pit     string  `query:"pit" maxLength:"200" doc:"By name"`
	Wrap    string  `query:"wrap" maxLength:"40"`
	Formula string  `query:"formula" maxLength:"200" doc:"By name"`
	Weather string  `query:"weather" maxLength:"20"`
	Score   float64 `query:"score" minimum:"0" maximum:"5" doc:"At least"`
}

// LogPage is a page of the logbook.
type LogPage struct {
	ListPage[sheet.LogLine]
	Choices store.LogChoices `json:"choices" doc:"What there is to look for"`
}

// mostTrend is how many cooks trends are told of, the latest.
const mostTrend = 500

func (s *server) registerLogbook(a huma.API) {
	huma.Register(a, op(http.MethodGet, "/api/logbook", "listLogbook", "List cooks that went on the fire, the latest first", patiently),
		func(ctx context.Context, in *LogAsked) (*body[LogPage], error) {
			q := store.Sought{
				Search:  in.Search,
				Cut:     in.Cut,
				Finish:  in.Finish,
				Pit:     in.Pit,
				Wrap:    in.Wrap,
				Formula: in.Formula,
				Weather: in.Weather,
				Score:   in.Score,
				Limit:   in.Per,
				Offset:  (in.Page - 1) * in.Per,
			}
			all, total, err := s.Store.Logbook(ctx, q)
			if err != nil {
				return nil, problemOf(err)
			}
			choices, err := s.Store.LogChoices(ctx)
			if err != nil {
				return nil, problemOf(err)
			}
			out := LogPage{ListPage[sheet.LogLine]{Items: []sheet.LogLine{}, Total: total, Page: in.Page}, choices}
			for _, one := range all {
				out.Items = append(out.Items, sheet.WriteLogLine(one.Cook, one.Outcome))
			}
			return answer(out), nil
		})
	huma.Register(
		a,
		op(
			http.MethodGet,
			"/api/logbook/compare",
			"compareLogbook",
			"Lay the curves of some cooks over one another, and compare them point by point", patiently, refusing(http.StatusNotFound)),
		s.compareCooks,
	)
	huma.Register(a, op(http.MethodGet, "/api/logbook/trends", "getLogbookTrends", "Tell what the cooks of each cut show together", patiently),
		func(ctx context.Context, in *struct{ Measure }) (*body[sheet.Trends], error) {
			all, _, err := s.Store.Logbook(ctx, store.Sought{Limit: mostTrend})
			if err != nil {
				return nil, problemOf(err)
			}
			var cooks []logbook.Outcome
			for _, one := range all {
				cooks = append(cooks, one.Outcome)
			}
			return answer(sheet.WriteTrends(cooks, in.reader())), nil
		})
	s.registerLessons(a)
}

func (s *server) compareCooks(ctx context.Context, in *struct {
	Measure
	Cooks string `query:"cooks" maxLength:"200" doc:"Ids, with commas between them; at most five"`
}) (*body[sheet.LogCompared], error) {
	ids := slices.DeleteFunc(strings.Split(in.Cooks, ","), func(id string) bool { return id == "" })
	all, err := s.app.Compare(ctx, ids)
	if err != nil {
		return nil, problemOf(err)
	}
	return answer(sheet.WriteCompared(all, in.reader())), nil
}

func (s *server) registerLessons(a huma.API) {
	huma.Register(a, op(http.MethodGet, "/api/lessons", "getLessons", "Tell what was learnt from the logbook", patiently),
		func(ctx context.Context, in *struct{ Measure }) (*body[sheet.LessonsSheet], error) {
			l, err := s.Store.Lessons(ctx)
			if err != nil {
				return nil, problemOf(err)
			}
			return s.writeLessons(ctx, l, in.reader())
		})
	huma.Register(
		a,
		op(http.MethodPost, "/api/lessons/without", "leaveOutOfLessons", "Leave a cook out of what is learnt, or take it in again",
			patiently, refusing(http.StatusNotFound)),
		func(ctx context.Context, in *struct {
			Measure
			Body struct {
				Cook string `json:"cook" maxLength:"36"`
				Out  bool   `json:"out"`
			}
		}) (*body[sheet.LessonsSheet], error) {
			r, err := s.Store.Cooks().Get(ctx, in.Body.Cook)
			if err != nil {
				return nil, problemOf(err)
			}
			l, err := s.Store.Learn(ctx, func(l *store.Lessons) {
				l.Without = slices.DeleteFunc(l.Without, func(id string) bool { return id == r.ID })
				if in.Body.Out {
					l.Without = append(l.Without, r.ID)
				}
			})
			if err != nil {
				return nil, problemOf(err)
			}
			return s.writeLessons(ctx, l, in.reader())
		},
	)
	huma.Register(
		a,
		op(
			http.MethodPost,
			"/api/lessons/reset",
			"resetLessons",
			"Forget what was learnt: only cooks from today on teach; or take all in again", patiently),
		func(ctx context.Context, in *struct {
			Measure
			Body struct {
				All bool `json:"all" doc:"Learn from the whole logbook again"`
			}
		}) (*body[sheet.LessonsSheet], error) {
			l, err := s.Store.Learn(ctx, func(l *store.Lessons) {
				l.Since, l.Without = s.today(), []string{}
				if in.Body.All {
					l.Since = ""
				}
			})
			if err != nil {
				return nil, problemOf(err)
			}
			return s.writeLessons(ctx, l, in.reader())
		},
	)
}

// writeLessons says what was learnt.
func (s *server) writeLessons(
	ctx context.Context,
	l store.Lessons,
	as sheet.Reader,
) (*body[sheet.LessonsSheet], error) {
	out := sheet.LessonsSheet{Lines: sheet.WriteLessons(l.Book, as), Without: []sheet.LessonCook{}, Since: l.Since}
	for _, id := range l.Without {
		if r, err := s.Store.Cooks().Get(ctx, id); err == nil {
			out.Without = append(out.Without, sheet.LessonCook{ID: id, Name: r.Doc.Name})
		}
	}
	return answer(out), nil
}
