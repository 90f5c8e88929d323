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
func part(n int) act { return chromedp.Click(chromedp.CSS(fmt.Sprintf(`svg [data-part="%d"]`, n))) }

// mark presses the first label that says words.
func mark(words string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return until(ctx, tab, fmt.Sprintf(`(() => {
			const l = [...document.querySelectorAll("label")].find((l) => l.innerText.trim() === %q);
			l?.click();
			return !!l;
		})()`, words), "a label that says "+words)
	})
}

// tick sets or clears the box that a label names.
func tick(label string) act {
	return chromedp.Click(chromedp.CSS(fmt.Sprintf(`input[aria-label=%q]`, label)))
}

// zone opens a zone by its tab, and presses again where the tab has just moved
// away from under the pointer.
func zone(name string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		for range 4 {
			if _, err := press(name)(ctx, tab); err != nil {
				return err
			}
			for range 50 {
				open, _ := chromedp.Evaluate[bool](fmt.Sprintf(`document.querySelector('nav[aria-label="Zones"] [aria-current]')?.innerText.includes(%q)`, name))(ctx, tab)
				if open {
					return nil
				}
				time.Sleep(20 * time.Millisecond)
			}
		}
		return fmt.Errorf("the zone %s does not open", name)
	})
}

// A chest with three drawers, two materials and one old finish, entered from
// nothing, with a plan for each zone; then a reload, and all of it is there.
func TestAChestFromNothing(t *testing.T) {
	t.Parallel()
	a := start(t, false)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/")), press("New piece"), sees("What is it?"),
		typeIn("Name of the piece", "Prop chest"), press("Done"),
		press("Chest of drawers"), sees("Make its parts"),
		typeIn("Sizes: width × height × depth", "two metres"), sees("cannot be read in a size"),
		typeIn("Sizes: width × height × depth", "84 x 92 x 46"), press("Make its parts"), // drawn or not
		sees("86 cm wide") /* its top stands proud */, sees("4 parts"))
	// The fronts are of one material, all else of another.
	do(t, ctx, part(2), sees("What are they made of"), press("New zone of these"), sees("Of: drawer fronts"),
		typeIn("What is it made of?", "worktop"), chromedp.KeyEvent(kb.Enter), verdict("watch"),
		press("Bare"), sees("From its parts: 0.732 m²"), mark("gloss"), press("Looked: nothing"), press("pale green"),
		press("The piece 3 parts without a zone"), sees("3 parts"), press("New zone of these"), sees("Of: top, carcass, plinth"),
		typeIn("Name of the zone", "Body"), press("Pine"), verdict("watch"),
		press("Oil varnish"), sees("From its parts: 1.34 m²"), mark("satin"), press("Looked: nothing"), press("deep green"))
	// A plan for each, from what makes sense next.
	plan := func(name string, steps ...string) {
		t.Helper()
		do(t, ctx, zone(name), press("Coat system"))
		for i, s := range steps {
			if i == 0 {
				do(t, ctx, press("Add the first step"))
			} else {
				do(t, ctx, press("Add the next step"))
			}
			do(t, ctx, typeIn("Find a step", s), chromedp.KeyEvent(kb.Enter), chromedp.Sleep(150e6))
		}
	}
	plan("Body", "detergent", "sand with 220", "dust off", "pigmented shellac", "mineral paint")
	do(t, ctx, verdict("sound"))
	plan("Drawer fronts", "detergent", "sand with 220", "dust off", "bonding primer", "mineral paint")
	do(t, ctx, verdict("sound"), saved(), chromedp.Reload(), verdict("sound"), press("The piece"), sees("drawn to scale"), seesInView(`svg [data-part="2"]`))
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
	// With a tape measure: three fronts of 79.8 x 25.8 x 1.8; a top of 86 x 47 x
	// 2, two sides of 82 x 46, the carcass's front edges, a plinth of 84 x 8.
	fronts := 3 * (79.8*25.8 + 2*(79.8+25.8)*1.8)
	body := 86*47. + 2*(86+47)*2 + 2*82*46 + (84*82 - 80.4*78.4) + 84*8
	if w, h := s.Parts[2].WidthCM, s.Parts[2].HeightCM; w != 79.8 || h != 25.8 {
		t.Errorf("the fronts are %v x %v", w, h)
	}
	if math.Round(fronts) != 7317 || math.Round(body) != 13375 {
		t.Errorf("with a tape measure the fronts are %v cm² and the body %v, and the page said 0.732 and 1.34 m²", fronts, body)
	}
}

