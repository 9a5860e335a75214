// Package testdb runs the tests of a package with one database server for all of them.
//
//	func TestMain(m *testing.M) { testdb.Main(m, &server) }
package testdb

import (
	"context"
	"fmt"
	"os"
	"testing"

	"verjuice/internal/localdb"
)

// Main starts a database server in a folder of its own, runs the tests and ends the
// program with their result.
func Main(m *testing.M, server **localdb.Server) { os.Exit(run(m, server)) }

func run(m *testing.M, server **localdb.Server) int {
	dir, err := os.MkdirTemp("", "verjuice-test-")
	if err == nil {
		defer os.RemoveAll(dir)
		*server, err = localdb.Start(context.Background(), dir)
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, "the test database did not start:", err)
		return 1
	}
	defer (*server).Stop()
	return m.Run()
}
