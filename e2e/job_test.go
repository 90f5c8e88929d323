package e2e

import (
	"bytes"
	"compress/gzip"
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

	"rutile/core/colour"
	"rutile/internal/wire"
	"rutile/web"
)

// stored asks the server, beside the page, what it has kept.
func (a *app) stored(id string) wire.Saved {
	a.t.Helper()
	return answered[wire.Saved](a, "GET", "/api/pieces/"+id, "", http.StatusOK)
}

func does(steps []wire.Step) string {
	var w []string
	for _, s := range steps {
		w = append(w, s.Do+" "+s.With+s.Product)
	}
	return strings.Join(w, "; ")
}

const primed = `[data-repair="edit"][data-steps~="primer_bond_wb"]`

// The whole job: open the demo, see the zone that will peel, read why, look at
// the repair, press it, see it turn sound, reload, and find it there.
func TestTheWholeJob(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	const weak = `[data-code="adhesion.key"]`
	do(t, ctx, chromedp.Navigate(a.url("/")), click(`[data-zone="13/fronts"]`), verdict("fails"), shows(`[data-figure]`),
		click(weak+` [data-do=figures]`), shows(weak+` details[open] dl, `+weak+` details[open] table, `+weak+` details[open] ul`),
		click(`[data-see~="primer_bond_wb"]`), verdict("sound"), shows(`[data-trial]`), shows(row(4, "primer_bond_wb")))
	if s := a.stored("13"); s.Rev != 1 {
		t.Errorf("looking at a repair wrote revision %d", s.Rev)
	}
	do(t, ctx, chromedp.KeyEvent(kb.Escape), verdict("fails"), click(primed), verdict("sound"), seesInView("[data-verdict]"), hides(`[data-code][data-severity="fail"], [data-code][data-severity="watch"]`), saved())
	s := a.stored("13")
	if got := does(s.Piece.Zones[0].Steps); s.Rev != 2 || got != "clean detergent; abrade ; dust ; coat primer_bond_wb; coat paint_chalk; coat wax_clear" {
		t.Errorf("revision %d keeps %s", s.Rev, got)
	}
	do(t, ctx, chromedp.Reload(), verdict("sound"), shows(row(4, "primer_bond_wb")), saved(), keys("b"), shows(`[data-zone="13/fronts"]`), hides(`[data-zone="13/fronts"][data-verdict-is="fails"]`))
}

// A piece from nothing: described, planned step by step, and kept.
func TestAPieceFromNothing(t *testing.T) {
	t.Parallel()
	a := start(t, false)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/")), click(`[data-do="new-piece"]`), typeIn("piece.name", "Puppet chest"), keys(kb.Enter), shows("[data-name]"),
		typeIn("zone_name", "Lid"), saved(), chromedp.Reload(), shows(`[data-option="cedar"]`), hides(of("piece.name")), click(`[data-option="cedar"]`), verdict("watch"),
		click(`[data-option="none"]`), click(`[data-quick="#c9d2cd"]`), choose("wear", "display"), typeIn("site", "18"), shows(of("site.rh_pct")),
		typeIn("area_m2", "120 x 50 cm"), shows(`[data-typed="read"]`), click(`[data-nothing="soils"]`), click("[data-on]"))
	do(t, ctx, pick("detergent"), shows(row(1, "detergent")))
	for i, s := range [][2]string{{"raise", "raise_grain"}, {"dust off", "dust"}, {"chalk paint", "paint_chalk"}, {"clear wax", "wax_clear"}} {
		do(t, ctx, append(addStep(s[0]), shows(row(i+2, s[1])))...)
	}
	do(t, ctx, verdict("fails"), click(`[data-code="bleed.tannin"] [data-steps~="shellac_pigmented"]`), verdict("sound"), saved(), chromedp.Reload(), verdict("sound"), shows(row(4, "shellac_pigmented")))
	s := a.stored("1")
	z := s.Piece.Zones[0]
	if s.Piece.Name != "Puppet chest" || z.Name != "Lid" || z.Substrate != "cedar" || z.AreaM2 != .6 || z.Soils == nil || z.Wear != "display" || z.Target.Colour != "#c9d2cd" {
		t.Errorf("kept: %+v", z)
	}
	if s := s.Piece.Site; s == nil || s.TempC != 18 || s.RHPct != 64 {
		t.Errorf("the air kept is %+v, and only its temperature was changed", s)
	}
	if got := does(z.Steps); got != "clean detergent; raise_grain ; dust ; coat shellac_pigmented; coat paint_chalk; coat wax_clear" {
		t.Errorf("the plan kept is %s", got)
	}
}

