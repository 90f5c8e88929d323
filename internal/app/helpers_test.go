package app

import (
	"context"
	"os"
	"testing"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/internal/store"
	"rutile/internal/wire"
)

var (
	ctx    = context.Background()
	usual  = Workshop{Air: drying.Usual}
	engine = NewEngine(craft.Default())
)

// job is a piece at work in the usual workshop.
func job(p *wire.Piece) *Job { return engine.Job(p, usual) }

// checked is what a check of a piece says, in the usual workshop.
func checked(t testing.TB, p *wire.Piece, want Want) wire.CheckResult {
	t.Helper()
	r, err := job(p).Check(ctx, want)
	if err != nil {
		t.Fatal(err)
	}
	return r
}

func decoded(t testing.TB, s string) *wire.Piece {
	t.Helper()
	p, err := wire.Decode([]byte(s))
	if err != nil {
		t.Fatal(err)
	}
	return p
}

// zonePiece is a piece with one zone that has the given fields beside its id.
func zonePiece(t testing.TB, fields string) *wire.Piece {
	t.Helper()
	return decoded(t, `{"format": "rutile/piece", "version": 1, "zones": [{"id": "top", `+fields+`}]}`)
}

func exampleOf(t testing.TB, name string) *wire.Piece {
	t.Helper()
	data, err := os.ReadFile("../../examples/" + name + ".json")
	if err != nil {
		t.Fatal(err)
	}
	return decoded(t, string(data))
}

func example(t testing.TB) *wire.Piece { t.Helper(); return exampleOf(t, "programme-rack") }

func brownTable(t testing.TB) *wire.Piece { t.Helper(); return exampleOf(t, "brown-table") }

// emptyStore is a store in which nothing was saved.
func emptyStore(t testing.TB) *store.Store {
	t.Helper()
	s, err := store.Open(t.TempDir())
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = s.Close() })
	return s
}
