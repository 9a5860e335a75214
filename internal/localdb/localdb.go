// Package localdb runs a private MariaDB server on loopback, with its data in a
// folder of ours: found, initialised, started and stopped with the program.
//
//	db, err := localdb.Start(ctx, "var/db")
//	defer db.Stop()
//	store.Open(ctx, db.DSN("verjuice"))
//
// The server listens on 127.0.0.1 only, on a free port, and lets one user in,
// whose password is made anew at each start and never written to disk in clear
// outside the folder. When the program is killed the server is told to shut
// down; when the machine goes down, the next start recovers from its log.
package localdb

import (
	"bytes"
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"fmt"
	"net"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"time"

	"github.com/go-sql-driver/mysql"
)

// Server is a running MariaDB.
type Server struct {
	addr     string
	password string
	dir      string
	lock     *os.File
	ended    chan struct{}
	more     []string              // arguments besides the usual ones
	free     func() (uint64, bool) // in the place of what the system says, for tests

	mu       sync.Mutex // of what follows
	cmd      *exec.Cmd
	ready    bool
	stopping bool
}

const account = "verjuice"

// Start runs MariaDB on the data in dir, which it makes when it is not there. An
// error is a sentence that says what to do.
func Start(ctx context.Context, dir string, options ...Option) (*Server, error) {
	dir, err := filepath.Abs(dir)
	if err != nil {
		return nil, err
	}
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("the data folder %s cannot be made: %w", dir, err)
	}
	daemon, install, err := find()
	if err != nil {
		return nil, err
	}
	s := &Server{dir: dir, ended: make(chan struct{})}
	for _, option := range options {
		option(s)
	}
	if s.lock, err = takeLock(filepath.Join(dir, "lock")); err != nil {
		return nil, err
	}
	if err := s.start(ctx, dir, daemon, install); err != nil {
		s.Stop()
		return nil, err
	}
	return s, nil
}

