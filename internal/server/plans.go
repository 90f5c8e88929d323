package server

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"reflect"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"rutile/core/plan"
	"rutile/internal/format"
)

// PlanLine is one line of the answer to planning a piece: how far it is, or in the
// last line the plan.
type PlanLine struct {
	Done int               `json:"done"`
	Of   int               `json:"of"`
	Plan *format.PiecePlan `json:"plan,omitempty"`
	Says string            `json:"says,omitempty" doc:"What went wrong"`
}

func (h *handlers) registerPlans(a huma.API, op func(id, method, path, summary string, body bool, errs ...int) huma.Operation) {
	huma.Register(a, op("plans", http.MethodPost, "/api/plans", "The best plans for a zone, by several ways of working", true, 400, 404, 413, 422), h.plans)
	huma.Register(a, op("minds", http.MethodPost, "/api/minds", "What would change the plan of a zone", true, 400, 404, 413, 422), h.minds)
	whole := op("planPiece", http.MethodPost, "/api/plans/piece", "Plan every zone that has no plan; one line of JSON as it goes on, the last with the plan", true, 400, 413, 422)
	line := a.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[PlanLine](), true, "PlanLine")
	whole.Responses = map[string]*huma.Response{"200": {
		Description: "Lines of JSON", Content: map[string]*huma.MediaType{"application/x-ndjson": {Schema: line}},
	}}
	huma.Register(a, whole, h.planPiece)
}

// way finds a way of working by its id; the studio's own where none is named.
func (h *handlers) way(ctx context.Context, id string) (plan.Way, error) {
	s := h.current(ctx)
	if id == "" {
		id = s.Way
	}
	if id == "" {
		return plan.Ways[0], nil
	}
	w, ok := format.WayNamed(id, s.Ways)
	if !ok {
		return w, huma.Error422UnprocessableEntity(fmt.Sprintf("There is no way of working %q. It may have been removed in the studio's settings.", id))
	}
	return w, nil
}

func (h *handlers) planning(ctx context.Context, weights string) (format.PlanOptions, error) {
	o := format.PlanOptions{CheckOptions: h.checking(ctx), Own: h.current(ctx).Ways}
	w, err := format.ParseWeights(weights)
	if err != nil {
		return o, huma.Error422UnprocessableEntity(err.Error())
	}
	o.Weights = w
	return o, nil
}

type plansOut struct{ Body format.ZonePlans }

func (h *handlers) plans(ctx context.Context, in *struct {
	Zone    string `query:"zone" required:"true" doc:"Id of the zone"`
	Ways    string `query:"ways" doc:"Ids of ways, with commas between them; absent: those that make paint hold"`
	Weights string `query:"weights" doc:"How much each thing counts, as peel=2,cost=0.5"`
	PieceBody
}) (*plansOut, error) {
	p, i, err := zoneOf(in.RawBody, in.Zone)
	if err != nil {
		return nil, err
	}
	o, err := h.planning(ctx, in.Weights)
	if err != nil {
		return nil, err
	}
	o.Section = true
	ids := plan.Main()
	if in.Ways != "" {
		ids = strings.Split(in.Ways, ",")
	}
	if len(ids) > format.MostCompared {
		return nil, huma.Error422UnprocessableEntity(fmt.Sprintf("%d ways are too many to be set side by side; at most %d.", len(ids), format.MostCompared))
	}
	ways := make([]plan.Way, len(ids))
	for k, id := range ids {
		if ways[k], err = h.way(ctx, id); err != nil {
			return nil, err
		}
	}
	z, err := format.PlanZone(ctx, h.Craft, p, i, ways, o)
	if err != nil {
		return nil, refuse(err)
	}
	return &plansOut{z}, nil
}

type mindsOut struct{ Body []format.MindPart }

func (h *handlers) minds(ctx context.Context, in *struct {
	Zone    string `query:"zone" required:"true" doc:"Id of the zone"`
	Way     string `query:"way" doc:"Id of the way its plan was made by"`
	Weights string `query:"weights"`
	PieceBody
}) (*mindsOut, error) {
	p, i, err := zoneOf(in.RawBody, in.Zone)
	if err != nil {
		return nil, err
	}
	o, err := h.planning(ctx, in.Weights)
	if err != nil {
		return nil, err
	}
	w, err := h.way(ctx, in.Way)
	if err != nil {
		w = plan.Ways[0] // the piece comes from another studio
	}
	m, err := format.Minds(ctx, h.Craft, p, i, w, o)
	if err != nil {
		return nil, refuse(err)
	}
	return &mindsOut{m}, nil
}

func (h *handlers) planPiece(ctx context.Context, in *struct {
	Way     string `query:"way" doc:"Id of the way of working; absent: the studio's"`
	Weights string `query:"weights"`
	PieceBody
}) (*huma.StreamResponse, error) {
	p, err := format.Decode(in.RawBody)
	if err != nil {
		return nil, refuse(err)
	}
	o, err := h.planning(ctx, in.Weights)
	if err != nil {
		return nil, err
	}
	w, err := h.way(ctx, in.Way)
	if err != nil {
		return nil, err
	}
	return &huma.StreamResponse{Body: func(hc huma.Context) {
		hc.SetHeader("Content-Type", "application/x-ndjson")
		out := json.NewEncoder(hc.BodyWriter())
		flush, _ := hc.BodyWriter().(http.Flusher)
		const often = 100 * time.Millisecond
		next := time.Now()
		o.Done = func(done, of int) {
			if time.Now().Before(next) {
				return
			}
			next = time.Now().Add(often)
			_ = out.Encode(PlanLine{Done: done, Of: of})
			if flush != nil {
				flush.Flush()
			}
		}
		r, err := format.PlanPiece(hc.Context(), h.Craft, p, w, o)
		if err != nil {
			_ = out.Encode(PlanLine{Says: err.Error()})
			return
		}
		_ = out.Encode(PlanLine{Done: len(p.Zones), Of: len(p.Zones), Plan: &r})
	}}, nil
}
