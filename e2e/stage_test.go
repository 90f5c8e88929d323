package e2e

import (
	"context"
	"fmt"
	"io/fs"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/chromedp/chromedp"
	"github.com/evanw/esbuild/pkg/api"

	"rutile/core/craft"
	"rutile/core/stage"
	"rutile/web"
)

// pageWith is the page, built from its source, with other views of the stages than its own.
func pageWith(t *testing.T, views string) fs.FS {
	t.Helper()
	views, err := filepath.Abs(views)
	if err != nil {
		t.Fatal(err)
	}
	b := api.Build(api.BuildOptions{
		EntryPoints: []string{"../web/src/main.tsx"}, Bundle: true, Outfile: "page.js", JSX: api.JSXAutomatic, NodePaths: []string{"../web/node_modules"},
		Loader: map[string]api.Loader{".css": api.LoaderEmpty}, Define: map[string]string{"process.env.NODE_ENV": `"production"`},
		Plugins: []api.Plugin{{Name: "views", Setup: func(b api.PluginBuild) {
			b.OnResolve(api.OnResolveOptions{Filter: `^\.\.?/views$`}, func(a api.OnResolveArgs) (api.OnResolveResult, error) {
				return api.OnResolveResult{Path: views}, nil
			})
		}}},
	})
	for _, e := range b.Errors {
		t.Fatal(e.Text)
	}
	out := fstest.MapFS{}
	err = fs.WalkDir(web.Dist(), ".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		data, err := fs.ReadFile(web.Dist(), path)
		if strings.HasSuffix(path, ".js") {
			data = b.OutputFiles[0].Contents
		}
		out[path] = &fstest.MapFile{Data: data}
		return err
	})
	if err != nil {
		t.Fatal(err)
	}
	return out
}

// A stage brings its view: an entry of the server's and a folder of the page's are enough for its place
// on the rail, its screen, its key and what it does.
func TestAMadeUpStageBringsItsView(t *testing.T) {
	t.Parallel()
	swept := stage.Entry{
		ID: "sweep", Name: "Sweep", Open: "To be swept", Core: "sweep", UseCase: "Sweep", Route: "/api/sweep", View: "sweep", Folder: "sweep",
		Stands: func(w *stage.Work) (stage.State, string, int) { return stage.Open, "The floor is dusty", 0 },
	}
	a := &app{t: t, dir: t.TempDir(), addr: "127.0.0.1:0", page: pageWith(t, "testdata/sweep.tsx"), stages: slices.Insert(slices.Clone(stage.Entries), len(stage.Entries)-1, swept)}
	a.begin(true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/uprights/plan")), verdict("sound"), click(`[data-stage="sweep"]`), shows(`[data-swept="7"]`), shows(`[data-stage="sweep"][aria-current]`), verdict("sound"),
		click(`[data-do="sweep"]`), saved(), keys("1"), shows(of("soils")), keys("9"), shows("[data-swept]"), click(`[data-do="soils"]`), focused(of("soils")))
	if z := a.stored("12").Piece.Zones[0]; z.Name != "Swept" {
		t.Errorf("kept: %q", z.Name)
	}
	// The bench leads there: nothing before it is unfinished.
	do(t, ctx, chromedp.Navigate(a.url("/")), click(`main a[href$="/sweep"]`), shows("[data-swept]"))
	// A screen that stops says so, and leads out.
	do(t, ctx, click(`[data-do="burst"]`), hides("[data-swept]"), click(`main a[href="/"]`), shows(`main a[href$="/sweep"]`))
}

// Whatever an answer asks for has its place on the page, which takes the focus.
func TestEveryFieldHasItsPlace(t *testing.T) {
	t.Parallel()
	a := start(t, false)
	a.call("POST", "/api/pieces", `{"format": "rutile/piece", "version": 1, "name": "Bench", "parts": [{"kind": "top", "width_cm": 80, "depth_cm": 40}], "zones": [
		{"id": "top", "substrate": "oak", "finish": "varnish_oil", "steps": [{"do": "clean", "with": "detergent", "rinse": true}, {"do": "coat", "product": "paint_mineral"}]},
		{"id": "feet", "substrate": "concrete", "finish": "none"},
		{"id": "shelf", "substrate": "birch", "finish": "none"}]}`, 201)
	ctx := browser(t, 1280, 800)
	place := map[craft.Field]string{craft.FieldEvidence: of("identify"), craft.FieldSteps: "[data-picker] [role=combobox]", craft.FieldShelf: "dialog[open] *"}
	views := map[craft.Field]string{}
	for _, e := range stage.Entries {
		for _, f := range e.Fields {
			views[f] = e.View
		}
	}
	views[craft.FieldLeadTest], views[craft.FieldTest], views[craft.FieldWay], views[craft.FieldShelf], views[craft.FieldKit] = "lead", "patches", "compare", "compare", "compare"
	views[craft.FieldCan] = "amounts"
	at := ""
	for i, f := range craft.Fields {
		if testing.Short() && i%2 > 0 {
			continue
		}
		path := fmt.Sprintf("/pieces/1/top/%s#%s", views[f], f)
		switch f {
		case craft.FieldAge:
			path = "/pieces/1/feet/survey#age_days"
		case craft.FieldPrepared:
			path = "/pieces/1/shelf/survey#prepared"
		case craft.FieldParts:
			path = "/pieces/1/-/parts#parts"
		case craft.FieldTakeApart:
			path = "/pieces/1/-/disassembly#take_apart"
		}
		css := place[f]
		if css == "" {
			css = of(string(f))
		}
		if view, _, _ := strings.Cut(path, "#"); view != at {
			at = view
			do(t, ctx, chromedp.Navigate("about:blank"), chromedp.Navigate(a.url(path)), focused(css))
			continue
		}
		do(t, ctx, chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			_, err := chromedp.Evaluate[bool](fmt.Sprintf(`(document.activeElement?.blur(), location.hash = %q, true)`, f))(ctx, tab)
			return err
		}), focused(css))
	}
}
