package cut

import (
	"strings"

	"verjuice/internal/core/table"
)

// places are where cuts are probed, by what they are called; kept in places.csv.
var places = func() map[string][]string {
	out := map[string][]string{}
	for _, r := range table.Read(data, "places.csv") {
		out[r["noun"]] = strings.Split(r["places"], ";")
	}
	return out
}()

// Places are where c is probed: its parts where it has several that are not done together, else
// its thick and its thin end.
func (c Cut) Places() []string {
	if own, ok := places[c.Noun]; ok {
		return own
	}
	return []string{"thick end", "thin end"}
}
