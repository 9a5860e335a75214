// Package testdb gives tests databases of their own, on one server for all of them.
//
//	func TestMain(m *testing.M) { testdb.Main(m) }
//	dsn := testdb.Empty(t)                         // no table in it
//	dsn := testdb.Copy(t, "demo", fill)            // a copy of what fill made, once for all tests
//
// make test runs one server for all packages (see withdb); a package that is tested
// by itself starts one. What a template holds is made once for each server and copied
// from then on, by the server itself.
package testdb

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"errors"
	"fmt"
	"os"
	"strings"
	"sync"
	"sync/atomic"
	"testing"

	"github.com/go-sql-driver/mysql"

	"verjuice/internal/localdb"
)

// Env names the environment variable that holds the address of the server of the
// whole run, as the MySQL driver reads it, with no database in it.
const Env = "VERJUICE_TEST_DB"

var (
	base  string // address of the server
	count atomic.Int32
)

// Main runs the tests of a package and ends the program with their result.
func Main(m *testing.M) { os.Exit(Run(m)) }

// Run runs the tests of a package and returns their result.
func Run(m *testing.M) int {
	if base = os.Getenv(Env); base != "" {
		return m.Run()
	}
	server, err := Serve(context.Background())
	if err != nil {
		fmt.Fprintln(os.Stderr, "the test database did not start:", err)
		return 1
	}
	defer server.Stop()
	base = server.DSN("")
	return m.Run()
}

// Server is a database server whose data goes with it.
type Server struct {
	*localdb.Server
	dir string
}

// Serve starts a server in a folder of its own.
func Serve(ctx context.Context) (*Server, error) {
	dir, err := os.MkdirTemp("", "verjuice-test-")
	if err != nil {
		return nil, err
	}
	s, err := localdb.Start(ctx, dir, localdb.Forgetful())
	if err != nil {
		_ = os.RemoveAll(dir)
		return nil, err
	}
	return &Server{s, dir}, nil
}

// Stop ends the server and removes its data.
func (s *Server) Stop() {
	s.Server.Stop()
	_ = os.RemoveAll(s.dir)
}

// DSN is the address of a database on the server of the run.
func DSN(database string) string {
	cfg, err := mysql.ParseDSN(base)
	if err != nil {
		panic("testdb: " + err.Error())
	}
	cfg.DBName = database
	return cfg.FormatDSN()
}

// pool are connections on which several statements may be sent at once.
var pool = sync.OnceValues(func() (*sql.DB, error) {
	cfg, err := mysql.ParseDSN(base)
	if err != nil {
		return nil, err
	}
	cfg.MultiStatements = true
	return sql.Open("mysql", cfg.FormatDSN())
})

// Empty makes a database without any table. It is dropped when the test is over.
func Empty(t testing.TB) string {
	t.Helper()
	db, err := pool()
	if err != nil {
		t.Fatal(err)
	}
	name := fresh(t, db)
	if _, err := db.ExecContext(t.Context(), "CREATE DATABASE `"+name+"`"); err != nil {
		t.Fatal(err)
	}
	return DSN(name)
}

// fresh is a name that no other test uses.
func fresh(t testing.TB, db *sql.DB) string {
	name := fmt.Sprintf("verjuice_%d_%d", os.Getpid(), count.Add(1))
	t.Cleanup(func() { _, _ = db.Exec("DROP DATABASE IF EXISTS `" + name + "`") })
	return name
}

// Copy makes a database that holds what fill puts into an empty one. fill runs once for
// a kind, by whichever test of the run asks first; the kind has to name all that its
// result follows from besides the program itself.
func Copy(t testing.TB, kind string, fill func(ctx context.Context, dsn string) error) string {
	t.Helper()
	db, err := pool()
	if err != nil {
		t.Fatal(err)
	}
	from, err := template(t.Context(), db, kind, fill)
	if err != nil {
		t.Fatalf("the template %s: %v", kind, err)
	}
	name := fresh(t, db)
	if _, err := db.ExecContext(t.Context(), strings.ReplaceAll(from, "{to}", "`"+name+"`")); err != nil {
		t.Fatalf("a copy of %s: %v", kind, err)
	}
	return DSN(name)
}

