package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"os/signal"
	"path/filepath"
	"syscall"
	"time"

	"verjuice/internal/book"
	"verjuice/internal/store"
)

// data is which database a command works on.
type data struct {
	Var  string `default:"var" env:"VERJUICE_VAR" help:"Folder for the data of the private database."`
	DSN  string `env:"VERJUICE_DSN" help:"Address of a MariaDB to share, instead of the private one."`
	Demo bool   `help:"Work on the demo database."`
}

// with opens the database and closes it after do.
func (d data) with(do func(context.Context, *store.Store) error) error {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	dsn, room, _, shut, err := serve{Var: d.Var, DSN: d.DSN, Demo: d.Demo}.database(ctx)
	if err != nil {
		return fmt.Errorf("%w (a Verjuice that runs has its private database: use its address, or stop it)", err)
	}
	defer shut()
	db, err := store.Open(ctx, dsn, room)
	if err != nil {
		return err
	}
	defer db.Close()
	return do(ctx, db)
}

// told prints how far it has come, on one line.
func told(verb string) book.Progress {
	return func(p book.Point) {
		share := ""
		if p.Share > 0 {
			share = fmt.Sprintf(", %.0f %%", 100*p.Share)
		}
		fmt.Fprintf(os.Stderr, "\r%s %d lines%s", verb, p.Lines, share)
	}
}

type exportBook struct {
	data
	To string `arg:"" help:"File to write; - is standard output."`
}

// Run writes the whole book to a file, or not at all.
func (e exportBook) Run() error {
	return e.with(func(ctx context.Context, db *store.Store) error {
		if e.To == "-" {
			return book.Write(ctx, db, os.Stdout, nil)
		}
		return whole(e.To, func(w io.Writer) error { return book.Write(ctx, db, w, told("Wrote")) })
	})
}

// whole writes a file under another name first, so that no half one stands there.
func whole(path string, write func(io.Writer) error) error {
	if is, err := os.Lstat(path); err == nil && !is.Mode().IsRegular() {
		return fmt.Errorf("%s is no file that can be replaced: choose another name, or - for standard output", path)
	}
	forsaken(filepath.Dir(path))
	f, err := os.CreateTemp(filepath.Dir(path), halves)
	if err != nil {
		return err
	}
	defer os.Remove(f.Name())
	if err := syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err != nil {
		return err
	}
	if err = errors.Join(write(f), f.Sync(), f.Close()); err != nil {
		return err
	}
	fmt.Fprintln(os.Stderr)
	if err := os.Chmod(f.Name(), 0o644); err != nil {
		return err
	}
	return os.Rename(f.Name(), path)
}

// halves are what files are called while they are written.
const halves = ".verjuice-*.half"

// forsaken removes halves in a folder that nobody writes any more: their program was killed.
func forsaken(dir string) {
	all, _ := filepath.Glob(filepath.Join(dir, halves))
	for _, path := range all {
		f, err := os.OpenFile(path, os.O_RDONLY|syscall.O_NONBLOCK, 0)
		if err != nil {
			continue
		}
		if syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB) == nil {
			_ = os.Remove(path)
		}
		_ = f.Close()
	}
}

type importBook struct {
	data
	From string `arg:"" type:"existingfile" help:"File to take in."`
}

// Run takes a book in. What is here already stays as it is.
func (i importBook) Run() error {
	f, b, err := opened(context.Background(), i.From)
	if err != nil {
		return err
	}
	defer f.Close()
	return i.with(func(ctx context.Context, db *store.Store) error { return putIn(ctx, db, b.TakeIn) })
}

// opened is a book that was looked at as a whole, and the file that it is read from.
func opened(ctx context.Context, path string) (*os.File, *book.Book, error) {
	// A pipe that nobody writes to would be waited for without end.
	if is, err := os.Stat(path); err != nil || !is.Mode().IsRegular() {
		return nil, nil, errors.Join(fmt.Errorf("nothing was taken in: %s is no file", path), err)
	}
	f, err := os.Open(path)
	if err != nil {
		return nil, nil, err
	}
	is, err := f.Stat()
	if err == nil {
		var b *book.Book
		if b, err = book.Open(ctx, f, is.Size()); err == nil {
			return f, b, nil
		}
	}
	return nil, nil, errors.Join(fmt.Errorf("nothing was taken in: %w", err), f.Close())
}

func putIn(
	ctx context.Context,
	db *store.Store,
	how func(context.Context, *store.Store, book.Progress) (store.Taken, error),
) error {
	taken, err := how(ctx, db, told("Read"))
	fmt.Fprintln(os.Stderr)
	if err != nil {
		return fmt.Errorf("nothing was taken in: %w", err)
	}
	fmt.Printf("Taken in: %d lines that are new; %d were here already.\n", taken.Added, taken.Here)
	return nil
}

type backup struct {
	data
	To string `default:"backups" help:"Folder for the file."`
}

// Run writes the whole book to a file that is named after the moment.
func (b backup) Run() error {
	if err := os.MkdirAll(b.To, 0o755); err != nil {
		return err
	}
	path := filepath.Join(b.To, "verjuice-"+time.Now().Format("2006-01-02-150405")+".zip")
	if err := (exportBook{b.data, path}).Run(); err != nil {
		return err
	}
	fmt.Println("Backed up to " + path)
	return nil
}

type restore struct {
	data
	From string `arg:"" type:"existingfile" help:"File that was backed up."`
	Yes  bool   `help:"Replace all that is on record with what is in the file."`
}

// Run puts what was backed up in the place of all that is on record. What is on record is backed up
// first.
func (r restore) Run() error {
	if !r.Yes {
		return errors.New(
			"this replaces all that is on record: say --yes if you mean it (import adds a file to what is there)",
		)
	}
	f, b, err := opened(context.Background(), r.From) // before anything is touched
	if err != nil {
		return err
	}
	defer f.Close()
	if err := (backup{r.data, "backups"}).Run(); err != nil {
		return err
	}
	return r.with(func(ctx context.Context, db *store.Store) error { return putIn(ctx, db, b.Replace) })
}
