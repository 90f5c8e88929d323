package e2e

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"

	"rutile/internal/wire"
)

// outcome presses an outcome of the test that is asked.
func outcome(id string) act { return click(fmt.Sprintf(`[data-outcome=%q]`, id)) }

// asks waits until a test is asked.
func asks(test string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		err := until(ctx, tab, fmt.Sprintf(`document.querySelector("[data-test]")?.dataset.test === %q`, test), "the test "+test)
		time.Sleep(100 * time.Millisecond) // no hand is on the key at once
		return err
	})
}

// answers follows the dialogue to its end, or for so many tests, as a painter
// with this thing before them would, and adds the tests asked to those before.
func answers(t *testing.T, ctx context.Context, truth map[string]string, asked []string, most int) []string {
	t.Helper()
	for most += len(asked); len(asked) < most; {
		do(t, ctx, chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			// The next test, once the answer before it is weighed.
			return until(ctx, tab, fmt.Sprintf(`document.querySelector('[data-field="identify"]')?.ariaBusy === "false" && document.querySelectorAll("[data-answered]").length === %d`, len(asked)), "the last answer to be weighed")
		}))
		now, err := chromedp.Run(ctx, chromedp.Evaluate[string](`document.querySelector("[data-test]")?.dataset.test ?? ""`))
		if err != nil {
			t.Fatal(err)
		}
		if now == "" {
			break
		}
		o := truth[now]
		if o == "" {
			o = "not_sure"
		}
		asked = append(asked, now)
		do(t, ctx, outcome(o))
	}
	return asked
}

// An unknown brown finish on an unknown wood: a plan that fails while nobody
// knows, the dialogue, the belief, the survey, and a plan that holds.
func TestAnUnknownBrownFinishIsFoundOut(t *testing.T) {
	t.Parallel()
	a := start(t, false)
	const waxed = `[data-code="adhesion.wax_under"]`
	a.call("POST", "/api/pieces", `{"format": "rutile/piece", "version": 1, "name": "Brown table", "zones": [{"id": "top", "substrate": "unknown_wood", "finish": "unknown", "area_m2": 0.72, "soils": [],
		"target": {"colour": "#c9d2cd"}, "steps": [{"do": "abrade", "grit": 220, "how": "hand"}, {"do": "dust"}, {"do": "coat", "product": "shellac_pigmented"}, {"do": "coat", "product": "paint_mineral", "coats": 2}]}]}`, 201)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/1/top/plan")), verdict("fails"), shows(waxed), click(`[data-repair="identify"]`), asks("face"), hides(`[data-outcome="glassy"]`), click(`[data-do="all-outcomes"]`), shows(`[data-outcome="glassy"]`))
	truth := map[string]string{
		"kind": "factory", "age": "y1960_90", "face": "clear_film", "edge": "solid", "repeat": "varied", "knock": "wood", "species": "pale_fine", "worn": "rubbed_thin",
		"amber": "amber", "water": "beads", "damp_rag": "dirt", "white_spirit": "dirt", "fingernail": "hard", "alcohol": "nothing", "thinner": "wrinkles", "smell": "none", "tape": "clean",
	}
	// Soon the plan is the same for all that is left, though nobody knows yet what it is.
	asked := answers(t, ctx, truth, nil, 12)
	if len(asked) < 2 || len(asked) > 8 {
		t.Errorf("asked %v", asked)
	}
	// Nothing but the test for lead is left: nobody knows how old the varnish is.
	do(t, ctx, verdict("watch"), hides(waxed), saved(), click(`[data-do="go-on"]`))
	asked = answers(t, ctx, truth, asked, 6)
	do(t, ctx, shows(`[data-do="take"]`), saved())
	before := a.stored("1")
	if z := before.Piece.Zones[0]; z.Finish != "unknown" || len(z.Evidence) != len(asked) || z.Evidence[0].Date == "" {
		t.Errorf("kept before it was taken: %s, %+v", z.Finish, z.Evidence)
	}
	do(t, ctx, click(`[data-do="take"]`), shows("[data-taken]"), verdict("watch"), saved())
	if z := a.stored("1").Piece.Zones[0]; z.Finish != "varnish_oil" || z.Substrate != "beech" {
		t.Errorf("taken: %s under %s", z.Substrate, z.Finish)
	}
	// A reload; then a mistake: three answers that say wax. The belief and the verdict follow, and undo brings
	// both back.
	do(t, ctx, chromedp.Reload(), shows("[data-taken]"), click(`[data-do="others"]`), click(`[data-ask="fingernail"]`), asks("fingernail"), outcome("furrow"), click(`[data-answered="face"]`), asks("face"), outcome("soft_sheen"),
		click(`[data-answered="amber"]`), asks("amber"), outcome("no_film"), verdict("fails"), shows(`[data-on="wax"]`),
		click("[data-undo]"), click("[data-undo]"), click("[data-undo]"), verdict("watch"), shows("[data-taken]"))
}

