package store

import (
	"errors"
	"io"
	"os"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"rutile/internal/wire"
)

func read(t *testing.T, s *Store, name string, small bool) string {
	t.Helper()
	f, err := s.Photo(name, small)
	if err != nil {
		t.Fatal(err)
	}
	defer f.Close()
	data, err := io.ReadAll(f)
	if err != nil {
		t.Fatal(err)
	}
	return string(data)
}

func TestPhotosAreKeptOnce(t *testing.T) {
	s, dir := open(t)
	for i, want := range []bool{false, true} {
		already, err := s.KeepPhoto("a1.jpg", []byte("large"), []byte("small"))
		if err != nil || already != want {
			t.Errorf("time %d: already %v, %v", i+1, already, err)
		}
	}
	if l, m := read(t, s, "a1.jpg", false), read(t, s, "a1.jpg", true); l != "large" || m != "small" {
		t.Errorf("kept %q and %q", l, m)
	}
	files, err := os.ReadDir(filepath.Join(dir, Photos))
	if err != nil || len(files) != 2 { // the picture, and the folder of small ones
		t.Errorf("%v, %v", files, err)
	}
}

func TestPhotosAreOnlyThose(t *testing.T) {
	s, dir := open(t)
	if err := os.WriteFile(filepath.Join(dir, "secret.jpg"), []byte("x"), 0o600); err != nil {
		t.Fatal(err)
	}
	for _, name := range []string{"none.jpg", "../secret.jpg", "..%2fsecret.jpg", "", ".jpg", "small", "A.JPG", "a.jpg\x00"} {
		if _, err := s.Photo(name, false); !errors.Is(err, ErrNoPhoto) {
			t.Errorf("%q: %v", name, err)
		}
		if _, err := s.KeepPhoto(name, nil, nil); name != "none.jpg" && !errors.Is(err, ErrNoPhoto) {
			t.Errorf("%q is kept: %v", name, err)
		}
	}
}

func TestAPhotoThatCannotBeWrittenIsNotThere(t *testing.T) {
	s, dir := open(t)
	if err := os.WriteFile(filepath.Join(dir, Photos), []byte("in the way"), 0o600); err != nil {
		t.Fatal(err)
	}
	if _, err := s.KeepPhoto("a1.jpg", []byte("large"), []byte("small")); err == nil {
		t.Fatal("kept where there is no room")
	}
	if err := os.Remove(filepath.Join(dir, Photos)); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Photo("a1.jpg", false); !errors.Is(err, ErrNoPhoto) {
		t.Error(err)
	}
}

// A picture goes only when no piece shows it, no earlier state of one, and it
// has lain about for a while.
func TestSweepPhotos(t *testing.T) {
	s, dir := open(t)
	for _, n := range []string{"shown.jpg", "undone.jpg", "logged.jpg", "left.jpg", "fresh.jpg"} {
		if _, err := s.KeepPhoto(n, []byte("l"), []byte("s")); err != nil {
			t.Fatal(err)
		}
		old := time.Now().Add(-48 * time.Hour)
		if n != "fresh.jpg" {
			if err := os.Chtimes(filepath.Join(dir, Photos, n), old, old); err != nil {
				t.Fatal(err)
			}
		}
	}
	p := piece(t)
	p.Photos = []wire.Photo{{File: "shown.jpg"}, {File: "undone.jpg"}}
	c := created(t, s, p)
	p.Photos = p.Photos[:1]
	if _, err := s.Save(ctx, c.ID, c.Rev, p); err != nil {
		t.Fatal(err)
	}
	if _, err := s.AddEntries(ctx, c.ID, []wire.Entry{{ID: "a", At: "2026-11-24T10:00:00Z", What: "note", Photos: []string{"logged.jpg"}}}, nil); err != nil {
		t.Fatal(err)
	}
	half := filepath.Join(dir, Photos, halfWritten+"1")
	old := time.Now().Add(-48 * time.Hour)
	if err := errors.Join(os.WriteFile(half, []byte("l"), 0o600), os.Chtimes(half, old, old)); err != nil {
		t.Fatal(err)
	}
	n, err := s.SweepPhotos(ctx, 24*time.Hour)
	if _, gone := os.Stat(half); !errors.Is(gone, os.ErrNotExist) {
		t.Error("what was left half written is still there")
	}
	if err != nil || n != 1 {
		t.Errorf("%d swept, %v", n, err)
	}
	var left []string
	for _, name := range []string{"shown.jpg", "undone.jpg", "logged.jpg", "left.jpg", "fresh.jpg"} {
		if f, err := s.Photo(name, true); err == nil {
			_ = f.Close()
			left = append(left, name)
		}
	}
	if want := []string{"shown.jpg", "undone.jpg", "logged.jpg", "fresh.jpg"}; !slices.Equal(left, want) {
		t.Errorf("left are %q, want %q", left, want)
	}
}

// Half of a pair, as a program leaves it that is ended between the two, is swept, and a pair without its
// small one is made whole.
func TestHalfAPair(t *testing.T) {
	s, dir := open(t)
	for _, n := range []string{"whole.jpg", "half.jpg", "fresh.jpg", "small.jpg"} {
		if _, err := s.KeepPhoto(n, []byte("l"), []byte("s")); err != nil {
			t.Fatal(err)
		}
	}
	small := func(n string) string { return filepath.Join(dir, Photos, smallPhotos, n) }
	old := time.Now().Add(-2 * halfAge)
	if err := errors.Join(os.Remove(filepath.Join(dir, Photos, "half.jpg")), os.Remove(filepath.Join(dir, Photos, "fresh.jpg")), os.Remove(small("small.jpg")),
		os.Chtimes(small("half.jpg"), old, old), os.Chtimes(small("whole.jpg"), old, old)); err != nil {
		t.Fatal(err)
	}
	if _, err := s.SweepPhotos(ctx, 24*time.Hour); err != nil {
		t.Fatal(err)
	}
	for n, want := range map[string]bool{"whole.jpg": true, "half.jpg": false, "fresh.jpg": true} {
		if isFile(small(n)) != want {
			t.Errorf("the small one of %s: there %v", n, !want)
		}
	}
	if already, err := s.KeepPhoto("small.jpg", []byte("l"), []byte("s")); err != nil || already || !isFile(small("small.jpg")) {
		t.Errorf("a pair without its small one: already %v, %v", already, err)
	}
}
