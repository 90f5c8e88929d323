package e2e

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"math"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"rutile/internal/wire"
)

// part presses a part in the drawing, by its index.
func part(n int) act { return click(fmt.Sprintf(`svg [data-part="%d"]`, n)) }

// A chest with three drawers, two materials and one old finish, entered from
// nothing, with a plan for each zone; then a reload, and all of it is there.
func TestAChestFromNothing(t *testing.T) {
	t.Parallel()
	a := start(t, false)
	ctx := browser(t, 1280, 800)
	const sizes = "dialog input"
	do(t, ctx, chromedp.Navigate(a.url("/")), click(`[data-do="new-piece"]`), typeIn("piece.name", "Prop chest"), keys(kb.Enter), click(`[data-template="chest"]`),
		typeIn(sizes, "two metres"), shows(`dialog [aria-invalid="true"]`), typeIn(sizes, "84 x 92 x 46"), click(`[data-do="make"]`), // drawn or not
		counts("[data-part-row]", 6), saved())
	// The fronts are of one material, all else of another.
	do(t, ctx, part(2), click(`[data-do="new-zone"]`), click(`[data-option="laminate_hpl"]`), verdict("watch"), pick("bare"), click(`[data-nothing="soils"]`), click(`[data-quick="#c9d2cd"]`),
		click(`[data-tab="-"]`), click(`[data-do="new-zone"]`), typeIn("zone_name", "Body"), click(`[data-option="pine"]`), verdict("watch"), pick("oil varnish"), click(`[data-nothing="soils"]`), click(`[data-quick="#2f4a40"]`), typeIn("piece.made", "2004"), saved())
	// A plan for each.
	plan := func(zone string, steps ...string) {
		t.Helper()
		do(t, ctx, click(fmt.Sprintf(`[data-tab=%q]`, zone)), click(`[data-stage="coats"]`), shows("[data-add]"))
		for _, s := range steps {
			do(t, ctx, addStep(s)...)
		}
		do(t, ctx, verdict("sound"), saved())
	}
	plan("body", "detergent", "sand with 220", "dust off", "pigmented shellac", "mineral paint")
	plan("drawer-fronts", "detergent", "sand with 220", "dust off", "bonding primer", "mineral paint")
	do(t, ctx, chromedp.Reload(), verdict("sound"), shows(row(5, "paint_mineral")), click(`[data-tab="-"]`), seesInView(`svg [data-part="2"]`))
	s := a.stored("1").Piece
	if s.Name != "Prop chest" || len(s.Parts) != 6 || len(s.Zones) != 2 || s.Zones[0].AreaM2 != 0 || s.Zones[0].Finish != "none" || s.Zones[1].Finish != "varnish_oil" {
		t.Fatalf("kept: %+v", s)
	}
	zones := map[string][]string{}
	for _, p := range s.Parts {
		zones[p.Zone] = append(zones[p.Zone], p.Kind)
	}
	if fmt.Sprint(zones["drawer-fronts"]) != "[drawer_front]" || fmt.Sprint(zones["body"]) != "[top carcass rail]" {
		t.Errorf("the parts are given as %v", zones)
	}
	if w, h := s.Parts[2].WidthCM, s.Parts[2].HeightCM; w != 79.8 || h != 25.8 {
		t.Errorf("the fronts are %v x %v", w, h)
	}
}

