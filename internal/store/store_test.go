package store

import (
	"context"
	"encoding/json"
	"errors"
	"os"
	"path/filepath"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"rutile/internal/wire"
)

var ctx = context.Background()

func open(t *testing.T) (*Store, string) {
	t.Helper()
	dir := t.TempDir()
	s, err := Open(dir)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = s.Close() })
	return s, dir
}

func piece(t testing.TB) *wire.Piece {
	t.Helper()
	data, err := os.ReadFile("../../examples/programme-rack.json")
	if err != nil {
		t.Fatal(err)
	}
	p, err := wire.Decode(data)
	if err != nil {
		t.Fatal(err)
	}
	return p
}

func created(t *testing.T, s *Store, p *wire.Piece) wire.Saved {
	t.Helper()
	out, err := s.Create(ctx, p)
	if err != nil {
		t.Fatal(err)
	}
	return out
}

func TestPieceComesBackAsItWas(t *testing.T) {
	s, dir := open(t)
	p := piece(t)
	// Nothing looked for and nothing found stay apart in the database too.
	p.Zones = append(p.Zones, wire.Zone{ID: "b", Substrate: "glass"}, wire.Zone{ID: "c", Substrate: "mdf", Soils: []wire.Level{}, Bleeders: []wire.Level{}})
	c := created(t, s, p)
	if c.Rev != 1 || c.ID == 0 {
		t.Errorf("made as %d at %d", c.ID, c.Rev)
	}
	got, err := s.Get(ctx, c.ID)
	if err != nil {
		t.Fatal(err)
	}
	if !reflect.DeepEqual(&got.Piece, p) {
		t.Errorf("came back as\n%+v\nwant\n%+v", got.Piece, *p)
	}
	// Also after the program was stopped.
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	again, err := Open(dir)
	if err != nil {
		t.Fatal(err)
	}
	defer again.Close()
	got, err = again.Get(ctx, c.ID)
	if err != nil || !reflect.DeepEqual(&got.Piece, p) {
		t.Errorf("after a restart: %+v, %v", got.Piece, err)
	}
}

func TestSaveCountsUpAndReplaces(t *testing.T) {
	s, _ := open(t)
	c := created(t, s, piece(t))
	p := piece(t)
	p.Name, p.Zones[0].Steps = "Rack", p.Zones[0].Steps[:2]
	p.Made, p.Use, p.Site = 0, nil, nil
	out, err := s.Save(ctx, c.ID, 1, p)
	if err != nil || out.Rev != 2 {
		t.Fatalf("%+v, %v", out, err)
	}
	got, err := s.Get(ctx, c.ID)
	if err != nil || got.Rev != 2 || !reflect.DeepEqual(&got.Piece, p) {
		t.Errorf("%+v, %v", got, err)
	}
}

func TestStaleWriteIsRefusedAndSaysWhatChanged(t *testing.T) {
	s, _ := open(t)
	c := created(t, s, piece(t))
	other := piece(t)
	other.Zones[0].Steps[1].Grit = 180
	other.Zones = append(other.Zones, wire.Zone{ID: "back", Name: "Back", Substrate: "mdf"})
	if _, err := s.Save(ctx, c.ID, 1, other); err != nil {
		t.Fatal(err)
	}
	mine := piece(t)
	mine.Name = "Mine"
	_, err := s.Save(ctx, c.ID, 1, mine)
	var conflict *Conflict
	if !errors.As(err, &conflict) {
		t.Fatalf("got %v", err)
	}
	all := strings.Join(conflict.Changes, " ")
	if conflict.Current.Rev != 2 || !strings.Contains(all, `Step 2 of "Uprights and shelves" was changed.`) || !strings.Contains(all, `Zone "Back" was added.`) {
		t.Errorf("revision %d, changes %q", conflict.Current.Rev, conflict.Changes)
	}
	got, err := s.Get(ctx, c.ID)
	if err != nil || got.Piece.Name != "Programme rack" || len(got.Piece.Zones) != 2 {
		t.Errorf("the refused write left %+v, %v", got.Piece, err)
	}
}