func (s *Server) start(ctx context.Context, dir, daemon, install string) error {
	if free, known := s.Free(); known && free < starts {
		return fmt.Errorf(
			"only %d MB are free on the disk of %s, and the database needs %d to start: make room, then start again",
			free>>20,
			dir,
			starts>>20,
		)
	}
	data := filepath.Join(dir, "data")
	if err := initialise(ctx, data, install); err != nil {
		return err
	}
	if err := waitForOld(ctx, filepath.Join(data, "db.pid")); err != nil {
		return err
	}
	port, err := freePort()
	if err != nil {
		return err
	}
	s.addr, s.password = net.JoinHostPort("127.0.0.1", strconv.Itoa(port)), rand.Text()
	boot := filepath.Join(dir, "boot.sql")
	grant := fmt.Sprintf(
		"CREATE OR REPLACE USER '%[1]s'@'127.0.0.1' IDENTIFIED BY '%[2]s';\nGRANT ALL ON `%[1]s%%`.* TO '%[1]s'@'127.0.0.1';\n",
		account,
		s.password,
	)
	if err := os.WriteFile(boot, []byte(grant), 0o600); err != nil {
		return err
	}
	log := filepath.Join(dir, "mariadb.log")
	args := append(common(data),
		"--bind-address=127.0.0.1", "--port="+strconv.Itoa(port), "--skip-name-resolve",
		"--socket=db.sock", "--pid-file=db.pid", "--log-error="+log, "--init-file="+boot,
		"--innodb-buffer-pool-size=64M", "--performance-schema=OFF",
		"--character-set-server=utf8mb4", "--collation-server=utf8mb4_unicode_ci",
	)
	args = append(args, s.more...)
	started := make(chan error, 1)
	go s.keep(daemon, args, boot, started)
	if err := <-started; err != nil {
		return fmt.Errorf("MariaDB could not be started: %w", err)
	}
	defer os.Remove(boot)
	if err := s.waitReady(ctx, log); err != nil {
		return err
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	s.ready = true
	return nil
}

// A server that ends unasked is started again: so many times in a row while it does not even come to
// answer, and for as long as it takes when it did. Between two starts it waits longer each time, up to
// longestPause.
const (
	restarts     = 5
	pause        = 200 * time.Millisecond
	longestPause = time.Second
)

// keep runs the server, and again when it ends unasked after it was ready.
func (s *Server) keep(daemon string, args []string, boot string, started chan<- error) {
	// The death signal goes off when the starting thread ends, so that thread is kept for as
	// long as the server runs.
	runtime.LockOSThread()
	defer close(s.ended)
	for again := 0; again <= restarts; again++ {
		cmd := exec.Command(daemon, args...)
		// Its own process group, so that Ctrl-C reaches only us and we stop it in
		// order; and a signal to it should we be killed.
		cmd.SysProcAttr = &syscall.SysProcAttr{Setpgid: true, Pdeathsig: syscall.SIGTERM}
		s.mu.Lock()
		if s.stopping {
			s.mu.Unlock()
			return
		}
		err := cmd.Start()
		if err == nil {
			s.cmd = cmd
		}
		s.mu.Unlock()
		if again == 0 {
			started <- err
		}
		if err != nil {
			return
		}
		ended := make(chan struct{})
		answered := s.answered(ended)
		_ = cmd.Wait()
		close(ended)
		s.mu.Lock()
		over := s.stopping || !s.ready
		s.mu.Unlock()
		if over {
			return
		}
		if <-answered {
			again = 0
		}
		if free, known := s.Free(); known && free < starts { // without room it would end again and again
			again = 0
			if !s.waitForRoom() {
				return
			}
		}
		// The account is made already, and its file is gone.
		args = slices.DeleteFunc(slices.Clone(args), func(a string) bool { return a == "--init-file="+boot })
		time.Sleep(min(longestPause, time.Duration(again+1)*pause))
	}
}

// answered tells, once the server has ended, whether it came to answer before.
func (s *Server) answered(ended <-chan struct{}) <-chan bool {
	out := make(chan bool, 1)
	go func() {
		for {
			conn, err := net.DialTimeout("tcp", s.addr, pause)
			if err == nil {
				_ = conn.Close()
				<-ended
				out <- true
				return
			}
			select {
			case <-ended:
				out <- false
				return
			case <-time.After(pause / 2):
			}
		}
	}()
	return out
}

// Free is how many bytes are free where the server keeps its files; false when the system does not
// say.
func (s *Server) Free() (bytes uint64, known bool) {
	if s.free != nil {
		return s.free()
	}
	var at syscall.Statfs_t
	if err := syscall.Statfs(s.dir, &at); err != nil {
		return 0, false
	}
	return at.Bavail * uint64(at.Bsize), true
}

// starts is the room that a server needs to start, bytes: it makes a file for what is temporary, and
// finishes what it was at.
const starts = 32 << 20

// waitForRoom waits until there is room to start; false when the server was stopped meanwhile.
func (s *Server) waitForRoom() bool {
	for {
		s.mu.Lock()
		stopping := s.stopping
		s.mu.Unlock()
		if free, known := s.Free(); stopping || !known || free >= starts {
			return !stopping
		}
		time.Sleep(pause)
	}
}

// DSN returns the address of a database on the server, as the MySQL driver reads
// it. Names have to start with "verjuice".
func (s *Server) DSN(database string) string {
	cfg := mysql.NewConfig()
	cfg.Net, cfg.Addr, cfg.User, cfg.Passwd, cfg.DBName = "tcp", s.addr, account, s.password, database
	return cfg.FormatDSN()
}

// Create makes a database when it is not there; with anew it is emptied first.
func (s *Server) Create(ctx context.Context, database string, anew bool) error {
	db, err := sql.Open("mysql", s.DSN(""))
	if err != nil {
		return err
	}
	defer db.Close()
	name := "`" + strings.ReplaceAll(database, "`", "``") + "`"
	if anew {
		if _, err := db.ExecContext(ctx, "DROP DATABASE IF EXISTS "+name); err != nil {
			return err
		}
	}
	_, err = db.ExecContext(ctx, "CREATE DATABASE IF NOT EXISTS "+name)
	return err
}

// Stop shuts the server down in order and waits until it has. It can be called
// more than once.
func (s *Server) Stop() {
	s.mu.Lock()
	s.stopping = true
	cmd := s.cmd
	s.mu.Unlock()
	if cmd != nil {
		_ = cmd.Process.Signal(syscall.SIGTERM)
		select {
		case <-s.ended:
		case <-time.After(60 * time.Second):
			_ = cmd.Process.Kill()
			<-s.ended
		}
	}
	if s.lock != nil {
		_ = s.lock.Close()
	}
}

// Ended is closed when the server has gone, and is not started again.
func (s *Server) Ended() <-chan struct{} { return s.ended }

func find() (daemon, install string, err error) {
	look := func(name string) string {
		for _, p := range []string{name, "/usr/sbin/" + name, "/usr/libexec/" + name} {
			if found, err := exec.LookPath(p); err == nil {
				return found
			}
		}
		return ""
	}
	daemon, install = look("mariadbd"), look("mariadb-install-db")
	if daemon == "" || install == "" {
		return "", "", errors.New("MariaDB is not installed: run make demo, or install the package mariadb-server")
	}
	return daemon, install, nil
}

func takeLock(path string) (*os.File, error) {
	f, err := os.OpenFile(path, os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return nil, err
	}
	if err := syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err != nil {
		_ = f.Close()
		return nil, fmt.Errorf("another Verjuice is already running on %s: stop it first", filepath.Dir(path))
	}
	return f, nil
}

// common are the options that both initialising and running need.
func common(data string) []string {
	// Files are read and written in threads: the kernel's own queues count against the
	// memory that a user may lock, of which several servers at once need more than many
	// machines allow.
	//
	// A server that starts clears away the temporary tables that it finds, also those of another
	// one that is running: each has a folder of its own for them.
	own := filepath.Join(filepath.Dir(data), "tmp")
	_ = os.MkdirAll(own, 0o700) // the server says what it misses
	args := []string{"--no-defaults", "--datadir=" + data, "--tmpdir=" + own, "--innodb-use-native-aio=0"}
	if u, err := user.Current(); err == nil {
		args = append(args, "--user="+u.Username)
	}
	return args
}

// initialise makes an empty data folder. It is made beside its place and then
// moved there, so that one that was cut short is never mistaken for a whole one.
func initialise(ctx context.Context, data, install string) error {
	if _, err := os.Stat(data); err == nil {
		if _, err := os.Stat(filepath.Join(data, "ibdata1")); err != nil {
			return fmt.Errorf(
				"the data folder %s is not a database: move it away, and a new one is made at the next start",
				data,
			)
		}
		return nil
	}
	half := data + ".new"
	args := append(common(half), "--skip-test-db", "--auth-root-authentication-method=socket")
	var failed error
	for range 2 { // the server has been seen to crash while it makes its folder
		if err := os.RemoveAll(half); err != nil {
			return err
		}
		out, err := exec.CommandContext(ctx, install, args...).CombinedOutput()
		if err == nil {
			return os.Rename(half, data)
		}
		if failed = fmt.Errorf("the database in %s could not be made: %w\n%s", half, err, tail(out)); ctx.Err() != nil {
			break
		}
	}
	return failed
}

// waitForOld waits for a server that outlived a killed program to shut down.
func waitForOld(ctx context.Context, pidFile string) error {
	raw, err := os.ReadFile(pidFile)
	if err != nil {
		return nil // it was shut down in order
	}
	pid, err := strconv.Atoi(strings.TrimSpace(string(raw)))
	if err != nil || !isServer(pid) {
		return nil
	}
	_ = syscall.Kill(pid, syscall.SIGTERM)
	for isServer(pid) {
		select {
		case <-ctx.Done():
			return fmt.Errorf("an earlier MariaDB (process %d) does not shut down: end it, then try again", pid)
		case <-time.After(100 * time.Millisecond):
		}
	}
	return nil
}

func isServer(pid int) bool {
	name, err := os.ReadFile(fmt.Sprintf("/proc/%d/comm", pid))
	return err == nil && strings.HasPrefix(string(name), "mariadbd")
}

func freePort() (int, error) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return 0, err
	}
	defer l.Close()
	return l.Addr().(*net.TCPAddr).Port, nil
}

// waitReady waits until the server lets us in.
func (s *Server) waitReady(ctx context.Context, log string) error {
	ctx, cancel := context.WithTimeout(ctx, 2*time.Minute)
	defer cancel()
	_ = mysql.SetLogger(quiet{}) // refused connections are what we wait through
	db, err := sql.Open("mysql", s.DSN(""))
	if err != nil {
		return err
	}
	defer db.Close()
	for db.PingContext(ctx) != nil {
		select {
		case <-s.ended:
			out, _ := os.ReadFile(log)
			return fmt.Errorf("MariaDB ended at once; its log %s says:\n%s", log, tail(out))
		case <-ctx.Done():
			return fmt.Errorf("MariaDB does not answer; see %s", log)
		case <-time.After(50 * time.Millisecond):
		}
	}
	return nil
}

type quiet struct{}

func (quiet) Print(...any) {}

func tail(out []byte) []byte {
	lines := bytes.Split(bytes.TrimSpace(out), []byte("\n"))
	return bytes.Join(lines[max(0, len(lines)-8):], []byte("\n"))
}
