// Package book carries all that is on record away as one file, and takes it in again: a zip of JSON
// lines, CSV and photographs that anything can read (docs/formats.md).
//
//	err := book.Write(ctx, db, file, nil)
//	taken, err := book.Read(ctx, db, file, size, nil)
//
// What is written is canonical: the same book gives the same bytes. Both go line by line, in no more
// memory for a large book than for a small one.
package book

import (
	"archive/zip"
	"bufio"
	"context"
	"crypto/sha256"
	"encoding/csv"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"hash"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"verjuice/internal/core/facts"
	"verjuice/internal/exchange"
	"verjuice/internal/store"
)

// Version is that of the format. Books of the first have no list of their files, and leave out
// those without a line.
const Version = 2

// The files of a book, in the order in which they are written and read.
const (
	about    = "book.json"
	listed   = "files.json"
	records  = "records.jsonl"
	versions = "versions.jsonl"
	happened = "facts.jsonl"
	handIns  = "hand-ins.jsonl"
	readings = "readings.csv"
	minutes  = "minutes.csv"
	clocks   = "clocks.jsonl"
	outcomes = "outcomes.jsonl"
	photos   = "photos.jsonl"
	pictures = "photos/%06d.jpg"
)

// Bounds of what is taken in: a line, a picture, and all lines together.
const (
	mostLine    = 8 << 20
	mostPicture = 16 << 20
	mostLines   = 100_000_000
)

// heads are the columns of the CSV files.
var heads = map[string][]string{
	readings: {"cook", "hand_in", "probe", "at", "celsius"},
	minutes:  {"cook", "probe", "at", "first_at", "last_at", "first", "last", "low", "high", "count"},
}

// Point is how far a book has come.
type Point struct {
	Lines int64   // that were written or read
	Share float64 // of all that there is to read, from 0 to 1; zero while one is written
}

// Progress is told now and then how far it has come.
type Progress func(Point)

// writer writes one file of the zip after another.
type writer struct {
	zip   *zip.Writer
	name  string
	file  io.Writer
	table *csv.Writer
	sum   hash.Hash
	size  int64
	files []Listed
	lines int64
	photo int
}

// Write writes all that is on record. Keys of devices are left out.
func Write(ctx context.Context, db *store.Store, to io.Writer, progress Progress) error {
	w := &writer{zip: zip.NewWriter(to)}
	if err := w.open(about); err != nil {
		return err
	}
	if err := w.json(map[string]any{"format": "verjuice book", "version": Version}); err != nil {
		return err
	}
	var held []store.CarriedPhoto // without their pictures, which are files of their own
	err := db.Carry(ctx, func(line any) error {
		if w.lines++; progress != nil && w.lines%1000 == 0 {
			progress(Point{Lines: w.lines})
		}
		if p, ok := line.(store.CarriedPhoto); ok {
			w.photo++
			if err := w.open(fmt.Sprintf(pictures, w.photo)); err != nil {
				return err
			}
			_, err := w.file.Write(p.Data)
			p.Data = nil
			held = append(held, p)
			return err
		}
		return w.line(line)
	})
	if err != nil {
		return err
	}
	for _, p := range held {
		if err := w.in(photos); err != nil {
			return err
		}
		if err := w.json(p); err != nil {
			return err
		}
	}
	if err := w.inOrder(""); err != nil {
		return err
	}
	files := append(w.files, Listed{w.name, hex.EncodeToString(w.sum.Sum(nil)), w.size})
	if err := w.begin(listed); err != nil {
		return err
	}
	if err := w.json(map[string]any{"files": files}); err != nil {
		return err
	}
	if progress != nil {
		progress(Point{Lines: w.lines})
	}
	return w.zip.Close()
}

// inOrder begins and ends the files of lines that come before another and have none of their own, so
// that each is there; all that are left for no name.
func (w *writer) inOrder(before string) error {
	for _, name := range needed[1:] {
		if name == before {
			return nil
		}
		if !slices.ContainsFunc(w.files, func(l Listed) bool { return l.Name == name }) && w.name != name {
			if err := w.begin(name); err != nil {
				return err
			}
		}
	}
	return nil
}

// open begins a file, and before it those that have no line.
func (w *writer) open(name string) error {
	if slices.Contains(needed, name) && name != about {
		if err := w.inOrder(name); err != nil {
			return err
		}
	}
	return w.begin(name)
}

func (w *writer) begin(name string) error {
	if err := w.shut(); err != nil {
		return err
	}
	if w.name != "" {
		w.files = append(w.files, Listed{w.name, hex.EncodeToString(w.sum.Sum(nil)), w.size})
	}
	file, err := w.zip.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Deflate})
	w.name, w.sum, w.size = name, sha256.New(), 0
	w.file = io.MultiWriter(file, w.sum, (*counted)(&w.size))
	if head, ok := heads[name]; ok && err == nil {
		w.table = csv.NewWriter(w.file)
		return w.table.Write(head)
	}
	return err
}