func TestStepsAreEditedMovedDraggedAndUndone(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	const undo, redo = "[data-undo]", "[data-redo]"
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/uprights")), verdict("sound"),
		click(row(4, "shellac_pigmented")), click(`[data-do="remove"]`), verdict("watch"), shows(`[data-code="bleed.tannin"]`),
		click(undo), verdict("sound"), click(redo), verdict("watch"), click(undo), verdict("sound"),
		click(row(2, "abrade")), click(`[data-do="earlier"]`), verdict("fails"), shows(`[data-row="1"][data-worst="prep.sand_before_clean"]`),
		click(`[data-do="later"]`), verdict("sound"), typeIn("abrade.grit", "400"), saved())
	if got := a.stored("12").Piece.Zones[0].Steps[1].Grit; got != 400 {
		t.Errorf("the grit kept is %d", got)
	}
	// What was typed into one field is one change, and undo outlives a reload.
	do(t, ctx, chromedp.Sleep(400*time.Millisecond), chromedp.Reload(), verdict("sound"), click(undo), saved())
	if got := a.stored("12").Piece.Zones[0].Steps[1].Grit; got != 220 {
		t.Errorf("after a reload and undo the grit kept is %d", got)
	}
	// A step is drawn down by its handle.
	do(t, ctx, drag(`[data-step="2"] [data-handle]`, `[data-step="1"] [data-handle]`), shows(row(1, "abrade")), verdict("fails"), saved())
	if got := does(a.stored("12").Piece.Zones[0].Steps); !strings.HasPrefix(got, "abrade ; clean degreaser_alkaline; dust") {
		t.Errorf("the plan kept is %s", got)
	}
	do(t, ctx, click(undo), verdict("sound"))
}

// A plan given to another zone is judged there before it is given and after.
func TestAPlanIsCopiedToAnotherZone(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/7/legs")), verdict("sound"), click(`[data-do="copy"]`), shows(`dialog [data-copy="pads"][data-verdict-is="fails"]`),
		click(`[data-copy="pads"] input`), click(`[type=submit]`), hides("dialog"), saved(), click(`[data-tab="pads"]`), verdict("fails"), shows(row(2, "abrade")))
	z := a.stored("7").Piece.Zones
	if got := does(z[1].Steps); got != does(z[2].Steps) || len(z[0].Steps) != 5 {
		t.Errorf("the padded backs have %s", got)
	}
	do(t, ctx, click("[data-undo]"), hides(row(2, "abrade")), saved())
}

