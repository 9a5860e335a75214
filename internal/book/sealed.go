package book

import (
	"archive/zip"
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/binary"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"regexp"
	"slices"
	"strconv"
)

// ErrFormat is a file that is no book, one that is damaged, or one of a later version.
var ErrFormat = errors.New("this file is not a Verjuice book")

// needed are the files that a book must have, in the order in which they stand. One of the first
// version may lack all but the first.
var needed = []string{about, records, versions, happened, handIns, readings, minutes, clocks, outcomes, photos}

// Bounds of a whole file: entries, and bytes of one and of all when they are unpacked.
const (
	mostEntries  = 100_000
	mostUnpacked = 64 << 30
	mostAbout    = 32 << 20
)

// mostTimes is how many times larger a file may be when it is unpacked: lines of numbers get some ten times
// as large, those of one number fifty times.
const mostTimes = 300

// Listed is a file of a book as the list at its end has it.
type Listed struct {
	Name   string `json:"name"`
	SHA256 string `json:"sha256"`
	Bytes  int64  `json:"bytes"`
}

// Book is a file that was looked at from its first byte to its last: all that it must have is there,
// whole, and as its own list says.
type Book struct {
	Version int
	files   map[string]*zip.File
	bytes   int64 // of all that is read to take it in: records are read twice
}

var pictured = regexp.MustCompile(`^photos/[0-9]{6}\.jpg$`)

// Open looks at a whole file before anything is done with it. Every entry is one that a book has,
// under its own name, once, packed in a way that this program reads; each is read to its end, with its
// checksum, and is what the list of the book says (SHA-256).
func Open(ctx context.Context, from io.ReaderAt, size int64) (*Book, error) {
	if err := directory(from, size); err != nil {
		return nil, err
	}
	z, err := zip.NewReader(from, size)
	if err != nil {
		return nil, fmt.Errorf("%w: %w", ErrFormat, err)
	}
	if len(z.File) > mostEntries {
		return nil, fmt.Errorf("%w: it has more than %d files", ErrFormat, mostEntries)
	}
	b := &Book{files: map[string]*zip.File{}}
	for _, f := range z.File {
		switch {
		case !slices.Contains(needed, f.Name) && f.Name != listed && !pictured.MatchString(f.Name):
			return nil, damaged("%q is no file of a book", f.Name)
		case b.files[f.Name] != nil:
			return nil, damaged("%s is in it twice", f.Name)
		case f.UncompressedSize64 > mostTimes*f.CompressedSize64+1<<20:
			return nil, damaged("%s would unpack into far more than any book has", f.Name)
		case f.Method != zip.Deflate && f.Method != zip.Store || f.Flags&1 != 0:
			return nil, damaged("%s is packed in a way that cannot be read here", f.Name)
		}
		b.files[f.Name] = f
	}
	if err := b.about(); err != nil {
		return nil, err
	}
	sums, err := b.sums(ctx)
	if err != nil || b.Version == 1 {
		return b, err
	}
	return b, b.compare(sums)
}

// mostDirectory is how large the list at the end of a zip may be, bytes: it is held in memory.
const mostDirectory = 12 << 20

// directory refuses a zip whose list of entries is too large to be looked at (APPNOTE.TXT 4.3.16 and, for
// large files, 4.3.14).
func directory(from io.ReaderAt, size int64) error {
	tail := make([]byte, min(size, 22+1<<16))
	if _, err := from.ReadAt(tail, size-int64(len(tail))); err != nil && !errors.Is(err, io.EOF) {
		return err
	}
	at := bytes.LastIndex(tail, []byte("PK\x05\x06"))
	if at < 0 || at+22 > len(tail) {
		return ErrFormat
	}
	long := uint64(binary.LittleEndian.Uint32(tail[at+12:]))
	if before := at - 20; before >= 0 && bytes.HasPrefix(tail[before:], []byte("PK\x06\x07")) {
		end := make([]byte, 56)
		if _, err := from.ReadAt(end, int64(binary.LittleEndian.Uint64(tail[before+8:]))); err != nil {
			return errors.Join(ErrFormat, err)
		}
		long = max(binary.LittleEndian.Uint64(end[40:]), long&^math.MaxUint32)
	}
	if long > mostDirectory {
		return damaged("it has more files than any book")
	}
	return nil
}

func damaged(format string, args ...any) error {
	return fmt.Errorf("%w that can be read whole: %s. Nothing was changed", ErrFormat, fmt.Sprintf(format, args...))
}