// counted counts what is written.
type counted int64

func (c *counted) Write(p []byte) (int, error) {
	*c += counted(len(p))
	return len(p), nil
}

// in goes on with a file, or begins it.
func (w *writer) in(name string) error {
	if w.name == name {
		return nil
	}
	return w.open(name)
}

func (w *writer) shut() error {
	if w.table != nil {
		w.table.Flush()
		if err := w.table.Error(); err != nil {
			return err
		}
		w.table = nil
	}
	return nil
}

func (w *writer) json(v any) error {
	raw, err := json.Marshal(v)
	if err == nil {
		_, err = w.file.Write(append(raw, '\n'))
	}
	return err
}

func (w *writer) line(line any) error {
	number := func(v float64) string { return strconv.FormatFloat(v, 'g', -1, 64) }
	switch l := line.(type) {
	case store.CarriedReading:
		if err := w.in(readings); err != nil {
			return err
		}
		return w.table.Write([]string{l.Cook, l.HandIn, l.Probe, moment(l.AtMs), number(l.C)})
	case store.CarriedMinute:
		if err := w.in(minutes); err != nil {
			return err
		}
		return w.table.Write([]string{l.Cook, l.Probe, moment(l.AtMs), moment(l.FirstMs), moment(l.LastMs), number(l.First),
			number(l.Last), number(l.Low), number(l.High), strconv.Itoa(l.Count)})
	}
	name := map[string]string{
		"store.CarriedRecord": records, "store.CarriedVersion": versions, "store.CarriedFact": happened,
		"store.CarriedHandIn": handIns,
		"store.CarriedClock":  clocks, "store.CarriedOutcome": outcomes,
	}[fmt.Sprintf("%T", line)]
	if err := w.in(name); err != nil {
		return err
	}
	return w.json(line)
}

func moment(ms int64) string { return time.UnixMilli(ms).UTC().Format(time.RFC3339Nano) }

// TakeIn takes the book in, all or none of it. What is here already stays as it is.
func (b *Book) TakeIn(ctx context.Context, db *store.Store, progress Progress) (store.Taken, error) {
	return b.put(ctx, db, db.TakeIn, progress)
}

// Replace puts the book in the place of all that is on record, but for the devices' keys: all of it or
// nothing.
func (b *Book) Replace(ctx context.Context, db *store.Store, progress Progress) (store.Taken, error) {
	return b.put(ctx, db, db.Replace, progress)
}

func (b *Book) put(
	ctx context.Context,
	db *store.Store,
	into func(context.Context, func(func(any) error) error) (store.Taken, error),
	progress Progress,
) (store.Taken, error) {
	taken, err := into(ctx, func(take func(any) error) error {
		r := reader{book: b, take: take, progress: progress, ctx: ctx}
		return r.all()
	})
	if err != nil {
		return store.Taken{}, err
	}
	return taken, nil
}

type reader struct {
	book     *Book
	take     func(any) error
	progress Progress
	ctx      context.Context
	lines    int64
	read     int64 // bytes
}

func (r *reader) all() error {
	for _, step := range []func() error{
		func() error { return lines[store.CarriedRecord](r, records, nil) },
		func() error { return lines[store.Checked](r, records, nil) }, // now that all are there
		func() error { return lines[store.CarriedVersion](r, versions, nil) },
		func() error { return lines[store.CarriedFact](r, happened, nil) },
		func() error { return lines[store.CarriedHandIn](r, handIns, nil) },
		func() error { return r.rows(readings, reading) },
		func() error { return r.rows(minutes, minute) },
		func() error { return lines[store.CarriedClock](r, clocks, nil) },
		func() error { return lines[store.CarriedOutcome](r, outcomes, nil) },
		func() error { return lines(r, photos, r.picture) },
	} {
		if err := step(); err != nil {
			return err
		}
	}
	if r.progress != nil {
		r.progress(r.point())
	}
	return nil
}

func (r *reader) point() Point {
	return Point{r.lines, min(1, float64(r.read)/float64(max(1, r.book.bytes)))}
}

// open opens a file of the book, and counts what is read of it; nothing for one that is not there.
func (r *reader) open(name string) (io.ReadCloser, error) {
	f, err := r.book.open(name)
	if f == nil {
		return nil, err
	}
	return counting{f, &r.read}, nil
}

// counting counts what is read.
type counting struct {
	io.ReadCloser
	n *int64
}

func (c counting) Read(p []byte) (int, error) {
	n, err := c.ReadCloser.Read(p)
	*c.n += int64(n)
	return n, err
}

// next counts a line, and ends when nobody waits any more or there are too many.
func (r *reader) next() error {
	if r.lines++; r.lines > mostLines {
		return fmt.Errorf("%w: it has more than %d lines", ErrFormat, mostLines)
	}
	if r.progress != nil && r.lines%1000 == 0 {
		r.progress(r.point())
	}
	return r.ctx.Err()
}

