package server

import (
	"context"
	"net/http"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"rutile/internal/app"
	"rutile/internal/wire"
)

// aboutPiece tells the use cases which kept piece a question is about, where its address says so.
func aboutPiece(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if id, err := strconv.Atoi(r.URL.Query().Get("of")); err == nil && id > 0 {
			r = r.WithContext(app.OfPiece(r.Context(), id))
		}
		next.ServeHTTP(w, r)
	})
}

func (h *handlers) registerShelf(a huma.API) {
	const get, post, put, del = http.MethodGet, http.MethodPost, http.MethodPut, http.MethodDelete
	gone := func(o huma.Operation) huma.Operation { o.DefaultStatus = http.StatusNoContent; return o }
	made := func(o huma.Operation) huma.Operation { o.DefaultStatus = http.StatusCreated; return o }

	huma.Register(a, route("shelf", get, "/api/shelf", "The cans of the studio, in the order in which they are used"), h.listShelf)
	huma.Register(a, made(route("addCan", post, "/api/shelf", "Put a can on the shelf", 400, 413, 422, 507)), h.addCan)
	huma.Register(a, route("putCan", put, "/api/shelf/{id}", "Change a can, or put back one that was removed", 400, 404, 409, 413, 422, 507), h.putCan)
	huma.Register(a, gone(route("removeCan", del, "/api/shelf/{id}", "Take a can off the shelf", 404)), h.removeCan)
	huma.Register(a, route("weigh", get, "/api/weigh", "What is left in a can by its weight", 422), h.weigh)
	bringIn := route("importCans", post, "/api/shelf/csv", "Put cans on the shelf from CSV, or only look at it", 413, 422, 507)
	bringIn.MaxBodyBytes = app.MaxCansBytes + 1
	huma.Register(a, bringIn, h.importCans)
	huma.Register(a, file("exportCans", "/api/shelf/csv", "The shelf as CSV", "text/csv"), h.exportCans)

	huma.Register(a, route("blends", get, "/api/blends", "The studio's recipes"), h.blends)
	huma.Register(a, made(route("addBlend", post, "/api/blends", "Keep a recipe", 400, 413, 422, 507)), h.addBlend)
	huma.Register(a, route("putBlend", put, "/api/blends/{id}", "Change a recipe, or put back one that was removed", 400, 404, 409, 413, 422, 507), h.putBlend)
	huma.Register(a, gone(route("removeBlend", del, "/api/blends/{id}", "Remove a recipe", 404)), h.removeBlend)
	huma.Register(a, route("blend", post, "/api/blend", "What parts of paints come to", 400, 413, 422), h.blend)
	huma.Register(a, route("nearest", get, "/api/nearest", "The blends nearest to a colour", 404, 422), h.nearest)

	huma.Register(a, route("readColour", get, "/api/colour/read", "Read a typed colour", 422), h.readColour)
	huma.Register(a, route("patchColour", get, "/api/colour/patch", "The colour of a patch of a photograph", 404, 422), h.patchColour)
	huma.Register(a, route("palettes", get, "/api/palettes", "The palettes"), h.palettes)
	palette := made(route("importPalette", post, "/api/palettes", "Bring in a GIMP palette", 413, 422, 507))
	palette.MaxBodyBytes = app.MaxPaletteBytes + 1
	huma.Register(a, palette, h.importPalette)
	huma.Register(a, file("paletteFile", "/api/palettes/{id}", "A palette as a GIMP palette", "application/octet-stream", 404), h.paletteFile)
	huma.Register(a, gone(route("removePalette", del, "/api/palettes/{id}", "Remove a palette of the studio's own", 404)), h.removePalette)

	huma.Register(a, route("needs", post, "/api/needs", "What the plans of a piece take, and whether the shelf has it", 400, 413, 422), h.needs)
	huma.Register(a, route("coats", post, "/api/coats", "The coats of a zone as swatches over every ground that it has", 400, 404, 413, 422), h.coats)
}

// file is the address of a file to save.
func file(id, path, summary, contentType string, errs ...int) huma.Operation {
	o := route(id, http.MethodGet, path, summary, errs...)
	o.Responses = map[string]*huma.Response{"200": {Description: summary, Content: map[string]*huma.MediaType{contentType: {}}}}
	return o
}

