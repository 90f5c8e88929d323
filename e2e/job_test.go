package e2e

import (
	"bytes"
	"compress/gzip"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"io/fs"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"rutile/internal/wire"
	"rutile/web"
)

// stored asks the server, beside the page, what it has kept.
func (a *app) stored(id string) wire.Saved {
	a.t.Helper()
	r, err := http.Get(a.url("/api/pieces/" + id))
	if err != nil {
		a.t.Fatal(err)
	}
	defer r.Body.Close()
	var s wire.Saved
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

func does(steps []wire.Step) string {
	var w []string
	for _, s := range steps {
		w = append(w, s.Do+" "+s.With+s.Product)
	}
	return strings.Join(w, "; ")
}

// The whole job: open the demo, see the zone that will peel, read why, look at
// the repair, press it, see it turn sound, reload, and find it there.
func TestTheWholeJob(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	const repair = "then prime with bonding primer"
	do(t, ctx, chromedp.Navigate(a.url("/")),
		sees("Ticket booth"), sees("Blocked: Chalk paint will not hold on high-pressure laminate"),
		press("Laminate fronts"), verdict("fails"),
		sees("Risk of peeling 97 %"), sees("This bond reaches 0.34 of a full one"),
		press("The figures behind it"),
		sees("how well chalk paint takes to high-pressure laminate, clean and keyed"),
		sees("the surface has 20 % of its best key"),
		press("See it first: Sand with 220 and dust off, "+repair), verdict("sound"), sees("If you sand with 220"), sees("4 Bonding primer"))
	if s := a.stored("13"); s.Rev != 1 {
		t.Errorf("looking at a repair wrote revision %d", s.Rev)
	}
	do(t, ctx, chromedp.KeyEvent(kb.Escape), verdict("fails"), press(repair), verdict("sound"), seesInView("[data-verdict]"),
		sees("This should hold: the risk of peeling is below 2 %"), sees("Nothing to mend"), saved())
	s := a.stored("13")
	if got := does(s.Piece.Zones[0].Steps); s.Rev != 2 || got != "clean detergent; abrade ; dust ; coat primer_bond_wb; coat paint_chalk; coat wax_clear" {
		t.Errorf("revision %d keeps %s", s.Rev, got)
	}
	do(t, ctx, chromedp.Reload(), verdict("sound"), sees("Bonding primer"), sees("Saved"),
		press("Rutile: back to the bench"), sees("On the bench"))
	if body := text(t, ctx); strings.Contains(body, "Chalk paint will not hold") {
		t.Error("the bench still says that it will peel")
	}
}

// A piece from nothing: described, planned step by step, and kept.
func TestAPieceFromNothing(t *testing.T) {
	t.Parallel()
	a := start(t, false)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/")), sees("Nothing is on the bench yet"),
		press("New piece"), sees("What is it?"), sees("The first zone"),
		typeIn("Name of the piece", "Puppet chest"), press("Done"), sees("Puppet chest"),
		typeIn("Name of the zone", "Lid"), saved(), chromedp.Reload(), sees("The first zone"), press("Cedar"),
		verdict("watch"), sees("No coat is planned yet"),
		press("Bare"), press("pale green"), choose("How it will be used", "display"),
		sees("Empty: the studio's 17 °C, 64 %"), typeIn("Workshop", "18"), sees("Humidity"),
		typeIn("Area", "120 x 50 cm"), sees("That is 0.6 m²"), press("Looked: nothing"),
		press("On to the plan"), sees("Makes sense next"),
		typeIn("Find a step", "detergent"), chromedp.KeyEvent(kb.Enter), sees("1 Detergent wash"),
		press("Add the next step"), typeIn("Find a step", "raise"), chromedp.KeyEvent(kb.Enter), sees("2 Raise the grain"),
		press("Add the next step"), typeIn("Find a step", "dust off"), chromedp.KeyEvent(kb.Enter), sees("3 Dust off"),
		press("Add the next step"), typeIn("Find a step", "chalk paint"), sees("Would bring: Tannin will show through the coats"), chromedp.KeyEvent(kb.Enter), sees("4 Chalk paint"),
		press("Add the next step"), typeIn("Find a step", "clear wax"), chromedp.KeyEvent(kb.Enter),
		verdict("fails"), sees("Tannin will show through the coats"),
		press("Block it with pigmented shellac"), verdict("sound"), saved(),
		chromedp.Reload(), verdict("sound"), sees("Pigmented shellac"))
	s := a.stored("1")
	z := s.Piece.Zones[0]
	if s.Piece.Name != "Puppet chest" || z.Name != "Lid" || z.Substrate != "cedar" || z.AreaM2 != .6 || z.Soils == nil || z.Wear != "display" {
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
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/uprights")), verdict("sound"),
		press("4 Pigmented shellac"), press("Remove"), verdict("watch"), sees("Tannin may show"),
		press("Undo"), verdict("sound"), press("Redo"), verdict("watch"), press("Undo"), verdict("sound"),
		press("2 Sand with 220"), press("Earlier"), verdict("fails"), sees("Sanded with grease still on it"),
		press("Later"), verdict("sound"),
		typeIn("Grit", "400"), sees("Sand with 400"), saved())
	if got := a.stored("12").Piece.Zones[0].Steps[1].Grit; got != 400 {
		t.Errorf("the grit kept is %d", got)
	}
	// What was typed into one field is one change, and undo outlives a reload.
	do(t, ctx, chromedp.Sleep(400*time.Millisecond), chromedp.Reload(), verdict("sound"), sees("Sand with 400"),
		press("Undo"), sees("Sand with 220"), press("Redo"), sees("Sand with 400"), press("Undo"), sees("Sand with 220"), saved())
	if got := a.stored("12").Piece.Zones[0].Steps[1].Grit; got != 220 {
		t.Errorf("after undo the grit kept is %d", got)
	}
}

