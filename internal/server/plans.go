package server

import (
	"context"
	"encoding/json"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"rutile/internal/app"
	"rutile/internal/wire"
)

func (h *handlers) registerPlans(a huma.API) {
	const post = http.MethodPost
	huma.Register(a, route("plans", post, "/api/plans", "The best plans for a zone, one for each way of working", 400, 404, 413, 422, 503), h.plans)
	huma.Register(a, route("minds", post, "/api/minds", "What would change the plan of a zone", 400, 404, 413, 422, 503), h.minds)
	whole := route("planPiece", post, "/api/plans/piece", "Plan every zone that has no plan; progress as lines of JSON, the last with the plan", 400, 413, 422, 503)
	whole.Responses = described[wire.PlanLine](a, "application/x-ndjson", "Lines of JSON")
	huma.Register(a, whole, h.planPiece)
	huma.Register(a, route("planRun", http.MethodGet, "/api/plans/runs/{run}", "How far a search for plans is", 404), h.planRun)
	stop := route("stopPlanRun", http.MethodDelete, "/api/plans/runs/{run}", "Stop a search for plans, which then answers with what it has", 404)
	stop.DefaultStatus = http.StatusNoContent
	huma.Register(a, stop, h.stopPlanRun)
}

// RunName names a search for plans.
type RunName struct {
	Run string `query:"run" maxLength:"80" doc:"A name for this search, to ask how far it is and to stop it by"`
}

type oneRun struct {
	Run string `path:"run" maxLength:"80"`
}

var errNoRun = &app.NotFound{Says: "No search of this name is running."}

func (h *handlers) planRun(_ context.Context, in *oneRun) (*answer[wire.PlanRun], error) {
	done, n, ok := h.RunState(in.Run)
	if !ok {
		return nil, h.problemOf(errNoRun)
	}
	return of(h, wire.PlanRun{Done: done, Of: n}, nil)
}

func (h *handlers) stopPlanRun(_ context.Context, in *oneRun) (*nothing, error) {
	if !h.StopRun(in.Run) {
		return nil, h.problemOf(errNoRun)
	}
	return nil, nil
}

// planning reads how plans are to be weighed.
func planning(weights string) (app.PlanOptions, error) {
	w, err := app.ParseWeights(weights)
	if err != nil {
		return app.PlanOptions{}, huma.Error422UnprocessableEntity(err.Error())
	}
	return app.PlanOptions{Weights: w}, nil
}

func (h *handlers) plans(ctx context.Context, in *struct {
	Ways    string `query:"ways" doc:"Ids of ways of working, separated by commas; absent: those that make paint hold"`
	Weights string `query:"weights" doc:"How much each thing counts, as peel=2,cost=0.5"`
	RunName
	ZoneBody
}) (*answer[wire.ZonePlans], error) {
	j, i, err := h.ReadZone(ctx, in.RawBody, in.Zone)
	if err != nil {
		return nil, h.problemOf(err)
	}
	o, err := planning(in.Weights)
	if err != nil {
		return nil, err
	}
	o.Section = true
	ways, err := h.Compared(ctx, in.Ways)
	if err != nil {
		return nil, h.problemOf(err)
	}
	defer h.Run(in.Run, &o)()
	z, err := j.PlanZone(ctx, i, ways, o)
	return of(h, z, err)
}

func (h *handlers) minds(ctx context.Context, in *struct {
	Way     string `query:"way" doc:"Id of the way of working that its plan was made with"`
	Weights string `query:"weights"`
	ZoneBody
}) (*answer[[]wire.Sensitivity], error) {
	j, i, err := h.ReadZone(ctx, in.RawBody, in.Zone)
	if err != nil {
		return nil, h.problemOf(err)
	}
	o, err := planning(in.Weights)
	if err != nil {
		return nil, err
	}
	m, err := j.Sensitivities(ctx, i, h.WayOr(ctx, in.Way), o)
	return of(h, m, err)
}

func (h *handlers) planPiece(ctx context.Context, in *struct {
	Way     string `query:"way" doc:"Id of the way of working; absent: the studio's"`
	Weights string `query:"weights"`
	RunName
	PieceBody
}) (*huma.StreamResponse, error) {
	j, err := h.Read(ctx, in.RawBody)
	if err != nil {
		return nil, h.problemOf(err)
	}
	o, err := planning(in.Weights)
	if err != nil {
		return nil, err
	}
	w, err := h.Way(ctx, in.Way)
	if err != nil {
		return nil, h.problemOf(err)
	}
	return &huma.StreamResponse{Body: func(hc huma.Context) {
		hc.SetHeader("Content-Type", "application/x-ndjson")
		out := json.NewEncoder(hc.BodyWriter())
		flush, _ := hc.BodyWriter().(http.Flusher)
		const often = 100 * time.Millisecond
		next, begun := time.Now(), false
		o.Done = func(done, of int) {
			if time.Now().Before(next) {
				return
			}
			next, begun = time.Now().Add(often), true
			_ = out.Encode(wire.PlanLine{Done: done, Of: of})
			if flush != nil {
				flush.Flush()
			}
		}
		defer h.Run(in.Run, &o)()
		r, err := j.PlanPiece(hc.Context(), w, o)
		var p huma.StatusError
		switch {
		case err == nil:
			_ = out.Encode(wire.PlanLine{Done: len(j.Zones), Of: len(j.Zones), Plan: &r})
		case !begun && errors.As(h.problemOf(err), &p):
			hc.SetHeader("Content-Type", "application/problem+json")
			hc.SetHeader("Retry-After", "3")
			hc.SetStatus(p.GetStatus())
			_ = out.Encode(p)
		default:
			_ = out.Encode(wire.PlanLine{Says: err.Error()})
		}
	}}, nil
}
