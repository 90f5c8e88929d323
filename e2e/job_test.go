package e2e

import (
	"bytes"
	"compress/gzip"
	"context"
	"encoding/json"
	"io"
	"io/fs"
	"net/http"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"rutile/internal/format"
	"rutile/internal/store"
	"rutile/web"
)

// stored asks the server, beside the page, what it has kept.
func (a *app) stored(id string) store.Saved {
	a.t.Helper()
	r, err := http.Get(a.url("/api/pieces/" + id))
	if err != nil {
		a.t.Fatal(err)
	}
	defer r.Body.Close()
	var s store.Saved
	if err := json.NewDecoder(r.Body).Decode(&s); err != nil || r.StatusCode != 200 {
		a.t.Fatal(r.Status, err)
	}
	return s
}

func text(t *testing.T, ctx context.Context) string {
	t.Helper()
	s, err := chromedp.Run(ctx, chromedp.Evaluate[string](`document.body.innerText.replace(/\s+/g, " ")`))
	if err != nil {
		t.Fatal(err)
	}
	return s
}

func does(steps []format.Step) string {
	var w []string
	for _, s := range steps {
		w = append(w, s.Do+" "+s.With+s.Product)
	}
	return strings.Join(w, "; ")
}

// The whole job: open the demo, see the zone that will peel, read why, press
// the repair, see it turn sound, reload, and find it there.
func TestTheWholeJob(t *testing.T) {
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/")),
		sees("Ticket booth"), sees("Chalk paint will not hold on high-pressure laminate"),
		press("Laminate fronts"), verdict("fails"),
		sees("95 % risk"), sees("This bond reaches 0.34 of a full one"),
		press("The figures behind it"),
		sees("how well chalk paint takes to high-pressure laminate, clean and keyed"),
		sees("the surface has 20 % of its best key"),
		press("then prime with bonding primer"), verdict("sound"), seesInView("[data-verdict]"),
		sees("This should hold: the risk of peeling is below 2 %"), saved())
	s := a.stored("5")
	if got := does(s.Piece.Zones[0].Steps); s.Rev != 2 || got != "clean detergent; abrade ; dust ; coat primer_bond_wb; coat paint_chalk; coat wax_clear" {
		t.Errorf("revision %d keeps %s", s.Rev, got)
	}
	do(t, ctx, chromedp.Reload(), verdict("sound"), sees("Bonding primer"), sees("Saved"),
		press("Rutile"), sees("On the bench"))
	if body := text(t, ctx); strings.Contains(body, "Chalk paint will not hold") {
		t.Error("the list still says that it will peel")
	}
}

// A piece from nothing: described, planned step by step, and kept.
func TestAPieceFromNothing(t *testing.T) {
	a := start(t, false)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/")), sees("Nothing is on the bench yet"),
		press("New piece"), sees("The first zone"),
		typeIn("Name of the piece", "Puppet chest"), press("Done"), sees("Puppet chest"),
		press("Add zone"), sees("Choose what it is made of"),
		typeIn("Name", "Lid"), choose("Made of", "cedar"), press("Add zone"),
		verdict("watch"), sees("No coat is planned yet"),
		choose("On it now", "none"), choose("How it will be used", "display"),
		sees("Empty: the studio's 17 °C, 64 %"), typeIn("Workshop", "18"), sees("Humidity"),
		typeIn("Area", "0,6"), choose("Lying on it: add", "none"),
		typeIn("Find a step", "detergent"), chromedp.KeyEvent(kb.Enter), sees("1 Detergent wash"),
		press("Add a step"), typeIn("Find a step", "raise"), chromedp.KeyEvent(kb.Enter), sees("2 Raise the grain"),
		press("Add a step"), typeIn("Find a step", "dust off"), chromedp.KeyEvent(kb.Enter), sees("3 Dust off"),
		press("Add a step"), typeIn("Find a step", "chalk paint"), chromedp.KeyEvent(kb.Enter), sees("4 Chalk paint"),
		press("Add a step"), typeIn("Find a step", "clear wax"), chromedp.KeyEvent(kb.Enter),
		verdict("fails"), sees("Tannin will show through the coats"),
		press("Block it with pigmented shellac"), verdict("sound"), saved(),
		chromedp.Reload(), verdict("sound"), sees("Pigmented shellac"))
	s := a.stored("1")
	z := s.Piece.Zones[0]
	if s.Piece.Name != "Puppet chest" || z.Substrate != "cedar" || z.AreaM2 != .6 || z.Soils == nil || z.Wear != "display" {
		t.Errorf("kept: %+v", z)
	}
	if s := s.Piece.Site; s == nil || s.TempC != 18 || s.RHPct != 64 {
		t.Errorf("the air kept is %+v, and only its temperature was changed", s)
	}
	if got := does(z.Steps); got != "clean detergent; raise_grain ; dust ; coat shellac_pigmented; coat paint_chalk; coat wax_clear" {
		t.Errorf("the plan kept is %s", got)
	}
}

