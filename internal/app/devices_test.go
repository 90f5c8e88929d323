package app

import (
	"bytes"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"rutile/core/craft"
	"rutile/internal/store"
	"rutile/internal/wire"
)

// shop is a studio on a folder, with a clock for its codes.
type shop struct {
	*Studio
	t   *testing.T
	dir string
	now time.Time
}

func shopIn(t *testing.T, dir string) *shop {
	t.Helper()
	s, err := store.Open(dir)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = s.Close() })
	x := &shop{t: t, dir: dir, now: time.Date(2026, 11, 24, 11, 20, 0, 0, time.UTC)}
	x.Studio = NewStudio(NewEngine(craft.Default()), StudioOptions{Store: s, Now: func() time.Time { return x.now }})
	x.devices.started = func() time.Time { return x.now }
	return x
}

func (x *shop) code(device string) string {
	x.t.Helper()
	if err := x.NewCode(ctx, device); err != nil {
		x.t.Fatal(err)
	}
	c, ok := x.Code(ctx)
	if !ok {
		x.t.Fatal("there is no code")
	}
	return c.Code
}

func (x *shop) pair(name string) (token string, d wire.KeptDevice) {
	x.t.Helper()
	token, d, err := x.Pair(ctx, x.code(""), name, "https://192.168.1.20:8734")
	if err != nil {
		x.t.Fatal(err)
	}
	return token, d
}

// is is what a token is worth.
func (x *shop) is(token string) error {
	_, err := x.DeviceOf(ctx, token, "https://192.168.1.20:8734")
	return err
}

func TestACodePairsOneDevice(t *testing.T) {
	x := shopIn(t, t.TempDir())
	code := x.code("")
	for _, typed := range []string{strings.ToLower(code), strings.ReplaceAll(code, "-", ""), " " + strings.ReplaceAll(code, "-", " ") + " "} {
		if plainCode(typed) != strings.ReplaceAll(code, "-", "") {
			t.Errorf("%q is read as %q", typed, plainCode(typed))
		}
	}
	token, d, err := x.Pair(ctx, strings.ToLower(code), "  Phone   by the window ", "")
	if err != nil || d.Name != "Phone by the window" || x.is(token) != nil {
		t.Fatalf("%+v %v", d, err)
	}
	if _, _, err := x.Pair(ctx, code, "Another", ""); err == nil {
		t.Error("a code was good twice")
	}
	if _, again := x.pair("phone by the window"); again.Name != "phone by the window 2" {
		t.Errorf("two devices of one name: %s", again.Name)
	}
	if _, none := x.pair(""); none.Name == "" {
		t.Error("a device has no name")
	}
	if _, long := x.pair(strings.Repeat("ä", 500)); len([]rune(long.Name)) > 60 {
		t.Errorf("a name of %d letters", len([]rune(long.Name)))
	}
	// A new code makes the one before no good.
	old := x.code("")
	x.code("")
	if _, _, err := x.Pair(ctx, old, "", ""); err == nil {
		t.Error("an old code pairs")
	}
	if err := x.EndCode(ctx); err != nil {
		t.Error(err)
	}
	if _, ok := x.Code(ctx); ok {
		t.Error("a code is good that was ended")
	}
}

// A code lives ten minutes and five attempts.
func TestACodeRunsOut(t *testing.T) {
	for _, c := range []struct {
		after time.Duration
		wrong int
		fine  bool
	}{{0, 4, true}, {0, 5, false}, {9*time.Minute + 59*time.Second, 0, true}, {10 * time.Minute, 0, false}, {24 * time.Hour, 0, false}, {5 * time.Minute, 4, true}} {
		x := shopIn(t, t.TempDir())
		code := x.code("")
		for range c.wrong {
			if _, _, err := x.Pair(ctx, "AAAA-AAAA", "", ""); err == nil {
				t.Fatal("a wrong code pairs")
			}
		}
		x.now = x.now.Add(c.after)
		if _, _, err := x.Pair(ctx, code, "", ""); (err == nil) != c.fine {
			t.Errorf("after %v and %d wrong ones: %v", c.after, c.wrong, err)
		}
	}
}

