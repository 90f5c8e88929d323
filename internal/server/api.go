package server

import (
	"context"
	"errors"
	"fmt"
	"math"
	"net/http"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"sync/atomic"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"rutile/core/check"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/stage"
	"rutile/internal/bench"
	"rutile/internal/format"
	"rutile/internal/photo"
	"rutile/internal/store"
)

type handlers struct {
	Options
	// settings are the studio's, read once and kept with every write.
	settings atomic.Pointer[format.Settings]
}

// usual are the settings of a studio that has saved none.
func (h *handlers) usual() format.Settings {
	return format.Settings{Units: measure.Metric.String(), Site: format.Site{TempC: h.Site.TempC, RHPct: h.Site.RH}}
}

func (h *handlers) current(ctx context.Context) format.Settings {
	if s := h.settings.Load(); s != nil {
		return *s
	}
	s, ok, err := h.Store.Settings(ctx)
	if err != nil {
		h.Log.Error("store", "err", err)
		return h.usual()
	}
	if !ok {
		s = h.usual()
	}
	h.settings.Store(&s)
	return s
}

// checking are the options of a check in this studio.
func (h *handlers) checking(ctx context.Context) format.CheckOptions {
	s := h.current(ctx)
	u, _ := measure.UnitsNamed(s.Units)
	return format.CheckOptions{
		Site: drying.Climate{TempC: s.Site.TempC, RH: s.Site.RHPct}, Units: u, Today: h.Now().Format(time.DateOnly), LeadYear: s.LeadYear,
	}
}

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
	Stage   string        `json:"stage" doc:"Id of the first stage with something unfinished; empty where there is none"`
	Holds   string        `json:"holds,omitempty" doc:"What holds it up"`
	Next    string        `json:"next" doc:"What is to be done next"`
	NextIn  string        `json:"next_in,omitempty" doc:"The zone where that is"`
	Photo   string        `json:"photo,omitempty" doc:"File of its first photograph"`
	Parts   int           `json:"parts" doc:"How many parts are measured"`
	Zones   []ZoneSummary `json:"zones"`
}

// ZoneSummary is a zone as the list shows it.
type ZoneSummary struct {
	ID        string         `json:"id"`
	Name      string         `json:"name"`
	Substrate string         `json:"substrate"`
	Colour    string         `json:"colour"`
	AreaM2    float64        `json:"area_m2"`
	Verdict   string         `json:"verdict" enum:"sound,watch,fails"`
	Says      string         `json:"says"`
	Steps     int            `json:"steps"`
	Material  string         `json:"material"`
	Finish    string         `json:"finish"`
	Layers    []format.Layer `json:"layers" doc:"The cut through its coats, from below"`
}

// Studio is what the page needs to know of the server.
type Studio struct {
	format.Settings
	Demo bool       `json:"demo" doc:"The data is a copy that is thrown away at the end"`
	Air  format.Air `json:"air"`
}

// SettingsBody is a studio's settings as a request's body.
type SettingsBody struct {
	RawBody []byte `contentType:"application/json"`
}

// Since is a piece, and what has changed in it after a revision.
type Since struct {
	store.Saved
	Changes []string `json:"changes"`
}

// Area is a typed size, understood.
type Area struct {
	AreaM2 float64 `json:"area_m2"`
	Says   string  `json:"says" doc:"The area in the studio's units"`
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
	huma.Register(a, op("saveStudio", http.MethodPut, "/api/studio", "Save the studio's settings", true, 400, 413, 422, 507), h.saveStudio)
	huma.Register(a, op("area", http.MethodGet, "/api/area", "Read an area as people write it", false, 422), h.area)
	huma.Register(a, op("parts", http.MethodGet, "/api/parts", "Read parts as people jot them down", false, 422), h.parts)
	huma.Register(a, op("sizes", http.MethodGet, "/api/sizes", "Read the sizes of a part", false, 404, 422), h.sizes)
	huma.Register(a, op("templates", http.MethodGet, "/api/templates", "The pieces most often brought in", false), h.templates)
	huma.Register(a, op("template", http.MethodGet, "/api/templates/{id}", "The parts of such a piece", false, 404, 422), h.template)
	take := op("takePhoto", http.MethodPost, "/api/photos", "Take a picture in", false, 413, 422, 507)
	take.MaxBodyBytes, take.BodyReadTimeout = photo.MaxBytes, photoTime
	take.DefaultStatus = http.StatusCreated
	huma.Register(a, take, h.takePhoto)
	huma.Register(a, op("identify", http.MethodPost, "/api/identify", "What tests say of a zone, and what to test next", true, 400, 404, 413, 422), h.identify)
	huma.Register(a, op("bench", http.MethodGet, "/api/bench", "The instruments, and the air at this moment", false), h.bench)
	huma.Register(a, op("course", http.MethodGet, "/api/bench/course", "The air of the day, and readings brought in", false), h.course)
	huma.Register(a, op("read", http.MethodPost, "/api/bench/{id}/read", "Hold an instrument on a zone", true, 400, 404, 413, 422), h.read)
	bringIn := op("importReadings", http.MethodPost, "/api/bench/readings", "Bring readings in as CSV", true, 413, 422, 507)
	bringIn.MaxBodyBytes = bench.MaxCSVBytes + 1
	huma.Register(a, bringIn, h.importReadings)
	huma.Register(a, op("next", http.MethodPost, "/api/next", "What could come next in a zone's plan", true, 400, 404, 413, 422), h.next)
	h.registerPlans(a, op)
	huma.Register(a, op("since", http.MethodGet, "/api/pieces/{id}/since/{rev}", "What has changed in a piece after a revision", false, 404), h.since)
	huma.Register(a, op("vocab", http.MethodGet, "/api/vocab", "Every id with its meaning", false), h.vocab)
	huma.Register(a, op("rules", http.MethodGet, "/api/rules", "The rule book, and where in the studio each rule speaks now", false), h.rules)
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
	settings := a.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[format.Settings](), true, "Settings")
	for _, item := range a.OpenAPI().Paths {
		for _, o := range []*huma.Operation{item.Post, item.Put} {
			if o == nil || o.RequestBody == nil || o.RequestBody.Content["application/json"] == nil {
				continue
			}
			o.RequestBody.Content["application/json"].Schema = piece
			if o.OperationID == "saveStudio" {
				o.RequestBody.Content["application/json"].Schema = settings
			}
		}
	}
}