// Parts are measured, wrongly and rightly, changed, given to zones, split off
// and joined again, and every step can be taken back.
func TestPartsAreMeasuredGivenSplitAndJoined(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	const add = `[data-do="add-parts"]`
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12")), shows("svg [data-part]"))
	for _, words := range []string{"2 gizmos 4x4", "top 900x30", "top 0x30"} {
		do(t, ctx, typeIn("parts", words), hides(of("parts")+`[aria-invalid="true"]`), click(add), shows(of("parts")+`[aria-invalid="true"]`))
	}
	if got := value(t, ctx, "parts"); got != "top 0x30" {
		t.Errorf("what was typed became %q", got)
	}
	do(t, ctx, typeIn("parts", `cap 3' x 11"; 2 hooks 8`), click(add), counts("[data-part-row]", 5), click(`[data-give="uprights"]`), hides("[data-give]"), saved())
	p := a.stored("12").Piece
	if len(p.Parts) != 5 || p.Parts[3].Zone != "uprights" || p.Parts[3].Name != "Cap" || math.Abs(p.Parts[3].WidthCM-91.44) > 1e-9 || p.Parts[4].Count != 2 {
		t.Fatalf("kept: %+v", p.Parts)
	}
	// One is edited: a nonsense leaves it as it was.
	do(t, ctx, click(`[data-open-part="3"]`), typeIn("sizes", "92"), shows(`[data-typed="refused"]`), typeIn("sizes", "92 x 28"), shows(`[data-typed="read"]`), typeIn("part.count", "0"), shows(of("part.count")+"[data-wrong]"), saved())
	// Split off: surveyed alike, not planned.
	do(t, ctx, part(3), click(`[data-do="split"]`), shows(`[data-tab="cap"][aria-current]`), verdict("watch"), saved())
	p = a.stored("12").Piece
	i := slices.IndexFunc(p.Zones, func(z wire.Zone) bool { return z.ID == "cap" })
	if i < 0 || p.Zones[i].Substrate != "oak" || p.Zones[i].Finish != "varnish_oil" || len(p.Zones[i].Steps) != 0 || p.Parts[3].Zone != "cap" || p.Parts[3].WidthCM != 92 {
		t.Fatalf("split off: %+v, %+v", p.Zones, p.Parts[3])
	}
	// And joined again.
	do(t, ctx, click(`[data-tab="-"]`), click(`[data-join="cap"]`), click(`[data-join-to="uprights"]`), hides(`[data-tab="cap"]`), saved())
	p = a.stored("12").Piece
	if len(p.Zones) != 2 || p.Parts[3].Zone != "uprights" {
		t.Errorf("joined: %d zones, the cap in %q", len(p.Zones), p.Parts[3].Zone)
	}
	do(t, ctx, click("[data-undo]"), shows(`[data-tab="cap"]`), click("[data-redo]"), hides(`[data-tab="cap"]`), saved())
	// Given to none, a part is loose again, and stays chosen as what belongs to no zone.
	do(t, ctx, part(3), click(`[data-give=""]`), hides(`[data-give=""]`), shows(`[data-give="uprights"]`), saved())
	if z := a.stored("12").Piece.Parts[3].Zone; z != "" {
		t.Errorf("given to none, the cap is in %q", z)
	}
	// A zone that is removed leaves its parts.
	do(t, ctx, click("[data-undo]"), saved(), click(`[data-tab="back"]`), click(`[data-stage="look_over"]`), click("[data-remove-zone]"), hides(`[data-tab="back"]`), saved())
	p = a.stored("12").Piece
	if len(p.Zones) != 1 || len(p.Parts) != 5 || p.Parts[2].Zone != "" {
		t.Errorf("after a zone was removed: %d zones, %d parts, the back in %q", len(p.Zones), len(p.Parts), p.Parts[2].Zone)
	}
}

