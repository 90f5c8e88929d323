package e2e

import (
	"context"
	"fmt"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

// scrolled brings an element to the top of what scrolls.
func scrolled(css string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return until(ctx, tab, fmt.Sprintf(`(document.querySelector(%q)?.scrollIntoView(), true)`, css), css)
	})
}

// TestShots draws the main views from the demo data, Today at the width of a phone. It runs only where a folder for the
// pictures is given: make shots.
func TestShots(t *testing.T) {
	if *shots == "" {
		t.Skip("pictures are drawn by make shots")
	}
	a := start(t, true)
	wide, phone := browser(t, 1280, 800), browser(t, 390, 844)
	still := chromedp.Sleep(300 * time.Millisecond)
	for _, v := range []struct{ name, path, there string }{
		{"pieces", "/", "[data-zone]"},
		{"plan", "/pieces/11/column/plan", "[data-verdict]"},
		{"survey", "/pieces/12/uprights/survey", of("soils")},
		{"job-sheet", "/pieces/12/uprights/sheet", "article"},
		{"parts", "/pieces/13/-/parts", "svg [data-part]"},
	} {
		do(t, wide, chromedp.Navigate(a.url(v.path)), shows(v.there), still)
		shoot(t, wide, v.name)
	}
	for _, v := range []struct{ name, path, there string }{
		{"identify", "/pieces/4/panels/identify", "[data-made]"},
	} {
		do(t, wide, chromedp.Navigate(a.url(v.path)), shows(v.there), still)
		shoot(t, wide, v.name)
	}
	do(t, wide, chromedp.Navigate(a.url("/pieces/13/fronts/plan")), verdict("fails"), click(`[data-see~="primer_bond_wb"]`), verdict("sound"), still)
	shoot(t, wide, "fix-preview")
	do(t, wide, chromedp.Navigate(a.url("/pieces/12/uprights/compare")), shows("[data-take]"), still)
	shoot(t, wide, "compare")
	do(t, wide, chromedp.Navigate(a.url("/pieces/19/-/plan")), click(`[data-do="plan-all"]`), shows("tbody tr"), scrolled(`[aria-label="Trips"]`), still)
	shoot(t, wide, "whole-plan")
	do(t, wide, chromedp.Navigate(a.url("/pieces/11/column/section")), side("after", "sound"), click(`[data-moment="3"]`), still)
	shoot(t, wide, "cross-section")
	do(t, phone, chromedp.Navigate(a.url("/today")), shows("[data-card]"), still)
	shoot(t, phone, "today")
	pairing := startWorkshop(t, true)
	paired := pairing.phone(true)
	paired.pair("Phone by the window")
	do(t, wide, chromedp.Navigate(pairing.url("/devices")), shows("[data-device]"), click(`[data-do="pair"]`), shows("[data-code] svg path"), still)
	shoot(t, wide, "devices")
	do(t, wide, chromedp.Navigate(a.url("/pieces/28/outside/work")), shows("[data-entry] img"), still)
	shoot(t, wide, "work")
	do(t, wide, chromedp.Navigate(a.url("/shelf")), shows("[data-can]"), still)
	shoot(t, wide, "shelf")
	do(t, wide, chromedp.Navigate(a.url("/pieces/24/outside/amounts")), shows("[data-item]"), still)
	shoot(t, wide, "amounts")
	do(t, wide, chromedp.Navigate(a.url("/pieces/24/outside/mix")), shows("[data-portions]"), choose("settings.measure", "cups"), contains("[data-portions]", "cup"), still)
	shoot(t, wide, "mix")
	a.call("POST", "/api/clocks", `{"id":"pot","kind":"pot","need_s":14400,"for":"Fog, powder","piece":"Hat trunk"}`, 200)
	do(t, wide, chromedp.Navigate(a.url("/pieces/15/doors/mix?coat=4-1&card=lay")), turned("order"), still)
	shoot(t, wide, "laying-card")
	do(t, wide, chromedp.Navigate(a.url("/colours?want=%23a3b09a")), shows("[data-blend]"), click(`[data-recipe="yard-blend-green"] [data-do="make-again"]`), shows("[data-result]"), still)
	shoot(t, wide, "colours")
	do(t, wide, chromedp.Navigate(a.url("/rules#film.thirsty")), shows(`[id="film.thirsty"]`), still)
	shoot(t, wide, "rules")
}
