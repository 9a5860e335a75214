package main

import (
	"context"
	"errors"
	"fmt"
	"net"
	"net/http"
	"os"
	"os/signal"
	"path/filepath"
	"runtime/debug"
	"strconv"
	"syscall"
	"time"

	"verjuice/internal/api"
	"verjuice/internal/bell"
	"verjuice/internal/demo"
	"verjuice/internal/localdb"
	"verjuice/internal/practice"
	"verjuice/internal/store"
	"verjuice/web"
)

type serve struct {
	Port  int    `default:"8470" env:"VERJUICE_PORT" help:"Port on 127.0.0.1."`
	Var   string `default:"var" env:"VERJUICE_VAR" help:"Folder for the data of the private database."`
	DSN   string `env:"VERJUICE_DSN" help:"Address of a MariaDB to share, instead of the private one."`
	Demo  bool   `help:"Work on the demo database, filled with the made-up scenario when it is empty."`
	Bell  string `env:"VERJUICE_BELL" help:"Command to run at an alarm of a cook that is on the fire, for example one that sends a message. It is told in VERJUICE_ALARM, VERJUICE_NOTE and VERJUICE_COOK."`
	Reset bool   `help:"With --demo: empty the demo database first. Your own cook-outs are never touched."`
}

// memory is what the program tries to stay within, in bytes.
const memory = 230 << 20

// Run serves until Ctrl-C, then stops in order.
func (s serve) Run() error {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	// A page is worked out in little memory that is soon free again: to collect it half as often
	// makes a letter quicker. Many who type at once stay under the limit, unless told otherwise.
	if os.Getenv("GOGC") == "" && os.Getenv("GOMEMLIMIT") == "" {
		debug.SetGCPercent(200)
		debug.SetMemoryLimit(memory)
	}
	if s.Reset && (!s.Demo || s.DSN != "") {
		return errors.New("only the private demo database can be reset: use --demo --reset")
	}
	// The port is taken first: a database is not started in vain.
	listener, err := net.Listen("tcp", net.JoinHostPort("127.0.0.1", strconv.Itoa(s.Port)))
	if err != nil {
		if errors.Is(err, syscall.EADDRINUSE) {
			return fmt.Errorf(
				"port %d is taken, perhaps by another Verjuice: stop that one, or choose another with VERJUICE_PORT",
				s.Port,
			)
		}
		return err
	}
	defer listener.Close()

	dsn, room, ended, closeDB, err := s.database(ctx)
	if err != nil {
		return err
	}
	defer closeDB()
	db, err := store.Open(ctx, dsn, room)
	if err != nil {
		return err
	}
	defer db.Close()
	if s.Demo {
		if err := demo.Load(ctx, db, time.Now()); err != nil {
			return fmt.Errorf("loading the demo: %w", err)
		}
		if err := demo.LoadLogbook(ctx, db, time.Now()); err != nil {
			return fmt.Errorf("loading the demo's logbook: %w", err)
		}
	}

	port := listener.Addr().(*net.TCPAddr).Port
	config := api.Config{Store: db, Pages: web.Files(), Now: time.Now, Stopping: ctx.Done()}
	var rings *bell.Bell
	if s.Bell != "" {
		rings = bell.New(s.Bell)
		config.Bell = rings
	}
	config.Hosts = []string{fmt.Sprintf("127.0.0.1:%d", port), fmt.Sprintf("localhost:%d", port)}
	server := &http.Server{
		Handler:           api.New(config),
		ReadHeaderTimeout: 10 * time.Second, ReadTimeout: time.Minute, WriteTimeout: time.Minute,
	}
	go db.Tidy(ctx, time.Now)
	go practice.Run(ctx, db, time.Now)
	if rings != nil {
		go rings.Run(ctx, fmt.Sprintf("http://127.0.0.1:%d", port))
	}
	failed := make(chan error, 1)
	go func() { failed <- server.Serve(listener) }()
	fmt.Printf("Verjuice is at http://127.0.0.1:%d — Ctrl-C stops it.\n", port)
	select {
	case <-ctx.Done():
	case err = <-failed:
	case <-ended:
		err = errors.New("the database ended unasked; what was saved is safe, start again")
	}
	stop() // a second Ctrl-C ends at once
	fmt.Println("Stopping.")
	// Open pages are given a moment, without the cancelled context.
	grace, cancel := context.WithTimeout(context.Background(), 5*time.Second)
	defer cancel()
	_ = server.Shutdown(grace)
	if errors.Is(err, http.ErrServerClosed) {
		return nil
	}
	return err
}

// database returns the address of the database to use, how much room it has, a channel that is
// closed when a private server ends, and what stops it.
func (s serve) database(
	ctx context.Context,
) (dsn string, room store.Room, ended <-chan struct{}, closeDB func(), err error) {
	if s.DSN != "" {
		return s.DSN, func() (uint64, bool) { return 0, false }, nil, func() {}, nil
	}
	private, err := localdb.Start(ctx, filepath.Join(s.Var, "db"))
	if err != nil {
		return "", nil, nil, nil, err
	}
	name := "verjuice"
	if s.Demo {
		name = "verjuice_demo"
	}
	if err := private.Create(ctx, name, s.Reset); err != nil {
		private.Stop()
		return "", nil, nil, nil, err
	}
	return private.DSN(name), private.Free, private.Ended(), private.Stop, nil
}