// A step is drawn up or down by its handle.
func TestStepsAreDragged(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/uprights")), verdict("sound"), sees("7 Water-based clear coat"),
		drag(`[aria-label="Drag step 2"]`, `[aria-label="Drag step 1"]`), sees("1 Sand with 220"), verdict("fails"), saved())
	if got := does(a.stored("12").Piece.Zones[0].Steps); !strings.HasPrefix(got, "abrade ; clean degreaser_alkaline; dust") {
		t.Errorf("the plan kept is %s", got)
	}
	do(t, ctx, press("Undo"), verdict("sound"))
}

// A plan given to another zone is judged there before it is given and after.
func TestAPlanIsCopiedToAnotherZone(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/7/legs")), verdict("sound"),
		press("Copy to another zone"), sees("its 5 steps are replaced"), sees("with this plan: Water-borne enamel cracks on vinyl cloth"),
		chromedp.Click(chromedp.CSS(`dialog[open] li:nth-child(2) input`)), press("Copy"),
		sees("Copied to one zone"), saved(), press("Padded backs"), verdict("fails"), sees("Water-borne enamel cracks on vinyl cloth"), sees("2 Sand with 220"))
	z := a.stored("7").Piece.Zones
	if got := does(z[1].Steps); got != does(z[2].Steps) || len(z[0].Steps) != 5 {
		t.Errorf("the padded backs have %s", got)
	}
	do(t, ctx, press("Undo"), sees("Alcohol wipe"), saved())
}

// What makes no sense is refused beside its field, stays as it was typed, and
// is never sent.
func TestNonsenseInFields(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	novel := strings.Repeat("It was a wet autumn in the foyer. ", 300)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/13/fronts/look-over")), verdict("fails"),
		typeIn("Area", "-3"), sees("A size is never less than nothing."),
		typeIn("Area", "900 x 900 m"), sees("more than a room"),
		typeIn("Area", "120 x"), sees("“120 x” lacks its last side."),
		typeIn("Area", "a lot 🎭"), sees("“a lot 🎭” cannot be read in a size"),
		typeIn("Colour", "mauve"), sees("A colour is written #rrggbb"),
		typeIn("Colour", "#12"), sees("A colour is written #rrggbb"),
		paste("Zone", novel), sees(fmt.Sprintf("At most 200 characters; this has %d", len(novel))),
		typeIn("Year it was made", "19o8"), sees("“19o8” is not a whole number."))
	if got, err := chromedp.Run(ctx, chromedp.Evaluate[string](`document.querySelector('[data-field="area_m2"]').value`)); err != nil || got != "a lot 🎭" {
		t.Errorf("what was typed became %q, %v", got, err)
	}
	do(t, ctx, saved())
	z := a.stored("13").Piece.Zones[0]
	if z.AreaM2 != 0 || z.Target.Colour != "#7d8f86" || len(z.Name) > 200 {
		t.Errorf("nonsense was kept: %v %v %d characters", z.AreaM2, z.Target.Colour, len(z.Name))
	}
	do(t, ctx, typeIn("Zone", "لوحة 🎭 front"), typeIn("Area", "3 x 80 x 18"), sees("That is 0.432 m²"), saved())
	if z := a.stored("13").Piece.Zones[0]; z.Name != "لوحة 🎭 front" || z.AreaM2 != .432 {
		t.Errorf("a name in another script became %q, an area %v", z.Name, z.AreaM2)
	}
}

