package server

import (
	"bytes"
	"context"
	"database/sql"
	"fmt"
	"log/slog"
	"net/http"
	"path/filepath"
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/internal/app"
	"rutile/internal/store"
	"rutile/internal/wire"
)

// storeOf is a store of so many good pieces, with its folder.
func storeOf(t *testing.T, pieces int) (*store.Store, string) {
	t.Helper()
	dir := t.TempDir()
	s, err := store.Open(dir)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = s.Close() })
	p, err := wire.Decode([]byte(example(t)))
	if err != nil {
		t.Fatal(err)
	}
	for range pieces {
		if _, err := s.Create(context.Background(), p); err != nil {
			t.Fatal(err)
		}
	}
	return s, dir
}

// spoilt is a server over one good piece, and others whose documents are these.
func spoilt(t *testing.T, bodies ...string) http.Handler {
	t.Helper()
	s, dir := storeOf(t, len(bodies)+1)
	db, err := sql.Open("sqlite", filepath.Join(dir, store.File))
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	for i, body := range bodies {
		if _, err := db.Exec("UPDATE revisions SET body = ? WHERE piece_id = ?", body, i+2); err != nil {
			t.Fatal(err)
		}
	}
	return New(Options{Studio: app.NewStudio(app.NewEngine(craft.Default()), app.StudioOptions{Store: s}), Page: builtPage})
}

// A damaged piece is in the list as such, with its document to save, and the rule book goes on.
func TestADamagedPieceIsListedAsSuch(t *testing.T) {
	const moon = `{"format": "rutile/piece", "version": 1, "name": "Moon", "zones": [{"id": "a", "substrate": "moon"}]}`
	h := spoilt(t, moon, `{"half`)
	list := decode[[]wire.Summary](t, call{method: "GET", path: "/api/pieces"}.to(h))
	damaged := 0
	for _, p := range list {
		if p.Damaged != "" {
			damaged++
		}
	}
	if len(list) != 3 || damaged != 2 {
		t.Errorf("%d pieces, %d damaged", len(list), damaged)
	}
	if w := (call{method: "GET", path: "/api/rules"}).to(h); w.Code != http.StatusOK {
		t.Errorf("the rule book: %d %s", w.Code, w.Body)
	}
	w := call{method: "GET", path: "/api/pieces/2"}.to(h)
	if w.Code != http.StatusUnprocessableEntity || !strings.Contains(w.Body.String(), "$.zones[0].substrate") {
		t.Errorf("opened: %d %s", w.Code, w.Body)
	}
	w = call{method: "GET", path: "/api/pieces/2/document"}.to(h)
	if w.Code != http.StatusOK || w.Body.String() != moon || !strings.Contains(w.Header().Get("Content-Disposition"), "attachment") {
		t.Errorf("its document: %d %s %v", w.Code, w.Body, w.Header())
	}
	if w := (call{method: "DELETE", path: "/api/pieces/2"}).to(h); w.Code != http.StatusNoContent {
		t.Errorf("removed: %d %s", w.Code, w.Body)
	}
}

// A piece that is fine to the reader, and makes the program fail when it is judged, is not the end of
// the list.
func TestAPieceThatCannotBeJudgedIsListed(t *testing.T) {
	s, _ := storeOf(t, 1)
	e := app.NewEngine(craft.Default())
	e.Stages = nil // the last stage of none
	var log bytes.Buffer
	h := New(Options{Studio: app.NewStudio(e, app.StudioOptions{Store: s, Log: slog.New(slog.NewTextHandler(&log, nil))}), Page: builtPage})
	list := decode[[]wire.Summary](t, call{method: "GET", path: "/api/pieces"}.to(h))
	if len(list) != 1 || !strings.Contains(list[0].Damaged, "The fault is Rutile's") {
		t.Errorf("%+v", list)
	}
	// The log says which piece and what failed, and neither its name nor what it holds.
	if said := log.String(); !strings.Contains(said, "piece=1") || strings.Contains(said, "Programme rack") || strings.Contains(said, "Uprights") {
		t.Errorf("the log says %s", said)
	}
}

// The body that was one thing to the check and another to the store.
func TestABodyIsReadOnce(t *testing.T) {
	h := handler(t)
	twice := fmt.Sprintf(`{"format": "rutile/piece", "version": 1, "zones": [{"id": "a", "substrate": "%s"}], "zones": [{"id": "a", "substrate": "oak"}]}`, "moon")
	for _, path := range []string{"/api/pieces", "/api/check"} {
		w := call{method: "POST", path: path, body: twice}.to(h)
		if w.Code != http.StatusUnprocessableEntity || !strings.Contains(w.Body.String(), "$.zones: this field is given twice") {
			t.Errorf("%s: %d %s", path, w.Code, w.Body)
		}
	}
	if w := (call{method: "GET", path: "/api/pieces"}).to(h); w.Code != http.StatusOK {
		t.Errorf("the list: %d", w.Code)
	}
}
