package server

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"reflect"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"rutile/core/check"
	"rutile/internal/format"
	"rutile/internal/store"
)

type handlers struct{ Options }

// PieceBody is a piece file as a request's body. It is read by the same
// decoder as a file, so that both are refused alike.
type PieceBody struct {
	RawBody []byte `contentType:"application/json"`
}

type byID struct {
	ID uint `path:"id" minimum:"1"`
}

type savedOut struct {
	ETag string `header:"ETag"`
	Body store.Saved
}

// Summary is a piece as the list shows it.
type Summary struct {
	ID      uint          `json:"id"`
	Rev     int           `json:"rev"`
	Name    string        `json:"name"`
	Updated time.Time     `json:"updated"`
	Verdict string        `json:"verdict" enum:"sound,watch,fails"`
	Says    string        `json:"says" doc:"What stands in the way, or that nothing does"`
	Zones   []ZoneSummary `json:"zones"`
}

// ZoneSummary is a zone as the list shows it.
type ZoneSummary struct {
	ID        string  `json:"id"`
	Name      string  `json:"name"`
	Substrate string  `json:"substrate"`
	Colour    string  `json:"colour"`
	AreaM2    float64 `json:"area_m2"`
	Verdict   string  `json:"verdict" enum:"sound,watch,fails"`
	Says      string  `json:"says"`
	Steps     int     `json:"steps"`
}

// Studio is what the page needs to know of the server.
type Studio struct {
	Demo bool        `json:"demo" doc:"The data is a copy that is thrown away at the end"`
	Site format.Site `json:"site"`
}

func (h *handlers) register(a huma.API) {
	piece := a.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[format.Piece](), true, "Piece")
	op := func(id, method, path, summary string, body bool, errs ...int) huma.Operation {
		o := huma.Operation{OperationID: id, Method: method, Path: path, Summary: summary, Errors: errs, SkipValidateBody: true}
		if body {
			o.MaxBodyBytes = format.MaxBytes
			o.BodyReadTimeout = 20 * time.Second
		}
		return o
	}
	huma.Register(a, op("studio", http.MethodGet, "/api/studio", "The studio's settings", false), h.studio)
	huma.Register(a, op("vocab", http.MethodGet, "/api/vocab", "Every id with its meaning", false), h.vocab)
	huma.Register(a, op("check", http.MethodPost, "/api/check", "Check a piece that need not be saved", true, 400, 413, 422), h.check)
	huma.Register(a, op("pieces", http.MethodGet, "/api/pieces", "All pieces", false), h.pieces)
	create := op("create", http.MethodPost, "/api/pieces", "Save a new piece", true, 400, 413, 422, 507)
	create.DefaultStatus = http.StatusCreated
	huma.Register(a, create, h.create)
	huma.Register(a, op("piece", http.MethodGet, "/api/pieces/{id}", "One piece", false, 404), h.piece)
	huma.Register(a, op("save", http.MethodPut, "/api/pieces/{id}", "Save a piece over the revision it was read at", true, 400, 404, 409, 413, 422, 507), h.save)
	remove := op("remove", http.MethodDelete, "/api/pieces/{id}", "Remove a piece", false, 404)
	remove.DefaultStatus = http.StatusNoContent
	huma.Register(a, remove, h.remove)
	// The bodies are decoded by hand, so their type has to be said by hand.
	for _, item := range a.OpenAPI().Paths {
		for _, o := range []*huma.Operation{item.Post, item.Put} {
			if o != nil && o.RequestBody != nil {
				o.RequestBody.Content["application/json"].Schema = piece
			}
		}
	}
}

type studioOut struct{ Body Studio }

func (h *handlers) studio(context.Context, *struct{}) (*studioOut, error) {
	return &studioOut{Studio{h.Demo, format.Site{TempC: h.Site.TempC, RHPct: h.Site.RH}}}, nil
}

type vocabOut struct{ Body format.Vocab }

func (h *handlers) vocab(context.Context, *struct{}) (*vocabOut, error) {
	return &vocabOut{format.VocabOf(h.Craft, format.RuleWords(check.Rules))}, nil
}

type checkOut struct{ Body format.CheckResult }

func (h *handlers) check(_ context.Context, in *PieceBody) (*checkOut, error) {
	p, err := format.Decode(in.RawBody)
	if err != nil {
		return nil, refuse(err)
	}
	return &checkOut{format.Check(h.Craft, p, format.CheckOptions{Site: h.Site, Section: true})}, nil
}

