package server

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"net/http"
	"reflect"
	"strconv"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"rutile/internal/app"
	"rutile/internal/wire"
)

// handlers answer the API: each reads a request, asks the studio, and writes the answer.
type handlers struct {
	*app.Studio
	workshop *Workshop // nil where no other device reaches this computer
	// vocabulary is the same as long as the program runs, and long.
	vocabulary func() ([]byte, error)
}

func newHandlers(s *app.Studio, w *Workshop) *handlers {
	return &handlers{s, w, sync.OnceValues(s.VocabJSON)}
}

// written is an answer that was written before.
type written struct {
	Type string `header:"Content-Type"`
	Body []byte
}

// answer is what a handler returns, with its body.
type answer[T any] struct{ Body T }

// of is an answer, or the problem that stands in its place.
func of[T any](h *handlers, body T, err error) (*answer[T], error) {
	if err != nil {
		return nil, h.problemOf(err)
	}
	return &answer[T]{body}, nil
}

// PieceBody is a piece file as a request's body. It is read by the same decoder as a file, so that
// both are refused with the same message.
type PieceBody struct {
	Of      int    `query:"of" minimum:"0" doc:"Number of the piece where it is kept, so that cans reserved for it count"`
	RawBody []byte `contentType:"application/json"`
}

// ZoneBody is a piece file with the zone in question.
type ZoneBody struct {
	Zone string `query:"zone" required:"true" doc:"Id of the zone"`
	PieceBody
}

type byID struct {
	ID uint `path:"id" minimum:"1"`
}

type nothing struct{}

// photoTime is how long a picture may take on its way here.
const photoTime = 3 * time.Minute

// route is one address of the API.
func route(id, method, path, summary string, errs ...int) huma.Operation {
	o := huma.Operation{OperationID: id, Method: method, Path: path, Summary: summary, Errors: errs, SkipValidateBody: true}
	if method == http.MethodPost || method == http.MethodPut || method == http.MethodPatch {
		o.MaxBodyBytes = wire.MaxBytes
		o.BodyReadTimeout = 20 * time.Second
	}
	return o
}