// Sizes typed while the server is away are worked out when it is back, in rows
// that were shut meanwhile, too; what was done after the typing stays, and what
// makes no sense then stands in its field.
func TestSizesTypedWhileTheServerIsAway(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	const away, refused = `[data-typed="away"]`, `[data-typed="refused"]`
	do(t, ctx, chromedp.Navigate(a.url("/pieces/13")), shows("svg [data-part]"), click(`[data-open-part="2"]`))
	a.down()
	do(t, ctx, typeIn("sizes", "70 x 20"), shows(away), typeIn("part.name", "Small fronts"), click(`[data-open-part="0"]`), hides(away), typeIn("sizes", "1.6 m x 48 cm x"), shows(away),
		click(`[data-tab="fronts"]`), click(`[data-stage="look_over"]`), typeIn("area_m2", "120 x 45 cm"), shows(away), click(`[data-tab="-"]`), shows(`[data-save="unsent"]`))
	a.up(true)
	do(t, ctx, hides("[data-unread]:not([data-wrong])"), shows(`[data-part-row="0"][data-wrong]`), widthOf(a, "13", 2, 70), kept("the area", func() bool { return a.stored("13").Piece.Zones[0].AreaM2 == .54 }), saved())
	p := a.stored("13").Piece
	if f := p.Parts[2]; f.WidthCM != 70 || f.HeightCM != 20 || f.Name != "Small fronts" {
		t.Errorf("with the server back the fronts are %+v", f)
	}
	if p.Parts[0].WidthCM != 165 || p.Zones[0].AreaM2 != .54 {
		t.Errorf("with the server back the top is %v wide and the fronts have %v m²", p.Parts[0].WidthCM, p.Zones[0].AreaM2)
	}
	do(t, ctx, click(`[data-open-part="0"]`), shows(refused))
	if got := value(t, ctx, "sizes"); got != "1.6 m x 48 cm x" {
		t.Errorf("what was typed became %q", got)
	}
	// Read by a page that was loaded anew.
	a.down()
	do(t, ctx, typeIn("sizes", "160 x 48 x 3"), shows(away))
	a.up(true)
	do(t, ctx, chromedp.Reload(), shows("svg [data-part]"), hides("[data-unread]"), saved(), widthOf(a, "13", 0, 160))
	// Undo brings back what was there before, and what was typed goes.
	do(t, ctx, click("[data-undo]"), saved(), widthOf(a, "13", 0, 165), click(`[data-open-part="0"]`), shows(of("sizes")+":not([data-typed])"))
}

// kept waits until what the server keeps is so.
func kept(what string, is func() bool) act {
	return chromedp.Func(func(context.Context, *chromedp.Target) error {
		for range 160 {
			if is() {
				return nil
			}
			time.Sleep(50 * time.Millisecond)
		}
		return fmt.Errorf("the server does not keep %s", what)
	})
}

func widthOf(a *app, piece string, part int, cm float64) act {
	return kept(fmt.Sprintf("part %d as %v wide", part, cm), func() bool { return a.stored(piece).Piece.Parts[part].WidthCM == cm })
}

// The drawing is walked and pressed by the keyboard alone.
func TestTheElevationIsWalked(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	chosen := func(n int) act { return counts(`svg [data-part][aria-pressed="true"]`, n) }
	do(t, ctx, chromedp.Navigate(a.url("/pieces/13")), chromedp.Focus(chromedp.CSS(`svg [tabindex="0"][data-part]`)), focused(`[data-part="0"]`), keys(kb.ArrowRight, kb.ArrowRight), focused(`[data-part="2"]`),
		keys(kb.Enter), chosen(1), keys(kb.ArrowRight), focused(`[data-part="3"]`), chromedp.KeyEvent(kb.Enter, chromedp.KeyModifiers(chromedp.ModifierShift)), chosen(2),
		keys("a"), chosen(0), keys("a"), shows(`svg [data-part="7"][aria-pressed="true"]`), keys("6"), shows(of("take_apart")), keys("5"), shows("svg [data-part]"))
	do(t, ctx, chromedp.DoubleClick(chromedp.CSS(`svg [data-part="0"]`)), shows(`[data-tab="counter"][aria-current]`), verdict("sound"))
}