func TestStepsAreEditedMovedRemovedAndUndone(t *testing.T) {
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/4/uprights")), verdict("sound"),
		press("Pigmented shellac"), press("Remove"), verdict("watch"), sees("Tannin may show"),
		press("Undo"), verdict("sound"), press("Redo"), verdict("watch"), press("Undo"), verdict("sound"),
		press("Sand with 220"), press("Earlier"), verdict("fails"), sees("Sanded with grease still on it"),
		press("Later"), verdict("sound"),
		typeIn("Grit", "400"), sees("Sand with 400"), saved())
	if got := a.stored("4").Piece.Zones[0].Steps[1].Grit; got != 400 {
		t.Errorf("the grit kept is %d", got)
	}
}

// What makes no sense is refused beside its field, stays as it was typed, and
// is never sent.
func TestNonsenseInFields(t *testing.T) {
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/5/fronts")), verdict("fails"),
		typeIn("Area", "-3"), sees("More than 0 and at most 500 m², please."),
		typeIn("Area", "a lot"), sees("“a lot” is not a number."),
		typeIn("Colour", "mauve"), sees("A colour is written #rrggbb"),
		typeIn("Zone", strings.Repeat("n", 201)), sees("At most 200 characters; this has 201"),
		typeIn("Year it was made", "19o8"), sees("“19o8” is not a whole number."))
	if got, err := chromedp.Run(ctx, chromedp.Evaluate[string](`document.querySelector('[data-field="area_m2"]').value`)); err != nil || got != "a lot" {
		t.Errorf("what was typed became %q, %v", got, err)
	}
	do(t, ctx, saved())
	z := a.stored("5").Piece.Zones[0]
	if z.AreaM2 != 2.6 || z.Target.Colour != "#7d8f86" || len(z.Name) > 200 {
		t.Errorf("nonsense was kept: %v %v %d characters", z.AreaM2, z.Target.Colour, len(z.Name))
	}
	do(t, ctx, typeIn("Zone", "لوحة 🎭 front"), saved())
	if got := a.stored("5").Piece.Zones[0].Name; got != "لوحة 🎭 front" {
		t.Errorf("a name in another script became %q", got)
	}
}

// The server is killed in mid-edit: the page says so, keeps what was done, and
// sends it when the server is back.
func TestTheServerGoneInMidEdit(t *testing.T) {
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/3/column")), verdict("fails"))
	a.down()
	do(t, ctx, press("Mineral paint"), press("Remove"), sees("Not saved yet"), sees("kept in this browser"),
		sees("This was judged before your last change"))
	if free, err := chromedp.Run(ctx, chromedp.Evaluate[bool](`[...document.querySelectorAll("[data-code] button")].some((b) => !b.matches(":disabled"))`)); err != nil || free {
		t.Errorf("a repair of an older plan can be pressed, %v", err)
	}
	a.up(true)
	do(t, ctx, saved(), verdict("watch"), sees("No coat is planned yet"))
	if got := does(a.stored("3").Piece.Zones[0].Steps); strings.Contains(got, "coat") {
		t.Errorf("the server has %s", got)
	}
	// Closed while the server is away, what was done comes back.
	a.down()
	do(t, ctx, press("Dust off"), press("Remove"), sees("Not saved yet"))
	a.up(true)
	do(t, ctx, chromedp.Reload(), saved(), sees("Sand with 220"))
	if got := does(a.stored("3").Piece.Zones[0].Steps); strings.Contains(got, "dust") {
		t.Errorf("after the reload the server has %s", got)
	}
}