// However often somebody guesses, with a code out or without one, nothing is paired; and nothing that is said tells
// which of the two it is.
func TestTenThousandGuesses(t *testing.T) {
	x := shopIn(t, t.TempDir())
	_, _, none := x.Pair(ctx, "AAAA-AAAA", "", "")
	right := x.code("")
	for n := range 10_000 {
		guess := fmt.Sprintf("%08d", n)
		if n == 5 {
			guess = right // too late
		}
		if _, _, err := x.Pair(ctx, guess, "", ""); err == nil || err.Error() != none.Error() {
			t.Fatalf("guess %d: %v, without a code %v", n, err, none)
		}
	}
	all, err := x.Devices(ctx, func(string) bool { return true })
	if err != nil || len(all) != 0 {
		t.Errorf("%+v %v", all, err)
	}
}

// The folder has no token in it, only a digest; and no code.
func TestTokensAreKeptHashed(t *testing.T) {
	x := shopIn(t, t.TempDir())
	code := x.code("")
	token, d, err := x.Pair(ctx, code, "Phone", "")
	if err != nil {
		t.Fatal(err)
	}
	for _, name := range []string{store.File, store.File + "-wal"} {
		data, err := os.ReadFile(filepath.Join(x.dir, name))
		if err != nil {
			t.Fatal(err)
		}
		if bytes.Contains(data, []byte(token)) || bytes.Contains(data, []byte(plainCode(code))) {
			t.Errorf("%s holds the token or the code", name)
		}
	}
	if d.Token != digest(token) || len(token) < 32 {
		t.Errorf("%+v", d)
	}
	// A token in the folder lets nobody in.
	if err := x.is(d.Token); !errors.Is(err, ErrUnpaired) {
		t.Error(err)
	}
}

func TestADeviceIsTakenOff(t *testing.T) {
	x := shopIn(t, t.TempDir())
	a, da := x.pair("Phone")
	b, db := x.pair("Tablet")
	if err := x.RevokeDevice(ctx, da.ID); err != nil {
		t.Fatal(err)
	}
	if err := x.is(a); !errors.Is(err, ErrRevoked) {
		t.Error(err)
	}
	if err := x.is(b); err != nil {
		t.Error(err)
	}
	if err := x.is(""); !errors.Is(err, ErrUnpaired) {
		t.Error(err)
	}
	// Its name is free for another, and it may come back as the one it was.
	if _, d := x.pair("Phone"); d.Name != "Phone" {
		t.Errorf("%q", d.Name)
	}
	token, again, err := x.Pair(ctx, x.code(da.ID), "whatever", "https://192.168.1.31:8734")
	if err != nil || again.ID != da.ID || again.Name != "Phone" || x.is(token) != nil {
		t.Errorf("%+v %v", again, err)
	}
	if err := x.is(a); !errors.Is(err, ErrUnpaired) {
		t.Errorf("its old token: %v", err)
	}
	if err := x.RenameDevice(ctx, db.ID, "Tablet on the wall"); err != nil {
		t.Error(err)
	}
	var none *NotFound
	for _, err := range []error{x.RevokeDevice(ctx, "nobody"), x.RenameDevice(ctx, "nobody", "x"), x.LetIn(ctx, "nobody"), x.NewCode(ctx, "nobody")} {
		if !errors.As(err, &none) {
			t.Error(err)
		}
	}
	// It is all kept.
	all, err := x.Devices(ctx, func(o string) bool { return o == "https://192.168.1.31:8734" })
	if err != nil {
		t.Fatal(err)
	}
	x.devices.read = false
	now, err := x.Devices(ctx, func(o string) bool { return o == "https://192.168.1.31:8734" })
	if err != nil || fmt.Sprint(now) != fmt.Sprint(all) || len(all) != 3 {
		t.Errorf("%+v, read again %+v: %v", all, now, err)
	}
}