// What makes no sense is refused beside its field, stays as it was typed, and
// is never sent.
func TestNonsenseInFields(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	wrong := func(field, text string) []act {
		return []act{typeIn(field, text), shows(of(field) + `:is([data-wrong], [data-typed="refused"])`)}
	}
	do(t, ctx, chromedp.Navigate(a.url("/pieces/13/fronts/survey")), verdict("fails"))
	for _, x := range [][2]string{{"area_m2", "-3"}, {"area_m2", "900 x 900 m"}, {"area_m2", "120 x"}, {"target", "mauve"}, {"target", "#12"}, {"piece.made", "19o8"}, {"area_m2", "a lot 🎭"}} {
		do(t, ctx, wrong(x[0], x[1])...)
	}
	novel := strings.Repeat("It was a wet autumn in the foyer. ", 300)
	do(t, ctx, put("zone.name", novel), shows(of("zone.name")+"[data-wrong]"))
	if got := value(t, ctx, "area_m2"); got != "a lot 🎭" {
		t.Errorf("what was typed became %q", got)
	}
	do(t, ctx, saved())
	z := a.stored("13").Piece.Zones[0]
	if z.AreaM2 != 0 || z.Target.Colour != "#7d8f86" || len(z.Name) > 200 {
		t.Errorf("nonsense was kept: %v %v %d characters", z.AreaM2, z.Target.Colour, len(z.Name))
	}
	// A colour is typed by its name, whatever its capitals; the field keeps the text, and the piece the colour.
	do(t, ctx, typeIn("target", "Pale grey green"), hides(of("target")+"[data-wrong]"), saved())
	if z := a.stored("13").Piece.Zones[0]; colour.NameHex(z.Target.Colour) != "pale grey-green" || value(t, ctx, "target") != "Pale grey green" {
		t.Errorf("the colour became %s, the text %q", z.Target.Colour, value(t, ctx, "target"))
	}
	do(t, ctx, typeIn("zone.name", "لوحة 🎭 front"), typeIn("area_m2", "3 x 80 x 18"), shows(`[data-typed="read"]`), saved())
	if z := a.stored("13").Piece.Zones[0]; z.Name != "لوحة 🎭 front" || z.AreaM2 != .432 {
		t.Errorf("a name in another script became %q, an area %v", z.Name, z.AreaM2)
	}
}

// A studio in US units types and reads them; what is kept stays metric.
func TestAStudioInUSUnits(t *testing.T) {
	inSoak(t)
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/")), click(`[data-do="studio"]`), choose("settings.units", "us"), typeIn("site.temp_c", "68"), typeIn("site.rh_pct", "140"), shows(of("site.rh_pct")+"[data-wrong]"),
		typeIn("site.rh_pct", "55"), click("[type=submit]"), hides("dialog"),
		chromedp.Navigate(a.url("/pieces/6/drums/survey")), verdict("sound"), typeIn("area_m2", "4' 2\" x 18"), shows(`[data-typed="read"]`), typeIn("site", "41"), shows(`[data-code="site.cold"]`), saved())
	s := a.stored("6")
	if s.Piece.Zones[0].AreaM2 != .5806 || s.Piece.Site == nil || s.Piece.Site.TempC != 5 || s.Piece.Site.RHPct != 55 {
		t.Errorf("kept: %v m², %+v", s.Piece.Zones[0].AreaM2, s.Piece.Site)
	}
	// Parts are measured in feet and inches.
	do(t, ctx, chromedp.Navigate(a.url("/pieces/1")), typeIn("parts", "shelf 31 1/2 x 11"), click(`[data-do="add-parts"]`), counts("[data-part-row]", 3), saved())
	p := a.stored("1").Piece.Parts
	if k := p[len(p)-1]; fmt.Sprintf("%.4f x %.4f", k.WidthCM, k.DepthCM) != "80.0100 x 27.9400" {
		t.Errorf("kept: %+v", k)
	}
}