type piecesOut struct{ Body []Summary }

func (h *handlers) pieces(ctx context.Context, _ *struct{}) (*piecesOut, error) {
	all, err := h.Store.List(ctx)
	if err != nil {
		return nil, h.failed(err)
	}
	out := make([]Summary, len(all))
	for i := range all {
		out[i] = h.summary(&all[i])
	}
	return &piecesOut{out}, nil
}

func (h *handlers) summary(s *store.Saved) Summary {
	r := format.Check(h.Craft, &s.Piece, format.CheckOptions{Site: h.Site, NoRepairs: true})
	out := Summary{ID: s.ID, Rev: s.Rev, Name: s.Piece.Name, Updated: s.Updated, Verdict: r.Verdict, Zones: make([]ZoneSummary, len(r.Zones))}
	for i := range r.Zones {
		z, src := &r.Zones[i], &s.Piece.Zones[i]
		colour := ""
		if src.Target != nil {
			colour = src.Target.Colour
		}
		out.Zones[i] = ZoneSummary{z.ID, src.Name, src.Substrate, colour, src.AreaM2, z.Verdict, z.Says, len(src.Steps)}
		if z.Verdict == r.Verdict && out.Says == "" {
			out.Says = z.Says
		}
	}
	if len(r.Zones) == 0 {
		out.Says = "No zone is described yet."
	}
	return out
}

func (h *handlers) create(ctx context.Context, in *PieceBody) (*savedOut, error) {
	p, err := format.Decode(in.RawBody)
	if err != nil {
		return nil, refuse(err)
	}
	s, err := h.Store.Create(ctx, p)
	if err != nil {
		return nil, h.failed(err)
	}
	return saved(s), nil
}

func (h *handlers) piece(ctx context.Context, in *byID) (*savedOut, error) {
	s, err := h.Store.Get(ctx, in.ID)
	if err != nil {
		return nil, h.failed(err)
	}
	return saved(s), nil
}

type saveIn struct {
	ID      uint   `path:"id" minimum:"1"`
	IfMatch string `header:"If-Match" required:"true" doc:"The revision the piece was read at, in quotes"`
	PieceBody
}

func (h *handlers) save(ctx context.Context, in *saveIn) (*savedOut, error) {
	base, err := strconv.Atoi(strings.Trim(in.IfMatch, `"`))
	if err != nil {
		return nil, huma.Error400BadRequest("If-Match must name the revision the piece was read at.")
	}
	p, err := format.Decode(in.RawBody)
	if err != nil {
		return nil, refuse(err)
	}
	s, err := h.Store.Save(ctx, in.ID, base, p)
	if err != nil {
		return nil, h.failed(err)
	}
	return saved(s), nil
}

func (h *handlers) remove(ctx context.Context, in *byID) (*struct{}, error) {
	if err := h.Store.Delete(ctx, in.ID); err != nil {
		return nil, h.failed(err)
	}
	return nil, nil
}

func saved(s store.Saved) *savedOut {
	return &savedOut{ETag: fmt.Sprintf("%q", strconv.Itoa(s.Rev)), Body: s}
}

// refuse turns what is wrong with an input into a problem.
func refuse(err error) error {
	var fe *format.Error
	if !errors.As(err, &fe) {
		return huma.Error400BadRequest(err.Error())
	}
	if fe.Path == "" {
		return huma.Error400BadRequest(fe.Error())
	}
	return huma.Error422UnprocessableEntity(fe.Error(), &huma.ErrorDetail{Location: fe.Path, Message: fe.Says, Value: fe.Value})
}

// failed turns what went wrong in the store into a problem.
func (h *handlers) failed(err error) error {
	var c *store.Conflict
	switch {
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("There is no such piece. It may have been removed in another tab.")
	case errors.As(err, &c):
		p := huma.Error409Conflict("This piece was changed elsewhere since you opened it. Nothing was overwritten.")
		if m, ok := p.(*huma.ErrorModel); ok {
			for _, s := range c.Changes {
				m.Errors = append(m.Errors, &huma.ErrorDetail{Message: s, Location: "piece", Value: c.Current.Rev})
			}
		}
		return p
	case errors.Is(err, store.ErrFull):
		return huma.NewError(http.StatusInsufficientStorage, "The disk is full. Nothing was saved; make room and save again.")
	}
	h.Log.Error("store", "err", err)
	return huma.Error500InternalServerError("The database did not take it. Nothing was saved.")
}
