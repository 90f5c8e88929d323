package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"rutile/internal/wire"
)

// shelf is what the server keeps on the shelf.
func (a *app) shelf() wire.Shelf {
	a.t.Helper()
	return got[wire.Shelf](a, "/api/shelf")
}

func got[T any](a *app, path string) T {
	a.t.Helper()
	r, err := http.Get(a.url(path))
	if err != nil {
		a.t.Fatal(err)
	}
	defer r.Body.Close()
	var out T
	if err := json.NewDecoder(r.Body).Decode(&out); err != nil || r.StatusCode != http.StatusOK {
		a.t.Fatal(path, r.Status, err)
	}
	return out
}

// putCan changes a can as another tab would.
func (a *app) putCan(x *wire.Can, rev int) {
	a.t.Helper()
	body, err := json.Marshal(x)
	if err != nil {
		a.t.Fatal(err)
	}
	q, err := http.NewRequest(http.MethodPut, a.url("/api/shelf/"+x.ID), strings.NewReader(string(body)))
	if err != nil {
		a.t.Fatal(err)
	}
	q.Header.Set("Content-Type", "application/json")
	q.Header.Set("If-Match", fmt.Sprintf("%q", fmt.Sprint(rev)))
	r, err := http.DefaultClient.Do(q)
	if err != nil {
		a.t.Fatal(err)
	}
	r.Body.Close()
	if r.StatusCode != http.StatusOK {
		a.t.Fatal(r.Status)
	}
}

// giveFile gives a file to an input.
func giveFile(name, file string) act {
	return chromedp.SetUploadFiles(chromedp.CSS(fmt.Sprintf(`input[data-file=%q]`, name)), []string{file})
}

func written(t *testing.T, name, content string) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), name)
	if err := os.WriteFile(path, []byte(content), 0o600); err != nil {
		t.Fatal(err)
	}
	return path
}