// A contradiction is named on the dialogue's own screen, and answering again settles it.
func TestAContradictionIsNamedAndSettled(t *testing.T) {
	inSoak(t)
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/4/rails/identify")), click(`[data-against~="alcohol"] button`), asks("alcohol"), outcome("sticky"), hides("[data-against]"), shows("[data-taken]"), saved(),
		click("[data-undo]"), shows("[data-against]"), click(`[data-take-back="alcohol"]`), hides("[data-against]"), shows(`[data-on="shellac"]`), saved())
	if z := a.stored("4").Piece.Zones[1]; len(z.Evidence) != 3 {
		t.Errorf("%d answers are kept", len(z.Evidence))
	}
}

// The dialogue with the keyboard alone, and "not sure" as an answer.
func TestTheDialogueByKeys(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/4/panels/survey")), shows(of("soils")), keys("2"), asks("amber"), keys("s"), asks("thinner"), keys("n"), asks("kind"), keys("l"), shows(`[data-answered="kind"]`), saved())
	var got []string
	for _, e := range a.stored("4").Piece.Zones[0].Evidence[2:] {
		got = append(got, e.Test+"="+e.Outcome)
	}
	if s := strings.Join(got, " "); s != "amber=clear thinner=not_sure kind=woven" {
		t.Errorf("answered %s", s)
	}
}

// The server gone in the middle of the dialogue: the painter goes on, nothing is
// lost, and what the answers come to is there when it is back.
func TestTheDialogueOutlivesTheServer(t *testing.T) {
	inSoak(t)
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/4/panels/identify")), asks("amber"))
	a.down()
	do(t, ctx, outcome("clear"), shows("[data-silent]"), shows(`[data-answered="amber"]`), shows(`[data-save="unsent"]`), click(`[data-do="others"]`), click(`[data-ask="alcohol"]`), asks("alcohol"), outcome("softens_slow"), shows(`[data-answered="alcohol"]`))
	a.up(true)
	do(t, ctx, saved(), hides("[data-silent]"), shows(`[data-on="lacquer"]`), chromedp.Reload(), shows(`[data-on="lacquer"]`))
	if n := len(a.stored("4").Piece.Zones[0].Evidence); n != 4 {
		t.Errorf("%d answers are kept", n)
	}
}

