package store

import (
	"errors"
	"fmt"
	"sync"
	"testing"

	"rutile/internal/wire"
)

// Documents are kept by kind and id, each write over the revision it was based on.
func TestDocuments(t *testing.T) {
	s, _ := open(t)
	if rev, err := s.PutDocument(ctx, Cans, "a", 0, []byte(`{"id":"a"}`)); err != nil || rev != 1 {
		t.Fatal(rev, err)
	}
	if rev, err := s.PutDocument(ctx, Cans, "a", 1, []byte(`{"id":"a","name":"b"}`)); err != nil || rev != 2 {
		t.Fatal(rev, err)
	}
	if rev, err := s.PutDocument(ctx, Cans, "a", 1, []byte(`{"id":"a","name":"b"}`)); err != nil || rev != 2 {
		t.Errorf("sent twice: %d, %v", rev, err)
	}
	if _, err := s.PutDocument(ctx, Cans, "a", 1, []byte(`{"id":"a","name":"c"}`)); !errors.Is(err, ErrDocumentChanged) {
		t.Errorf("over an old revision: %v", err)
	}
	if _, err := s.PutDocument(ctx, Cans, "b", 3, []byte(`{}`)); !errors.Is(err, ErrNoDocument) {
		t.Errorf("a change of what is not there: %v", err)
	}
	if _, err := s.PutDocument(ctx, Blends, "a", 0, []byte(`{"blend":1}`)); err != nil {
		t.Errorf("another kind of the same id: %v", err)
	}
	all, err := s.Documents(ctx, Cans)
	if err != nil || len(all) != 1 || all[0].Rev != 2 || string(all[0].Body) != `{"id":"a","name":"b"}` {
		t.Errorf("%+v, %v", all, err)
	}
	if err := s.AddDocuments(ctx, Cans, []Kept{{ID: "a", Body: []byte(`{"id":"a","name":"other"}`)}, {ID: "c", Body: []byte(`{"id":"c"}`)}}); err != nil {
		t.Fatal(err)
	}
	if all, _ = s.Documents(ctx, Cans); len(all) != 2 || string(all[0].Body) != `{"id":"a","name":"b"}` {
		t.Errorf("adding wrote over what was there: %+v", all)
	}
	if err := s.RemoveDocument(ctx, Cans, "a"); err != nil {
		t.Fatal(err)
	}
	if err := s.RemoveDocument(ctx, Cans, "a"); !errors.Is(err, ErrNoDocument) {
		t.Error(err)
	}
}

// Twenty tabs put cans at once, and all of them are there.
func TestDocumentsFromManyTabs(t *testing.T) {
	s, _ := open(t)
	var tabs sync.WaitGroup
	for i := range 20 {
		tabs.Go(func() {
			for k := range 10 {
				if _, err := s.PutDocument(ctx, Cans, fmt.Sprintf("can-%d-%d", i, k), 0, []byte(`{}`)); err != nil {
					t.Error(err)
				}
			}
		})
	}
	tabs.Wait()
	if all, err := s.Documents(ctx, Cans); err != nil || len(all) != 200 {
		t.Errorf("%d documents, %v", len(all), err)
	}
}

func TestWhichPiecesNameACan(t *testing.T) {
	s, _ := open(t)
	p := wire.New("Rack")
	p.Cans = []wire.Can{{ID: "a", Kind: "paint_chalk"}, {ID: "b", Kind: "wax_clear"}}
	if _, err := s.Create(ctx, &p); err != nil {
		t.Fatal(err)
	}
	plain := wire.New("Stool")
	if _, err := s.Create(ctx, &plain); err != nil {
		t.Fatal(err)
	}
	got, err := s.CansNamed(ctx)
	if err != nil || len(got) != 2 || got[0] != (CanUse{"a", "Rack"}) {
		t.Errorf("%+v, %v", got, err)
	}
}
