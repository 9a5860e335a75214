// Package web holds the built pages of the application.
//
//	api.New(api.Config{Store: db, Pages: web.Files()})
package web

import (
	"embed"
	"io/fs"
)

//go:embed all:dist
var dist embed.FS

// Files returns the built pages, index.html at the top.
func Files() fs.FS {
	files, err := fs.Sub(dist, "dist")
	if err != nil {
		panic(err) // the directory is embedded above
	}
	return files
}
