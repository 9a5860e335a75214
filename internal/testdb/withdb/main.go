// Command withdb runs another command with a database server for the tests beside it,
// which ends with it:
//
//	go run ./internal/testdb/withdb go test ./...
package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"os/signal"
	"syscall"

	"verjuice/internal/testdb"
)

func main() { os.Exit(run(os.Args[1:])) }

func run(args []string) int {
	if len(args) == 0 {
		fmt.Fprintln(os.Stderr, "withdb: which command is to be run?")
		return 2
	}
	// Ctrl-C reaches the command, too, and this one waits for it.
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	server, err := testdb.Serve(ctx)
	if err != nil {
		fmt.Fprintln(os.Stderr, "the test database did not start:", err)
		return 1
	}
	defer server.Stop()
	cmd := exec.Command(args[0], args[1:]...)
	cmd.Stdin, cmd.Stdout, cmd.Stderr = os.Stdin, os.Stdout, os.Stderr
	cmd.Env = append(os.Environ(), testdb.Env+"="+server.DSN(""))
	if err := cmd.Run(); err != nil {
		var ended *exec.ExitError
		if errors.As(err, &ended) {
			return max(1, ended.ExitCode())
		}
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	return 0
}