// open opens a file of the book; nothing for one that a book of the first version may lack.
func (b *Book) open(name string) (io.ReadCloser, error) {
	f := b.files[name]
	if f == nil {
		return nil, nil
	}
	out, err := f.Open()
	if err != nil {
		return nil, damaged("%s: %v", name, err)
	}
	return out, nil
}

// about reads what the file says of itself.
func (b *Book) about() error {
	var is struct {
		Format  string `json:"format"`
		Version int    `json:"version"`
	}
	if err := b.decode(about, &is); err != nil || is.Format != "verjuice book" || is.Version < 1 {
		return errors.Join(ErrFormat, err)
	}
	if b.Version = is.Version; is.Version > Version {
		return fmt.Errorf(
			"%w of a version that this program reads: it is version %d, and %d is the latest known",
			ErrFormat,
			is.Version,
			Version,
		)
	}
	return nil
}

// decode reads a file of JSON that is not of lines.
func (b *Book) decode(name string, into any) error {
	f, err := b.open(name)
	if f == nil {
		return errors.Join(fmt.Errorf("%s is missing", name), err)
	}
	defer f.Close()
	raw, err := io.ReadAll(io.LimitReader(f, mostAbout))
	if err != nil {
		return err
	}
	return json.NewDecoder(bytes.NewReader(raw)).Decode(into)
}

// sums reads every file to its end.
func (b *Book) sums(ctx context.Context) (map[string]Listed, error) {
	out, all := map[string]Listed{}, int64(0)
	for name := range b.files {
		f, err := b.open(name)
		if err != nil {
			return nil, err
		}
		sum := sha256.New()
		limit := min(mostUnpacked, int64(b.files[name].UncompressedSize64)) // as it was held against its packed size
		if pictured.MatchString(name) {
			limit = mostPicture
		}
		n, err := io.Copy(sum, &awaited{ctx, io.LimitReader(f, limit+1)})
		_ = f.Close()
		switch all += n; {
		case ctx.Err() != nil:
			return nil, ctx.Err()
		case err != nil:
			return nil, damaged("%s: %v", name, err)
		case n > limit || all > mostUnpacked:
			return nil, damaged("%s is larger than any that can be taken in", name)
		}
		b.bytes += n
		if name == records {
			b.bytes += n
		}
		out[name] = Listed{name, hex.EncodeToString(sum.Sum(nil)), n}
	}
	return out, nil
}

// awaited ends reading when nobody waits any more.
type awaited struct {
	ctx  context.Context
	from io.Reader
}

func (a *awaited) Read(p []byte) (int, error) {
	if err := a.ctx.Err(); err != nil {
		return 0, err
	}
	return a.from.Read(p)
}

// compare holds what is there against what the book says of itself.
func (b *Book) compare(sums map[string]Listed) error {
	var list struct {
		Files []Listed `json:"files"`
	}
	if err := b.decode(listed, &list); err != nil {
		return damaged("its list of files cannot be read: %v", err)
	}
	for _, name := range needed {
		if b.files[name] == nil {
			return damaged("%s is missing", name)
		}
	}
	for _, is := range list.Files {
		was, ok := sums[is.Name]
		switch {
		case !ok:
			return damaged("%s is missing", is.Name)
		case was != is:
			return damaged("%s is not as it was written", is.Name)
		}
		delete(sums, is.Name)
	}
	for name := range sums {
		if name != listed {
			return damaged("%s is not in its list", name)
		}
	}
	return nil
}

// mostValues is how many values a line of JSON holds; the largest page of a cook has a few thousand.
const mostValues = 100_000

// mostDeep is how deep values may lie in each other.
const mostDeep = 100

// bounded refuses a line of JSON that would unfold into more than any record needs, before it is.
func bounded(line []byte) error {
	values, deep, text, after := 0, 0, false, false
	for _, c := range line {
		switch {
		case after:
			after = false
		case text && c == '\\':
			after = true
		case c == '"':
			text = !text
		case text:
		case c == '{' || c == '[':
			values++
			deep++
		case c == '}' || c == ']':
			deep--
		case c == ',':
			values++
		}
		if values > mostValues || deep > mostDeep {
			return fmt.Errorf(
				"%w: it holds more than any record does (%s values, or %d deep)",
				ErrFormat,
				strconv.Itoa(mostValues),
				mostDeep,
			)
		}
	}
	return nil
}

// mostRow is how long a row of a table may be, bytes.
const mostRow = 4096
