package e2e

import (
	"context"
	"fmt"
	"net/http"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

// What the server will not take is not sent again and again: it is kept, it is said, and it is sent once it
// is changed.
func TestASaveThatIsRefused(t *testing.T) {
	t.Parallel()
	var saves, refused atomic.Int32
	refused.Store(422)
	a := refusing(t, true, func(r *http.Request) int {
		if r.Method != http.MethodPut {
			return 0
		}
		saves.Add(1)
		return int(refused.Load())
	})
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/uprights/survey")), verdict("sound"), typeIn("zone.name", "Rack"), shows(`[data-save="refused"][data-kept="yes"]`))
	n := saves.Load()
	do(t, ctx, chromedp.Sleep(3500*time.Millisecond), shows(`[data-save="refused"]`))
	if got := saves.Load(); got != n {
		t.Errorf("sent %d times more", got-n)
	}
	// Over a reload it is there still, and what is changed is tried.
	do(t, ctx, chromedp.Reload(), shows(`[data-save="refused"]`))
	if got := value(t, ctx, "zone.name"); got != "Rack" {
		t.Errorf("after a reload the name is %q", got)
	}
	refused.Store(0)
	do(t, ctx, typeIn("zone.name", "Shelves"), saved())
	if z := a.stored("12").Piece.Zones[0]; z.Name != "Shelves" {
		t.Errorf("kept: %q", z.Name)
	}
}

// A removal that is refused has removed nothing, on the page neither.
func TestARemovalThatIsRefused(t *testing.T) {
	t.Parallel()
	a := refusing(t, true, func(r *http.Request) int {
		if r.Method == http.MethodDelete {
			return 500
		}
		return 0
	})
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/13/fronts/survey")), verdict("fails"), click(`[data-do="remove-piece"]`), click(`[data-do="remove-now"]`), shows("dialog [role=alert]"), click(`[data-do="keep"]`), hides("dialog"),
		typeIn("zone.name", "Fronts"), saved())
	if s := a.stored("13"); s.Piece.Zones[0].Name != "Fronts" {
		t.Errorf("kept: %+v", s.Piece.Zones[0].Name)
	}
}

// inZone has the browser keep the time of a place.
func inZone(name string) act {
	return emulates("setTimezoneOverride", map[string]string{"timezoneId": name})
}

// All days are those of the workshop: that on which a caution was read too.
func TestTheDayIsTheWorkshops(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	// At any time it is another day in one of the two than it is in Greenwich.
	place, east := "Etc/GMT+12", time.FixedZone("", 14*3600)
	there := time.FixedZone("", -12*3600)
	if time.Now().In(east).Format(time.DateOnly) != time.Now().UTC().Format(time.DateOnly) {
		place, there = "Etc/GMT-14", east
	}
	do(t, ctx, inZone(place), chromedp.Navigate(a.url("/pieces/12/uprights/plan")), verdict("sound"), click(`[data-repair="acknowledge"]`), saved(), shows("[data-read]"))
	want := time.Now().In(there).Format(time.DateOnly)
	if got := a.stored("12").Piece.Zones[0].Read; len(got) != 1 || got[0].Date != want {
		t.Errorf("read on %+v, and it is %s there", got, want)
	}
}

// Settings that are saved here do not take away what another tab has saved since they were loaded.
func TestSettingsOfTwoTabs(t *testing.T) {
	t.Parallel()
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/20/best/compare")), shows("[data-take]"))
	a.call(http.MethodPut, "/api/studio", `{"name": "Lantern Yard", "units": "metric", "site": {"temp_c": 17, "rh_pct": 64}, "lead_year": 1970, "ways": [{"id": "mine", "name": "Mine"}]}`, 200)
	do(t, ctx, click(`[data-do="studio"]`), typeIn("site.temp_c", "19"), click("[type=submit]"), hides("dialog"), click(of("way")), click(`[data-do="own-way"]`), typeIn("way.name", "Ours"), click("[type=submit]"), hides("dialog"), shows(`[data-way="ours"]`))
	ways := a.ways()
	if len(ways) != 2 || ways[0].ID != "mine" || ways[1].ID != "ours" {
		t.Errorf("the ways kept are %+v", ways)
	}
	do(t, ctx, click(`[data-do="studio"]`), shows(of("settings.lead_year")))
	if y := value(t, ctx, "settings.lead_year"); y != "1970" {
		t.Errorf("the year of lead is %q", y)
	}
}