// at is an error with the line that it is of.
func at(file string, n int, err error) error {
	var before *store.Misplaced
	if errors.As(err, &before) {
		n -= before.Back
	}
	return fmt.Errorf("%s, line %d: %w", file, n, err)
}

// lines takes the lines of a file; more is asked for each, with its number. A file that is not there
// has none.
func lines[T any](r *reader, name string, more func(n int, line *T) error) error {
	f, err := r.open(name)
	if f == nil {
		return err
	}
	defer f.Close()
	scan := bufio.NewScanner(f)
	scan.Buffer(make([]byte, 64<<10), mostLine)
	n := 0
	for scan.Scan() {
		n++
		if err := r.next(); err != nil {
			return err
		}
		if err := bounded(scan.Bytes()); err != nil {
			return at(name, n, err)
		}
		var line T
		if err := json.Unmarshal(scan.Bytes(), &line); err != nil {
			return at(name, n, fmt.Errorf("%w: %w", ErrFormat, err))
		}
		if more != nil {
			if err := more(n, &line); err != nil {
				return at(name, n, err)
			}
		}
		if err := r.take(line); err != nil {
			return at(name, n, err)
		}
	}
	if err := scan.Err(); err != nil {
		return at(name, n+1, fmt.Errorf("%w: %w", ErrFormat, err))
	}
	if err := r.take(store.End{}); err != nil {
		return at(name, n, err)
	}
	return nil
}

// picture puts the picture of a photograph beside what is said of it.
func (r *reader) picture(n int, p *store.CarriedPhoto) error {
	f, err := r.open(fmt.Sprintf(pictures, n))
	if f == nil {
		return errors.Join(fmt.Errorf("%w: its picture is missing", ErrFormat), err)
	}
	defer f.Close()
	p.Data, err = io.ReadAll(f) // Open has seen that it is not too large
	return err
}

// rows takes the lines of a table.
func (r *reader) rows(name string, read func([]string) (any, error)) error {
	f, err := r.open(name)
	if f == nil {
		return err
	}
	defer f.Close()
	table := exchange.NewRows(f, mostRow)
	table.ReuseRecord, table.FieldsPerRecord = true, len(heads[name])
	for n := 1; ; n++ {
		row, err := table.Read()
		switch {
		case errors.Is(err, io.EOF):
			if err := r.take(store.End{}); err != nil {
				return at(name, n-1, err)
			}
			return nil
		case err != nil:
			return at(name, n, fmt.Errorf("%w: %w", ErrFormat, err))
		case n == 1:
			if !slices.Equal(row, heads[name]) {
				return at(
					name,
					n,
					fmt.Errorf(
						"%w: its columns are %s, and have to be %s",
						ErrFormat,
						strings.Join(row, ", "),
						strings.Join(heads[name], ", "),
					),
				)
			}
			continue
		}
		if err := r.next(); err != nil {
			return err
		}
		line, err := read(row)
		if err == nil {
			err = r.take(line)
		}
		if err != nil {
			return at(name, n, err)
		}
	}
}

// cells reads the cells of a row; its first mistake counts.
type cells struct{ err error }

func (c *cells) fail(what, typed string) {
	if c.err == nil {
		c.err = fmt.Errorf("%w: %q is no %s", ErrFormat, typed, what)
	}
}

func (c *cells) probe(typed string) string {
	if _, err := facts.ParseProbe(typed); err != nil {
		c.fail("probe", typed)
	}
	return typed
}

func (c *cells) moment(typed string) int64 {
	t, err := time.Parse(time.RFC3339Nano, typed)
	if err != nil || !facts.CanBe(t) {
		c.fail("time", typed)
	}
	return t.UnixMilli()
}

func (c *cells) celsius(typed string) float64 {
	v, err := strconv.ParseFloat(typed, 64)
	if err != nil || math.IsNaN(v) || v < facts.LowRead || v > facts.HighRead {
		c.fail("temperature in °C", typed)
	}
	return v
}

func reading(row []string) (any, error) {
	var c cells
	return store.CarriedReading{
		Cook:   row[0],
		HandIn: row[1],
		Probe:  c.probe(row[2]),
		AtMs:   c.moment(row[3]),
		C:      c.celsius(row[4]),
	}, c.err
}

func minute(row []string) (any, error) {
	var c cells
	n, err := strconv.Atoi(row[9])
	if err != nil || n < 1 {
		c.fail("count", row[9])
	}
	return store.CarriedMinute{
		Cook: row[0], Probe: c.probe(row[1]), AtMs: c.moment(row[2]), FirstMs: c.moment(row[3]), LastMs: c.moment(row[4]),
		First: c.celsius(row[5]), Last: c.celsius(row[6]), Low: c.celsius(row[7]), High: c.celsius(row[8]), Count: n,
	}, c.err
}
