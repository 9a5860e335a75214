// Package store keeps what a cook writes in MariaDB, through GORM over plain SQL
// migrations: Records of a kind, read and written whole, and facts, which are only
// added.
//
//	db, err := store.Open(ctx, dsn)   // connects and migrates
//	rec, err := db.Cooks().Create(ctx, cook)
//
// Writes carry the version they saw; a stale one is refused with ErrStale.
package store

import (
	"cmp"
	"context"
	"database/sql"
	"database/sql/driver"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"net"
	"strings"
	"time"

	"github.com/go-sql-driver/mysql"
	lru "github.com/hashicorp/golang-lru/v2"
	"github.com/pressly/goose/v3"
	"github.com/pressly/goose/v3/database"
	gormmysql "gorm.io/driver/mysql"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Errors that a caller can act on.
var (
	ErrNotFound = errors.New("there is no such record")
	ErrStale    = errors.New("it was changed elsewhere since you opened it")
)

// Store is the database.
type Store struct {
	db *gorm.DB
	// waits as long as it takes, for work that nobody waits for at a screen; nil within a transaction
	patient  *gorm.DB
	kitchens *lru.Cache[string, keptKitchen] // those that were asked for last
	now      func() time.Time                // by which dates that are typed are checked; nil where they are not
}

// mostKitchens is how many kitchens are kept; one of thirty prices takes some 20 kB.
const mostKitchens = 32

// Open connects to the database of dsn (as the MySQL driver reads it) and brings
// its schema up to date. Running it twice, or in several programs at once, is safe;
// so is being killed at any point of it.
// Before anything is written it asks room, where one is given.
func Open(ctx context.Context, dsn string, room ...Room) (*Store, error) {
	cfg, err := mysql.ParseDSN(dsn)
	if err != nil {
		return nil, fmt.Errorf("reading the database address: %w", err)
	}
	cfg.ParseTime, cfg.InterpolateParams = true, true // a question is one packet, not three
	unhurried := cfg.Clone()
	unhurried.ReadTimeout, unhurried.WriteTimeout = 0, 0
	patient, err := connect(unhurried)
	if err != nil {
		return nil, err
	}
	if err := alone(ctx, patient, "schema", func(ctx context.Context) error { return migrate(ctx, patient) }); err != nil {
		return nil, fmt.Errorf("bringing the database up to date: %w", err)
	}
	// A change of the schema may take minutes, and so may a whole book; a request waits no longer than a
	// cook would.
	if pool, err := patient.DB(); err == nil {
		pool.SetMaxOpenConns(patientConnections)
		pool.SetMaxIdleConns(1)
	}
	cfg.Timeout = cmp.Or(cfg.Timeout, patience)
	cfg.ReadTimeout = cmp.Or(cfg.ReadTimeout, patience)
	cfg.WriteTimeout = cmp.Or(cfg.WriteTimeout, patience)
	db, err := connect(cfg)
	if err != nil {
		return nil, err
	}
	for _, r := range room {
		if err := errors.Join(guard(db, r), guard(patient, r)); err != nil {
			return nil, err
		}
	}
	kitchens, err := lru.New[string, keptKitchen](mostKitchens)
	return &Store{db: db, patient: patient, kitchens: kitchens}, err
}

// patience is how long a database that stands still is waited for.
const patience = 2500 * time.Millisecond

// connections is how many of them the program uses at once; who finds none free waits.
const connections = 24

// patientConnections is how many of them are kept for long work: some of it reads while it writes.
const patientConnections = 6

// Patient is the same database for work that takes as long as it takes: a whole book, thinning.
func (s *Store) Patient() *Store {
	if s.patient == nil { // within a transaction, which is patient or not as a whole
		return s
	}
	return &Store{db: s.patient, kitchens: s.kitchens, now: s.now}
}

func connect(cfg *mysql.Config) (*gorm.DB, error) {
	db, err := gorm.Open(gormmysql.New(gormmysql.Config{DSNConfig: cfg}), &gorm.Config{
		Logger: logger.Default.LogMode(logger.Silent), TranslateError: true,
	})
	if err != nil {
		return nil, fmt.Errorf("connecting to the database: %w", err)
	}
	pool, err := db.DB()
	if err != nil {
		return nil, err
	}
	pool.SetMaxOpenConns(connections)
	pool.SetMaxIdleConns(connections / 2)
	pool.SetConnMaxIdleTime(time.Minute)
	return db, nil
}

// migrate runs the migrations that are still to come. MariaDB commits each change of
// the schema by itself, so every statement of a migration is one that does nothing when
// it is run again.
func migrate(ctx context.Context, db *gorm.DB) error {
	sqlDB, err := db.DB()
	if err != nil {
		return err
	}
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(database.DialectMySQL, sqlDB, files)
	if err != nil {
		return err
	}
	_, err = p.Up(ctx)
	return err
}

// Ping reports whether the database answers.
func (s *Store) Ping(ctx context.Context) error {
	sqlDB, err := s.db.DB()
	if err != nil {
		return err
	}
	return sqlDB.PingContext(ctx)
}

// Close closes the connections.
func (s *Store) Close() error {
	if s.patient != nil {
		if pool, err := s.patient.DB(); err == nil {
			_ = pool.Close()
		}
	}
	sqlDB, err := s.db.DB()
	if err != nil {
		return err
	}
	return sqlDB.Close()
}

// Away reports whether err means that the database does not answer, rather than that
// it has answered something.
func Away(err error) bool {
	var network net.Error
	return errors.Is(err, context.DeadlineExceeded) || errors.Is(err, driver.ErrBadConn) ||
		errors.Is(err, mysql.ErrInvalidConn) ||
		errors.Is(err, sql.ErrConnDone) ||
		errors.As(err, &network)
}

// MariaDB's errors when there is no room left, and when the engine says so.
const (
	errDiskFull  = 1021
	errTableFull = 1114
	errEngine    = 1030 // "Got error 28 from storage engine" among others
)

// Full reports whether err means that there is no room left on the disk.
func Full(err error) bool {
	if errors.Is(err, ErrDiskFull) {
		return true
	}
	var of *mysql.MySQLError
	return errors.As(err, &of) &&
		(of.Number == errDiskFull || of.Number == errTableFull || of.Number == errEngine &&
			strings.Contains(of.Message, " 28 "))
}