// Two tabs on one piece: the second is told what changed and overwrites
// nothing; either version can be taken.
func TestTwoTabs(t *testing.T) {
	a := start(t, true)
	one := browser(t, 1280, 800)
	two, stop := chromedp.NewContext(one)
	t.Cleanup(stop)
	if err := chromedp.Do(two, chromedp.Navigate(a.url("/pieces/2/body"))); err != nil {
		t.Fatal(err)
	}
	do(t, one, chromedp.Navigate(a.url("/pieces/2/body")), verdict("sound"))
	do(t, two, verdict("sound"))
	do(t, one, typeIn("Zone", "Steel box"), saved())
	do(t, two, press("Dust off"), press("Remove"), sees("This piece was changed elsewhere"), sees(`The survey of "Steel box" was changed.`))
	if s := a.stored("2"); s.Rev != 2 || len(s.Piece.Zones[0].Steps) != 6 {
		t.Errorf("the second tab wrote: revision %d, %s", s.Rev, does(s.Piece.Zones[0].Steps))
	}
	do(t, two, press("Take the other version"), saved(), sees("Steel box"), sees("Dust off"))
	// The first tab is the stale one now, and keeps its own.
	do(t, two, typeIn("Zone", "Box"), saved())
	do(t, one, press("Dust off"), press("Remove"), sees("This piece was changed elsewhere"),
		press("Keep what is on this screen"), saved())
	if s := a.stored("2"); s.Piece.Zones[0].Name != "Steel box" || len(s.Piece.Zones[0].Steps) != 5 {
		t.Errorf("kept: %s, %s", s.Piece.Zones[0].Name, does(s.Piece.Zones[0].Steps))
	}
}

func TestCautionsAndMeasurements(t *testing.T) {
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/3/slope")), verdict("watch"),
		press("Find out what is on it and enter it"))
	field, err := chromedp.Run(ctx, chromedp.Evaluate[string](`document.activeElement.dataset.field ?? ""`))
	if err != nil || field != "finish" {
		t.Errorf("the measurement leads to %q, %v", field, err)
	}
	do(t, ctx, chromedp.Navigate(a.url("/pieces/1/saucers")), verdict("fails"), choose("Look", "crackle"), press("Make a test board"), sees("Test patch"),
		chromedp.KeyEvent(kb.Enter), sees("Rating on the cross-cut scale"), sees("A step that is not judged yet"),
		chromedp.Navigate(a.url("/pieces/3/slope")), verdict("watch"))
	do(t, ctx, typeIn("Workshop", "6"), sees("Too cold for"), press("Enter the workshop's air once it is right"))
	if field, err := chromedp.Run(ctx, chromedp.Evaluate[string](`document.activeElement.dataset.field ?? ""`)); err != nil || field != "site" {
		t.Errorf("the workshop's air leads to %q, %v", field, err)
	}
	do(t, ctx, typeIn("Workshop", "19"), verdict("watch"))
	do(t, ctx, choose("On it now", "shellac"), verdict("sound"), press("I have read this"), saved(), sees("read 20"))
	if n := len(a.stored("3").Piece.Zones[1].Read); n != 1 {
		t.Errorf("%d cautions were noted", n)
	}
}

func TestRemovingAPiece(t *testing.T) {
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/5/fronts")), verdict("fails"),
		press("Remove piece"), press("Keep it"), press("Remove piece"), press("Remove it"),
		sees("On the bench"), sees("Programme rack"))
	if body := text(t, ctx); strings.Contains(body, "Ticket booth") {
		t.Error("it is still on the bench")
	}
	do(t, ctx, chromedp.Navigate(a.url("/pieces/5/fronts")), sees("There is no such piece"),
		chromedp.Navigate(a.url("/nowhere")), sees("There is nothing here"))
}

// Usable on a phone: nothing is wider than the screen.
func TestNothingIsWiderThanTheScreen(t *testing.T) {
	a := start(t, true)
	for _, width := range []int{1280, 768, 390} {
		ctx := browser(t, width, 844)
		for _, path := range []string{"/", "/pieces/3/column", "/pieces/1/saucers"} {
			do(t, ctx, chromedp.Navigate(a.url(path)), sees("licensed people decide"))
			if path != "/" {
				do(t, ctx, verdict("fails"))
			}
			over, err := chromedp.Run(ctx, chromedp.Evaluate[int](`document.documentElement.scrollWidth - document.documentElement.clientWidth`))
			if err != nil || over > 0 {
				t.Errorf("%s at %d is %d pixels too wide, %v", path, width, over, err)
			}
		}
	}
}

// The first load is small: script and style compressed, fonts apart.
func TestFirstLoadIsSmall(t *testing.T) {
	const most = 200_000
	total := 0
	err := fs.WalkDir(web.Dist(), ".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || !strings.HasSuffix(path, ".js") && !strings.HasSuffix(path, ".css") {
			return err
		}
		f, err := web.Dist().Open(path)
		if err != nil {
			return err
		}
		defer f.Close()
		var b bytes.Buffer
		z := gzip.NewWriter(&b)
		if _, err := io.Copy(z, f); err != nil {
			return err
		}
		if err := z.Close(); err != nil {
			return err
		}
		total += b.Len()
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	t.Logf("script and style: %d bytes compressed", total)
	if total == 0 || total > most {
		t.Errorf("%d bytes of script and style, at most %d are wanted", total, most)
	}
}