// What a material cannot carry stands behind the rest, and is found by its name all the same.
func TestWhatAMaterialCarriesComesFirst(t *testing.T) {
	inSoak(t)
	t.Parallel()
	a := start(t, false)
	a.call("POST", "/api/pieces", `{"format": "rutile/piece", "version": 1, "name": "Shelf", "zones": [{"id": "top", "substrate": "melamine", "finish": "none"}]}`, 201)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/1/top/survey")), click(of("finish")), shows(`[data-option="factory_film"]`), hides(`:is([data-option="wax"], [data-option="oil"], [data-option="shellac"])`),
		click("[data-more]"), shows(`[data-option="wax"]`), click("[data-close]"), click(of("finish")), pick("wax"), saved())
	if z := a.stored("1").Piece.Zones[0]; !strings.HasPrefix(z.Finish, "wax") {
		t.Errorf("kept: %s", z.Finish)
	}
	// Of the steps, what would bring trouble comes behind.
	do(t, ctx, click(`[data-stage="coats"]`), click("[data-add]"), shows("[data-picker] [data-option]"), hides(`[data-picker] [data-brings]`), click("[data-picker] [data-more]"), shows(`[data-picker] [data-brings]`))
}

// A repair that is pressed while the verdict is of an older plan waits for that of this one, and drops no step that
// was laid since.
func TestARepairOfAnOlderPlan(t *testing.T) {
	inSoak(t)
	t.Parallel()
	var slow atomic.Bool
	a := refusing(t, false, func(r *http.Request) int {
		if slow.Load() && r.URL.Path == "/api/check" {
			time.Sleep(700 * time.Millisecond)
		}
		return 0
	})
	a.call("POST", "/api/pieces", `{"format": "rutile/piece", "version": 1, "name": "Desk", "zones": [{"id": "top", "substrate": "oak", "finish": "varnish_oil", "steps": [{"do": "coat", "product": "paint_mineral"}]}]}`, 201)
	ctx := browser(t, 1280, 800)
	repair := `[data-repair="edit"]`
	do(t, ctx, chromedp.Navigate(a.url("/pieces/1/top/plan")), verdict("watch"), shows(repair))
	slow.Store(true)
	do(t, ctx, append(addStep("clear wax"), click(repair), shows(`[data-row="3"]`), saved())...)
	z := a.stored("1").Piece.Zones[0]
	if got := does(z.Steps); len(z.Steps) < 3 || !strings.Contains(got, "coat wax_clear") {
		t.Errorf("the steps are %s", got)
	}
}

