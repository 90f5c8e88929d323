package server

import (
	"context"
	"net/http"
	"strings"
	"testing"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"

	"rutile/core/surface"
	"rutile/internal/app"
)

// Sweeping is the answer of a made-up stage.
type Sweeping struct {
	Times int `json:"times"`
}

// sweep is its handler: it reads the zone that is asked about, asks, and answers.
func (h *handlers) sweep(ctx context.Context, in *ZoneBody) (*answer[Sweeping], error) {
	j, i, err := h.ReadZone(ctx, in.RawBody, in.Zone)
	if err != nil {
		return nil, h.problemOf(err)
	}
	out := Sweeping{}
	for k := range j.Zones[i].Steps {
		if j.Zones[i].Steps[k].Do == surface.Abrade {
			out.Times++
		}
	}
	return of(h, out, ctx.Err())
}

// A made-up stage gets its address by one line, and with it a description, the file's decoder and the
// problems that every other has.
func TestARouteOfAMadeUpStage(t *testing.T) {
	r := chi.NewRouter()
	a := humachi.New(r, huma.DefaultConfig("Made up", "1"))
	h := newHandlers(studioWith(t, app.StudioOptions{}), nil)
	huma.Register(a, route("sweep", http.MethodPost, "/api/sweep", "How often the floor is swept", 400, 404, 413, 422), h.sweep)
	ask := func(zone, body string) (int, string) {
		w := call{method: "POST", path: "/api/sweep?zone=" + zone, body: body}.to(r)
		return w.Code, w.Body.String()
	}
	if code, body := ask("uprights", example(t)); code != 200 || !strings.Contains(body, `"times":1`) {
		t.Errorf("%d %s", code, body)
	}
	if code, body := ask("nowhere", example(t)); code != 404 || !strings.Contains(body, "no such zone") {
		t.Errorf("%d %s", code, body)
	}
	if code, body := ask("uprights", strings.Replace(example(t), `"oak"`, `"oka"`, 1)); code != 422 || !strings.Contains(body, "did you mean oak?") {
		t.Errorf("%d %s", code, body)
	}
	op := a.OpenAPI().Paths["/api/sweep"].Post
	if op.Summary == "" || op.Responses["200"] == nil || op.RequestBody == nil {
		t.Errorf("it is described as %+v", op)
	}
}
