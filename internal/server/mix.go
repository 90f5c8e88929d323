package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"rutile/internal/wire"
)

func (h *handlers) registerMix(a huma.API) {
	const get, post, del = http.MethodGet, http.MethodPost, http.MethodDelete
	gone := func(o huma.Operation) huma.Operation { o.DefaultStatus = http.StatusNoContent; return o }

	huma.Register(a, route("cards", post, "/api/cards", "The batches and cards of a zone, in the order of its plan", 400, 404, 413, 422), h.cards)
	huma.Register(a, route("readAmount", get, "/api/amount", "Read a typed amount of paint", 422), h.readAmount)

	huma.Register(a, route("clocks", get, "/api/clocks", "The clocks that run, the next to ring first"), h.clocks)
	huma.Register(a, typed(route("startClock", post, "/api/clocks", "Start a clock; one that was started before is left as it is", 422, 507)), h.startClock)
	huma.Register(a, typed(route("touchClock", post, "/api/clocks/{id}/touch", "Correct a clock by a touch test", 404, 422, 507)), h.touchClock)
	huma.Register(a, route("silenceClock", post, "/api/clocks/{id}/silence", "Stop the ringing of a clock", 404, 507), h.silenceClock)
	huma.Register(a, gone(route("stopClock", del, "/api/clocks/{id}", "Take a clock away", 404)), h.stopClock)
	huma.Register(a, typed(route("settleClocks", post, "/api/clocks/settle", "Say how much time passed while nobody could tell", 422, 507)), h.settleClocks)
	huma.Register(a, typed(route("airClocks", post, "/api/clocks/air", "Tell the clocks what the air is now", 422, 507)), h.airClocks)
}

// typed is a route whose body is checked by its description.
func typed(o huma.Operation) huma.Operation {
	o.SkipValidateBody = false
	o.MaxBodyBytes = smallBody
	return o
}

// smallBody is how large the body of a question of a few fields may be, in bytes.
const smallBody = 16 << 10

func (h *handlers) cards(ctx context.Context, in *ZoneBody) (*answer[wire.ZoneCards], error) {
	j, i, err := h.ReadZone(ctx, in.RawBody, in.Zone)
	if err != nil {
		return nil, h.problemOf(err)
	}
	return of(h, j.ZoneCards(i), nil)
}

func (h *handlers) readAmount(ctx context.Context, in *struct {
	Text string `query:"text" maxLength:"2000"`
}) (*answer[wire.AmountRead], error) {
	r, err := h.ReadAmount(ctx, in.Text)
	return of(h, r, err)
}

func (h *handlers) clocks(ctx context.Context, _ *nothing) (*answer[wire.Clocks], error) {
	c, err := h.Clocks(ctx)
	return of(h, c, err)
}

func (h *handlers) startClock(ctx context.Context, in *struct{ Body wire.NewClock }) (*answer[wire.Clock], error) {
	c, err := h.StartClock(ctx, in.Body)
	return of(h, c, err)
}

func (h *handlers) touchClock(ctx context.Context, in *struct {
	ID   string `path:"id" maxLength:"40"`
	Body wire.ClockTouch
}) (*answer[wire.Clock], error) {
	c, err := h.TouchClock(ctx, in.ID, in.Body)
	return of(h, c, err)
}

func (h *handlers) silenceClock(ctx context.Context, in *byName) (*answer[wire.Clock], error) {
	c, err := h.SilenceClock(ctx, in.ID)
	return of(h, c, err)
}

func (h *handlers) stopClock(ctx context.Context, in *byName) (*nothing, error) {
	return h.done(h.StopClock(ctx, in.ID))
}

func (h *handlers) settleClocks(ctx context.Context, in *struct{ Body wire.ClockSettled }) (*answer[wire.Clocks], error) {
	c, err := h.SettleClocks(ctx, in.Body)
	return of(h, c, err)
}

func (h *handlers) airClocks(ctx context.Context, in *struct{ Body wire.ClockAir }) (*answer[wire.Clocks], error) {
	c, err := h.AirClocks(ctx, in.Body)
	return of(h, c, err)
}