// Hardware comes off in order and goes back in reverse; other holes are filled
// before paint.
func TestDisassemblyAndReassembly(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/1/-/disassembly")), click(`[data-add-fitting="glass"]`), counts("[data-fitting]", 1), click(`[data-fitting-kind="handle"]`), counts("[data-fitting]", 2), typeIn("fitting.count", "2"), typeIn("fitting.where", "lower edge"),
		typeIn("fitting.new_holes_mm", "96"), typeIn("fitting.holes_mm", "-4"), shows(of("fitting.holes_mm")+"[data-wrong]"), typeIn("fitting.holes_mm", "64"), shows("[data-drills]"),
		click(`[data-tick="0"]`), shows(`[data-tick="0"]:checked`), click(`[data-way-round="back"]`), shows(`[data-tick="1"]:not(:checked)`), click(`[data-tick="1"]`), shows(`[data-tick="1"]:checked`), saved(), chromedp.Reload(), counts("[data-fitting]", 2))
	got := a.stored("1").Piece.TakeApart
	if len(got) != 2 || !got[0].Off || got[0].Back || !got[1].Back || got[1].Off || *got[1].HolesMM != 64 || *got[1].NewHoles != 96 || got[1].Where != "lower edge" || got[1].Count != 2 {
		t.Errorf("kept: %+v", got)
	}
}

// Damage is entered with its size and place; what it takes stands beside it.
func TestDamageIsMeasured(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	in := func(n int, field string) string { return fmt.Sprintf(`[data-damage="%d"] %s`, n, of(field)) }
	at := func(n int, field, text string) act { return typeIn(in(n, field), text) }
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/back/survey")), click(`[data-defect="hole"]`), shows(`[data-damage="0"]`), at(0, "defect.count", "3"), at(0, "defect.size_mm", "8"), at(0, "defect.place", "lower left"), shows(`[data-damage="0"] [data-work]`),
		click(`[data-defect="open_joint"]`), at(1, "defect.length_cm", "0"), shows(in(1, "defect.length_cm")+"[data-wrong]"), at(1, "defect.length_cm", "40"), shows(`[data-damage="1"] [data-work]`), saved())
	d := a.stored("12").Piece.Zones[1].Defects
	want := []wire.Defect{{ID: "hole", Count: 3, Size: 8, Place: "lower left", Label: "B"}, {ID: "open_joint", Count: 1, Length: 40, Label: "C"}}
	if !slices.Equal(d, want) {
		t.Errorf("kept: %+v", d)
	}
	// What the material implies stays where something is found beside it.
	do(t, ctx, click(`[data-level="tannin 0"]`), saved())
	if b := a.stored("12").Piece.Zones[1].Bleeders; !slices.Equal(b, []wire.Level{{ID: "dye", Level: 1}, {ID: "tannin", Level: 1}}) {
		t.Errorf("found beside what the material implies: %+v", b)
	}
}

// upload gives files to the page as the file dialog would.
func upload(files ...string) act {
	return chromedp.SetUploadFiles(chromedp.CSS(`input[type="file"]`), files)
}