// A suspect old paint cannot be talked out of its caution.
func TestLeadCannotBeTalkedOutOfItsCaution(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	const note, date = `[data-lead="suspect"]`, "lead_test.date"
	barred := func(words string) []act {
		return []act{typeIn("[data-picker] [role=combobox]", words), shows(`[data-picker] [role=option][aria-disabled="true"]`), chromedp.KeyEvent("\r"), chromedp.Sleep(100 * time.Millisecond), shows("[data-picker]")}
	}
	// The step that makes dust goes, and comes back only by hand: the picker will not have it.
	do(t, ctx, chromedp.Navigate(a.url("/pieces/8/straps/plan")), verdict("fails"), shows(note), click(`[data-repair="edit"][data-steps~="deglosser_liquid"]`), verdict("watch"), shows(note), click(`[data-is="deglosser_liquid"]`), click(`[data-do="after"]`))
	do(t, ctx, append(barred("sand by hand"), barred("dry brush")...)...)
	do(t, ctx, chromedp.KeyEvent("\x1b"), saved())
	if got := does(a.stored("8").Piece.Zones[1].Steps); strings.Contains(got, "abrade") || strings.Contains(got, "dry_brush") {
		t.Errorf("planned all the same: %s", got)
	}
	do(t, ctx, click(`[data-do="lead"]`), click(`[data-do="take-out"]`), hides(`[data-do="take-out"]`), shows(note))
	// Half a result, and one from the future, are none.
	do(t, ctx, choose("lead_test", "negative"), choose("lead_test.by", "laboratory"), shows(`[data-do="enter"]:disabled`), put(date, "2999-01-01"), shows(of(date)+"[data-wrong]"), shows(`[data-do="enter"]:disabled`), chromedp.Reload(), shows(of(date)+"[data-wrong]"), shows(note))
	// Seen and called another name.
	do(t, ctx, click(`[data-view="identify"]`), asks("face"), outcome("paint_brushed"), saved(), shows("[data-barred]"), click(`[data-stage="look_over"]`), click(of("finish")), click(`[data-option="none"]`), shows(note),
		click(`[data-stage="identify"]`), shows(note), click(`[data-stage="hand_over"]`), shows(note), click("[data-undo]"))
	// The dated result of a laboratory.
	do(t, ctx, click(`[data-do="lead"]`), put(date, "2026-11-20"), typeIn("lead_test.report", "L 1184"), click(`[data-do="enter"]`), hides(note), saved(), chromedp.Reload(), shows(of(date)), hides(note))
	if l := a.stored("8").Piece.Zones[1].LeadTest; l == nil || *l != (wire.LeadTest{Result: "negative", By: "laboratory", Date: "2026-11-20", Report: "L 1184"}) {
		t.Errorf("kept: %+v", l)
	}
}

// A patch test planned, laid and rated: the verdict moves, both ways.
func TestAPatchTestMovesTheVerdict(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/7/legs/patches")), verdict("sound"), choose("test", "1"), typeIn("patch.place", "inside the left leg"), click(`[data-do="plan-patch"]`), click(`[data-do="made"]`), click(`[data-class="1"]`), verdict("fails"), saved())
	p := a.stored("7").Piece.Zones[2].Patches[0]
	if p.Class == nil || *p.Class != 1 || p.Place != "inside the left leg" || p.On != "hidden" || p.Under == nil || p.Under.Key == 0 || p.Made == "" || p.Rated == "" {
		t.Errorf("kept: %+v", p)
	}
	do(t, ctx, click(`[data-stage="coats"]`), verdict("fails"), shows(`[data-code="adhesion.bond"]`), click(`[data-stage="identify"]`), click(`[data-view="patches"]`), click(`[data-do="rate-again"]`), click(`[data-class="5"]`), verdict("sound"), saved(),
		click(`[data-do="remove-patch"]`), hides("[data-patch]"), click("[data-undo]"), shows("[data-patch]"))
}

