package server

import (
	"net/http"
	"os"
	"time"

	"github.com/go-chi/chi/v5"

	"rutile/internal/app"
)

// photos serves the pictures that are kept.
func photos(s *app.Studio, small bool) http.HandlerFunc {
	return func(w http.ResponseWriter, r *http.Request) {
		f, err := s.Photo(chi.URLParam(r, "file"), small)
		if err != nil {
			problem(w, http.StatusNotFound, err.Error())
			return
		}
		defer f.Close()
		w.Header().Set("Content-Type", "image/jpeg")
		w.Header().Set("Cache-Control", "private, no-cache")
		http.ServeContent(w, r, "", modified(f), f)
	}
}

func modified(f *os.File) time.Time {
	if info, err := f.Stat(); err == nil {
		return info.ModTime()
	}
	return time.Time{}
}