// Parts are measured, wrongly and rightly, changed, given to zones, split off
// and joined again, and every step can be taken back.
func TestPartsAreMeasuredGivenSplitAndJoined(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12")), sees("drawn to scale"),
		typeIn("Add parts as you measure them", "2 gizmos 4x4"), press("Add"), sees("“gizmos” is no part that is known here"),
		typeIn("Add parts as you measure them", "top 900x30"), press("Add"), sees("larger than a room; at most 600 cm. Millimetres are written 900 mm."),
		typeIn("Add parts as you measure them", "top 0x30"), press("Add"), sees("is nothing"))
	if got, err := chromedp.Run(ctx, chromedp.Evaluate[string](`document.querySelector('[data-field="parts"]').value`)); err != nil || got != "top 0x30" {
		t.Errorf("what was typed became %q, %v", got, err)
	}
	do(t, ctx, typeIn("Add parts as you measure them", `cap 3' x 11"; 2 hooks 8`), press("Add"), sees("91.4 × 27.9 × 2 cm"), sees("2 parts, 0.30"),
		press("To Uprights and shelves"), sees("Press a part to choose it"), saved())
	p := a.stored("12").Piece
	if len(p.Parts) != 5 || p.Parts[3].Zone != "uprights" || p.Parts[3].Name != "Cap" || math.Abs(p.Parts[3].WidthCM-91.44) > 1e-9 || p.Parts[4].Count != 2 {
		t.Fatalf("kept: %+v", p.Parts)
	}
	// One is edited: a nonsense leaves it as it was.
	do(t, ctx, press("Cap 91.4"), typeIn("Sizes: width × depth, then thickness if you like", "92"), sees("A top has width × depth"),
		typeIn("Sizes: width × depth, then thickness if you like", "92 x 28"), sees("92 × 28 × 2 cm"), typeIn("How many", "0"), sees("Between 1 and 200"),
		saved())
	// Split off: surveyed alike, not planned.
	do(t, ctx, part(3), sees("in zone Uprights and shelves"), press("A zone like it"), sees("No coat is planned yet"), saved())
	p = a.stored("12").Piece
	i := slices.IndexFunc(p.Zones, func(z wire.Zone) bool { return z.ID == "cap" })
	if i < 0 || p.Zones[i].Substrate != "oak" || p.Zones[i].Finish != "varnish_oil" || len(p.Zones[i].Steps) != 0 || p.Parts[3].Zone != "cap" || p.Parts[3].WidthCM != 92 {
		t.Fatalf("split off: %+v, %+v", p.Zones, p.Parts[3])
	}
	// And joined again.
	do(t, ctx, press("The piece"), press("Join Cap with another zone"), sees("Its own survey ends"), press("Uprights and shelves"),
		gone("0.306 m², 2.4 m of edges"), saved())
	p = a.stored("12").Piece
	if len(p.Zones) != 2 || p.Parts[3].Zone != "uprights" {
		t.Errorf("joined: %d zones, the cap in %q", len(p.Zones), p.Parts[3].Zone)
	}
	do(t, ctx, press("Undo"), sees("0.306 m², 2.4 m of edges"), press("Redo"), gone("0.306 m², 2.4 m of edges"), saved())
	// Given to none, a part is loose again.
	do(t, ctx, part(3), press("To none"), sees("1 part"), sees("What is it made of"), saved())
	if z := a.stored("12").Piece.Parts[3].Zone; z != "" {
		t.Errorf("given to none, the cap is in %q", z)
	}
	do(t, ctx, press("Undo"), saved())
	// A zone that is removed leaves its parts.
	do(t, ctx, press("Back board"), press("Look over"), press("Remove this zone"), sees("Uprights and shelves"), saved())
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
	const frontSizes, topSizes = "Sizes: width × height, then thickness if you like", "Sizes: width × depth, then thickness if you like"
	away := "It is worked out as soon as the server answers"
	do(t, ctx, chromedp.Navigate(a.url("/pieces/13")), sees("drawn to scale"), press("2 × Drawer fronts"))
	a.down()
	do(t, ctx, typeIn(frontSizes, "70 x 20"), sees(away), typeIn("Called", "Small fronts"),
		press("Counter top 165"), gone(away), typeIn(topSizes, "1.6 m x 48 cm x"), sees(away),
		zone("Laminate fronts"), press("Look over"), sees("How it shines"), typeIn("Area", "120 x 45 cm"), sees(away), press("The piece"), sees("Not saved yet"))
	a.up(true)
	do(t, ctx, sees("70 × 20 × 2 cm"), sees("0.54 m², typed"), sees("“1.6 m x 48 cm x” cannot be read"), saved())
	check := func(when string) {
		t.Helper()
		p := a.stored("13").Piece
		if f := p.Parts[2]; f.WidthCM != 70 || f.HeightCM != 20 || f.Name != "Small fronts" {
			t.Errorf("%s the fronts are %+v", when, f)
		}
		if p.Parts[0].WidthCM != 165 || p.Zones[0].AreaM2 != .54 {
			t.Errorf("%s the top is %v wide and the fronts have %v m²", when, p.Parts[0].WidthCM, p.Zones[0].AreaM2)
		}
	}
	check("with the server back")
	do(t, ctx, press("Counter top “1.6"), sees("lacks its last side"))
	if got, err := chromedp.Run(ctx, chromedp.Evaluate[string](`document.querySelector("[aria-invalid=true]").value`)); err != nil || got != "1.6 m x 48 cm x" {
		t.Errorf("what was typed became %q, %v", got, err)
	}
	// Read by a page that was loaded anew.
	a.down()
	do(t, ctx, typeIn(topSizes, "160 x 48 x 3"), sees(away))
	a.up(true)
	do(t, ctx, chromedp.Reload(), sees("160 × 48 × 3 cm"), saved())
	if p := a.stored("13").Piece.Parts[0]; p.WidthCM != 160 || p.DepthCM != 48 {
		t.Errorf("after the reload the top is %+v", p)
	}
	// Undo brings back what was there before, and what was typed goes.
	do(t, ctx, press("Undo"), sees("165 × 50 × 3 cm"), gone("160 × 48 × 3 cm"), saved())
	do(t, ctx, press("Counter top 165"), gone("lacks its last side"), gone("That is 160"))
}

