package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"rutile/internal/app"
	"rutile/internal/wire"
)

func (h *handlers) registerLog(a huma.API) {
	const get, post = http.MethodGet, http.MethodPost

	huma.Register(a, route("today", get, "/api/today", "What comes next on all pieces, the most urgent first"), h.today)
	add := route("addEntries", post, "/api/pieces/{id}/log", "Add entries to a piece's log; those that it has are not added again", 400, 404, 413, 422, 507)
	add.MaxBodyBytes = wire.MaxLogBytes
	huma.Register(a, add, h.addEntries)
	huma.Register(a, route("pieceLog", get, "/api/pieces/{id}/log", "The log of a piece, the newest first, with what it comes to", 404), h.pieceLog)
	out := route("logFile", get, "/api/pieces/{id}/log.csv", "The log of a piece as CSV, the oldest first", 404)
	out.Responses = map[string]*huma.Response{"200": {Description: "The log", Content: map[string]*huma.MediaType{"text/csv": {}}}}
	huma.Register(a, out, h.logFile)
	file := route("pieceFile", get, "/api/pieces/{id}/file", "A piece as a piece file, with its log", 404)
	file.Responses = map[string]*huma.Response{"200": {Description: "The piece file", Content: map[string]*huma.MediaType{"application/json": {}}}}
	huma.Register(a, file, h.pieceFile)
	huma.Register(a, route("lookBack", get, "/api/pieces/{id}/back", "The work on a piece against its plan", 404), h.lookBack)
	huma.Register(a, route("like", get, "/api/like", "Zones of finished pieces whose plans could be used again, the most alike first"), h.like)
	huma.Register(a, typed(route("typeAir", post, "/api/air", "Say what the air in the workshop is now", 422, 507)), h.typeAir)
}

func (h *handlers) today(ctx context.Context, _ *nothing) (*answer[wire.Today], error) {
	t, err := h.Today(ctx, onDevice(ctx))
	return of(h, t, err)
}

// onDevice tells whether somebody asks on a device that may soon be out of reach.
func onDevice(ctx context.Context) bool {
	_, ok := app.DeviceIn(ctx)
	return ok
}

func (h *handlers) addEntries(ctx context.Context, in *struct {
	ID      uint   `path:"id" minimum:"1"`
	Sent    string `query:"sent" maxLength:"40" doc:"What the clock of the device shows, so that one that is off is put right"`
	Created string `query:"created" maxLength:"40" doc:"When the piece was created that they are about; they are refused if it is another one"`
	Today   bool   `query:"today" doc:"Answer with what comes next on all pieces"`
	RawBody []byte `contentType:"application/json"`
}) (*answer[wire.Logged], error) {
	l, err := h.AddEntries(ctx, in.ID, in.Sent, in.Created, in.RawBody)
	if err == nil && in.Today {
		var t wire.Today
		t, err = h.Today(ctx, onDevice(ctx))
		l.Today = &t
	}
	return of(h, l, err)
}

func (h *handlers) pieceLog(ctx context.Context, in *byID) (*answer[wire.PieceLog], error) {
	l, err := h.PieceLog(ctx, in.ID)
	return of(h, l, err)
}

// attached is a file to be saved.
type attached struct {
	Type        string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

func (h *handlers) logFile(ctx context.Context, in *byID) (*attached, error) {
	body, err := h.LogCSV(ctx, in.ID)
	if err != nil {
		return nil, h.problemOf(err)
	}
	return &attached{"text/csv; charset=utf-8", fmt.Sprintf(`attachment; filename="log-%d.csv"`, in.ID), body}, nil
}

func (h *handlers) pieceFile(ctx context.Context, in *byID) (*attached, error) {
	p, err := h.PieceFile(ctx, in.ID)
	if err != nil {
		return nil, h.problemOf(err)
	}
	body, err := json.MarshalIndent(p, "", "  ")
	if err != nil {
		return nil, h.problemOf(err)
	}
	return &attached{"application/json", fmt.Sprintf(`attachment; filename="piece-%d.json"`, in.ID), append(body, '\n')}, nil
}

func (h *handlers) lookBack(ctx context.Context, in *byID) (*answer[wire.LookBack], error) {
	l, err := h.LookBack(ctx, in.ID)
	return of(h, l, err)
}

func (h *handlers) like(ctx context.Context, in *struct {
	Substrate string `query:"substrate" maxLength:"40"`
	Finish    string `query:"finish" maxLength:"40"`
	Words     string `query:"words" maxLength:"200" doc:"All of which must be found in its name, material, look or products"`
}) (*answer[[]wire.LikeZone], error) {
	l, err := h.Like(ctx, in.Substrate, in.Finish, in.Words)
	return of(h, l, err)
}

func (h *handlers) typeAir(ctx context.Context, in *struct{ Body wire.ClockAir }) (*answer[wire.Today], error) {
	err := h.TypeAir(ctx, in.Body)
	if err != nil {
		return nil, h.problemOf(err)
	}
	t, err := h.Today(ctx, onDevice(ctx))
	return of(h, t, err)
}

// logProblem is the problem of an error that only logs have; nil for any other.
func logProblem(err error) error {
	if errors.Is(err, app.ErrLogFull) {
		return huma.Error422UnprocessableEntity(fmt.Sprintf("The log of this piece is full: it holds %d entries.", wire.MaxEntries))
	}
	if errors.Is(err, app.ErrOtherPiece) {
		return huma.Error409Conflict("The piece of this number is another one here. Was the data brought back from a copy, or is this another computer? Nothing was logged.")
	}
	return nil
}
