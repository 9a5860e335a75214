package api

import (
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"net/http"
	"reflect"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/exchange"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

// TableSent is a file of temperatures from elsewhere, and how it is to be read.
type TableSent struct {
	Text string   `json:"text" maxLength:"33554432" doc:"The file"`
	As   *TableAs `json:"as,omitempty" required:"false" doc:"How it is to be read; absent only tells what seems to be in it"`
}

// TableAs says how a file is to be read.
type TableAs struct {
	Time       int          `json:"time" minimum:"0" maximum:"40" doc:"Column of times, from 0"`
	Probes     []TableProbe `json:"probes" nullable:"false" maxItems:"40"`
	Fahrenheit bool         `json:"fahrenheit"`
	MonthFirst bool         `json:"month_first"`
	Zone       string       `json:"zone" maxLength:"60" doc:"IANA time zone of its times; empty is the cook's"`
	Start      string       `json:"start,omitempty" required:"false" maxLength:"40" doc:"When the first of it was, local time: of times that count from the beginning, or by a clock that was wrong"`
}

// TableProbe is a column of temperatures, and where they were read.
type TableProbe struct {
	Column int    `json:"column" minimum:"0" maximum:"40"`
	Probe  string `json:"probe" maxLength:"100" doc:"pit:0, core:KEY or core:KEY:place"`
}

// TableSeen is what is in a file, and how it is understood.
type TableSeen struct {
	exchange.Table
	Preview *TablePreview `json:"preview,omitempty" doc:"How it is read; absent while that was not said"`
}

// TablePreview is how a file is read.
type TablePreview struct {
	Count   int      `json:"count" doc:"Readings"`
	From    string   `json:"from"`
	To      string   `json:"to"`
	Gaps    []string `json:"gaps" nullable:"false" doc:"When nothing was read for over ten minutes"`
	Skipped int      `json:"skipped" doc:"Cells that are empty or no temperature"`
	First   []string `json:"first" nullable:"false" doc:"The first readings, as they are understood"`

	Notes []TableNote `json:"notes" nullable:"false" doc:"What looks wrong in it"`
	Spans []TableSpan `json:"spans" nullable:"false" doc:"From when to when each probe is read: what a fact names that takes them back"`
}

// TableNote is something that looks wrong in a file, and how it may be meant.
type TableNote struct {
	Text  string   `json:"text" doc:"In a sentence"`
	Offer string   `json:"offer" doc:"What else it may be, for a button; may be empty"`
	As    *TableAs `json:"as,omitempty" doc:"How the file is read then"`
}

// TableSpan is what a file holds of one probe.
type TableSpan struct {
	Probe string `json:"probe"`
	From  string `json:"from" doc:"RFC 3339"`
	To    string `json:"to" doc:"RFC 3339"`
}

func (s *server) registerTable(a huma.API) {
	file := holding(2*exchange.MostTable, time.Minute)
	look := op(
		http.MethodPost,
		"/api/cooks/{id}/table/read",
		"previewCookTable",
		"Tell what is in a file of temperatures from elsewhere, and how it is understood; nothing is saved",
		patiently, file)
	look.SkipValidateBody = true
	huma.Register(a, look, func(ctx context.Context, in *struct {
		LiveAsked
		RawBody []byte `contentType:"application/json"`
	}) (*body[TableSeen], error) {
		table, err := tableSent(in.RawBody)
		if err != nil {
			return nil, problemOf(err)
		}
		out, _, err := s.table(ctx, in.ID, table, in.reader())
		if err != nil {
			return nil, err
		}
		return answer(out), nil
	})
	take := op(
		http.MethodPost,
		"/api/cooks/{id}/table",
		"importCookTable",
		"Take the readings of a file from elsewhere, all or none; the same file read the same way twice is once",
		patiently, making, file, refusing(http.StatusConflict))
	take.SkipValidateBody = true
	huma.Register(a, take, func(ctx context.Context, in *struct {
		LiveAsked
		RawBody []byte `contentType:"application/json"`
	}) (*body[HandedIn], error) {
		table, err := tableSent(in.RawBody)
		if err != nil {
			return nil, problemOf(err)
		}
		in.RawBody = nil // it is large, and no longer needed
		if table.As == nil {
			var wrong field.Errors
			wrong.Add("/as", "table.as")
			return nil, problemOf(wrong)
		}
		seen, read, err := s.table(ctx, in.ID, table, in.reader())
		if err != nil {
			return nil, err
		}
		how, err := json.Marshal(table.As)
		if err != nil {
			return nil, err
		}
		is := sha256.New()
		_, _ = io.WriteString(is, in.ID+string(how)+table.Text)
		sum := is.Sum(nil)
		err = s.Store.Together(ctx, func(db *store.Store) error {
			n := 0
			for part := range slices.Chunk(read, facts.MostRead) {
				id := uuid.NewSHA1(uuid.Nil, fmt.Appendf(nil, "%x %d", sum, n))
				if err := db.HandIn(ctx, in.ID, facts.HandIn{ID: id.String(), Device: fileDevice}, part); err != nil {
					return err
				}
				n++
			}
			return s.countAgain(ctx, db, in.ID, seen.Preview.Spans)
		})
		if err != nil {
			return nil, problemOf(err)
		}
		note, err := s.ahead(ctx, in.ID, read)
		return answer(HandedIn{fmt.Sprintf("%x", sum[:8]), len(read), note}), err
	})
	as := a.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[TableSent](), true, "TableSent")
	for _, path := range []string{look.Path, take.Path} { // what is read as it came is described here
		a.OpenAPI().Paths[path].Post.RequestBody.Content["application/json"].Schema = as
	}
}

