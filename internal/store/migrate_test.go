package store

import (
	"encoding/json"
	"path/filepath"
	"testing"

	"github.com/go-gormigrate/gormigrate/v2"
	"gorm.io/driver/sqlite"
	"gorm.io/gorm"

	"rutile/internal/wire"
)

// before is a database as a program wrote it that knew the first n migrations.
func before(t *testing.T, n int) (dir string, db *gorm.DB) {
	t.Helper()
	dir = t.TempDir()
	db, err := gorm.Open(sqlite.New(sqlite.Config{DriverName: "sqlite", DSN: "file:" + filepath.Join(dir, File)}), &gorm.Config{})
	if err != nil {
		t.Fatal(err)
	}
	o := *gormigrate.DefaultOptions
	if err := gormigrate.New(db, &o, migrations[:n]).Migrate(); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		if raw, err := db.DB(); err == nil {
			_ = raw.Close()
		}
	})
	return dir, db
}

func must(t *testing.T, db *gorm.DB, sql string, args ...any) {
	t.Helper()
	if err := db.Exec(sql, args...).Error; err != nil {
		t.Fatal(err)
	}
}

// asJSON is a value as it stood in a column: null for what there is not.
func asJSON(t *testing.T, v any) string {
	t.Helper()
	b, err := json.Marshal(v)
	if err != nil {
		t.Fatal(err)
	}
	return string(b)
}

// asRows writes a piece as rows, as programs did up to the fourth migration.
func asRows(t *testing.T, db *gorm.DB, id int, p *wire.Piece, looked bool) {
	t.Helper()
	must(t, db, "INSERT INTO pieces (id, rev, name, made, use, site, created_at, updated_at) VALUES (?, 3, ?, ?, ?, ?, '2026-10-01 09:00:00+00:00', '2026-10-02 09:00:00+00:00')",
		id, p.Name, p.Made, asJSON(t, p.Use), asJSON(t, p.Site))
	if looked {
		must(t, db, "UPDATE pieces SET parts = ?, take_apart = ?, photos = ?, history = ? WHERE id = ?", asJSON(t, p.Parts), asJSON(t, p.TakeApart), asJSON(t, p.Photos), asJSON(t, p.History), id)
	}
	for i, z := range p.Zones {
		survey := z
		survey.Steps = nil
		zone := id*100 + i
		// The last is written first: positions tell the order, and not the rows.
		must(t, db, "INSERT INTO zones (id, piece_id, position, key, name, substrate, finish, survey) VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
			zone, id, i, z.ID, z.Name, z.Substrate, z.Finish, asJSON(t, survey))
		for k := len(z.Steps) - 1; k >= 0; k-- {
			must(t, db, "INSERT INTO steps (zone_id, position, do, body) VALUES (?, ?, ?, ?)", zone, k, z.Steps[k].Do, asJSON(t, z.Steps[k]))
		}
	}
}

// What databases of earlier programs hold is still there, with and without what was looked over,
// whether or not the document of the last revision is in them.
func TestPiecesOfBeforeAreRead(t *testing.T) {
	full := piece(t)
	full.Made, full.Use, full.Site = 1931, []string{"indoor", "child"}, &wire.Site{TempC: 19, RHPct: 55}
	full.Zones = append(full.Zones, wire.Zone{ID: "back", Substrate: "glass", Soils: []wire.Level{}})
	looked := *full
	looked.Parts = []wire.Part{{Kind: "knob", AcrossCM: 3, Faces: []string{}}}
	looked.TakeApart = []wire.Fitting{{Kind: "hinge", Off: true}}
	looked.Photos = []wire.Photo{{File: "a.jpg"}}
	looked.History = &wire.History{Found: "here"}
	for _, x := range []struct {
		migrations int
		p          *wire.Piece
	}{{1, full}, {3, &looked}, {4, &looked}} {
		dir, db := before(t, x.migrations)
		asRows(t, db, 1, x.p, x.migrations >= 3)
		asRows(t, db, 2, x.p, x.migrations >= 3)
		must(t, db, "INSERT INTO revisions (piece_id, rev, at, body) VALUES (2, 3, '2026-10-02 09:00:00+00:00', ?)", asJSON(t, x.p))
		bare := wire.New("Bare")
		asRows(t, db, 3, &bare, false)
		s, err := Open(dir)
		if err != nil {
			t.Fatal(err)
		}
		for _, id := range []uint{1, 2} {
			got, err := s.Get(ctx, id)
			if err != nil || got.Rev != 3 || got.Created.IsZero() || got.Updated.Day() != 2 || asJSON(t, got.Piece) != asJSON(t, x.p) {
				t.Errorf("after %d migrations, piece %d is at %d\n%s\nwant\n%s\n%v", x.migrations, id, got.Rev, asJSON(t, got.Piece), asJSON(t, x.p), err)
			}
			got.Piece.Name = "Changed"
			if _, err := s.Save(ctx, id, 3, &got.Piece); err != nil {
				t.Error(err)
			}
		}
		if got, err := s.Get(ctx, 3); err != nil || got.Piece.Name != "Bare" || len(got.Piece.Zones) != 0 {
			t.Errorf("%+v, %v", got, err)
		}
		if err := s.Close(); err != nil {
			t.Fatal(err)
		}
	}
}