func (h *handlers) register(a huma.API) {
	const get, post, put = http.MethodGet, http.MethodPost, http.MethodPut

	huma.Register(a, route("studio", get, "/api/studio", "The studio's settings"), h.studio)
	huma.Register(a, route("saveStudio", put, "/api/studio", "Save the studio's settings, based on the revision they were read at", 400, 409, 413, 422, 507), h.saveStudio)
	words := route("vocab", get, "/api/vocab", "Every id with its meaning")
	words.Responses = described[wire.Vocab](a, "application/json", "Every id with its meaning")
	huma.Register(a, words, h.vocab)
	huma.Register(a, route("rules", get, "/api/rules", "The rule book, and where in the studio each rule has a finding now"), h.rules)

	// What is kept.
	list := route("pieces", get, "/api/pieces", "All pieces")
	list.Responses = described[[]wire.Summary](a, "application/json", "All pieces, most recently changed first")
	huma.Register(a, list, h.pieces)
	create := route("create", post, "/api/pieces", "Save a new piece", 400, 413, 422, 507)
	create.DefaultStatus = http.StatusCreated
	huma.Register(a, create, h.create)
	huma.Register(a, route("piece", get, "/api/pieces/{id}", "One piece", 404), h.piece)
	raw := route("document", get, "/api/pieces/{id}/document", "The document of a piece as it is kept, for a damaged one too", 404)
	raw.Responses = map[string]*huma.Response{"200": {Description: "The document, which need not be valid", Content: map[string]*huma.MediaType{"application/octet-stream": {}}}}
	huma.Register(a, raw, h.document)
	huma.Register(a, route("since", get, "/api/pieces/{id}/since/{rev}", "What has changed in a piece since a revision", 404), h.since)
	huma.Register(a, route("save", put, "/api/pieces/{id}", "Save a piece, based on the revision it was read at", 400, 404, 409, 413, 422, 507), h.save)
	remove := route("remove", http.MethodDelete, "/api/pieces/{id}", "Remove a piece", 404)
	remove.DefaultStatus = http.StatusNoContent
	huma.Register(a, remove, h.remove)

	// Looking over.
	huma.Register(a, route("area", get, "/api/area", "Read a typed area", 422), h.area)
	huma.Register(a, route("colour", get, "/api/colour", "The plain name of a colour", 422), h.colour)
	huma.Register(a, route("parts", get, "/api/parts", "Read typed parts", 422), h.parts)
	huma.Register(a, route("sizes", get, "/api/sizes", "Read the typed sizes of a part", 404, 422), h.sizes)
	huma.Register(a, route("templates", get, "/api/templates", "The piece templates"), h.templates)
	huma.Register(a, route("template", get, "/api/templates/{id}", "The parts of a piece template", 404, 422), h.template)
	take := route("takePhoto", post, "/api/photos", "Add a picture", 413, 422, 503, 507)
	take.MaxBodyBytes, take.BodyReadTimeout = app.MaxPhotoBytes, photoTime
	take.DefaultStatus = http.StatusCreated
	huma.Register(a, take, h.takePhoto)

	// Finding out, checking, planning.
	huma.Register(a, route("identify", post, "/api/identify", "What tests say about a zone, and what to test next", 400, 404, 413, 422), h.identify)
	huma.Register(a, route("check", post, "/api/check", "Check a piece, saved or not", 400, 413, 422, 503), h.check)
	huma.Register(a, route("checkChange", http.MethodPatch, "/api/check", "Check the zones that have changed since an earlier check; 412 when that check has expired", 400, 412, 413, 422, 503), h.checkChange)
	huma.Register(a, route("next", post, "/api/next", "Suggestions for the next step in a zone's plan", 400, 404, 413, 422), h.next)
	h.registerPlans(a)
	h.registerShelf(a)
	h.registerMix(a)
	h.registerLog(a)
	h.registerDevices(a)

	// The instruments.
	huma.Register(a, route("instruments", get, "/api/instruments", "The instruments, and the air right now"), h.instruments)
	huma.Register(a, route("course", get, "/api/instruments/course", "The air of the day, and imported readings"), h.airHistory)
	huma.Register(a, route("read", post, "/api/instruments/{id}/read", "Take a reading of a zone with an instrument", 400, 404, 413, 422), h.read)
	bringIn := route("importReadings", post, "/api/instruments/readings", "Import readings from CSV", 413, 422, 507)
	bringIn.MaxBodyBytes = app.MaxCSVBytes + 1
	huma.Register(a, bringIn, h.importReadings)
	huma.Register(a, route("sources", get, "/api/instruments/sources", "Where imported readings come from"), h.sources)
	huma.Register(a, route("removeSource", http.MethodDelete, "/api/instruments/sources", "Remove all readings of a source", 404), h.removeSource)
	huma.Register(a, route("readings", get, "/api/instruments/readings", "Imported readings of a source, the newest first"), h.readings)
	huma.Register(a, route("putReading", put, "/api/instruments/readings/{id}", "Correct an imported reading, or bring back a removed one", 400, 404, 413, 422, 507), h.putReading)
	removeReading := route("removeReading", http.MethodDelete, "/api/instruments/readings/{id}", "Remove an imported reading", 404)
	removeReading.DefaultStatus = http.StatusNoContent
	huma.Register(a, removeReading, h.removeReading)

	h.describe(a)
}

func (h *handlers) studio(ctx context.Context, _ *nothing) (*answer[wire.Studio], error) {
	return of(h, h.About(ctx), nil)
}

func (h *handlers) saveStudio(ctx context.Context, in *struct {
	IfMatch string `header:"If-Match" required:"true" doc:"The revision that the settings were read at, in quotes; * for any"`
	RawBody []byte `contentType:"application/json"`
}) (*answer[wire.Studio], error) {
	base, err := strconv.Atoi(strings.Trim(in.IfMatch, `"`))
	if in.IfMatch == "*" {
		base, err = app.AnyRevision, nil
	}
	if err != nil || base < app.AnyRevision {
		return nil, huma.Error400BadRequest("If-Match must name the revision that the settings were read at.")
	}
	err = h.SaveSettings(ctx, base, in.RawBody)
	return of(h, h.About(ctx), err)
}

func (h *handlers) vocab(context.Context, *nothing) (*written, error) {
	body, err := h.vocabulary()
	if err != nil {
		return nil, h.problemOf(err)
	}
	return &written{"application/json", body}, nil
}