func TestTheSameWriteTwiceIsDone(t *testing.T) {
	s, _ := open(t)
	c := created(t, s, piece(t))
	p := piece(t)
	p.Name = "Rack"
	for range 2 { // the answer to the first was lost on the way
		out, err := s.Save(ctx, c.ID, 1, p)
		if err != nil || out.Rev != 2 {
			t.Fatalf("%+v, %v", out, err)
		}
	}
}

func TestFailedSaveLeavesNothingHalfDone(t *testing.T) {
	s, _ := open(t)
	c := created(t, s, piece(t))
	// What is written last is refused.
	if err := s.db.Exec(`CREATE TRIGGER half BEFORE INSERT ON revisions WHEN new.body LIKE '%"Half"%' BEGIN SELECT RAISE(ABORT, 'no'); END`).Error; err != nil {
		t.Fatal(err)
	}
	bad := piece(t)
	bad.Name = "Half"
	if _, err := s.Save(ctx, c.ID, 1, bad); err == nil {
		t.Fatal("it was saved")
	}
	got, err := s.Get(ctx, c.ID)
	if err != nil || got.Rev != 1 || !reflect.DeepEqual(&got.Piece, piece(t)) {
		t.Errorf("half a save was kept: %+v, %v", got, err)
	}
	if _, err := s.Create(ctx, bad); err == nil {
		t.Fatal("it was made")
	}
	if all, err := s.Heads(ctx); err != nil || len(all) != 1 {
		t.Errorf("%d pieces, %v", len(all), err)
	}
}

func TestFullDisk(t *testing.T) {
	s, _ := open(t)
	c := created(t, s, piece(t))
	// One connection, whose database may not grow any further.
	db, err := s.db.DB()
	if err != nil {
		t.Fatal(err)
	}
	db.SetMaxOpenConns(1)
	if err := s.db.Exec("PRAGMA max_page_count = 1").Error; err != nil {
		t.Fatal(err)
	}
	big := piece(t)
	for i := range 150 {
		z := big.Zones[0]
		z.ID = "z" + strings.Repeat("x", 1+i%30) + string(rune('a'+i%26)) + string(rune('a'+i/26))
		big.Zones = append(big.Zones, z)
	}
	if _, err := s.Save(ctx, c.ID, 1, big); !errors.Is(err, ErrFull) {
		t.Fatalf("a full disk says %v", err)
	}
	got, err := s.Get(ctx, c.ID)
	if err != nil || got.Rev != 1 || len(got.Piece.Zones) != 1 {
		t.Errorf("after it: %d zones, %v", len(got.Piece.Zones), err)
	}
}

func TestListNewestFirst(t *testing.T) {
	s, _ := open(t)
	at := time.Date(2026, 10, 1, 9, 0, 0, 0, time.UTC)
	s.now = func() time.Time { at = at.Add(time.Minute); return at }
	var ids []uint
	for _, name := range []string{"a", "b", "c"} {
		p := piece(t)
		p.Name = name
		ids = append(ids, created(t, s, p).ID)
	}
	p := piece(t)
	p.Name = "a2"
	if _, err := s.Save(ctx, ids[0], 1, p); err != nil {
		t.Fatal(err)
	}
	heads, err := s.Heads(ctx)
	if err != nil {
		t.Fatal(err)
	}
	var names []string
	for _, h := range heads {
		all, err := s.Pieces(ctx, []uint{h.ID, 999})
		if err != nil || len(all) != 1 || all[0].Rev != h.Rev || !all[0].Updated.Equal(h.UpdatedAt) {
			t.Fatalf("%+v as %+v, %v", h, all, err)
		}
		x := all[0]
		names = append(names, x.Piece.Name)
		if len(x.Piece.Zones) != 1 || len(x.Piece.Zones[0].Steps) != 7 {
			t.Errorf("%s came without its steps", x.Piece.Name)
		}
	}
	if !reflect.DeepEqual(names, []string{"a2", "c", "b"}) {
		t.Errorf("the order is %v", names)
	}
}