var (
	copying   sync.Mutex
	templates = map[string]string{} // by kind: what copies it, with {to} for the name
)

// template makes the template of a kind where it is missing, and returns the statements
// that copy it.
func template(ctx context.Context, db *sql.DB, kind string, fill func(context.Context, string) error) (string, error) {
	copying.Lock()
	defer copying.Unlock()
	if script, ok := templates[kind]; ok {
		return script, nil
	}
	// Names are short and hold nothing that needs quoting; two versions of the program
	// never share a server.
	name := fmt.Sprintf("verjuice_template_%x", sha256.Sum256([]byte(kind)))[:40]
	conn, err := db.Conn(ctx)
	if err != nil {
		return "", err
	}
	defer conn.Close()
	// Several packages are tested at once: one of them makes it.
	var got sql.NullInt64
	if err := conn.QueryRowContext(ctx, "SELECT GET_LOCK(?, 300)", name).Scan(&got); err != nil || got.Int64 != 1 {
		return "", errors.Join(errors.New("another test is still making it"), err)
	}
	defer conn.ExecContext(context.WithoutCancel(ctx), "DO RELEASE_LOCK('"+name+"')")
	const ready = "`ready_to_copy`"
	if _, err := conn.ExecContext(ctx, "SELECT 1 FROM `"+name+"`."+ready); err != nil {
		if _, err := conn.ExecContext(ctx, "DROP DATABASE IF EXISTS `"+name+"`; CREATE DATABASE `"+name+"`"); err != nil {
			return "", err
		}
		if err := fill(ctx, DSN(name)); err != nil {
			return "", err
		}
		if _, err := conn.ExecContext(ctx, "CREATE TABLE `"+name+"`."+ready+" (x INT)"); err != nil {
			return "", err
		}
	}
	script, err := copyScript(ctx, conn, name)
	if err == nil {
		templates[kind] = script
	}
	return script, err
}

// copyScript is the statements that make a copy of a database named {to}.
func copyScript(ctx context.Context, conn *sql.Conn, name string) (string, error) {
	var out strings.Builder
	out.WriteString(
		"CREATE DATABASE {to}; USE {to}; SET foreign_key_checks = 0; SET unique_checks = 0; START TRANSACTION;",
	)
	rows, err := conn.QueryContext(
		ctx,
		"SELECT table_name FROM information_schema.tables WHERE table_schema = ? AND table_name <> 'ready_to_copy' ORDER BY 1",
		name,
	)
	if err != nil {
		return "", err
	}
	var tables []string
	for rows.Next() {
		var table string
		if err := rows.Scan(&table); err != nil {
			return "", err
		}
		tables = append(tables, table)
	}
	if err := errors.Join(rows.Err(), rows.Close()); err != nil {
		return "", err
	}
	var fill strings.Builder
	for _, table := range tables {
		var same, create string
		if err := conn.QueryRowContext(ctx, "SHOW CREATE TABLE `"+name+"`.`"+table+"`").Scan(&same, &create); err != nil {
			return "", err
		}
		out.WriteString(create + ";")
		var columns sql.NullString
		var filled bool
		err := conn.QueryRowContext(ctx, "SELECT GROUP_CONCAT('`', column_name, '`' ORDER BY ordinal_position), (SELECT COUNT(*) FROM `"+name+"`.`"+table+"`) > 0 FROM information_schema.columns WHERE table_schema = ? AND table_name = ? AND is_generated = 'NEVER'", name, table).
			Scan(&columns, &filled)
		if err != nil {
			return "", err
		}
		if filled {
			fmt.Fprintf(&fill, "INSERT INTO `%[1]s` (%[2]s) SELECT %[2]s FROM `%[3]s`.`%[1]s`;", table, columns.String, name)
		}
	}
	out.WriteString(fill.String() + "COMMIT; SET foreign_key_checks = 1; SET unique_checks = 1")
	return out.String(), nil
}