func (h *handlers) rules(ctx context.Context, _ *nothing) (*answer[[]wire.RuleEntry], error) {
	book, err := h.RuleBook(ctx)
	return of(h, book, err)
}

func (h *handlers) pieces(ctx context.Context, _ *nothing) (*written, error) {
	list, err := h.List(ctx)
	if err != nil {
		return nil, h.problemOf(err)
	}
	return &written{"application/json", list}, nil
}

type savedOut struct {
	ETag string `header:"ETag"`
	Body wire.Saved
}

func (h *handlers) saved(s wire.Saved, err error) (*savedOut, error) {
	if err != nil {
		return nil, h.problemOf(err)
	}
	return &savedOut{ETag: strconv.Quote(strconv.Itoa(s.Rev)), Body: s}, nil
}

func (h *handlers) create(ctx context.Context, in *PieceBody) (*savedOut, error) {
	return h.saved(h.Create(ctx, in.RawBody))
}

func (h *handlers) piece(ctx context.Context, in *byID) (*savedOut, error) {
	return h.saved(h.Piece(ctx, in.ID))
}

func (h *handlers) document(ctx context.Context, in *byID) (*struct {
	Type        string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}, error) {
	body, err := h.Document(ctx, in.ID)
	if err != nil {
		return nil, h.problemOf(err)
	}
	return &struct {
		Type        string `header:"Content-Type"`
		Disposition string `header:"Content-Disposition"`
		Body        []byte
	}{"application/octet-stream", fmt.Sprintf(`attachment; filename="piece-%d.json"`, in.ID), body}, nil
}

func (h *handlers) save(ctx context.Context, in *struct {
	ID      uint   `path:"id" minimum:"1"`
	IfMatch string `header:"If-Match" required:"true" doc:"The revision the piece was read at, in quotes"`
	PieceBody
}) (*savedOut, error) {
	base, err := strconv.Atoi(strings.Trim(in.IfMatch, `"`))
	if err != nil {
		return nil, huma.Error400BadRequest("If-Match must name the revision that the piece was read at.")
	}
	return h.saved(h.Save(ctx, in.ID, base, in.RawBody))
}

func (h *handlers) since(ctx context.Context, in *struct {
	ID  uint `path:"id" minimum:"1"`
	Rev int  `path:"rev" minimum:"0"`
}) (*answer[wire.Since], error) {
	s, err := h.Since(ctx, in.ID, in.Rev)
	return of(h, s, err)
}

func (h *handlers) remove(ctx context.Context, in *byID) (*nothing, error) {
	if err := h.Remove(ctx, in.ID); err != nil {
		return nil, h.problemOf(err)
	}
	return nil, nil
}

func (h *handlers) area(ctx context.Context, in *struct {
	Text string `query:"text" doc:"As 120 x 45 cm, or 4 ft 2 in by 18"`
}) (*answer[wire.Area], error) {
	a, err := h.Area(ctx, in.Text)
	return of(h, a, err)
}

func (h *handlers) colour(ctx context.Context, in *struct {
	Of string `query:"of" doc:"As #rrggbb"`
}) (*answer[wire.ColourWord], error) {
	c, err := h.ColourName(ctx, in.Of)
	return of(h, c, err)
}

func (h *handlers) parts(ctx context.Context, in *struct {
	Text string `query:"text" doc:"As 3 drawer fronts 80x18; several are separated by semicolons"`
}) (*answer[[]wire.Part], error) {
	ps, err := h.Parts(ctx, in.Text)
	return of(h, ps, err)
}

func (h *handlers) sizes(ctx context.Context, in *struct {
	Kind   string  `query:"kind" required:"true"`
	Text   string  `query:"text" doc:"As 80 x 18 cm"`
	Thick  float64 `query:"thick_cm" doc:"As it is now; kept where the text leaves it out"`
	Girth  float64 `query:"girth_cm" doc:"As it is now; kept where the text leaves it out"`
	Member float64 `query:"member_cm" doc:"As it is now; kept where the text leaves it out"`
}) (*answer[wire.Part], error) {
	p, err := h.Sizes(ctx, in.Kind, in.Text, wire.Part{ThickCM: in.Thick, GirthCM: in.Girth, MemberCM: in.Member})
	return of(h, p, err)
}

func (h *handlers) templates(ctx context.Context, _ *nothing) (*answer[[]wire.TemplateWord], error) {
	return of(h, h.Templates(ctx), nil)
}