// The drawing is walked and pressed by the keyboard alone.
func TestTheElevationIsWalked(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/13")), sees("drawn to scale"),
		chromedp.Focus(chromedp.CSS(`svg [tabindex="0"][data-part]`)), focused(`[data-part="0"]`), keys(kb.ArrowRight, kb.ArrowRight), focused(`[data-part="2"]`),
		keys(kb.Enter), sees("Drawer fronts, 0.423 m²"), sees("in zone Laminate fronts"),
		keys(kb.ArrowRight), focused(`[data-part="3"]`), chromedp.KeyEvent(kb.Enter, chromedp.KeyModifiers(chromedp.ModifierShift)), sees("2 parts"),
		keys("a"), sees("Press a part to choose it"), keys("a"), sees("All 8 parts"), keys("6"), sees("What comes off"), keys("5"), sees("drawn to scale"))
	do(t, ctx, chromedp.DoubleClick(chromedp.CSS(`svg [data-part="0"]`)), sees("Counter top"), verdict("sound"))
}

// Hardware comes off in order and goes back in reverse; other holes are filled
// before paint.
func TestTakenApartAndPutBack(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/1/-/apart")), sees("The parts say that more comes off"), press("Add 4 × glass pane"), sees("W1–W4"),
		press("Handle"), sees("H1"), typeIn("How many", "2"), sees("H1–H2"), typeIn("Where it was", "lower edge"),
		typeIn("New ones need", "96"), sees("Measure the old holes"),
		typeIn("Old holes, centre to centre", "-4"), sees("Between 0 and 2000 mm"),
		typeIn("Old holes, centre to centre", "64"), sees("Other holes: fill 4 and drill 4 at 96 mm, before paint."), sees("Two-part filler"),
		tick("Glass panes: masked"), sees("1 of 2 done"), press("Putting back"), sees("Putting back, the last first: 0 of 2 done"),
		tick("Handles: back in its place"), sees("1 of 2 done"), saved(), chromedp.Reload(), sees("1/2"))
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
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/back/look-over")), sees("Press what you find"),
		press("Hole"), sees("two-part filler"), typeIn("How many", "3"), typeIn("Across", "8"), typeIn("Where", "lower left"), sees("two-part filler 3 ml"),
		press("Open joint"), typeIn("Long", "0"), sees("More than 0"), typeIn("Long", "40"), sees("glue 2 ml"), sees("About"), saved())
	d := a.stored("12").Piece.Zones[1].Defects
	want := []wire.Defect{{ID: "hole", Count: 3, Size: 8, Place: "lower left", Label: "B"}, {ID: "open_joint", Count: 1, Length: 40, Label: "C"}}
	if !slices.Equal(d, want) {
		t.Errorf("kept: %+v", d)
	}
	// What the material implies stays where something is found beside it.
	do(t, ctx, press("tannin none"), saved())
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
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/-/photos")), sees("Marker 1 points at"), upload(left, file("back.png", p.Bytes())),
		sees("Photographs 3"), saved(), upload(heic), sees("Photographs 4"), press("Remove this photograph"), sees("Photographs 3"), saved(),
		press("Photograph 2"),
		upload(text, cut, left), sees("letter.jpg: This is no picture that can be read."), sees("cut off.jpg: The JPEG picture is damaged or was cut off on its way: it ends too early."),
		sees("left side.jpg: the same photograph is here already."))
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
	do(t, ctx, press("Uprights and shelves"), press("Look over"), press("It is on a photograph"), sees("Press on the picture where A is."), press("Photograph 2"),
		chromedp.Click(chromedp.CSS(`figure button`)), sees("Marker 1 points at"), typeIn("What it shows", "Left side"),
		typeIn("Note", "Old sign"), choose("Of what", "uprights"), press("Move it"), typeIn("From above", "120"), sees("Between 0 and 100 %"), typeIn("From above", "12.5"), saved())
	f = a.stored("12").Piece.Photos
	if k := f[1]; k.Caption != "Left side" || k.Zone != "uprights" || len(k.Markers) != 1 || k.Markers[0].Defect != "A" || math.Abs(k.Markers[0].X-.5) > .05 || k.Markers[0].Y != .125 || k.Markers[0].Note != "Old sign" {
		t.Errorf("marked: %+v", k)
	}
	do(t, ctx, press("Uprights and shelves"), press("Look over"), press("Remove hole A"), saved())
	if k := a.stored("12").Piece.Photos; k[1].Markers[0].Defect != "" || k[1].Markers[0].Note != "Old sign" || k[0].Markers[0].Defect != "" {
		t.Errorf("after the damage was removed: %+v", k)
	}
	do(t, ctx, press("Undo"), saved(), press("The piece"), press("Photographs 3"), press("Left side"), press("Remove this photograph"), sees("Photographs 2"), saved())
	if k := a.stored("12").Piece.Photos; len(k) != 2 || k[0].Markers[0].Defect != "A" {
		t.Errorf("after undo and removal: %+v", k)
	}
}