// savedFile is an answer that the browser saves as a file.
type savedFile struct {
	Type        string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

func (h *handlers) listShelf(ctx context.Context, in *struct {
	Find string `query:"find" maxLength:"200" doc:"Words that are looked for"`
}) (*answer[wire.Shelf], error) {
	s, err := h.ListShelf(ctx, in.Find)
	return of(h, s, err)
}

// JSONBody is a document as a request's body.
type JSONBody struct {
	RawBody []byte `contentType:"application/json"`
}

// Changing is a document that is changed.
type Changing struct {
	ID      string `path:"id" maxLength:"40"`
	IfMatch string `header:"If-Match" required:"true" doc:"The revision that it was read at, in quotes; 0 for one that was removed"`
	JSONBody
}

type byName struct {
	ID string `path:"id" maxLength:"40"`
}

func (in *Changing) base() (int, error) {
	n, err := strconv.Atoi(strings.Trim(in.IfMatch, `"`))
	if err != nil || n < 0 {
		return 0, huma.Error400BadRequest("If-Match must name the revision that it was read at.")
	}
	return n, nil
}

func (h *handlers) addCan(ctx context.Context, in *JSONBody) (*answer[wire.ShelfCan], error) {
	x, err := h.PutCan(ctx, "", 0, in.RawBody)
	return of(h, x, err)
}

func (h *handlers) putCan(ctx context.Context, in *Changing) (*answer[wire.ShelfCan], error) {
	base, err := in.base()
	if err != nil {
		return nil, err
	}
	x, err := h.PutCan(ctx, in.ID, base, in.RawBody)
	return of(h, x, err)
}

func (h *handlers) done(err error) (*nothing, error) {
	if err != nil {
		return nil, h.problemOf(err)
	}
	return nil, nil
}

func (h *handlers) removeCan(ctx context.Context, in *byName) (*nothing, error) {
	return h.done(h.RemoveCan(ctx, in.ID))
}

func (h *handlers) weigh(ctx context.Context, in *struct {
	Kind  string  `query:"kind" required:"true"`
	Size  float64 `query:"size_l" required:"true" doc:"What it held when it was full, in litres"`
	Grams float64 `query:"grams" required:"true" doc:"What it weighs with its tin"`
	Tare  float64 `query:"tare" doc:"What the empty tin weighs, in grams; absent: as is usual"`
}) (*answer[wire.Weighed], error) {
	w, err := h.Weigh(ctx, in.Kind, in.Size, in.Grams, in.Tare)
	return of(h, w, err)
}

func (h *handlers) importCans(ctx context.Context, in *struct {
	Look    bool   `query:"look" doc:"Only say what it would come to"`
	RawBody []byte `contentType:"text/csv"`
}) (*answer[wire.CansImported], error) {
	r, err := h.ImportCans(ctx, in.RawBody, in.Look)
	return of(h, r, err)
}

func (h *handlers) exportCans(ctx context.Context, _ *nothing) (*savedFile, error) {
	data, err := h.ExportCans(ctx)
	if err != nil {
		return nil, h.problemOf(err)
	}
	return &savedFile{"text/csv; charset=utf-8", `attachment; filename="shelf.csv"`, data}, nil
}

func (h *handlers) blends(ctx context.Context, _ *nothing) (*answer[[]wire.SavedBlend], error) {
	all, err := h.Blends(ctx)
	return of(h, all, err)
}

func (h *handlers) addBlend(ctx context.Context, in *JSONBody) (*answer[wire.SavedBlend], error) {
	b, err := h.PutBlend(ctx, "", 0, in.RawBody)
	return of(h, b, err)
}

func (h *handlers) putBlend(ctx context.Context, in *Changing) (*answer[wire.SavedBlend], error) {
	base, err := in.base()
	if err != nil {
		return nil, err
	}
	b, err := h.PutBlend(ctx, in.ID, base, in.RawBody)
	return of(h, b, err)
}

func (h *handlers) removeBlend(ctx context.Context, in *byName) (*nothing, error) {
	return h.done(h.RemoveBlend(ctx, in.ID))
}

func (h *handlers) blend(ctx context.Context, in *struct {
	Litres float64 `query:"litres" minimum:"0" maximum:"200" doc:"How much of it is to be made"`
	With   string  `query:"with" maxLength:"7" doc:"The colour of another paint that it is filled up with once half of it is used"`
	JSONBody
}) (*answer[wire.BlendResult], error) {
	r, err := h.Blend(ctx, in.RawBody, app.BlendOptions{Litres: in.Litres, With: in.With})
	return of(h, r, err)
}

func (h *handlers) nearest(ctx context.Context, in *struct {
	Want string `query:"want" required:"true" maxLength:"200" doc:"A colour, as a name, #rrggbb or L*a*b*"`
	From string `query:"from" maxLength:"40" doc:"Id of a palette; absent: from the shelf"`
	Kind string `query:"kind" maxLength:"40" doc:"The kind of paint; absent: the one that comes nearest"`
}) (*answer[wire.Nearest], error) {
	n, err := h.Nearest(ctx, in.Want, in.From, in.Kind)
	return of(h, n, err)
}

func (h *handlers) readColour(_ context.Context, in *struct {
	Text string `query:"text" maxLength:"200" doc:"A name, #rrggbb or L*a*b*"`
}) (*answer[wire.ColourRead], error) {
	c, err := h.ReadColour(in.Text)
	return of(h, c, err)
}

func (h *handlers) patchColour(ctx context.Context, in *struct {
	File string  `query:"file" required:"true" maxLength:"90"`
	X    float64 `query:"x" required:"true" minimum:"0" maximum:"1"`
	Y    float64 `query:"y" required:"true" minimum:"0" maximum:"1"`
	R    float64 `query:"r" minimum:"0" maximum:"0.5" doc:"Radius as a share of the shorter side"`
	WX   float64 `query:"white_x" minimum:"-1" maximum:"1" default:"-1" doc:"Where something white is"`
	WY   float64 `query:"white_y" minimum:"-1" maximum:"1" default:"-1"`
}) (*answer[wire.PatchRead], error) {
	r := in.R
	if r == 0 {
		r = .02
	}
	var white *app.Spot
	if in.WX >= 0 && in.WY >= 0 {
		white = &app.Spot{X: in.WX, Y: in.WY, R: r}
	}
	p, err := h.PatchColour(ctx, in.File, app.Spot{X: in.X, Y: in.Y, R: r}, white)
	return of(h, p, err)
}

func (h *handlers) palettes(ctx context.Context, _ *nothing) (*answer[[]wire.Palette], error) {
	all, err := h.Palettes(ctx)
	return of(h, all, err)
}

func (h *handlers) importPalette(ctx context.Context, in *struct {
	Name    string `query:"name" maxLength:"200" doc:"What it is called where it does not say"`
	RawBody []byte `contentType:"application/octet-stream"`
}) (*answer[wire.Palette], error) {
	p, err := h.ImportPalette(ctx, in.RawBody, in.Name)
	return of(h, p, err)
}

func (h *handlers) paletteFile(ctx context.Context, in *byName) (*savedFile, error) {
	data, err := h.PaletteFile(ctx, in.ID)
	if err != nil {
		return nil, h.problemOf(err)
	}
	return &savedFile{"application/octet-stream", `attachment; filename="palette.gpl"`, data}, nil
}

func (h *handlers) removePalette(ctx context.Context, in *byName) (*nothing, error) {
	return h.done(h.RemovePalette(ctx, in.ID))
}

func (h *handlers) needs(ctx context.Context, in *PieceBody) (*answer[wire.Needs], error) {
	j, err := h.Read(ctx, in.RawBody)
	if err != nil {
		return nil, h.problemOf(err)
	}
	return of(h, j.Needs(), nil)
}

func (h *handlers) coats(ctx context.Context, in *ZoneBody) (*answer[wire.CoatLooks], error) {
	j, i, err := h.ReadZone(ctx, in.RawBody, in.Zone)
	if err != nil {
		return nil, h.problemOf(err)
	}
	c, err := j.CoatLooks(ctx, i)
	return of(h, c, err)
}