func TestNotTooManyDevices(t *testing.T) {
	x := shopIn(t, t.TempDir())
	var last wire.KeptDevice
	for range MaxDevices {
		_, last = x.pair("Phone")
	}
	var unfit *Unfit
	if err := x.NewCode(ctx, ""); !errors.As(err, &unfit) {
		t.Error(err)
	}
	if err := x.NewCode(ctx, last.ID); err != nil {
		t.Errorf("one that is paired again: %v", err)
	}
	for n := range keptOff + 3 {
		_ = x.RevokeDevice(ctx, last.ID)
		x.now = x.now.Add(time.Minute)
		_, last = x.pair(fmt.Sprint("Phone ", n))
	}
	all, err := x.Devices(ctx, func(string) bool { return true })
	if err != nil || len(all) > MaxDevices+keptOff+1 {
		t.Errorf("%d devices are remembered, %v", len(all), err)
	}
}

// The folder is brought back from a copy in which a device is paired that was taken off since: nobody is let in before
// somebody at the computer has said so. A folder that is only moved is the same.
func TestAFolderFromACopy(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "studio")
	x := shopIn(t, dir)
	hold := func(x *shop, want int) {
		t.Helper()
		if held, err := x.HoldDevices(ctx); err != nil || held != want {
			t.Errorf("%d are held, want %d: %v", held, want, err)
		}
	}
	hold(x, 0)
	lost, dl := x.pair("Lost phone")
	kept, dk := x.pair("Phone")
	hold(x, 0)
	if err := x.Store.Close(); err != nil {
		t.Fatal(err)
	}
	copied := filepath.Join(t.TempDir(), "copy")
	if err := os.CopyFS(copied, os.DirFS(dir)); err != nil {
		t.Fatal(err)
	}

	x = shopIn(t, dir)
	hold(x, 0)
	if err := x.RevokeDevice(ctx, dl.ID); err != nil {
		t.Fatal(err)
	}
	if err := x.Store.Close(); err != nil {
		t.Fatal(err)
	}
	moved := filepath.Join(t.TempDir(), "moved")
	if err := os.Rename(dir, moved); err != nil {
		t.Fatal(err)
	}
	x = shopIn(t, moved)
	hold(x, 0)

	y := shopIn(t, copied)
	hold(y, 2)
	hold(y, 0)
	for _, token := range []string{lost, kept} {
		if err := y.is(token); !errors.Is(err, ErrHeld) {
			t.Error(err)
		}
	}
	if err := y.LetIn(ctx, dk.ID); err != nil {
		t.Error(err)
	}
	if err := errors.Join(y.is(kept)); err != nil {
		t.Error(err)
	}
	if err := y.is(lost); !errors.Is(err, ErrHeld) {
		t.Errorf("the lost one: %v", err)
	}
}

// The authority is made once, and again where it is asked for or runs out; one that cannot be read stops everything.
func TestTheAuthorityIsKept(t *testing.T) {
	x := shopIn(t, t.TempDir())
	a, made, err := x.Authority(ctx, []string{"workshop"}, false)
	if err != nil || !made || !strings.Contains(a.Name(), "workshop") {
		t.Fatal(a, made, err)
	}
	same, made, err := x.Authority(ctx, []string{"workshop"}, false)
	if err != nil || made || same.Fingerprint() != a.Fingerprint() {
		t.Error(made, err)
	}
	if other, made, err := x.Authority(ctx, nil, true); err != nil || !made || other.Fingerprint() == a.Fingerprint() {
		t.Error(made, err)
	}
	x.now = x.now.AddDate(9, 6, 0)
	if _, made, err := x.Authority(ctx, nil, false); err != nil || !made {
		t.Errorf("one that runs out: %v %v", made, err)
	}
	for _, body := range []string{`{`, `{"pem": "nothing"}`} {
		if err := x.Store.SetDocument(ctx, store.Authority, authorityID, []byte(body)); err != nil {
			t.Fatal(err)
		}
		if _, _, err := x.Authority(ctx, nil, false); !errors.Is(err, ErrAuthority) {
			t.Errorf("%s: %v", body, err)
		}
	}
	if _, made, err := x.Authority(ctx, nil, true); err != nil || !made {
		t.Errorf("a new one in its place: %v", err)
	}
}