type studioOut struct{ Body Studio }

func (h *handlers) studio(ctx context.Context, _ *struct{}) (*studioOut, error) {
	s := h.current(ctx)
	return &studioOut{Studio{s, h.Demo, format.AirOf(drying.Climate{TempC: s.Site.TempC, RH: s.Site.RHPct})}}, nil
}

func (h *handlers) saveStudio(ctx context.Context, in *SettingsBody) (*studioOut, error) {
	s, err := format.DecodeSettings(in.RawBody)
	if err != nil {
		return nil, refuse(err)
	}
	if err := h.Store.SaveSettings(ctx, s); err != nil {
		return nil, h.failed(err)
	}
	h.settings.Store(&s)
	return h.studio(ctx, nil)
}

type areaOut struct{ Body Area }

func (h *handlers) area(ctx context.Context, in *struct {
	Text string `query:"text" doc:"As 120 x 45 cm, or 4 ft 2 in by 18"`
}) (*areaOut, error) {
	u := h.checking(ctx).Units
	m2, err := measure.Area(in.Text, u)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	m2 = math.Round(m2*1e4) / 1e4
	if m2 == 0 {
		return nil, huma.Error422UnprocessableEntity("That is smaller than a square centimetre.")
	}
	return &areaOut{Area{m2, u.Area(m2)}}, nil
}

type nextOut struct{ Body []format.NextStep }

func (h *handlers) next(ctx context.Context, in *struct {
	Zone string `query:"zone" required:"true" doc:"Id of the zone"`
	At   int    `query:"at" minimum:"0" maximum:"200" doc:"After how many of its steps"`
	PieceBody
}) (*nextOut, error) {
	p, i, err := zoneOf(in.RawBody, in.Zone)
	if err != nil {
		return nil, err
	}
	return &nextOut{format.Next(h.Craft, p, i, in.At, h.checking(ctx))}, nil
}

// zoneOf reads a piece and finds the zone of it that a request speaks of.
func zoneOf(body []byte, id string) (*format.Piece, int, error) {
	p, err := format.Decode(body)
	if err != nil {
		return nil, 0, refuse(err)
	}
	i := slices.IndexFunc(p.Zones, func(z format.Zone) bool { return z.ID == id })
	if i < 0 {
		return nil, 0, huma.Error404NotFound("The piece has no such zone.")
	}
	return p, i, nil
}

type identifyOut struct{ Body format.Identification }

func (h *handlers) identify(ctx context.Context, in *struct {
	Zone string `query:"zone" required:"true" doc:"Id of the zone"`
	PieceBody
}) (*identifyOut, error) {
	p, i, err := zoneOf(in.RawBody, in.Zone)
	if err != nil {
		return nil, err
	}
	return &identifyOut{format.Identify(h.Craft, p, i, h.checking(ctx))}, nil
}

type sinceOut struct{ Body Since }

func (h *handlers) since(ctx context.Context, in *struct {
	ID  uint `path:"id" minimum:"1"`
	Rev int  `path:"rev" minimum:"0"`
}) (*sinceOut, error) {
	s, changes, err := h.Store.Since(ctx, in.ID, in.Rev)
	if err != nil {
		return nil, h.failed(err)
	}
	if changes == nil {
		changes = []string{}
	}
	return &sinceOut{Since{s, changes}}, nil
}

type vocabOut struct{ Body format.Vocab }

func (h *handlers) vocab(context.Context, *struct{}) (*vocabOut, error) {
	return &vocabOut{format.VocabOf(h.Craft, format.RuleWords(check.Rules))}, nil
}