// fileDevice is where what is said of the readings of a file is said.
const fileDevice = "file"

// countAgain lets readings of a file count that was taken back and is taken once more.
func (s *server) countAgain(ctx context.Context, db *store.Store, id string, spans []TableSpan) error {
	happened, err := db.Facts(ctx, id)
	if err != nil {
		return err
	}
	for _, f := range happened.Standing() {
		from, _, ok := f.Span()
		if f.Kind != facts.Uncounted || f.Device != fileDevice || !ok || !slices.ContainsFunc(spans, func(s TableSpan) bool {
			return s.Probe == f.What && s.From == from.UTC().Format(time.RFC3339Nano)
		}) {
			continue
		}
		back := facts.Fact{
			ID: uuid.NewString(), Kind: facts.Withdrawn, What: f.ID, At: s.Now().UTC().Format(time.RFC3339), Device: fileDevice,
		}
		if err := db.AddFact(ctx, id, back); err != nil {
			return err
		}
	}
	return nil
}

// tableSent reads a request as it came: a file is too large to be taken apart twice. The error is a
// field.Errors, or a problem.
func tableSent(raw []byte) (TableSent, error) {
	var out TableSent
	var wrong field.Errors
	if err := unmarshal(raw, &out); err != nil {
		var why unreadable
		errors.As(err, &why)
		return out, newProblem(
			http.StatusUnprocessableEntity,
			"This file was not sent as it has to be.",
			&huma.ErrorDetail{Location: why.pointer, Message: why.detail},
		)
	}
	if out.As == nil {
		return out, nil
	}
	wrong.Text("/as/zone", out.As.Zone, 60)
	wrong.Text("/as/start", out.As.Start, 40)
	if len(out.As.Probes) > mostColumns {
		wrong.Add("/as/probes", "list.too-long", "most", mostColumns)
	}
	columns := []int{out.As.Time}
	for _, p := range out.As.Probes {
		columns = append(columns, p.Column)
	}
	for _, c := range columns {
		if c < 0 || c > mostColumns {
			wrong.Add("/as/time", "number.range", "low", 0, "high", mostColumns)
			break
		}
	}
	return out, wrong.Err()
}

// mostColumns is how many columns a file of temperatures has.
const mostColumns = 40