func (h *handlers) template(ctx context.Context, in *struct {
	ID     string `path:"id"`
	Sizes  string `query:"sizes" doc:"As 80 x 90 x 45 cm; empty for the usual ones"`
	Counts string `query:"counts" doc:"As 3,2; empty for the usual ones"`
}) (*answer[wire.TemplateParts], error) {
	m, err := h.FromTemplate(ctx, in.ID, in.Sizes, in.Counts)
	return of(h, m, err)
}

func (h *handlers) takePhoto(ctx context.Context, in *struct {
	RawBody []byte `contentType:"application/octet-stream"`
}) (*answer[wire.PhotoKept], error) {
	p, err := h.TakePhoto(ctx, in.RawBody)
	return of(h, p, err)
}

// checkOut is a check with the token that a change may start from.
type checkOut[T any] struct {
	ETag string `header:"ETag"`
	Body T
}

func checked[T any](h *handlers, r T, token string, err error) (*checkOut[T], error) {
	if err != nil {
		return nil, h.problemOf(err)
	}
	return &checkOut[T]{strconv.Quote(token), r}, nil
}

func (h *handlers) check(ctx context.Context, in *PieceBody) (*checkOut[wire.CheckResult], error) {
	r, token, err := h.Check(ctx, in.RawBody)
	return checked(h, r, token, err)
}

func (h *handlers) checkChange(ctx context.Context, in *struct {
	IfMatch string `header:"If-Match" required:"true" doc:"The ETag of the check that the change starts from"`
	PieceBody
}) (*checkOut[wire.CheckChange], error) {
	r, token, err := h.CheckChange(ctx, strings.Trim(in.IfMatch, `"`), in.RawBody)
	return checked(h, r, token, err)
}

func (h *handlers) next(ctx context.Context, in *struct {
	At int `query:"at" minimum:"0" maximum:"200" doc:"After how many of its steps"`
	ZoneBody
}) (*answer[[]wire.NextStep], error) {
	j, i, err := h.ReadZone(ctx, in.RawBody, in.Zone)
	if err != nil {
		return nil, h.problemOf(err)
	}
	steps, err := j.Next(ctx, i, in.At)
	return of(h, steps, err)
}

func (h *handlers) identify(ctx context.Context, in *ZoneBody) (*answer[wire.Identification], error) {
	j, i, err := h.ReadZone(ctx, in.RawBody, in.Zone)
	if err != nil {
		return nil, h.problemOf(err)
	}
	found, err := j.Identify(ctx, i)
	return of(h, found, err)
}

func (h *handlers) instruments(ctx context.Context, _ *nothing) (*answer[wire.InstrumentsNow], error) {
	now, err := h.InstrumentsNow(ctx)
	return of(h, now, err)
}

func (h *handlers) airHistory(ctx context.Context, _ *nothing) (*answer[wire.AirHistory], error) {
	c, err := h.AirHistory(ctx)
	return of(h, c, err)
}

func (h *handlers) read(ctx context.Context, in *struct {
	ID    string `path:"id"`
	Piece int    `query:"piece" doc:"Number of the piece, so that each piece has its own spots"`
	ZoneBody
}) (*answer[wire.SpotRead], error) {
	j, i, err := h.ReadZone(ctx, in.RawBody, in.Zone)
	if err != nil {
		return nil, h.problemOf(err)
	}
	r, err := h.ReadSpot(j, i, in.Piece, in.ID)
	return of(h, r, err)
}

func (h *handlers) importReadings(ctx context.Context, in *struct {
	Name    string `query:"name" maxLength:"200" doc:"File name or source of the readings"`
	RawBody []byte `contentType:"text/csv"`
}) (*answer[wire.Imported], error) {
	r, err := h.ImportReadings(ctx, in.RawBody, in.Name)
	return of(h, r, err)
}

func (h *handlers) sources(ctx context.Context, _ *nothing) (*answer[[]wire.Source], error) {
	all, err := h.Sources(ctx)
	return of(h, all, err)
}

// OfSource names where imported readings come from.
type OfSource struct {
	Source string `query:"source" required:"true" maxLength:"200" doc:"The file or source"`
}