// A studio in US units types and reads them; what is kept stays metric.
func TestAStudioInUSUnits(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/")), sees("17 °C"), press("Lantern Yard"), sees("Piece files are metric"),
		choose("Sizes and temperatures", "us"), typeIn("The workshop usually has", "68"), typeIn("and a humidity of", "140"), sees("Between 0 and 100 %, please."),
		typeIn("and a humidity of", "55"), press("Save"), sees("Judged at 68 °F, 55 %"),
		chromedp.Navigate(a.url("/pieces/6/drums/look-over")), verdict("fails"), sees("Empty: the studio's 68 °F"),
		typeIn("Area", "4' 2\" x 18"), sees("That is 6.25 sq ft"), typeIn("Workshop", "41"), sees("Too cold for"), sees("41 °F"), saved())
	s := a.stored("6")
	if s.Piece.Zones[0].AreaM2 != .5806 || s.Piece.Site == nil || s.Piece.Site.TempC != 5 {
		t.Errorf("kept: %v m², %+v", s.Piece.Zones[0].AreaM2, s.Piece.Site)
	}
	do(t, ctx, chromedp.Navigate(a.url("/pieces/6/drums/plan")), sees("1.5 mil"), chromedp.Reload(), sees("1.5 mil"))
}

// The server is killed in mid-edit: the page says so, keeps what was done, and
// sends it when the server is back.
func TestTheServerGoneInMidEdit(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/11/column")), verdict("fails"))
	a.down()
	do(t, ctx, press("5 Mineral paint"), press("Remove"), sees("Not saved yet"), sees("kept in this browser"),
		sees("This was judged before your last change"))
	if free, err := chromedp.Run(ctx, chromedp.Evaluate[bool](`[...document.querySelectorAll("[data-code] button")].some((b) => !b.matches(":disabled"))`)); err != nil || free {
		t.Errorf("a repair of an older plan can be pressed, %v", err)
	}
	// Offline, a step can still be found and laid.
	do(t, ctx, press("Add the next step"), typeIn("Find a step", "oil enamel"), chromedp.KeyEvent(kb.Enter), sees("5 Oil enamel"), press("Undo"))
	a.up(true)
	do(t, ctx, saved(), verdict("watch"), sees("No coat is planned yet"))
	if got := does(a.stored("11").Piece.Zones[0].Steps); strings.Contains(got, "coat") {
		t.Errorf("the server has %s", got)
	}
	// Closed while the server is away, what was done comes back.
	a.down()
	do(t, ctx, press("4 Dust off"), press("Remove"), sees("Not saved yet"))
	a.up(true)
	do(t, ctx, chromedp.Reload(), saved(), sees("Sand with 220"))
	if got := does(a.stored("11").Piece.Zones[0].Steps); strings.Contains(got, "dust") {
		t.Errorf("after the reload the server has %s", got)
	}
}

// What was done while the server was away is sent when it is back, also when
// its piece was left meanwhile.
func TestWhatWasLeftBehindIsSent(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/")), sees("Lectern"), press("Column and foot"), verdict("fails"))
	a.down()
	do(t, ctx, press("5 Mineral paint"), press("Remove"), sees("Not saved yet"), press("Rutile: back to the bench"),
		sees("Not saved yet: kept in this browser"), sees("On the bench"))
	a.up(true)
	do(t, ctx, gone("Not saved yet: kept in this browser"), sees("Lectern"))
	if got := does(a.stored("11").Piece.Zones[0].Steps); strings.Contains(got, "coat") {
		t.Errorf("the server has %s", got)
	}
}