// table reads a file of temperatures for a cook.
func (s *server) table(
	ctx context.Context,
	cook string,
	sent TableSent,
	as sheet.Reader,
) (TableSeen, []facts.Reading, error) {
	r, err := s.Store.Cooks().Get(ctx, cook)
	if err != nil {
		return TableSeen{}, nil, problemOf(err)
	}
	refused := func(err error) error {
		var bad exchange.Error
		if errors.As(err, &bad) {
			place := field.Capital(cmp.Or(bad.Place, "the file"))
			return newProblem(http.StatusUnprocessableEntity, "Nothing was taken. "+place+": "+bad.Detail+".")
		}
		return problemOf(err)
	}
	t, err := exchange.ReadTable(ctx, sent.Text)
	if err != nil {
		return TableSeen{}, nil, refused(err)
	}
	out := TableSeen{Table: t}
	if sent.As == nil {
		return out, nil, nil
	}
	how, err := sent.As.read(r.Doc.Zone)
	if err != nil {
		return out, nil, problemOf(err)
	}
	read, gaps, skipped, err := t.Readings(ctx, how)
	if err != nil {
		return out, nil, refused(err)
	}
	if len(read) == 0 {
		return out, nil, newProblem(
			http.StatusUnprocessableEntity,
			"Nothing was taken: no column of temperatures was chosen, or there is none in it.",
		)
	}
	if c := t.Columns; how.Time < len(c) && c[how.Time].Holds == "time" && !how.Start.IsZero() { // its clock was wrong
		late := how.Start.Sub(read[0].At)
		for i := range read {
			read[i].At = read[i].At.Add(late)
		}
	}
	clock := func(t time.Time) string { return t.In(how.Zone).Format("Mon 2 Jan 2006 15:04") }
	out.Preview = &TablePreview{
		Count:   len(read),
		From:    clock(read[0].At),
		To:      clock(read[len(read)-1].At),
		Gaps:    []string{},
		Skipped: skipped,
		First:   []string{},
		Notes:   []TableNote{},
	}
	happened, err := s.Store.Facts(ctx, r.ID)
	if err != nil {
		return out, nil, problemOf(err)
	}
	out.Preview.look(read, *sent.As, facts.DoubtsOf(read, happened, how.Zone, s.Now()), as, how.Zone)
	for _, g := range gaps[:min(10, len(gaps))] {
		out.Preview.Gaps = append(out.Preview.Gaps, clock(g.From)+" to "+g.To.In(how.Zone).Format("15:04"))
	}
	for _, one := range read[:min(4, len(read))] {
		out.Preview.First = append(
			out.Preview.First,
			one.At.In(how.Zone).Format("15:04")+" "+strings.SplitN(one.Probe, ":", 2)[0]+" "+sheet.Warm(float64(one.C), as),
		)
	}
	return out, read, nil
}

// look says what looks wrong in readings of a file, and from when to when each probe is read.
func (p *TablePreview) look(
	read []facts.Reading, how TableAs, doubts []facts.Doubt, as sheet.Reader, zone *time.Location,
) {
	course := facts.Course{}
	course.Add(read...)
	for _, probe := range slices.Sorted(maps.Keys(course)) {
		minutes := course[probe]
		p.Spans = append(p.Spans, TableSpan{probe, minutes[0].FirstAt.UTC().Format(time.RFC3339Nano),
			minutes[len(minutes)-1].LastAt.UTC().Format(time.RFC3339Nano)})
	}
	for _, d := range doubts {
		note := TableNote{Text: sheet.WriteDoubt(d, len(read), zone, as)}
		other := how
		switch {
		case d.Fahrenheit && !how.Fahrenheit:
			other.Fahrenheit = true
		case !d.Lit.IsZero():
			other.Start = d.Lit.Format("2006-01-02T15:04")
		}
		if other.Fahrenheit != how.Fahrenheit || other.Start != how.Start {
			note.Offer, note.As = sheet.WriteDoubtOffer(d), &other
		}
		p.Notes = append(p.Notes, note)
	}
}

// read is a as the table takes it. The error is a field.Errors.
func (a TableAs) read(cookZone string) (exchange.As, error) {
	out := exchange.As{Time: a.Time, Fahrenheit: a.Fahrenheit, MonthFirst: a.MonthFirst, Probes: map[int]string{}}
	var wrong field.Errors
	name := a.Zone
	if name == "" {
		name = cookZone
	}
	var err error
	if out.Zone, err = time.LoadLocation(name); err != nil {
		wrong.Add("/as/zone", "zone.unknown")
		return out, wrong
	}
	for i, p := range a.Probes {
		_, err := facts.ParseProbe(p.Probe)
		wrong.Take(fmt.Sprintf("/as/probes/%d/probe", i), err)
		for _, before := range a.Probes[:i] {
			if before.Probe == p.Probe || before.Column == p.Column {
				wrong.Add(fmt.Sprintf("/as/probes/%d/probe", i), "table.same-probe")
				break
			}
		}
		out.Probes[p.Column] = p.Probe
	}
	if a.Start != "" {
		if out.Start, err = (facts.Fact{At: a.Start}).Time(out.Zone); err != nil {
			wrong.Add("/as/start", "time.form", "typed", a.Start)
		}
	}
	return out, wrong.Err()
}