func TestDelete(t *testing.T) {
	s, _ := open(t)
	c := created(t, s, piece(t))
	if err := s.Delete(ctx, c.ID); err != nil {
		t.Fatal(err)
	}
	if err := s.Delete(ctx, c.ID); !errors.Is(err, ErrNotFound) {
		t.Errorf("removed twice: %v", err)
	}
	if _, err := s.Get(ctx, c.ID); !errors.Is(err, ErrNotFound) {
		t.Errorf("still there: %v", err)
	}
	if _, err := s.Save(ctx, c.ID, 1, piece(t)); !errors.Is(err, ErrNotFound) {
		t.Errorf("saved after it was removed: %v", err)
	}
	for _, table := range []string{"revisions"} {
		var n int64
		if err := s.db.Table(table).Count(&n).Error; err != nil || n != 0 {
			t.Errorf("%d rows of %s are left over, %v", n, table, err)
		}
	}
}

func TestOldRevisionsGo(t *testing.T) {
	s, _ := open(t)
	c := created(t, s, piece(t))
	p := piece(t)
	for rev := 1; rev < keptRevisions+20; rev++ {
		p.Made = 1900 + rev
		if _, err := s.Save(ctx, c.ID, rev, p); err != nil {
			t.Fatal(err)
		}
	}
	var n int64
	s.db.Model(&revisionRow{}).Count(&n)
	if n != keptRevisions {
		t.Errorf("%d revisions are kept", n)
	}
	_, err := s.Save(ctx, c.ID, 2, piece(t))
	var conflict *Conflict
	if !errors.As(err, &conflict) || len(conflict.Changes) != 1 {
		t.Errorf("a very old write: %v", err)
	}
}

// Of many writers that start from one revision, exactly one gets through.
func TestWritersAtOnce(t *testing.T) {
	s, _ := open(t)
	c := created(t, s, piece(t))
	var wg sync.WaitGroup
	errs := make([]error, 12)
	for i := range errs {
		wg.Go(func() {
			p := piece(t)
			p.Made = 1950 + i
			_, errs[i] = s.Save(ctx, c.ID, 1, p)
		})
	}
	wg.Wait()
	won := 0
	for _, err := range errs {
		var conflict *Conflict
		switch {
		case err == nil:
			won++
		case !errors.As(err, &conflict):
			t.Errorf("a writer was refused with %v", err)
		}
	}
	if won != 1 {
		t.Errorf("%d writers got through", won)
	}
}

// Writers that come at once wait for each other, however many there are, and none is turned away.
func TestManyWritersAllGetThrough(t *testing.T) {
	s, _ := open(t)
	const writers, saves = 50, 6
	var wg sync.WaitGroup
	errs := make([]error, writers)
	for i := range errs {
		c := created(t, s, piece(t))
		wg.Go(func() {
			rev := c.Rev
			for n := range saves {
				p := piece(t)
				p.Made = 1900 + n
				out, err := s.Save(ctx, c.ID, rev, p)
				if err != nil {
					errs[i] = err
					return
				}
				rev = out.Rev
			}
			_, errs[i] = s.SaveSettings(ctx, AnyRevision, wire.Settings{Name: "Yard"})
		})
	}
	wg.Wait()
	if err := errors.Join(errs...); err != nil {
		t.Error(err)
	}
	heads, err := s.Heads(ctx)
	if err != nil || len(heads) != writers || slices.ContainsFunc(heads, func(h Head) bool { return h.Rev != 1+saves }) {
		t.Errorf("%+v, %v", heads, err)
	}
	// Whoever waits gives up with its request.
	s.writing <- struct{}{}
	gone, stop := context.WithCancel(ctx)
	stop()
	if _, err := s.Create(gone, piece(t)); !errors.Is(err, context.Canceled) {
		t.Errorf("a writer whose request is gone: %v", err)
	}
	<-s.writing
}

