package store

import (
	"errors"
	"fmt"
	"testing"

	"rutile/internal/wire"
)

func entry(id string) wire.Entry {
	return wire.Entry{ID: id, At: "2026-11-24T10:00:00Z", What: "note", Note: id}
}

// An entry counts once, however often it is sent; what it took from a can is taken once; and it goes with its piece.
func TestLog(t *testing.T) {
	s, _ := open(t)
	c := created(t, s, piece(t))
	if err := s.AddDocuments(ctx, Cans, []Kept{{ID: "grey", Body: []byte(`{"id": "grey", "kind": "paint_chalk", "size_l": 1, "left_l": 0.5}`)}}); err != nil {
		t.Fatal(err)
	}
	left := func() float64 {
		t.Helper()
		docs, err := s.Documents(ctx, Cans)
		if err != nil {
			t.Fatal(err)
		}
		can, err := wire.DecodeCan(docs[0].Body)
		if err != nil {
			t.Fatal(err)
		}
		return *can.LeftL
	}
	take := func(l float64) func([]string) []CanChange {
		return func(added []string) []CanChange {
			return []CanChange{{"grey", l * float64(len(added))}, {"gone", 1}}
		}
	}
	for n, want := range []int{2, 0, 1} {
		all := []wire.Entry{entry("a"), entry("b")}
		if n == 2 {
			all = append(all, entry("c"))
		}
		added, err := s.AddEntries(ctx, c.ID, all, take(-.1))
		if err != nil || len(added) != want {
			t.Errorf("%d. time: %v, %v", n+1, added, err)
		}
	}
	if got := left(); got < .199 || got > .201 {
		t.Errorf("%v litres left of a half", got)
	}
	if _, err := s.AddEntries(ctx, c.ID, []wire.Entry{entry("d")}, take(-5)); err != nil || left() != 0 {
		t.Errorf("more than there is: %v, %v", left(), err)
	}
	if _, err := s.AddEntries(ctx, c.ID, []wire.Entry{entry("e")}, take(50)); err != nil || left() != 1 {
		t.Errorf("more than fits in: %v, %v", left(), err)
	}
	log, seq, lost, err := s.Log(ctx, c.ID)
	if err != nil || len(log) != 5 || lost != 0 || seq == 0 {
		t.Errorf("%d entries, %d lost, %v", len(log), lost, err)
	}
	heads, err := s.LogHeads(ctx)
	if err != nil || heads[c.ID] != seq {
		t.Errorf("%v, %v", heads, err)
	}
	// What cannot be read is left out, and nothing else.
	if err := s.db.Exec("UPDATE log SET body = '{' WHERE id = 'b'").Error; err != nil {
		t.Fatal(err)
	}
	if log, _, lost, err = s.Log(ctx, c.ID); err != nil || len(log) != 4 || lost != 1 {
		t.Errorf("%d entries, %d lost, %v", len(log), lost, err)
	}
	if _, err := s.AddEntries(ctx, 999, []wire.Entry{entry("a")}, nil); !errors.Is(err, ErrNotFound) {
		t.Errorf("no such piece: %v", err)
	}
	// A log comes with a piece file, and goes to the same place; saving the piece again adds what is new.
	p := piece(t)
	p.Log = []wire.Entry{entry("x"), entry("y")}
	d := created(t, s, p)
	if d.Piece.Log != nil {
		t.Error("the document holds the log")
	}
	p.Log = append(p.Log, entry("z"))
	if _, err := s.Save(ctx, d.ID, d.Rev, p); err != nil {
		t.Fatal(err)
	}
	if log, _, _, err = s.Log(ctx, d.ID); err != nil || len(log) != 3 {
		t.Errorf("%d entries, %v", len(log), err)
	}
	if err := s.Delete(ctx, d.ID); err != nil {
		t.Fatal(err)
	}
	if log, _, _, err = s.Log(ctx, d.ID); err != nil || len(log) != 0 {
		t.Errorf("the log of a piece that is gone: %d entries, %v", len(log), err)
	}
	var many []wire.Entry
	for i := range wire.MaxEntries {
		many = append(many, entry(fmt.Sprint("m", i)))
	}
	if _, err := s.AddEntries(ctx, c.ID, many, nil); !errors.Is(err, ErrLogFull) {
		t.Errorf("too many: %v", err)
	}
	if log, _, _, err = s.Log(ctx, c.ID); err != nil || len(log) != 4 {
		t.Errorf("after what was refused %d entries, %v", len(log), err)
	}
}