// Two tabs on one piece: the second is told what changed, before it has done
// anything and after, and overwrites nothing; either version can be taken, and
// the other undone to.
func TestTwoTabs(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	one := browser(t, 1280, 800)
	two, stop := chromedp.NewContext(one)
	t.Cleanup(stop)
	if err := chromedp.Do(two, chromedp.Navigate(a.url("/pieces/10/body/plan"))); err != nil {
		t.Fatal(err)
	}
	do(t, one, chromedp.Navigate(a.url("/pieces/10/body/look-over")), verdict("sound"))
	do(t, two, verdict("sound"))
	do(t, one, typeIn("Zone", "Steel box"), saved())
	do(t, two, sees("This piece was changed elsewhere"), sees(`The survey of "Steel box" was changed.`),
		press("4 Dust off"), press("Remove"), sees("Changed elsewhere"))
	if s := a.stored("10"); len(s.Piece.Zones[0].Steps) != 7 {
		t.Errorf("the second tab wrote: revision %d, %s", s.Rev, does(s.Piece.Zones[0].Steps))
	}
	do(t, two, press("Take the other version"), saved(), sees("Steel box"), sees("4 Dust off"),
		press("Undo"), saved(), press("Redo"), sees("4 Dust off"), saved())
	// The first tab is the stale one now, and keeps its own.
	do(t, one, press("Take the other version"), saved())
	do(t, two, press("5 Alcohol wipe"), press("Remove"), sees("5 Metal primer"), saved())
	do(t, one, sees("The plan of \"Steel box\" has 6 steps instead of 7."), press("Keep what is on this screen"), saved())
	if s := a.stored("10"); s.Piece.Zones[0].Name != "Steel box" || len(s.Piece.Zones[0].Steps) != 7 {
		t.Errorf("kept: %s, %s", s.Piece.Zones[0].Name, does(s.Piece.Zones[0].Steps))
	}
}

// A piece that another tab has removed is put back from what is on the screen.
func TestAPieceRemovedElsewhere(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/10/body/plan")), verdict("sound"))
	r, err := http.NewRequest(http.MethodDelete, a.url("/api/pieces/10"), nil)
	if err != nil {
		t.Fatal(err)
	}
	if res, err := http.DefaultClient.Do(r); err != nil || res.StatusCode != 204 {
		t.Fatal(res, err)
	}
	do(t, ctx, press("4 Dust off"), press("Remove"), sees("This piece was removed elsewhere"),
		press("Put it back on the bench"), saved(), sees("Cash locker"))
	if s := a.stored("21"); len(s.Piece.Zones[0].Steps) != 6 {
		t.Errorf("put back: %s", does(s.Piece.Zones[0].Steps))
	}
}

func TestCautionsAndMeasurements(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	at := func(field string) act {
		return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			return until(ctx, tab, fmt.Sprintf(`document.activeElement.dataset.field === %q`, field), "the field "+field)
		})
	}
	do(t, ctx, chromedp.Navigate(a.url("/pieces/11/slope")), verdict("watch"),
		press("Find out what is on it"), sees("What it probably is"))
	do(t, ctx, chromedp.Navigate(a.url("/pieces/9/saucers/look-over")), verdict("fails"), choose("Look", "crackle"), sees("Nothing makes it crackle"), press("Add the step that makes it"), focused("[role=combobox]"),
		chromedp.Navigate(a.url("/pieces/11/slope/look-over")), verdict("watch"))
	do(t, ctx, typeIn("Workshop", "6"), sees("Too cold for"), press("Enter the workshop's air once it is right"), at("site"))
	do(t, ctx, typeIn("Workshop", "19"), verdict("watch"))
	do(t, ctx, press("On it now"), press("Lacquer"), verdict("sound"), sees("on it likely"), press("I have read this"), saved(), sees("read 20"))
	if n := len(a.stored("11").Piece.Zones[1].Read); n != 1 {
		t.Errorf("%d cautions were noted", n)
	}
}

func TestRemovingAPiece(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/13/fronts/look-over")), verdict("fails"),
		press("Remove the whole piece"), press("Keep it"), press("Remove the whole piece"), press("Remove it"),
		sees("On the bench"), sees("Programme rack"))
	if body := text(t, ctx); strings.Contains(body, "Ticket booth") {
		t.Error("it is still on the bench")
	}
	do(t, ctx, chromedp.Navigate(a.url("/pieces/13/fronts")), sees("There is no such piece"),
		chromedp.Navigate(a.url("/nowhere")), sees("There is nothing here"))
}

// The first load is small: script and style compressed, fonts apart.
func TestFirstLoadIsSmall(t *testing.T) {
	t.Parallel()
	const most = 230_000
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
