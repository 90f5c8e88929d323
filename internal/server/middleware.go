package server

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"runtime/debug"
	"slices"
	"strings"
	"time"

	"rutile/internal/app"
	"rutile/internal/wire"
)

// policy lets the page load what ships with it and nothing else.
const policy = "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src 'self'; connect-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"

func headers(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("Content-Security-Policy", policy)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "no-referrer")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		h.Set("Permissions-Policy", "camera=(), microphone=(), geolocation=()")
		if strings.HasPrefix(r.URL.Path, "/api/") {
			h.Set("Cache-Control", "no-store")
		}
		next.ServeHTTP(w, r)
	})
}

// onlyHosts refuses requests for other host names: a page elsewhere whose name was made to point
// here cannot read the workshop's data.
func onlyHosts(more []string) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			host := r.Host
			if h, _, err := net.SplitHostPort(host); err == nil {
				host = h
			}
			host = strings.Trim(strings.ToLower(host), "[]")
			if host != "localhost" && net.ParseIP(host) == nil && !slices.Contains(more, host) {
				problem(w, http.StatusMisdirectedRequest, "This server does not accept that host name. Start it with --host to allow it.")
				return
			}
			next.ServeHTTP(w, r)
		})
	}
}

// sameOrigin refuses writes that another page sends.
func sameOrigin(next http.Handler) http.Handler {
	p := http.NewCrossOriginProtection()
	p.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		problem(w, http.StatusForbidden, "Only Rutile's own page may make changes.")
	}))
	return p.Handler(next)
}

// large is from how many bytes on few bodies are taken in at once, so that their memory stays bounded.
const large = 512 << 10

// gate lets few large bodies in at once, and tells short questions from long work.
type gate struct {
	studio         *app.Studio
	bodies, photos chan struct{}
}

func newGate(s *app.Studio) *gate {
	return &gate{s, make(chan struct{}, 4), make(chan struct{}, 8)}
}

// gateTime is how long a large body waits to be taken in.
const gateTime = time.Second

func (g *gate) through(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		api := strings.HasPrefix(r.URL.Path, "/api/")
		plans := strings.HasPrefix(r.URL.Path, "/api/plans") || r.URL.Path == "/api/minds"
		places := g.bodies
		if r.URL.Path == "/api/photos" {
			places = g.photos
		}
		if api && (r.ContentLength > large || r.ContentLength < 0) {
			wait := time.NewTimer(gateTime)
			defer wait.Stop()
			select {
			case places <- struct{}{}:
				defer func() { <-places }()
			case <-wait.C:
				w.Header().Set("Retry-After", "3")
				w.Header().Set("Connection", "close") // its body is not read
				problem(w, http.StatusServiceUnavailable, busy)
				discard(w, r)
				return
			case <-r.Context().Done():
				return
			}
		}
		c := http.NewResponseController(w)
		if plans {
			_ = c.SetWriteDeadline(time.Now().Add(max(g.studio.Budgets.Zone, g.studio.Budgets.Piece) + photoTime))
		} else if api && places != g.photos {
			defer g.studio.Light()()
		}
		// A body that was read is no reason to give up the work on it.
		r.Body = &readWhole{r.Body, func() { _ = c.SetReadDeadline(time.Time{}) }}
		next.ServeHTTP(w, r)
	})
}

// discard reads what is left of a refused body for a moment: a browser that is still sending does not see
// the answer when the connection is closed.
func discard(w http.ResponseWriter, r *http.Request) {
	c := http.NewResponseController(w)
	_ = c.Flush()
	_ = c.SetReadDeadline(time.Now().Add(2 * time.Second))
	_, _ = io.CopyN(io.Discard, r.Body, 2*app.MaxPhotoBytes)
}

// readWhole does something once a body has been read to its end.
type readWhole struct {
	io.ReadCloser
	then func()
}

func (r *readWhole) Read(b []byte) (int, error) {
	n, err := r.ReadCloser.Read(b)
	if errors.Is(err, io.EOF) {
		r.then()
	}
	return n, err
}

const busy = "The server is busy. Try again in a few seconds."

// notTooLarge refuses a body that says it is larger than any may be
// before it is read. One that does not say is cut off where it is read.
func notTooLarge(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		most, what := int64(wire.MaxBytes), "a piece"
		if r.URL.Path == "/api/photos" {
			most, what = app.MaxPhotoBytes, "a picture"
			c := http.NewResponseController(w)
			_ = c.SetReadDeadline(time.Now().Add(photoTime))
			_ = c.SetWriteDeadline(time.Now().Add(2 * photoTime)) // it is unpacked after it was read
		}
		if r.ContentLength > most {
			w.Header().Set("Connection", "close")
			problem(w, http.StatusRequestEntityTooLarge, fmt.Sprintf("This is larger than %d MB, the limit for %s. Nothing was saved.", most>>20, what))
			discard(w, r)
			return
		}
		next.ServeHTTP(w, r)
	})
}

func recoverer(log *slog.Logger) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			defer func() {
				v := recover()
				switch v {
				case nil:
				case http.ErrAbortHandler:
					panic(v)
				default:
					log.Error("panic", "path", r.URL.Path, "value", v, "stack", string(debug.Stack()))
					problem(w, http.StatusInternalServerError, "Something went wrong on the server. Nothing was saved.")
				}
			}()
			next.ServeHTTP(w, r)
		})
	}
}

// problem writes an RFC 9457 problem.
func problem(w http.ResponseWriter, status int, detail string) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(status)
	_ = json.NewEncoder(w).Encode(map[string]any{"title": http.StatusText(status), "status": status, "detail": detail})
}

// oneStatus sends the first status of an answer and no other: the API library marks a request whose
// page has gone away while its answer was being written.
func oneStatus(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		next.ServeHTTP(&statusOnce{ResponseWriter: w}, r)
	})
}

type statusOnce struct {
	http.ResponseWriter
	sent bool
}

func (w *statusOnce) WriteHeader(status int) {
	if !w.sent {
		w.sent = status >= http.StatusOK // what comes before is no answer yet
		w.ResponseWriter.WriteHeader(status)
	}
}

func (w *statusOnce) Write(b []byte) (int, error) {
	w.sent = true
	return w.ResponseWriter.Write(b)
}

// Flush lets lines go out as they are written.
func (w *statusOnce) Flush() {
	w.sent = true
	if f, ok := w.ResponseWriter.(http.Flusher); ok {
		f.Flush()
	}
}

// Unwrap lets deadlines be set.
func (w *statusOnce) Unwrap() http.ResponseWriter { return w.ResponseWriter }