// A new studio puts three cans on the shelf from their labels, brings in more by CSV, and gets a plan that takes
// what is open, with the waits of its labels.
func TestCansFromTheirLabels(t *testing.T) {
	t.Parallel()
	a := start(t, false)
	a.call("POST", "/api/pieces", `{"format":"rutile/piece","version":1,"name":"Box","made":2015,"zones":[{"id":"box","substrate":"beech","finish":"varnish_oil","gloss":"satin","soils":[],"area_m2":1.2,"wear":"display","target":{"colour":"#ece4d6","sheen":"matt"}}]}`, 201)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/shelf")), contains("main", "The shelf is empty"))
	can := func(kind, name string, more ...act) []act {
		acts := append([]act{click(`[data-do="new-can"]`), choose("can.kind", kind), typeIn("can.name", name)}, more...)
		return append(acts, click(`dialog [type=submit]`), hides("dialog"), contains("[data-can]", name))
	}
	label := click(`[data-label-fields] summary`)
	do(t, ctx, can("paint_chalk", "Cream of ours", put("can.colour", "#ece4d6"), typeIn("can.size_l", "1"), typeIn("can.left_l", "0,8"), put("can.opened", "2026-10-20"),
		label, typeIn("label.recoat_from_h", "5"), typeIn("label.cover_m2_l", "13"))...)
	do(t, ctx, can("clear_acrylic_varnish", "Varnish of ours", typeIn("can.size_l", "0.75"), choose("can.sheen", "matt"), put("can.opened", "2026-10-20"), label, choose("label.not_for", "food"))...)
	do(t, ctx, can("shellac_clear", "Shellac of ours", typeIn("can.size_l", "1"), put("can.opened", "2026-09-20"))...)
	// A mistake in a label is said at its field, and nothing is saved over it.
	do(t, ctx, click(`[data-do="new-can"]`), choose("can.kind", "paint_chalk"), label, typeIn("label.recoat_from_h", "-3"), shows(`[data-field="label.recoat_from_h"][data-wrong]`), keys(kb.Escape), hides("dialog"))
	// A form that is half filled in survives a reload, and is forgotten once it is closed.
	do(t, ctx, click(`[data-do="new-can"]`), choose("can.kind", "paint_chalk"), typeIn("can.name", "Half"), chromedp.Reload(), click(`[data-do="new-can"]`), shows("dialog"))
	if got := value(t, ctx, "can.name"); got != "Half" {
		t.Errorf("after a reload the name is %q", got)
	}
	do(t, ctx, keys(kb.Escape), hides("dialog"), click(`[data-do="new-can"]`), shows("dialog"))
	if got := value(t, ctx, "can.name"); got != "" {
		t.Errorf("after closing the name is still %q", got)
	}
	do(t, ctx, keys(kb.Escape), hides("dialog"))
	// The level is moved with the keys, and kept.
	do(t, ctx, click("[data-can]"), focusOn("[data-level]"), keys(kb.ArrowDown, kb.ArrowDown), click(`dialog [type=submit]`), hides("dialog"))

	csv := written(t, "cans.csv", "name;kind;colour;size_l;left_l\nFog of ours;Chalk paint;#d3d8d8;2,5;1,2\nBad one;Chalk pain;;1;\nWax of ours;clear wax;;0,25;\n")
	do(t, ctx, giveFile("cans", csv), shows(`[data-found="2"]`), contains("dialog", "Line 3"), click(`[data-do="import-now"]`), hides("dialog"), contains("[data-can]", "Wax of ours"),
		// The same file again is recognised.
		giveFile("cans", csv), shows(`[data-found="0"]`), contains("dialog", "2 are on the shelf already"), keys(kb.Escape), hides("dialog"))
	s := a.shelf()
	if s.Total != 5 {
		t.Fatalf("%d cans", s.Total)
	}
	for _, c := range s.Cans {
		if c.Title == "Cream of ours" && (c.Label == nil || *c.Label.RecoatFromH != 5 || *c.LeftL > .8 || c.Opened != "2026-10-20") {
			t.Errorf("%+v", c.Can)
		}
	}
	do(t, ctx, typeIn("[data-find]", "fog"), shows(`[data-count="1"]`), chromedp.Navigate(a.url("/pieces/1/box/compare")), contains("[data-shelf]", "Cream of ours (open)"), click("[data-take]"), shows("[data-row]"), saved())
	p := a.stored("1").Piece
	named := ""
	for _, st := range p.Zones[0].Steps {
		if st.Can != "" {
			named += st.Product + " "
		}
	}
	if !strings.Contains(named, "paint_chalk") || len(p.Cans) == 0 {
		t.Errorf("cans are named for %q, and %d are copied", named, len(p.Cans))
	}
	do(t, ctx, contains("[data-row]", "from “Cream of ours”"), contains("[data-row]", "(from the label)"), keys("c"), shows(`[data-item="paint_chalk"][data-state="enough"]`), contains("[data-coat]", "from the label"))
	// A can that a plan names is taken off the shelf: it says so, and the plan keeps what it knows of it.
	for _, c := range a.shelf().Cans {
		if c.Title == "Cream of ours" {
			a.call(http.MethodDelete, "/api/shelf/"+c.ID, "", 204)
		}
	}
	do(t, ctx, chromedp.Reload(), contains("[data-stale]", "“Cream of ours” is no longer on the shelf"))
	if got := a.stored("1").Piece; len(got.Cans) != len(p.Cans) {
		t.Errorf("%d cans are left in the piece", len(got.Cans))
	}
}

func focusOn(css string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		_, err := chromedp.Evaluate[bool](fmt.Sprintf(`(document.querySelector(%q).focus(), true)`, css))(ctx, tab)
		return err
	})
}

// photograph is a picture of a green door beside a sheet of paper, in warm light.
func photograph(t *testing.T) string {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, 400, 300))
	for y := range 300 {
		for x := range 400 {
			c := color.RGBA{128, 122, 92, 255} // the door
			if x >= 200 {
				c = color.RGBA{246, 226, 186, 255} // the paper
			}
			img.SetRGBA(x, y, c)
		}
	}
	path := filepath.Join(t.TempDir(), "door.jpg")
	f, err := os.Create(path)
	if err != nil {
		t.Fatal(err)
	}
	defer f.Close()
	if err := jpeg.Encode(f, img, &jpeg.Options{Quality: 95}); err != nil {
		t.Fatal(err)
	}
	return path
}

