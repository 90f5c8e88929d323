package e2e

import (
	"database/sql"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"

	"rutile/internal/store"
	"rutile/internal/wire"
)

// A damaged piece stands in the list as such: its document can be saved, and it can be removed; the
// others open as ever.
func TestADamagedPieceInTheList(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	db, err := sql.Open("sqlite", filepath.Join(a.dir, store.File))
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	if _, err := db.Exec(`UPDATE revisions SET body = replace(body, '"substrate"', '"stuff"') WHERE piece_id = 13`); err != nil {
		t.Fatal(err)
	}
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/")), shows(`[data-damaged="13"]`), counts("[data-damaged]", 1))
	href, err := chromedp.Run(ctx, chromedp.Evaluate[string](`document.querySelector('[data-do="save-document"]').href`))
	if err != nil {
		t.Fatal(err)
	}
	res, err := http.Get(href)
	if err != nil {
		t.Fatal(err)
	}
	defer res.Body.Close()
	if body, _ := io.ReadAll(res.Body); !strings.Contains(string(body), `"stuff"`) {
		t.Errorf("its document is %s %.100s", res.Status, body)
	}
	do(t, ctx, chromedp.Navigate(a.url("/pieces/13")), chromedp.Navigate(a.url("/pieces/12/uprights/plan")), verdict("sound"), chromedp.Navigate(a.url("/")),
		click(`[data-do="remove-damaged"]`), click(`[data-do="remove-now"]`), hides("[data-damaged]"), shows("[data-zone]"))
}

// A very long piece opens, and the open zone has its cross-section and findings with their fixes.
func TestAVeryLongPiece(t *testing.T) {
	t.Parallel()
	a := start(t, false)
	p := wire.New("Long")
	for i := range 60 {
		z := wire.Zone{ID: fmt.Sprintf("z%d", i), Substrate: "pine", Finish: "varnish_oil", Target: &wire.Target{Colour: "#e4e8df"}}
		for range 50 {
			z.Steps = append(z.Steps, wire.Step{Do: "coat", Product: "paint_chalk"})
		}
		p.Zones = append(p.Zones, z)
	}
	data, err := json.Marshal(p)
	if err != nil {
		t.Fatal(err)
	}
	a.call(http.MethodPost, "/api/pieces", string(data), 201)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/1/z3/plan")), shows(`[data-repair="edit"]`), chromedp.Navigate(a.url("/pieces/1/z40/cut")), shows("main svg path"))
}

// Planning that takes long is stopped, and what it has is used.
func TestPlanningIsStopped(t *testing.T) {
	t.Parallel()
	a := start(t, false)
	p := wire.New("Open")
	for i := range 150 {
		p.Zones = append(p.Zones, wire.Zone{
			ID: fmt.Sprintf("z%d", i), Substrate: []string{"pine", "oak"}[i%2], Finish: "unknown", AreaM2: 1,
			Soils: []wire.Level{{ID: "grease", Level: 2}, {ID: "nicotine", Level: 3}}, Target: &wire.Target{Colour: fmt.Sprintf("#c0e0%02x", i)},
		})
	}
	data, err := json.Marshal(p)
	if err != nil {
		t.Fatal(err)
	}
	a.call(http.MethodPost, "/api/pieces", string(data), 201)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/1/-/plan")), click(`[data-do="plan-all"]`), shows(`[data-state="planned"], progress[value]:not([value="0"])`),
		click(`[data-do="stop-plan"]`), shows("[data-left]"), shows(`[data-state="planned"]`), shows(`[data-state="stopped"]`), click("[data-take-all]"), saved())
	planned := 0
	for _, z := range a.stored("1").Piece.Zones {
		if len(z.Steps) > 0 {
			planned++
		}
	}
	if planned == 0 || planned == 150 {
		t.Errorf("%d zones are planned", planned)
	}
}

// The settings sheet leads to the licences of everything that ships.
func TestLicences(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/")), click(`[data-do="studio"]`), shows(`[data-do="licences"][href="/licences.txt"]`))
	res, err := http.Get(a.url("/licences.txt"))
	if err != nil {
		t.Fatal(err)
	}
	defer res.Body.Close()
	text, _ := io.ReadAll(res.Body)
	if !strings.Contains(string(text), "SIL OPEN FONT LICENSE") || !strings.Contains(string(text), "modernc.org/sqlite") {
		t.Errorf("%s, %d bytes", res.Status, len(text))
	}
}