// What is known of a piece's past is kept as it was typed.
func TestThePast(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/5/-/past")), sees("Where it comes from"),
		typeIn("Found", "Hung over the entrance, 🎭"), typeIn("Bought for", "a lot"), sees("“a lot” is not a number"), typeIn("Bought for", "12,50"),
		press("Painted, stripped, mended before"), typeIn("About", "1962"), typeIn("What", "Lacquered"), saved())
	h := a.stored("5").Piece.History
	if h.Found != "Hung over the entrance, 🎭" || *h.PaidMinor != 1250 || len(h.Earlier) != 1 || h.Earlier[0] != (wire.Earlier{Year: 1962, What: "Lacquered"}) {
		t.Errorf("kept: %+v", h)
	}
	do(t, ctx, typeIn("Found", strings.Repeat("x", 30)), saved(), press("Undo"), saved())
	if h := a.stored("5").Piece.History; h.Found != "Hung over the entrance, 🎭" {
		t.Errorf("after undo: %q", h.Found)
	}
}

// A studio in US units measures parts in feet and inches.
func TestPartsInUSUnits(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/")), sees("17 °C"), press("Lantern Yard"), choose("Sizes and temperatures", "us"), press("Save"),
		sees("63 °F"), chromedp.Navigate(a.url("/pieces/1")), sees("in wide"),
		typeIn("Add parts as you measure them", "shelf 31 1/2 x 11"), press("Add"), sees("31 1/2 × 11 × 11/16 in"), sees("sq ft"), saved())
	p := a.stored("1").Piece.Parts
	if k := p[len(p)-1]; math.Abs(k.WidthCM-80.01) > 1e-9 || math.Abs(k.DepthCM-27.94) > 1e-9 {
		t.Errorf("kept: %+v", k)
	}
}