// The server is killed in mid-edit: the page says so, keeps what was done, and
// sends it when the server is back.
func TestTheServerGoneInMidEdit(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/11/column")), verdict("fails"))
	undo := place(t, ctx, "[data-undo]")
	a.down()
	do(t, ctx, click(`[data-row="5"]`), click(`[data-do="remove"]`), shows(`[data-save="unsent"]`), shows("[data-stale]"), hides("[data-code] button:not(:disabled)"))
	// What is said of it moves nothing away from under the pointer.
	if now := place(t, ctx, "[data-undo]"); now != undo {
		t.Errorf("Undo was at %v, and is at %v", undo, now)
	}
	// Offline, a step can still be found and laid.
	do(t, ctx, append(addStep("oil enamel"), shows(`[data-row="5"][data-is^="paint_"]`), click("[data-undo]"), hides(`[data-row="5"]`))...)
	a.up(true)
	do(t, ctx, saved(), verdict("watch"), hides("[data-stale]"))
	if got := does(a.stored("11").Piece.Zones[0].Steps); strings.Contains(got, "coat") {
		t.Errorf("the server has %s", got)
	}
	// Closed while the server is away, what was done comes back.
	a.down()
	do(t, ctx, click(row(4, "dust")), click(`[data-do="remove"]`), shows(`[data-save="unsent"]`))
	a.up(true)
	do(t, ctx, chromedp.Reload(), saved(), hides(row(4, "dust")))
	if got := does(a.stored("11").Piece.Zones[0].Steps); strings.Contains(got, "dust") {
		t.Errorf("after the reload the server has %s", got)
	}
	// Left unsent, it is sent from the pieces page.
	do(t, ctx, keys("b"), click(`[data-zone="11/column"]`), verdict("watch"))
	a.down()
	do(t, ctx, click(row(3, "abrade")), click(`[data-do="remove"]`), shows(`[data-save="unsent"]`), keys(kb.Escape, "b"), shows("[data-left]"))
	a.up(true)
	do(t, ctx, hides("[data-left]"), shows(`[data-zone="11/column"]`))
	if got := does(a.stored("11").Piece.Zones[0].Steps); strings.Contains(got, "abrade") {
		t.Errorf("from the pieces page the server has got %s", got)
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
	const conflict = `[data-elsewhere="conflict"]`
	do(t, one, chromedp.Navigate(a.url("/pieces/10/body/survey")), verdict("sound"))
	do(t, two, verdict("sound"))
	do(t, one, typeIn("zone.name", "Steel box"), saved())
	do(t, two, shows(conflict+" li"), click(row(4, "dust")), click(`[data-do="remove"]`), shows(`[data-save="conflict"]`))
	if s := a.stored("10"); len(s.Piece.Zones[0].Steps) != 7 {
		t.Errorf("the second tab wrote: revision %d, %s", s.Rev, does(s.Piece.Zones[0].Steps))
	}
	do(t, two, click(`[data-do="take-other"]`), saved(), shows(row(4, "dust")), click("[data-undo]"), hides(row(4, "dust")), saved(), click("[data-redo]"), shows(row(4, "dust")), saved())
	// The first tab is the stale one now, and keeps its own.
	do(t, one, click(`[data-do="take-other"]`), saved())
	do(t, two, click(`[data-row="5"]`), click(`[data-do="remove"]`), hides(`[data-row="7"]`), saved())
	do(t, one, shows(conflict), click(`[data-do="keep-mine"]`), hides(conflict), saved())
	if s := a.stored("10"); s.Piece.Zones[0].Name != "Steel box" || len(s.Piece.Zones[0].Steps) != 7 {
		t.Errorf("kept: %s, %s", s.Piece.Zones[0].Name, does(s.Piece.Zones[0].Steps))
	}
}

// Two tabs closed while the server was away have each left something: neither overwrites the other, and
// the painter is asked.
func TestTwoTabsClosedWhileTheServerWasAway(t *testing.T) {
	inSoak(t)
	t.Parallel()
	a := start(t, true)
	one := browser(t, 1280, 800)
	two, stop := chromedp.NewContext(one)
	if err := chromedp.Do(two, chromedp.Navigate(a.url("/pieces/10/body/survey"))); err != nil {
		t.Fatal(err)
	}
	do(t, one, chromedp.Navigate(a.url("/pieces/10/body/survey")), verdict("sound"))
	do(t, two, verdict("sound"))
	a.down()
	do(t, two, typeIn("zone.name", "Second"), shows(`[data-save="unsent"]`))
	do(t, one, typeIn("zone.name", "First"), shows(`[data-save="unsent"]`))
	stop()
	do(t, one, chromedp.Navigate("about:blank"))
	a.up(true)
	do(t, one, chromedp.Navigate(a.url("/pieces/10/body/survey")), shows(`[data-elsewhere="conflict"], [data-save="saved"]`), shows(`[data-elsewhere="conflict"]`))
	mine := value(t, one, "zone.name")
	theirs := a.stored("10").Piece.Zones[0].Name
	if mine == theirs || !strings.Contains("First Second", mine) || !strings.Contains("First Second", theirs) {
		t.Errorf("on the screen %q, kept %q", mine, theirs)
	}
	do(t, one, click(`[data-do="keep-mine"]`), saved())
	if got := a.stored("10").Piece.Zones[0].Name; got != mine {
		t.Errorf("kept: %q", got)
	}
}

// A piece that another tab has removed is put back from what is on the screen.
func TestAPieceRemovedElsewhere(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/10/body/plan")), verdict("sound"))
	a.call(http.MethodDelete, "/api/pieces/10", "", 204)
	do(t, ctx, click(row(4, "dust")), click(`[data-do="remove"]`), shows(`[data-elsewhere="gone"]`),
		// It is found again from the pieces page.
		keys(kb.Escape), chromedp.Navigate(a.url("/")), click(`[data-behind="10"] a`), shows(`[data-elsewhere="gone"]`), hides(row(4, "dust")), click(`[data-do="put-back"]`), hides(`[data-elsewhere]`), saved())
	if s := a.stored("29"); s.Piece.Name != "Cash locker" || len(s.Piece.Zones[0].Steps) != 6 {
		t.Errorf("put back: %s, %s", s.Piece.Name, does(s.Piece.Zones[0].Steps))
	}
}

// call asks the server for something beside the page, and returns its answer.
func (a *app) call(method, path, body string, want int, headers ...string) []byte {
	a.t.Helper()
	r, err := http.NewRequest(method, a.url(path), strings.NewReader(body))
	if err != nil {
		a.t.Fatal(err)
	}
	if body != "" {
		r.Header.Set("Content-Type", "application/json")
	}
	if method == http.MethodPut {
		r.Header.Set("If-Match", "*")
	}
	for i := 0; i+1 < len(headers); i += 2 {
		r.Header.Set(headers[i], headers[i+1])
	}
	res, err := http.DefaultClient.Do(r)
	if err != nil {
		a.t.Fatal(err)
	}
	defer res.Body.Close()
	says, err := io.ReadAll(res.Body)
	if err != nil || res.StatusCode != want {
		a.t.Fatalf("%s %s: %s %s %v", method, path, res.Status, says, err)
	}
	return says
}

// answered is what the server answers to a question beside the page.
func answered[T any](a *app, method, path, body string, want int) (out T) {
	a.t.Helper()
	if err := json.Unmarshal(a.call(method, path, body, want), &out); err != nil {
		a.t.Fatal(err)
	}
	return out
}

func TestRemovingAPiece(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/13/fronts/survey")), verdict("fails"), click(`[data-do="remove-piece"]`), click(`[data-do="keep"]`), hides("dialog"),
		click(`[data-do="remove-piece"]`), click(`[data-do="remove-now"]`), shows(`[data-zone="12/uprights"]`), hides(`[data-zone^="13/"]`))
	do(t, ctx, chromedp.Navigate(a.url("/pieces/13/fronts")), shows(`main a[href="/"]`), hides("[data-save]"), chromedp.Navigate(a.url("/nowhere")), shows(`main a[href="/"]`))
}

// The first load is small: script and style compressed, fonts and what is loaded later apart.
func TestFirstLoadIsSmall(t *testing.T) {
	t.Parallel()
	const most = 216_000
	index, err := fs.ReadFile(web.Dist(), "index.html")
	if err != nil {
		t.Fatal(err)
	}
	total := 0
	err = fs.WalkDir(web.Dist(), ".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || !strings.Contains(string(index), path) || !strings.HasSuffix(path, ".js") && !strings.HasSuffix(path, ".css") {
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
