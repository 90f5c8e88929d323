// Package server answers the page: the API over the core and the store, and
// the page itself.
package server

import (
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"log"
	"net"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"rutile/internal/app"
)

// Options say what a server works with.
type Options struct {
	Studio *app.Studio
	// Page is the built page.
	Page fs.FS
	// Hosts are host names the server answers to besides localhost and numeric addresses.
	Hosts []string
	// Workshop says how devices in the workshop's network reach this computer; nil where they do not.
	Workshop *Workshop
}

// APIVersion is the version of the API's description.
const APIVersion = "1"

// GCPercent is how much garbage a serving program lets gather before it collects, in per cent of what it
// keeps (see runtime/debug). That is little; collecting more often lengthens the slowest checks. Working
// default, by BenchmarkLiveCheck.
const GCPercent = 300

// MemoryLimit is from how many bytes on a serving program collects garbage at once, so that large bodies
// one after the other do not add up (see runtime/debug). Working default: above what the largest piece
// takes.
const MemoryLimit = 192 << 20

// compressed are the types worth compressing: the page's own files. Answers of
// the API are small, and compressing one takes longer than judging a zone.
var compressed = []string{"text/html", "text/css", "text/javascript", "image/svg+xml"}

// New makes the handler that serves everything to this computer.
func New(o Options) http.Handler {
	here, _ := Both(o)
	return here
}

// Both makes the handler for this computer, and the one for devices in the workshop's network, which answers those that
// are paired; nil without a workshop. What both share has its limits once.
func Both(o Options) (here, workshop http.Handler) {
	r := routes(o)
	outer := chi.Middlewares{recoverer(o.Studio.Log), headers, onlyHosts(o.Hosts), sameOrigin}
	here = outer.Handler(r)
	if w := o.Workshop; w != nil {
		outer = chi.Middlewares{recoverer(o.Studio.Log), headers, onlyHosts(append(slices.Clone(o.Hosts), w.Names...)), sameOrigin, newDeviceAuth(o.Studio, w).authenticate}
		workshop = outer.Handler(r)
	}
	return here, workshop
}

// routes is the router: the API, pictures, and the page.
func routes(o Options) chi.Router {
	r := chi.NewRouter()
	r.Use(notTooLarge, newGate(o.Studio).through, aboutPiece, middleware.Compress(5, compressed...), oneStatus)
	api(r, o.Studio, o.Workshop)
	r.Get("/photos/{file}", photos(o.Studio, false))
	r.Get("/photos/small/{file}", photos(o.Studio, true))
	if w := o.Workshop; w != nil {
		r.Get("/authority.crt", w.certificate)
	}
	r.NotFound(page(o.Page))
	return r
}

// Spec is the OpenAPI description of the API, as JSON.
func Spec() ([]byte, error) {
	return api(chi.NewRouter(), app.NewStudio(app.NewEngine(nil), app.StudioOptions{}), nil).OpenAPI().MarshalJSON()
}

func api(r chi.Router, s *app.Studio, w *Workshop) huma.API {
	cfg := huma.DefaultConfig("Rutile", APIVersion)
	cfg.DocsPath, cfg.SchemasPath = "", ""
	cfg.OpenAPIPath = "/api/openapi"
	cfg.CreateHooks = nil // no $schema links
	huma.DefaultArrayNullable = false
	a := humachi.New(r, cfg)
	h := newHandlers(s, w)
	h.register(a)
	r.Handle("/api/*", http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		problem(w, http.StatusNotFound, "There is nothing at this address.")
	}))
	return a
}

// Serve answers on a listener until the context ends, then finishes what it
// has begun.
func Serve(ctx context.Context, l net.Listener, h http.Handler) error {
	return serve(ctx, l, &http.Server{Handler: h})
}

// ServeTLS is [Serve] over TLS.
func ServeTLS(ctx context.Context, l net.Listener, h http.Handler, c *tls.Config) error {
	quiet := log.New(io.Discard, "", 0) // every browser that does not know the authority yet breaks off once
	return serve(ctx, l, &http.Server{Handler: h, TLSConfig: c, ErrorLog: quiet})
}

func serve(ctx context.Context, l net.Listener, srv *http.Server) error {
	srv.ReadHeaderTimeout, srv.ReadTimeout, srv.WriteTimeout = 5*time.Second, 30*time.Second, 60*time.Second
	srv.IdleTimeout, srv.MaxHeaderBytes = 2*time.Minute, 1<<16
	run := srv.Serve
	if srv.TLSConfig != nil {
		run = func(l net.Listener) error { return srv.ServeTLS(l, "", "") }
	}
	done := make(chan error, 1)
	go func() {
		<-ctx.Done()
		end, cancel := context.WithTimeout(context.Background(), 5*time.Second)
		defer cancel()
		err := srv.Shutdown(end)
		if errors.Is(err, context.DeadlineExceeded) {
			err = srv.Close() // a browser holds a connection open that it asks nothing on
		}
		done <- err
	}()
	if err := run(l); !errors.Is(err, http.ErrServerClosed) {
		return fmt.Errorf("serve: %w", err)
	}
	return <-done
}
