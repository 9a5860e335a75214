package api

import (
	"crypto/rand"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strings"
	"time"
)

// servePages serves the built pages: files by name, and index.html for every
// address of the application, with a fresh nonce for the styles it makes and the time by
// the server's clock.
func servePages(pages fs.FS, now func() time.Time) http.HandlerFunc {
	files := http.FileServerFS(pages)
	return func(w http.ResponseWriter, r *http.Request) {
		name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
		if info, err := fs.Stat(pages, name); err == nil && !info.IsDir() && name != "index.html" {
			if strings.HasPrefix(name, "assets/") {
				// Names in assets/ carry a hash of their content.
				w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
			}
			if _, err := fs.Stat(pages, name+".br"); err == nil {
				w.Header().Add("Vary", "Accept-Encoding")
				if strings.Contains(r.Header.Get("Accept-Encoding"), "br") {
					w.Header().Set("Content-Encoding", "br")
					w.Header().Set("Content-Type", mime.TypeByExtension(path.Ext(name)))
					http.ServeFileFS(w, r, pages, name+".br")
					return
				}
			}
			files.ServeHTTP(w, r)
			return
		}
		if path.Ext(name) != "" {
			http.NotFound(w, r)
			return
		}
		index, err := fs.ReadFile(pages, "index.html")
		if err != nil {
			http.Error(w, "The pages are not built: run make build.", http.StatusInternalServerError)
			return
		}
		nonce := rand.Text()
		w.Header().Set("Content-Security-Policy", strings.ReplaceAll(policy, "{nonce}", nonce))
		w.Header().Set("Content-Type", "text/html; charset=utf-8")
		w.Header().Set("Cache-Control", "no-store")
		filled := strings.NewReplacer("{nonce}", nonce, "{now}", now().Format(time.RFC3339Nano))
		_, _ = filled.WriteString(w, string(index))
	}
}
