package api

import (
	"net/http"
	"slices"
	"strings"
)

// policy lets the page load only what ships with the program. Styles made while
// running carry the nonce of the page that was served.
const policy = "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{nonce}'; img-src 'self' data:; " +
	"font-src 'self'; connect-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"

// secure refuses requests that other sites make through the cook's browser: those
// addressed to another host name (DNS rebinding) and those sent from another
// origin. It sets the headers every answer carries.
func secure(hosts []string) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		origin := http.NewCrossOriginProtection()
		origin.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
			write(w, newProblem(http.StatusForbidden, "Requests from other sites are not accepted.").(*Problem))
		}))
		next = origin.Handler(next)
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			h := w.Header()
			h.Set("Content-Security-Policy", strings.ReplaceAll(policy, " 'nonce-{nonce}'", ""))
			h.Set("X-Content-Type-Options", "nosniff")
			h.Set("Referrer-Policy", "no-referrer")
			h.Set("Cross-Origin-Opener-Policy", "same-origin")
			h.Set("Cross-Origin-Resource-Policy", "same-origin")
			if len(hosts) > 0 && !slices.Contains(hosts, r.Host) {
				write(
					w,
					newProblem(http.StatusMisdirectedRequest,
						"This address is not served here. Open the address that Verjuice printed when it started.").(*Problem),
				)
				return
			}
			next.ServeHTTP(w, r)
		})
	}
}