// What a verdict or a late drawing moves does not move away from under a press: the press counts, and so does what
// came before it.
func TestNothingMovesUnderAPress(t *testing.T) {
	t.Parallel()
	var late atomic.Int64
	a := refusing(t, false, func(r *http.Request) int {
		if r.URL.Path == "/api/check" {
			time.Sleep(time.Duration(late.Load()))
		}
		return 0
	})
	ctx := browser(t, 1280, 1700) // it does not scroll, so that the browser cannot keep a place by scrolling
	const button, place = `[data-quick="#c9d2cd"]`, `(({x, y}) => [x + 10, y + 10])(document.querySelector('[data-quick="#c9d2cd"]').getBoundingClientRect())`
	piece := 0
	for _, x := range []struct {
		name, option      string
		late, after, hold time.Duration // until the verdict; from the change to the press; of the press
		finger            bool
	}{
		{"a change that is not drawn yet", "none", 150 * time.Millisecond, 0, 120 * time.Millisecond, false},
		{"a verdict that comes late", "paint_alkyd_old", 300 * time.Millisecond, 200 * time.Millisecond, 150 * time.Millisecond, false},
		{"a verdict that comes late, under a finger", "paint_alkyd_old", 300 * time.Millisecond, 200 * time.Millisecond, 150 * time.Millisecond, true},
		{"a slow hand", "paint_alkyd_old", 300 * time.Millisecond, 200 * time.Millisecond, 700 * time.Millisecond, false},
	} {
		tried := false
		for n := 0; n < 30 && !tried; n++ {
			late.Store(0)
			piece++
			a.call("POST", "/api/pieces", `{"format": "rutile/piece", "version": 1, "name": "Desk", "zones": [{"id": "top", "substrate": "pine", "finish": "wax"}]}`, 201)
			option := fmt.Sprintf(`[data-option=%q]`, x.option)
			do(t, ctx, chromedp.Navigate(a.url(fmt.Sprintf("/pieces/%d/top/survey", piece))), verdict("watch"), click(of("finish")), shows(option))
			if _, err := chromedp.Run(ctx, chromedp.Evaluate[bool](`(() => {
				window.pressed = [];
				for (const k of ["pointerdown", "pointerup"]) addEventListener(k, (e) => window.pressed.push(e.timeStamp, e.target.closest('`+button+`') ? 1 : 0), {capture: true});
				return true;
			})()`)); err != nil {
				t.Fatal(err)
			}
			late.Store(int64(x.late))
			was, err := chromedp.Run(ctx, chromedp.Evaluate[[]float64](fmt.Sprintf(`(async () => {
				document.querySelector('%s').click();
				await new Promise((drawn) => setTimeout(drawn, %d));
				return %s;
			})()`, option, x.after.Milliseconds(), place), chromedp.EvalAwaitPromise))
			if err != nil {
				t.Fatal(err)
			}
			down := chromedp.MouseEvent("mousePressed", was[0], was[1], chromedp.ButtonLeft, chromedp.ClickCount(1))
			up := chromedp.MouseEvent("mouseReleased", was[0], was[1], chromedp.ButtonLeft, chromedp.ClickCount(1))
			if x.finger {
				down, up = finger("touchStart", was), finger("touchEnd", nil)
			}
			do(t, ctx, down, chromedp.Sleep(x.hold), up)
			p, err := chromedp.Run(ctx, chromedp.Evaluate[[]float64](`window.pressed`))
			if err != nil || len(p) != 4 {
				t.Fatal(p, err)
			}
			// Under a load it may have been too late for this press, or the press too long for a click.
			if tried = p[1] == 1 && p[2]-p[0] < 1400; !tried {
				continue
			}
			do(t, ctx, saved())
			z := a.stored(fmt.Sprint(piece)).Piece.Zones[0]
			if z.Finish != x.option || z.Target == nil || z.Target.Colour != "#c9d2cd" {
				t.Errorf("%s: kept %+v with %+v", x.name, z, z.Target)
			}
			if now, err := chromedp.Run(ctx, chromedp.Evaluate[[]float64](place)); err != nil || now[1] == was[1] {
				t.Errorf("%s: nothing has moved from %v, %v", x.name, was, err)
			}
		}
		if !tried {
			t.Errorf("%s: no press came in time", x.name)
		}
	}
}

// finger is a finger that comes down on a place, or is lifted.
func finger(what string, at []float64) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		on := []map[string]float64{}
		if at != nil {
			on = append(on, map[string]float64{"x": at[0], "y": at[1]})
		}
		return tab.Call(ctx, "Input.dispatchTouchEvent", map[string]any{"type": what, "touchPoints": on}, nil)
	})
}