func (h *handlers) removeSource(ctx context.Context, in *OfSource) (*answer[wire.Removed], error) {
	n, err := h.RemoveSource(ctx, in.Source)
	if err == nil && n == 0 {
		err = &app.NotFound{Says: "There are no readings of this source."}
	}
	return of(h, wire.Removed{Count: n}, err)
}

func (h *handlers) readings(ctx context.Context, in *struct {
	OfSource
	Skip int `query:"skip" minimum:"0" maximum:"1000000" doc:"After how many of them"`
}) (*answer[wire.ReadingsPage], error) {
	all, err := h.ReadingsOf(ctx, in.Source, in.Skip)
	return of(h, all, err)
}

func (h *handlers) putReading(ctx context.Context, in *struct {
	ID      uint   `path:"id" minimum:"1"`
	Source  string `query:"source" maxLength:"200" doc:"Where one came from that was removed"`
	RawBody []byte `contentType:"application/json"`
}) (*answer[wire.KeptReading], error) {
	r, err := h.PutReading(ctx, in.ID, in.Source, in.RawBody)
	return of(h, r, err)
}

func (h *handlers) removeReading(ctx context.Context, in *byID) (*nothing, error) {
	if err := h.RemoveReading(ctx, in.ID); err != nil {
		return nil, h.problemOf(err)
	}
	return nil, nil
}

// statusGone is the status of a request whose page has gone away; nobody reads it.
const statusGone = 499

// problemOf turns an error of the studio into a problem.
func (h *handlers) problemOf(err error) error {
	var (
		bad      *wire.Error
		unfit    *app.Unfit
		none     *app.NotFound
		conflict *app.Conflict
		damaged  *app.Damaged
	)
	switch {
	case errors.As(err, &bad) && bad.Path == "":
		return huma.Error400BadRequest(bad.Error())
	case errors.As(err, &bad):
		return huma.Error422UnprocessableEntity(bad.Error(), &huma.ErrorDetail{Location: bad.Path, Message: bad.Says, Value: bad.Value})
	case errors.As(err, &unfit):
		return huma.Error422UnprocessableEntity(unfit.Says)
	case errors.As(err, &none):
		return huma.Error404NotFound(none.Says)
	case errors.Is(err, app.ErrNoPiece):
		return huma.Error404NotFound("This piece does not exist. It may have been removed in another tab.")
	case errors.Is(err, app.ErrNoReading):
		return huma.Error404NotFound("This reading does not exist. It may have been removed in another tab.")
	case errors.As(err, &damaged):
		return huma.Error422UnprocessableEntity("This piece is damaged and cannot be opened: " + damaged.Says + ". Its document can be saved from the list of pieces.")
	case errors.As(err, &conflict):
		p := huma.Error409Conflict("This piece was changed elsewhere since you opened it. Nothing was overwritten.")
		if m, ok := p.(*huma.ErrorModel); ok {
			for _, s := range conflict.Changes {
				m.Errors = append(m.Errors, &huma.ErrorDetail{Message: s, Location: "piece", Value: conflict.Current.Rev})
			}
		}
		return p
	case logProblem(err) != nil:
		return logProblem(err)
	case errors.Is(err, app.ErrFull):
		return huma.NewError(http.StatusInsufficientStorage, "The disk is full. Nothing was saved; free some space and save again.")
	case errors.Is(err, app.ErrSettingsChanged):
		return huma.Error409Conflict("The settings were changed elsewhere since you opened them. Nothing was overwritten.")
	case errors.Is(err, app.ErrDocumentChanged):
		return huma.Error409Conflict("It was changed elsewhere since you opened it. Nothing was overwritten.")
	case errors.Is(err, app.ErrReadOnly):
		return huma.Error403Forbidden("Rutile was started with --read-only. Nothing was saved.")
	case errors.Is(err, app.ErrStale):
		return huma.Error412PreconditionFailed("This check has expired. Check the whole piece again.")
	case errors.Is(err, app.ErrBusy):
		return huma.ErrorWithHeaders(huma.Error503ServiceUnavailable(busy), http.Header{"Retry-After": {"3"}})
	case errors.Is(err, app.ErrNoAnswer):
		return huma.NewError(http.StatusBadGateway, "The instrument does not answer.")
	case errors.Is(err, context.Canceled):
		return huma.NewError(statusGone, "The request was cancelled.")
	}
	h.Log.Error("store", "err", err)
	return huma.Error500InternalServerError("Saving failed: the database refused the change. Nothing was saved.")
}