// A colour from a photograph, corrected by the paper in it, becomes a blend of three paints, is changed by a step,
// kept as a recipe, reloaded, and put on the shelf as a tin.
func TestAColourFromAPhotograph(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	at := func(x, y float64) act {
		return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			return until(ctx, tab, fmt.Sprintf(`(() => {
				const p = document.querySelector("[data-photo]"), b = p?.getBoundingClientRect();
				if (!b || b.width < 50 || b.height < 50) return false;
				p.dispatchEvent(new MouseEvent("click", {bubbles: true, detail: 1, clientX: b.left + %v * b.width, clientY: b.top + %v * b.height}));
				return true;
			})()`, x, y), "the picture")
		})
	}
	do(t, ctx, chromedp.Navigate(a.url("/colours")), typeIn("want", "mauvish"), shows(`[data-field="want"][data-wrong]`), typeIn("want", "lab(50, 120, 120)"), contains("main", "No screen can show this colour"),
		click(`[data-from="photo"]`), giveFile("photo", photograph(t)), shows("[data-photo] img"), at(.25, .5), shows("[data-patch]"))
	plain, err := chromedp.Run(ctx, chromedp.Evaluate[string](`document.querySelector("[data-patch]").dataset.patch`))
	if err != nil {
		t.Fatal(err)
	}
	do(t, ctx, click(`[data-marking="white"]`), at(.75, .5), shows(`[data-ring="white"]`), contains("[data-patch]", "Corrected by the white patch"))
	do(t, ctx, chromedp.Sleep(200*time.Millisecond), scrolled(`[data-do="take-patch"]`), click(`[data-do="take-patch"]`), shows("[data-nearest]"), choose("from", "foyer"), contains("[data-nearest]", "Best of 36 paints"), shows(`[data-blend="2"]`))
	fixed, err := chromedp.Run(ctx, chromedp.Evaluate[string](`document.querySelector("[data-nearest]").dataset.nearest`))
	if err != nil || fixed == plain {
		t.Errorf("the white patch changes nothing: %s, %v", fixed, err)
	}
	do(t, ctx, click(`[data-blend="0"] [data-do="take-blend"]`), shows("[data-result]"))
	n, err := chromedp.Run(ctx, chromedp.Evaluate[int](`document.querySelectorAll("[data-part]").length`))
	if err != nil || n != 3 {
		t.Errorf("a blend of %d paints, %v", n, err)
	}
	before, err := chromedp.Run(ctx, chromedp.Evaluate[string](`document.querySelector("[data-result]").dataset.result`))
	if err != nil {
		t.Fatal(err)
	}
	do(t, ctx, click(`[data-nudge="lighter"]`), hides(fmt.Sprintf(`[data-result=%q]`, before)), shows("[data-result]"), typeIn("litres", "0,6"), shows("[data-amounts] tr"), typeIn("blend.name", "Door green"), click(`[data-do="save-blend"]`), contains("[data-recipe]", "Door green"),
		chromedp.Reload(), contains("[data-part]", "part"), contains("[data-recipe]", "Door green"), click(`[data-do="make-tin"]`), click(`dialog [type=submit]`), hides("dialog"))
	found := false
	for _, c := range a.shelf().Cans {
		found = found || c.Title == "Door green" && len(c.MixedFrom) >= 2 && c.Mixed != ""
	}
	if !found {
		t.Error("the tin is not on the shelf")
	}
	for _, b := range got[[]wire.SavedBlend](a, "/api/blends") {
		if b.Name == "Door green" && (len(b.Parts) < 2 || b.Result == "") {
			t.Errorf("%+v", b)
		}
	}
	// A recipe that was removed is put back.
	do(t, ctx, scrolled(`[data-recipe="yard-blend-rose"]`), click(`[data-recipe="yard-blend-rose"] [data-do="remove-recipe"]`), shows("[data-gone]"), hides(`[data-recipe="yard-blend-rose"]`), scrolled("[data-gone]"), click(`[data-gone] [data-do="put-back"]`), shows(`[data-recipe="yard-blend-rose"]`))
	// A palette goes out and comes in again.
	gpl := written(t, "two.gpl", "GIMP Palette\nName: Two\n#\n10 20 30\tNight\n200 210 220\tMorning\nno colour\n")
	do(t, ctx, scrolled(`[data-from="palette"]`), click(`[data-from="palette"]`), giveFile("palette", gpl), contains("[data-said]", "1 line was left out"), shows(`[data-pick="#0a141e"]`), giveFile("palette", gpl), contains("[data-said]", "was there already"), click(`[data-do="remove-palette"]`), contains("[data-said]", "was removed"))
}