// Instruments: the room is live, a meter fills its field with one press and says
// that it is simulated, and readings come in from a file.
func TestInstruments(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	file := filepath.Join(t.TempDir(), "loft.csv")
	bring := func(s string) act {
		if err := os.WriteFile(file, []byte(s), 0o600); err != nil {
			t.Fatal(err)
		}
		return chromedp.SetUploadFiles(chromedp.CSS(`dialog input[type="file"]`), []string{file})
	}
	do(t, ctx, chromedp.Navigate(a.url("/pieces/8/body/survey")), click(`[data-meter="moisture_pct"]`), click(`[data-meter="gloss_gu"]`), shows(`[data-from="gloss_gu"]`), saved())
	z := a.stored("8").Piece.Zones[0]
	if z.MoisturePct == nil || *z.MoisturePct < 10 || *z.MoisturePct > 17 || z.GlossUnits == nil || len(z.Readings) != 2 || !z.Readings[0].Simulated {
		t.Errorf("kept: %v %v %+v", z.MoisturePct, z.GlossUnits, z.Readings)
	}
	// Typed over, it is no reading any more.
	do(t, ctx, typeIn("moisture_pct", "19"), hides(`[data-from="moisture_pct"]`), verdict("fails"), shows(`[data-code="prep.damp"]`), saved(), click(`[data-do="instruments"]`), click(`[data-do="use-average"]`), saved())
	if s := a.stored("8").Piece.Site; s == nil || s.TempC > 13 {
		t.Errorf("the average is %+v", s)
	}
	do(t, ctx, bring("what;is;this\n1;2;3\n"), shows("dialog [role=alert]"))
	do(t, ctx, bring("Date;Time;Temperature;Humidity;Gloss\n24.11.2026;08:00;14,2;71;\n24.11.2026;09:00;15,0;171;\n24.11.2026;10:00;;68;41\n"), shows(`[data-taken-in="2"][data-refused="1"]`),
		click(`[data-do="into-zone"]`), click("[data-close]"), shows(`[data-from="gloss_gu"]`), click(`[data-do="room"]`), saved(), chromedp.Reload(), shows(`[data-from="gloss_gu"]`))
	k := a.stored("8").Piece
	if s := k.Site; s == nil || !s.Simulated || s.By != "Room sensor" || s.SurfaceC == nil {
		t.Errorf("the air kept is %+v", s)
	}
	if g := k.Zones[0].GlossUnits; g == nil || *g != 41 {
		t.Errorf("the gloss kept is %v", g)
	}
}

// Imported readings are looked at, corrected, removed, put back, and removed with their file.
func TestImportedReadings(t *testing.T) {
	inSoak(t)
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	file := filepath.Join(t.TempDir(), "loft.csv")
	if err := os.WriteFile(file, []byte("time,temp,rh\n2026-11-24 08:00,14.2,71\n2026-11-24 09:00,15,70\n2031-01-01 09:00,15,70\n"), 0o600); err != nil {
		t.Fatal(err)
	}
	says := func(css, words string) act {
		return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			return until(ctx, tab, fmt.Sprintf(`[...document.querySelectorAll(%q)].some((e) => e.textContent.includes(%q))`, css, words), words)
		})
	}
	sources := func(n int) act { return counts("[data-source]", n) }
	do(t, ctx, chromedp.Navigate(a.url("/pieces/8/body/survey")), click(`[data-do="instruments"]`),
		chromedp.SetUploadFiles(chromedp.CSS(`dialog input[type="file"]`), []string{file}), shows(`[data-taken-in="2"][data-refused="1"]`),
		sources(1), click(`[data-do="show-readings"]`), counts("[data-reading]", 2),
		click(`[data-do="correct-reading"]`), typeIn("reading.temp_c", "99"), shows(`[data-correct] [role=alert]`), typeIn("reading.temp_c", "16.5"), click(`[data-do="save-reading"]`), hides("[data-correct]"), says("[data-reading]", "air 16.5 °C"),
		click(`[data-do="remove-reading"]`), counts("[data-reading]", 1), click(`[data-do="put-back"]`), counts("[data-reading]", 2), says("[data-reading]", "air 16.5 °C"),
		// The last one takes its file with it, and can be put back all the same.
		click(`[data-do="remove-reading"]`), counts("[data-reading]", 1), click(`[data-do="remove-reading"]`), sources(0), click(`[data-do="put-back"]`), sources(1),
		click(`[data-do="remove-source"]`), click(`[data-do="remove-now"]`), sources(0))
}
