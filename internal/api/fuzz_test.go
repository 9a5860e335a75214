package api_test

import (
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/cooking"
)

// Whatever pointer and value a page is patched with, it is answered, and never with a failure of
// the program.
func FuzzPatch(f *testing.F) {
	app := apptest.Start(f, apptest.Nothing)
	send := func(body any) (int, api.PageAnswer) {
		raw, _ := json.Marshal(body)
		req, _ := http.NewRequest("POST", "/api/page?plain=true", strings.NewReader(string(raw)))
		req.Header.Set("Content-Type", "application/json")
		w := httptest.NewRecorder()
		app.Handler.ServeHTTP(w, req)
		var out api.PageAnswer
		_ = json.Unmarshal(w.Body.Bytes(), &out)
		return w.Code, out
	}
	_, whole := send(api.PageAsked{Whole: &cooking.CookRequest{Cook: anycook.Supper(anycook.Coated("pork-loin", "2 kg"))}})
	for _, one := range [][3]string{{"replace", "/pieces/0/trimmed", `"3 kg"`}, {"remove", "/pieces/0", `0`}, {"add", "/pieces/-", `{"cut":"x"}`}, {"replace", "/pieces/0/~1", `[]`}, {"add", "", `null`}, {"replace", "/pieces/99999999999/cut", `"a"`}} {
		f.Add(one[0], one[1], one[2])
	}
	f.Fuzz(func(t *testing.T, op, path, value string) {
		var v any
		if json.Unmarshal([]byte(value), &v) != nil {
			v = value
		}
		status, _ := send(
			map[string]any{"base": whole.Page, "patch": []any{map[string]any{"op": op, "path": path, "value": v}}},
		)
		require.Less(t, status, 500, "%s %q %s", op, path, value)
		require.NotZero(t, status)
	})
}