func TestPhotographs(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	dir := t.TempDir()
	file := func(name string, data []byte) string {
		t.Helper()
		path := filepath.Join(dir, name)
		if err := os.WriteFile(path, data, 0o600); err != nil {
			t.Fatal(err)
		}
		return path
	}
	m := image.NewRGBA(image.Rect(0, 0, 1600, 1200))
	for i := range m.Pix {
		m.Pix[i] = uint8(i / 5000)
	}
	var j, p bytes.Buffer
	if err := jpeg.Encode(&j, m, nil); err != nil {
		t.Fatal(err)
	}
	m.Set(3, 3, color.White)
	if err := png.Encode(&p, m.SubImage(image.Rect(0, 0, 700, 900))); err != nil {
		t.Fatal(err)
	}
	heic, err := filepath.Abs("../internal/photo/testdata/small.heic")
	if err != nil {
		t.Fatal(err)
	}
	left, text := file("left side.jpg", j.Bytes()), file("letter.jpg", []byte("Dear painter"))
	cut := file("cut off.jpg", j.Bytes()[:j.Len()/2])
	there := func(n int) act { return shows(fmt.Sprintf(`[data-side="photos"][data-count="%d"]`, n)) }
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/-/photos")), shows(of("photo.caption")), upload(left, file("back.png", p.Bytes())), there(3), saved(), upload(heic), there(4), click(`[data-do="remove-photo"]`), there(3), saved(),
		click(`[data-thumb="2"]`), upload(text, cut, left), counts("[data-told] li", 3))
	f := a.stored("12").Piece.Photos
	if len(f) != 3 || f[1].Width != 1600 || f[1].Height != 1200 || f[2].Width != 700 || f[2].Height != 900 {
		t.Fatalf("kept: %+v", f)
	}
	r, err := http.Get(a.url("/photos/" + f[1].File))
	if err != nil || r.StatusCode != 200 || r.Header.Get("Content-Type") != "image/jpeg" {
		t.Fatal(r, err)
	}
	_ = r.Body.Close()
	// A marker points at damage; when that is gone, the marker stays and points
	// at nothing.
	do(t, ctx, click(`[data-tab="uprights"]`), click(`[data-stage="look_over"]`), click(`[data-do="point"]`), shows("[data-pointing]"), click(`[data-thumb="2"]`), click(`figure button`), shows(of("marker.note")), typeIn("photo.caption", "Left side"),
		typeIn("marker.note", "Old sign"), choose("photo.zone", "uprights"), click(`[data-do="move-marker"]`), typeIn("marker.y", "120"), shows(of("marker.y")+"[data-wrong]"), typeIn("marker.y", "12.5"), saved())
	f = a.stored("12").Piece.Photos
	if k := f[1]; k.Caption != "Left side" || k.Zone != "uprights" || len(k.Markers) != 1 || k.Markers[0].Defect != "A" || math.Abs(k.Markers[0].X-.5) > .05 || k.Markers[0].Y != .125 || k.Markers[0].Note != "Old sign" {
		t.Errorf("marked: %+v", k)
	}
	do(t, ctx, click(`[data-tab="uprights"]`), click(`[data-stage="look_over"]`), click(`[data-do="remove-defect"]`), saved())
	if k := a.stored("12").Piece.Photos; k[1].Markers[0].Defect != "" || k[1].Markers[0].Note != "Old sign" || k[0].Markers[0].Defect != "" {
		t.Errorf("after the damage was removed: %+v", k)
	}
	do(t, ctx, click("[data-undo]"), saved(), click(`[data-tab="-"]`), click(`[data-side="photos"]`), click(`[data-thumb="2"]`), click(`[data-do="remove-photo"]`), there(2), saved())
	if k := a.stored("12").Piece.Photos; len(k) != 2 || k[0].Markers[0].Defect != "A" {
		t.Errorf("after undo and removal: %+v", k)
	}
}

// What is known of a piece's past is kept as it was typed.
func TestThePast(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/5/-/history")), typeIn("history.found", "Hung over the entrance, 🎭"), typeIn("history.paid_minor", "a lot"), shows(of("history.paid_minor")+"[data-wrong]"), typeIn("history.paid_minor", "12,50"),
		click(`[data-do="add-earlier"]`), typeIn("earlier.year", "1962"), typeIn("earlier.what", "Lacquered"), saved())
	h := a.stored("5").Piece.History
	if h.Found != "Hung over the entrance, 🎭" || *h.PaidMinor != 1250 || len(h.Earlier) != 1 || h.Earlier[0] != (wire.Earlier{Year: 1962, What: "Lacquered"}) {
		t.Errorf("kept: %+v", h)
	}
	do(t, ctx, typeIn("history.found", strings.Repeat("x", 30)), saved(), click("[data-undo]"), saved())
	if h := a.stored("5").Piece.History; h.Found != "Hung over the entrance, 🎭" {
		t.Errorf("after undo: %q", h.Found)
	}
}