// described are the responses of an answer that is written by hand.
func described[T any](a huma.API, contentType, says string) map[string]*huma.Response {
	schema := a.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[T](), true, "")
	return map[string]*huma.Response{"200": {Description: says, Content: map[string]*huma.MediaType{contentType: {Schema: schema}}}}
}

// describe adds to the API's description what the table of fields says of the piece file and of the
// settings, whose bodies are decoded separately.
func (h *handlers) describe(a huma.API) {
	all := a.OpenAPI().Components.Schemas
	piece := all.Schema(reflect.TypeFor[wire.Piece](), true, "Piece")
	bodies := map[string]*huma.Schema{
		"saveStudio":  all.Schema(reflect.TypeFor[wire.Settings](), true, "Settings"),
		"checkChange": all.Schema(reflect.TypeFor[wire.Change](), true, "Change"),
		"putReading":  all.Schema(reflect.TypeFor[wire.ReadingValues](), true, "ReadingValues"),
		"addCan":      all.Schema(reflect.TypeFor[wire.Can](), true, "Can"),
		"putCan":      all.Schema(reflect.TypeFor[wire.Can](), true, "Can"),
		"addBlend":    all.Schema(reflect.TypeFor[wire.Blend](), true, "Blend"),
		"putBlend":    all.Schema(reflect.TypeFor[wire.Blend](), true, "Blend"),
		"blend":       all.Schema(reflect.TypeFor[wire.Blend](), true, "Blend"),
		"addEntries":  all.Schema(reflect.TypeFor[wire.Sent](), true, "Sent"),
	}
	for _, item := range a.OpenAPI().Paths {
		for _, o := range []*huma.Operation{item.Post, item.Put, item.Patch} {
			if o == nil || !o.SkipValidateBody || o.RequestBody == nil || o.RequestBody.Content["application/json"] == nil {
				continue
			}
			o.RequestBody.Content["application/json"].Schema = cmp.Or(bodies[o.OperationID], piece)
		}
	}
	stages := all.Map()["Stage"].Properties["id"]
	for i := range h.Stages {
		stages.Enum = append(stages.Enum, string(h.Stages[i].ID))
	}
	for _, name := range []string{"Repair", "Relaxation", "Sensitivity"} {
		f := all.Map()[name].Properties["field"]
		for _, id := range h.Fields() {
			f.Enum = append(f.Enum, id)
		}
	}
	shapes := map[string]string{} // by component, the object of the table
	for name, shape := range wire.Shapes {
		shapes[shape.Name()] = name
		for _, more := range []reflect.Type{reflect.TypeFor[wire.Studio](), reflect.TypeFor[wire.SpotRead](), reflect.TypeFor[wire.PhotoKept](), reflect.TypeFor[wire.ShelfCan](), reflect.TypeFor[wire.SavedBlend]()} {
			if f, ok := more.FieldByName(shape.Name()); ok && f.Anonymous {
				shapes[more.Name()] = name // an answer that is this object and more
			}
		}
	}
	for component, name := range shapes {
		s := all.Map()[component]
		if s == nil {
			panic("server: the API has no shape " + component)
		}
		o := wire.ObjectNamed(name)
		for field, p := range s.Properties {
			if f := o.Field(field); f != nil {
				limit(p, f)
			}
		}
		s.PrecomputeMessages()
	}
}

// limit says of a property what the table says of its field. Ids of the craft's tables are left
// out: they grow, and the vocabulary lists them.
func limit(p *huma.Schema, f *wire.Field) {
	p.Description = f.Meaning()
	switch f.Kind {
	case wire.Number, wire.Whole:
		if f.Open {
			p.ExclusiveMinimum, p.Maximum = &f.Least, &f.Most
		} else if f.Most > 0 {
			p.Minimum, p.Maximum = &f.Least, &f.Most
		}
	case wire.List:
		p.MaxItems = &f.MaxLen
	case wire.Text:
		for _, id := range f.Choices {
			p.Enum = append(p.Enum, id)
		}
		if f.MaxLen > 0 {
			p.MaxLength = &f.MaxLen
		}
		if f.Form != nil {
			p.Pattern = f.Form.Pattern
		}
	}
}
