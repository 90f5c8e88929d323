package store

import (
	"bytes"
	"errors"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"rutile/internal/wire"
)

// sealed is a folder with pieces in it, of a program that was ended without a word.
func sealed(t *testing.T) string {
	t.Helper()
	s, dir := open(t)
	for range 8 {
		created(t, s, piece(t))
	}
	if _, err := s.SaveSettings(ctx, AnyRevision, wire.Settings{Name: "Yard", Units: "us"}); err != nil {
		t.Fatal(err)
	}
	copied := filepath.Join(t.TempDir(), "studio")
	if err := os.CopyFS(copied, os.DirFS(dir)); err != nil { // with its log, as it is on the disk now
		t.Fatal(err)
	}
	return copied
}

// settled is the same with everything in the database itself.
func settled(t *testing.T) string {
	t.Helper()
	dir := sealed(t)
	s, err := Open(dir)
	if err != nil {
		t.Fatal(err)
	}
	if err := s.db.Exec("PRAGMA wal_checkpoint(TRUNCATE)").Error; err != nil {
		t.Fatal(err)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	return dir
}

func rewrite(t *testing.T, path string, change func([]byte) []byte) {
	t.Helper()
	data, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	if err := os.WriteFile(path, change(data), 0o600); err != nil {
		t.Fatal(err)
	}
}

// Every fault of a folder is told in sentences: what is wrong, what is safe, and what to do. Nothing in
// the folder is changed by it.
func TestFaultsOfAFolder(t *testing.T) {
	sql := func(dir, statement string) {
		t.Helper()
		s, err := Open(dir)
		if err != nil {
			t.Fatal(err)
		}
		if err := s.db.Exec(statement).Error; err != nil {
			t.Fatal(err)
		}
		if err := s.Close(); err != nil {
			t.Fatal(err)
		}
	}
	for _, c := range []struct {
		name           string
		dir            func() string
		says, safe, do string
	}{
		{"the log is a folder", func() string {
			dir := settled(t)
			_ = os.Remove(filepath.Join(dir, walFile))
			if err := os.Mkdir(filepath.Join(dir, walFile), 0o700); err != nil {
				t.Fatal(err)
			}
			return dir
		}, "rutile.db-wal is not a file.", "Nothing was changed.", "Move it away"},
		{"the log is damaged", func() string {
			dir := sealed(t)
			rewrite(t, filepath.Join(dir, walFile), func(b []byte) []byte { copy(b, "nonsense"); return b })
			return dir
		}, "rutile.db-wal in the data folder", "older changes are in rutile.db", "Copy the whole folder to a safe place first."},
		{"pages are damaged", func() string {
			dir := settled(t)
			rewrite(t, filepath.Join(dir, File), func(b []byte) []byte {
				for at := 3 * 4096; at+200 < len(b); at += 4096 {
					clear(b[at : at+200])
				}
				return b
			})
			return dir
		}, "is damaged.", "the pictures in the folder are not affected", "bring back a backup"},
		{"cut in half", func() string {
			dir := settled(t)
			rewrite(t, filepath.Join(dir, File), func(b []byte) []byte { return b[:len(b)/8192*4096] })
			return dir
		}, "is damaged.", "Nothing was changed", "Copy the whole folder"},
		{"no database", func() string {
			dir := t.TempDir()
			if err := os.WriteFile(filepath.Join(dir, File), bytes.Repeat([]byte("a text "), 100), 0o600); err != nil {
				t.Fatal(err)
			}
			return dir
		}, "is not a database of Rutile.", "Nothing was changed.", "name another folder with --data"},
		{"a newer version", func() string {
			dir := settled(t)
			sql(dir, `INSERT INTO migrations VALUES ('099_future')`)
			return dir
		}, "written by a newer version of Rutile.", "Nothing was changed.", "Start that version or a later one."},
		{"a file in place of the folder", func() string {
			path := filepath.Join(t.TempDir(), "studio")
			if err := os.WriteFile(path, nil, 0o600); err != nil {
				t.Fatal(err)
			}
			return path
		}, "is a file and not a folder.", "Nothing was changed.", "Name a folder with --data."},
		{"another Rutile", func() string {
			dir := settled(t)
			s, err := Open(dir)
			if err != nil {
				t.Fatal(err)
			}
			t.Cleanup(func() { _ = s.Close() })
			return dir
		}, "Another Rutile is already running on the folder", "Nothing was changed.", "stop it first"},
	} {
		dir := c.dir()
		before := folder(t, dir)
		_, err := Open(dir)
		var f *Fault
		if !errors.As(err, &f) {
			t.Errorf("%s: %v", c.name, err)
			continue
		}
		if !strings.Contains(f.Says, c.says) || !strings.Contains(f.Safe, c.safe) || !strings.Contains(f.Do, c.do) {
			t.Errorf("%s: %s", c.name, err)
		}
		for _, word := range []string{"SQL", "migration", "(1", "errno", "goroutine", "gorm", "pragma"} {
			if strings.Contains(strings.ToLower(err.Error()), strings.ToLower(word)) {
				t.Errorf("%s: %q in %s", c.name, word, err)
			}
		}
		for name, data := range folder(t, dir) {
			if was, ok := before[name]; ok && was != data && name != sharedFile {
				t.Errorf("%s: %s was changed", c.name, name)
			}
		}
	}
}

// folder is what the files of a folder hold.
func folder(t *testing.T, dir string) map[string]string {
	t.Helper()
	out := map[string]string{}
	files, _ := filepath.Glob(filepath.Join(dir, "*"))
	for _, f := range files {
		data, err := os.ReadFile(f)
		if err == nil {
			out[filepath.Base(f)] = string(data)
		}
	}
	return out
}

// Opened to be read only, everything is there, with the latest changes, and nothing is written.
func TestReadOnly(t *testing.T) {
	dir := sealed(t)
	before := folder(t, dir)
	s, err := OpenReadOnly(dir)
	if err != nil {
		t.Fatal(err)
	}
	heads, err := s.Heads(ctx)
	if err != nil || len(heads) != 8 {
		t.Errorf("%d pieces, %v", len(heads), err)
	}
	if set, _, err := s.Settings(ctx); err != nil || set.Name != "Yard" {
		t.Errorf("%+v, %v", set, err)
	}
	_, errs := s.Create(ctx, piece(t))
	_, err2 := s.Save(ctx, 1, 1, piece(t))
	_, err3 := s.KeepPhoto("a.jpg", []byte("l"), []byte("s"))
	_, err4 := s.SaveSettings(ctx, AnyRevision, wire.Settings{})
	for _, err := range []error{errs, err2, err3, err4, s.Delete(ctx, 1)} {
		if !errors.Is(err, ErrReadOnly) {
			t.Errorf("a write: %v", err)
		}
	}
	if !s.ReadOnly() {
		t.Error("it does not say so")
	}
	copied := s.copied
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	if _, err := os.Stat(copied); !errors.Is(err, os.ErrNotExist) {
		t.Error("the copy is left over")
	}
	after := folder(t, dir)
	delete(after, lockFile)
	delete(before, lockFile)
	if len(after) != len(before) {
		t.Errorf("%d files, and %d before", len(after), len(before))
	}
	for name := range before {
		if after[name] != before[name] {
			t.Errorf("%s was changed", name)
		}
	}
	if _, err := OpenReadOnly(t.TempDir()); err == nil || !strings.Contains(err.Error(), "There is no studio") {
		t.Errorf("an empty folder: %v", err)
	}
}

// What of a damaged database can be read is shown, read only.
func TestWhatCanStillBeRead(t *testing.T) {
	dir := settled(t)
	s, err := Open(dir)
	if err != nil {
		t.Fatal(err)
	}
	for range 60 { // enough for several pages
		created(t, s, piece(t))
	}
	if err := errors.Join(s.db.Exec("PRAGMA wal_checkpoint(TRUNCATE)").Error, s.Close()); err != nil {
		t.Fatal(err)
	}
	rewrite(t, filepath.Join(dir, File), func(b []byte) []byte {
		page := bytes.LastIndex(b, []byte(wire.PieceFormat)) / 4096 * 4096 // the last of several
		clear(b[page : page+4096])
		return b
	})
	if s, err = OpenReadOnly(dir); err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	heads, err := s.Heads(ctx)
	if err != nil || len(heads) == 0 {
		t.Fatalf("%d pieces, %v", len(heads), err)
	}
	ids := make([]uint, len(heads))
	for i, h := range heads {
		ids[i] = h.ID
	}
	all, err := s.Pieces(ctx, ids)
	if err != nil {
		t.Fatal(err)
	}
	n := 0
	for _, l := range all {
		if l.Damage == nil {
			n++
		}
	}
	if n == 0 || n == len(all) {
		t.Errorf("%d of %d pieces can be read: the test damages too much or too little", n, len(all))
	}
}

// Nobody but the owner may read what is kept.
func TestFilesAreTheOwners(t *testing.T) {
	s, dir := open(t)
	created(t, s, piece(t))
	for _, name := range []string{File, walFile, sharedFile, lockFile} {
		info, err := os.Stat(filepath.Join(dir, name))
		if err != nil || info.Mode().Perm() != 0o600 {
			t.Errorf("%s: %v, %v", name, info, err)
		}
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	if err := os.Chmod(filepath.Join(dir, File), 0o644); err != nil { // of an earlier version
		t.Fatal(err)
	}
	again, err := Open(dir)
	if err != nil {
		t.Fatal(err)
	}
	defer again.Close()
	if info, err := os.Stat(filepath.Join(dir, File)); err != nil || info.Mode().Perm() != 0o600 {
		t.Errorf("of an earlier version: %v, %v", info, err)
	}
}

// A log whose head a power cut has left unwritten holds nothing, and is no fault.
func TestALogThatWasNeverWritten(t *testing.T) {
	for _, log := range [][]byte{nil, make([]byte, 20), make([]byte, 8192)} {
		dir := settled(t)
		if err := os.WriteFile(filepath.Join(dir, walFile), log, 0o600); err != nil {
			t.Fatal(err)
		}
		s, err := Open(dir)
		if err != nil {
			t.Errorf("%d bytes: %v", len(log), err)
			continue
		}
		if heads, err := s.Heads(ctx); err != nil || len(heads) != 8 {
			t.Errorf("%d bytes: %d pieces, %v", len(log), len(heads), err)
		}
		if err := s.Close(); err != nil {
			t.Error(err)
		}
	}
}