// A pale powder paint over a dark trunk: how many coats, how many litres, and whether the bag is enough; then the bag
// is filled, and it is.
func TestIsTheBagEnough(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 390, 844)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/24/outside")), verdict("watch"), shows(`[data-code="mix.short"]`), chromedp.Navigate(a.url("/pieces/24/outside/amounts")),
		shows(`[data-ground="now"] [data-coat-look="3"]`), contains(`[data-ground="now"] [data-coat-look="1"]`, "patchy"), contains(`[data-ground="now"] [data-coat-look="3"]`, "covers"),
		contains("[data-coat]", "g of powder"), shows(`[data-item="paint_milk"][data-state="short"]`), contains(`[data-item="paint_milk"]`, "Enough for one coat of the outside"), contains(`[data-item="paint_milk"]`, "Buy"), shows("[data-supplies]"))
	for _, c := range a.shelf().Cans {
		if c.ID != "yard-bag-fog" && c.ID != "yard-additive" {
			continue
		}
		full := c.Can
		full.LeftL = nil
		a.putCan(&full, c.Rev)
	}
	do(t, ctx, chromedp.Reload(), shows(`[data-item="paint_milk"][data-state="enough"]`), chromedp.Navigate(a.url("/pieces/24/outside")), hides(`[data-code="mix.short"]`))
}

// The shelf by the keyboard alone: a can is found, opened, changed and closed, and another is put there.
func TestTheShelfByKeyboard(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/shelf")), shows("[data-can]"), keys("/"), focused("[data-find]"), keys("o", "l", "d", " ", "x"), contains("main", "No can matches"))
	do(t, ctx, typeIn("[data-find]", "ink"), shows(`[data-count="1"]`), tabTo(`[data-can="yard-ink"]`), keys(kb.Enter), shows("dialog [data-level]"), tabTo("[data-level]"), keys(kb.Home), contains("[data-left]", "0 ml left"), tabTo("dialog [type=submit]"), keys(kb.Enter), hides("dialog"), contains(`[data-can="yard-ink"]`, "empty"))
	do(t, ctx, chromedp.Reload(), shows("[data-can]"), keys("n"), shows(of("can.kind")), keys(kb.Escape), hides("dialog"))
}

// tabTo moves the focus on until it is there.
func tabTo(css string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		for range 80 {
			there, err := chromedp.Evaluate[bool](fmt.Sprintf(`!!document.activeElement?.matches(%q)`, css))(ctx, tab)
			if err != nil || there {
				return err
			}
			if _, err := chromedp.KeyEvent(kb.Tab)(ctx, tab); err != nil {
				return err
			}
		}
		return fmt.Errorf("the focus never comes to %s", css)
	})
}

// A label that the studio enters changes a verdict, and one that is corrected on the shelf is told to the plan.
func TestALabelChangesAVerdict(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/24/tray")), verdict("sound"), click(row(4, "paint_chalk")), choose("coat.can", ""), verdict("watch"), shows(`[data-code="adhesion.divided"]`),
		choose("coat.can", "yard-foyer-cream"), verdict("sound"), saved())
	for _, c := range a.shelf().Cans {
		if c.ID == "yard-foyer-cream" {
			other := c.Can
			other.Label = &wire.Label{NotOn: []string{"melamine_film"}}
			a.putCan(&other, c.Rev)
		}
	}
	do(t, ctx, chromedp.Navigate(a.url("/pieces/24/tray/amounts")), shows(`[data-stale="1"]`), click(`[data-do="freshen"]`), hides("[data-stale]"), saved(), keys("3"), verdict("fails"), shows(`[data-code="mix.label"]`), click("[data-undo]"), verdict("sound"))
}

// What is left is dragged on the picture of the can, and a weight says it too.
func TestTheLevelIsDraggedAndWeighed(t *testing.T) {
	inSoak(t)
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/shelf")), click(`[data-can="yard-ticket-white"]`), shows("[data-level]"), chromedp.Sleep(200*time.Millisecond))
	at := place(t, ctx, "[data-level]")
	x, y := at[0]+at[2]/2, at[1]+at[3]*66/72 // the bottom of the can
	do(t, ctx, chromedp.MouseEvent("mousePressed", x, y-10, chromedp.ButtonLeft), chromedp.MouseEvent("mouseMoved", x, y-at[3]*26/72, chromedp.ButtonLeft), chromedp.MouseEvent("mouseReleased", x, y-at[3]*26/72, chromedp.ButtonLeft), contains("[data-left]", "500 ml left"))
	do(t, ctx, click(`[data-do="weigh"]`), typeIn("weigh.grams", "5000"), contains("[data-weighing] [role=alert]", "and the can holds 1 l"), typeIn("weigh.grams", "950"), contains("[data-weighing]", "taking the empty tin as"), click(`[data-do="take-weight"]`), click(`dialog [type=submit]`), hides("dialog"))
	for _, c := range a.shelf().Cans {
		if c.ID == "yard-ticket-white" && (c.LeftL == nil || *c.LeftL < .55 || *c.LeftL > .65) {
			t.Errorf("%v litres are left", c.LeftL)
		}
	}
}
