package api

import (
	"errors"
	"log/slog"
	"net/http"
	"runtime/debug"

	"github.com/danielgtaylor/huma/v2"
)

// errBroken is a record that the program itself fails to work out.
var errBroken = errors.New("the program failed")

// guarded does something of one record. Where the program itself fails at it, that is an error of
// this record alone, which is logged and said; whatever else is asked for at the same time goes on.
func guarded[T any](record string, do func() (T, error)) (out T, err error) {
	defer func() {
		if failed := recover(); failed != nil {
			slog.Error("a record could not be worked out", "record", record, "error", failed, "stack", string(debug.Stack()))
			err = errors.Join(errBroken, newProblem(
				http.StatusInternalServerError,
				"This cook-out cannot be worked out: the program fails at what is on record of it. What was pressed and read is safe. Undo what was pressed last, or change what is typed of it; other cook-outs are not touched by this.",
			))
		}
	}()
	return do()
}

// said is the sentence of an error that goes to a reader.
func said(err error) string {
	var problem huma.StatusError
	if errors.As(err, &problem) {
		return problem.Error()
	}
	return problemOf(err).Error()
}