// The longest piece that may be checked is saved and read like any other.
func TestTheLongestPieceIsSaved(t *testing.T) {
	s, _ := open(t)
	p := wire.New("Long")
	for i := range wire.MaxZones {
		z := wire.Zone{ID: "z" + strconv.Itoa(i), Substrate: "oak"}
		for range wire.MaxSteps {
			z.Steps = append(z.Steps, wire.Step{Do: "clean", With: "detergent", Rinse: true})
		}
		p.Zones = append(p.Zones, z)
	}
	data, err := json.Marshal(p)
	if err != nil || len(data) > wire.MaxBytes {
		t.Fatal(len(data), err)
	}
	if _, err := wire.Decode(data); err != nil {
		t.Fatal(err)
	}
	c := created(t, s, &p)
	p.Name = "Longer"
	if _, err := s.Save(ctx, c.ID, c.Rev, &p); err != nil {
		t.Fatal(err)
	}
	got, err := s.Get(ctx, c.ID)
	if err != nil || len(got.Piece.Zones) != wire.MaxZones || len(got.Piece.Zones[wire.MaxZones-1].Steps) != wire.MaxSteps || got.Piece.Name != "Longer" {
		t.Errorf("%d zones, %v", len(got.Piece.Zones), err)
	}
}

func TestOpenSaysWhatIsWrong(t *testing.T) {
	dir := t.TempDir()
	if err := os.WriteFile(filepath.Join(dir, File), []byte("this is a shopping list, and a long one at that, and no database at all"), 0o600); err != nil {
		t.Fatal(err)
	}
	if s, err := Open(dir); err == nil || !strings.Contains(err.Error(), File) {
		t.Errorf("a shopping list opened as %v, %v", s, err)
	}
	file := filepath.Join(dir, "file")
	if err := os.WriteFile(file, nil, 0o600); err != nil {
		t.Fatal(err)
	}
	if _, err := Open(file); err == nil || !strings.Contains(err.Error(), "data folder") {
		t.Errorf("a file opened as a folder: %v", err)
	}
}

func TestFolderWithOddName(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "werk stück? #1 100%")
	s, err := Open(dir)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	created(t, s, piece(t))
	if _, err := os.Stat(filepath.Join(dir, File)); err != nil {
		t.Error(err)
	}
}

