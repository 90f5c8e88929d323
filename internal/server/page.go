package server

import (
	"io/fs"
	"net/http"
	"path"
	"strings"
)

// page serves the built page. Every path without a file of its own is a
// place inside the page.
func page(files fs.FS) http.HandlerFunc {
	if files == nil {
		return func(w http.ResponseWriter, _ *http.Request) {
			problem(w, http.StatusNotFound, "There is nothing at this address.")
		}
	}
	static := http.FileServerFS(files)
	return func(w http.ResponseWriter, r *http.Request) {
		if r.Method != http.MethodGet && r.Method != http.MethodHead {
			problem(w, http.StatusMethodNotAllowed, "This address is read-only.")
			return
		}
		name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
		if st, err := fs.Stat(files, name); err == nil && !st.IsDir() && name != "index.html" {
			cache := "no-cache"
			if strings.HasPrefix(name, "assets/") {
				cache = "public, max-age=31536000, immutable"
			}
			w.Header().Set("Cache-Control", cache)
			if path.Ext(name) == ".webmanifest" {
				w.Header().Set("Content-Type", "application/manifest+json")
			}
			static.ServeHTTP(w, r)
			return
		}
		if strings.HasPrefix(name, "assets/") {
			problem(w, http.StatusNotFound, "There is no such file.")
			return
		}
		index, err := fs.ReadFile(files, "index.html")
		if err != nil {
			problem(w, http.StatusNotFound, "The page was not built into this program: run make build.")
			return
		}
		w.Header().Set("Content-Type", "text/html; charset=utf-8")
		w.Header().Set("Cache-Control", "no-cache")
		_, _ = w.Write(index)
	}
}