type rulesOut struct{ Body []format.RuleEntry }

func (h *handlers) rules(ctx context.Context, _ *struct{}) (*rulesOut, error) {
	all, err := h.Store.List(ctx)
	if err != nil {
		return nil, h.failed(err)
	}
	o := h.checking(ctx)
	o.NoRepairs = true
	ids, pieces, results := make([]uint, len(all)), make([]*format.Piece, len(all)), make([]format.CheckResult, len(all))
	for i := range all {
		ids[i], pieces[i] = all[i].ID, &all[i].Piece
		results[i] = format.Check(h.Craft, pieces[i], o)
	}
	return &rulesOut{format.RuleBook(ids, pieces, results)}, nil
}

type checkOut struct{ Body format.CheckResult }

func (h *handlers) check(ctx context.Context, in *PieceBody) (*checkOut, error) {
	p, err := format.Decode(in.RawBody)
	if err != nil {
		return nil, refuse(err)
	}
	o := h.checking(ctx)
	o.Section, o.Look = true, true
	return &checkOut{format.Check(h.Craft, p, o)}, nil
}

type piecesOut struct{ Body []Summary }

func (h *handlers) pieces(ctx context.Context, _ *struct{}) (*piecesOut, error) {
	all, err := h.Store.List(ctx)
	if err != nil {
		return nil, h.failed(err)
	}
	out := make([]Summary, len(all))
	for i := range all {
		out[i] = h.summary(&all[i], h.checking(ctx))
	}
	return &piecesOut{out}, nil
}

// mostMended is how many zones of one piece have their repairs worked out for
// the list.
const mostMended = 12

func (h *handlers) summary(s *store.Saved, o format.CheckOptions) Summary {
	o.Section = true
	o.NoRepairs = len(s.Piece.Zones) > mostMended
	r := format.Check(h.Craft, &s.Piece, o)
	out := Summary{ID: s.ID, Rev: s.Rev, Name: s.Piece.Name, Updated: s.Updated, Verdict: r.Verdict, Zones: make([]ZoneSummary, len(r.Zones))}
	out.Parts = len(s.Piece.Parts)
	if len(s.Piece.Photos) > 0 {
		out.Photo = s.Piece.Photos[0].File
	}
	for i := range r.Zones {
		z, src := &r.Zones[i], &s.Piece.Zones[i]
		w := ZoneSummary{
			ID: z.ID, Name: src.Name, Substrate: src.Substrate, Verdict: z.Verdict, Says: z.Says,
			Steps: len(src.Steps), Layers: z.Section.Layers,
		}
		w.AreaM2 = s.Piece.AreaOf(i)
		if src.Target != nil {
			w.Colour = src.Target.Colour
		}
		sub, _ := h.Craft.Substrate(src.Substrate)
		w.Material = h.Craft.Substrates[sub].Name
		if fin, ok := h.Craft.Finish(src.Finish); ok {
			w.Finish = h.Craft.Finishes[fin].Name
		}
		for j := range w.Layers {
			if b := w.Layers[j].Joint; b != nil {
				b.Figures = []format.Factor{}
			}
		}
		out.Zones[i] = w
		if z.Verdict == r.Verdict && out.Says == "" {
			out.Says = z.Says
		}
	}
	out.next(&r)
	return out
}

// next finds the first stage of the work at which some zone has something
// unfinished, what is in the way there, and what would answer it.
func (s *Summary) next(r *format.CheckResult) {
	if len(r.Zones) == 0 {
		s.Says, s.Stage, s.Next = "No zone is described yet.", string(stage.LookOver), "Describe its first zone"
		if s.Parts > 0 {
			s.Next = "Say what its parts are made of"
		}
		return
	}
	worst := 0
	for i := range r.Zones {
		if rank(r.Zones[i].Verdict) > rank(r.Zones[worst].Verdict) {
			worst = i
		}
	}
	// What fails is in the way whatever else is unfinished.
	if z := &r.Zones[worst]; z.Verdict == "fails" {
		f := &z.Findings[0]
		s.Holds, s.Stage, s.NextIn = f.Title, string(stage.Coats), z.ID
		s.Next = "Change the plan"
		for _, st := range z.Stages {
			if st.State == "stuck" {
				s.Stage = st.ID
				break
			}
		}
		if len(f.Repairs) > 0 {
			s.Next = f.Repairs[0].Title
		}
		return
	}
	for k := range r.Zones[0].Stages {
		for i := range r.Zones {
			if st := &r.Zones[i].Stages[k]; st.State != "done" {
				s.Stage, s.Next, s.NextIn = st.ID, st.Says, r.Zones[i].ID
				return
			}
		}
	}
	s.Next, s.NextIn = r.Zones[0].Stages[len(r.Zones[0].Stages)-1].Says, r.Zones[0].ID
}

func rank(verdict string) int { return slices.Index([]string{"sound", "watch", "fails"}, verdict) }

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