func TestADatabaseOfANewerProgramIsLeftAlone(t *testing.T) {
	s, dir := open(t)
	if err := s.db.Exec("INSERT INTO migrations (id) VALUES ('999_from_the_future')").Error; err != nil {
		t.Fatal(err)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	if _, err := Open(dir); err == nil {
		t.Error("a database of a newer program was opened")
	}
}

func TestMigrationsAreNamedInOrder(t *testing.T) {
	last := ""
	for _, m := range migrations {
		if m.ID <= last {
			t.Errorf("%s comes after %s", m.ID, last)
		}
		last = m.ID
	}
}

// BenchmarkSave saves a piece of one zone, in turn with a raw transaction that writes the same rows,
// and says how many times as long it takes.
func BenchmarkSave(b *testing.B) {
	s, err := Open(b.TempDir())
	if err != nil {
		b.Fatal(err)
	}
	defer s.Close()
	p := piece(b)
	c, err := s.Create(ctx, p)
	if err != nil {
		b.Fatal(err)
	}
	raw, err := Open(b.TempDir())
	if err != nil {
		b.Fatal(err)
	}
	defer raw.Close()
	r, err := raw.Create(ctx, p)
	if err != nil {
		b.Fatal(err)
	}
	db, err := raw.db.DB()
	if err != nil {
		b.Fatal(err)
	}
	body, err := json.Marshal(p)
	if err != nil {
		b.Fatal(err)
	}
	write := func(rev int) {
		tx, err := db.BeginTx(ctx, nil)
		if err != nil {
			b.Fatal(err)
		}
		now := time.Now()
		for _, x := range []struct {
			sql  string
			args []any
		}{
			{"UPDATE pieces SET rev = ?, name = ?, updated_at = ? WHERE id = ? AND rev = ?", []any{rev + 1, p.Name, now, r.ID, rev}},
			{"INSERT INTO revisions (piece_id, rev, at, body) VALUES (?, ?, ?, ?)", []any{r.ID, rev + 1, now, string(body)}},
			{"DELETE FROM revisions WHERE piece_id = ? AND rev <= ?", []any{r.ID, rev + 1 - keptRevisions}},
		} {
			if _, err := tx.ExecContext(ctx, x.sql, x.args...); err != nil {
				b.Fatal(err)
			}
		}
		if err := tx.Commit(); err != nil {
			b.Fatal(err)
		}
	}
	var ours, theirs []time.Duration
	for rev := 1; b.Loop(); rev++ {
		begin := time.Now()
		if _, err := s.Save(ctx, c.ID, rev, p); err != nil {
			b.Fatal(err)
		}
		ours = append(ours, time.Since(begin))
		begin = time.Now()
		write(rev)
		theirs = append(theirs, time.Since(begin))
	}
	slices.Sort(ours)
	slices.Sort(theirs)
	at := func(d []time.Duration) float64 { return float64(d[len(d)/2].Nanoseconds()) / 1000 }
	b.ReportMetric(at(ours), "save-median-µs")
	b.ReportMetric(at(theirs), "raw-median-µs")
	b.ReportMetric(at(ours)/at(theirs), "median-ratio")
	b.ReportMetric(0, "ns/op")
}

func TestSettingsAreKept(t *testing.T) {
	s, dir := open(t)
	if set, rev, err := s.Settings(ctx); rev != 0 || err != nil {
		t.Errorf("a new studio has %+v, %v", set, err)
	}
	for i, want := range []wire.Settings{
		{Name: "Yard", Units: "us", Site: wire.Site{TempC: 18, RHPct: 60}},
		{Name: "Own", Units: "metric", Way: "mine", Ways: []wire.Way{{ID: "mine", Name: "Mine", Holds: "prime", Shelf: []string{}, Without: []string{"paint_milk"}}}},
		{Name: "لوحة 🎭", Units: "metric", Site: wire.Site{TempC: -4, RHPct: 0}},
	} {
		if _, err := s.SaveSettings(ctx, AnyRevision, want); err != nil {
			t.Fatal(err)
		}
		if got, rev, err := s.Settings(ctx); !reflect.DeepEqual(got, want) || rev != i+1 || err != nil {
			t.Errorf("kept %+v, %v", got, err)
		}
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	again, err := Open(dir)
	if err != nil {
		t.Fatal(err)
	}
	defer again.Close()
	if got, rev, err := again.Settings(ctx); got.Units != "metric" || rev != 3 || err != nil {
		t.Errorf("after a restart %+v, %v", got, err)
	}
}

func TestSince(t *testing.T) {
	s, _ := open(t)
	p := piece(t)
	c := created(t, s, p)
	if out, changes, err := s.Since(ctx, c.ID, 1); err != nil || out.Rev != 1 || changes != nil {
		t.Errorf("%d, %v, %v", out.Rev, changes, err)
	}
	p.Name = "Rack"
	if _, err := s.Save(ctx, c.ID, 1, p); err != nil {
		t.Fatal(err)
	}
	if out, changes, err := s.Since(ctx, c.ID, 1); err != nil || out.Rev != 2 || len(changes) != 1 {
		t.Errorf("%d, %v, %v", out.Rev, changes, err)
	}
	if _, changes, err := s.Since(ctx, c.ID, -7); err != nil || len(changes) != 1 {
		t.Errorf("since a revision nobody has: %v, %v", changes, err)
	}
	if _, _, err := s.Since(ctx, 99, 1); !errors.Is(err, ErrNotFound) {
		t.Errorf("of no piece: %v", err)
	}
}

// One damaged document takes nothing with it: the others are read, it is told as damaged, and its
// document is there as it was written.
func TestADamagedPieceStandsAlone(t *testing.T) {
	s, dir := open(t)
	good := created(t, s, piece(t))
	for _, c := range []struct{ body, says string }{
		{`{"format": "rutile/piece", "version": 1, "zones": [{"id": "a", "substrate": "moon"}]}`, "$.zones[0].substrate"},
		{`{"format": "rutile/piece", "version": 1, "zones": [`, "it ends too early"},
		{`{"format": "rutile/piece", "version": 1, "zones": "none"}`, "$.zones"},
		{"\x00\x01\xff", "not UTF-8"},
		{``, "it ends too early"},
	} {
		bad := created(t, s, piece(t))
		if err := s.db.Exec("UPDATE revisions SET body = ? WHERE piece_id = ?", c.body, bad.ID).Error; err != nil {
			t.Fatal(err)
		}
		var d *Damaged
		if _, err := s.Get(ctx, bad.ID); !errors.As(err, &d) || !strings.Contains(d.Says, c.says) {
			t.Errorf("%q: %v", c.body, err)
		}
		all, err := s.Pieces(ctx, []uint{good.ID, bad.ID})
		if err != nil || len(all) != 2 {
			t.Fatalf("%d pieces, %v", len(all), err)
		}
		for _, l := range all {
			if (l.Damage != nil) != (l.ID == bad.ID) || l.Piece.Name != "Programme rack" {
				t.Errorf("%q: piece %d called %q: %v", c.body, l.ID, l.Piece.Name, l.Damage)
			}
		}
		if got, err := s.Document(ctx, bad.ID); err != nil || string(got) != c.body {
			t.Errorf("the document is %q, %v", got, err)
		}
	}
	lost := created(t, s, piece(t))
	if err := s.db.Exec("DELETE FROM revisions WHERE piece_id = ?", lost.ID).Error; err != nil {
		t.Fatal(err)
	}
	var d *Damaged
	if _, err := s.Get(ctx, lost.ID); !errors.As(err, &d) {
		t.Errorf("without a document: %v", err)
	}
	if _, err := s.Document(ctx, lost.ID); !errors.Is(err, ErrNotFound) {
		t.Errorf("its document: %v", err)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	again, err := Open(dir)
	if err != nil {
		t.Fatalf("it does not start any more: %v", err)
	}
	defer again.Close()
	if err := again.Delete(ctx, lost.ID); err != nil {
		t.Errorf("it cannot be removed: %v", err)
	}
}

// Pictures that a document shows are not swept because it is damaged.
func TestPicturesOfADamagedPieceStay(t *testing.T) {
	s, _ := open(t)
	p := piece(t)
	p.Photos = []wire.Photo{{File: "shown.jpg"}}
	c := created(t, s, p)
	for _, name := range []string{"shown.jpg", "other.jpg"} {
		if _, err := s.KeepPhoto(name, []byte("large"), []byte("small")); err != nil {
			t.Fatal(err)
		}
	}
	if err := s.db.Exec("UPDATE revisions SET body = substr(body, 1, length(body) - 2) WHERE piece_id = ?", c.ID).Error; err != nil {
		t.Fatal(err)
	}
	if n, err := s.SweepPhotos(ctx, 0); err != nil || n != 1 {
		t.Errorf("%d swept, %v", n, err)
	}
	if f, err := s.Photo("shown.jpg", false); err != nil {
		t.Error(err)
	} else {
		_ = f.Close()
	}
}

// Settings based on an older revision are refused; the same ones sent twice are not.
func TestStaleSettingsAreRefused(t *testing.T) {
	s, _ := open(t)
	one, two := wire.Settings{Name: "One", Units: "us"}, wire.Settings{Name: "Two", Units: "us"}
	if rev, err := s.SaveSettings(ctx, 0, one); err != nil || rev != 1 {
		t.Fatal(rev, err)
	}
	if _, err := s.SaveSettings(ctx, 0, two); !errors.Is(err, ErrSettingsChanged) {
		t.Errorf("over an older revision: %v", err)
	}
	if rev, err := s.SaveSettings(ctx, 0, one); err != nil || rev != 1 {
		t.Errorf("sent twice: %d, %v", rev, err)
	}
	if got, rev, err := s.Settings(ctx); got.Name != "One" || rev != 1 || err != nil {
		t.Errorf("%+v, %d, %v", got, rev, err)
	}
	if rev, err := s.SaveSettings(ctx, 1, two); err != nil || rev != 2 {
		t.Errorf("%d, %v", rev, err)
	}
}
