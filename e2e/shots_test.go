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

// TestShots draws the main views from the demo data, the most looked at in
// both themes and at the width of a phone. It runs only where a folder for the pictures is
// given: make shots.
func TestShots(t *testing.T) {
	if *shots == "" {
		t.Skip("pictures are drawn by make shots")
	}
	a := start(t, true)
	wide, phone := browser(t, 1280, 800), browser(t, 390, 844)
	still := chromedp.Sleep(300 * time.Millisecond)
	theme := func(ctx context.Context, name string) {
		if _, err := chromedp.Run(ctx, chromedp.Evaluate[bool](fmt.Sprintf(`(document.documentElement.dataset.theme = %q, true)`, name))); err != nil {
			t.Fatal(err)
		}
	}
	for _, v := range []struct{ name, path, says string }{
		{"bench", "/", "Terracotta planters"},
		{"plan", "/pieces/11/column/plan", "Dye will show"},
		{"look-over", "/pieces/12/uprights/look-over", "Lying on it"},
		{"job-sheet", "/pieces/12/uprights/sheet", "job sheet"},
		{"parts", "/pieces/13/-/parts", "drawn to scale"},
	} {
		do(t, wide, chromedp.Navigate(a.url(v.path)), sees(v.says), still)
		shoot(t, wide, v.name)
		if v.name == "bench" {
			theme(wide, "evening")
			do(t, wide, still)
			shoot(t, wide, v.name+"-evening")
		}
		if v.name == "bench" || v.name == "plan" {
			do(t, phone, chromedp.Navigate(a.url(v.path)), sees(v.says), still)
			shoot(t, phone, v.name+"-phone")
		}
	}
	for _, v := range []struct{ name, path, says string }{
		{"identify", "/pieces/4/panels/identify", "What it probably is"},
		{"lead", "/pieces/8/straps/lead", "decides nothing"},
	} {
		do(t, wide, chromedp.Navigate(a.url(v.path)), sees(v.says), still)
		shoot(t, wide, v.name)
	}
	do(t, wide, chromedp.Navigate(a.url("/pieces/13/counter/patches")), sees("Plan a patch test"), press("Rate it again"), sees("Which of these does it look like?"),
		scrolled(`[data-patch="patch-1"]`), still)
	shoot(t, wide, "patches")
	do(t, wide, chromedp.Navigate(a.url("/pieces/13/-/apart")), sees("What comes off"), still)
	shoot(t, wide, "apart")
	do(t, wide, chromedp.Navigate(a.url("/pieces/8/-/photos")), sees("Marker 1 points at"), still)
	shoot(t, wide, "photos")
	const repair = "Sand with 220 and dust off, then prime with bonding primer"
	do(t, wide, chromedp.Navigate(a.url("/pieces/13/fronts/plan")), verdict("fails"), press("See it first: "+repair), verdict("sound"), still)
	shoot(t, wide, "repair-looked-at")
	do(t, wide, chromedp.Navigate(a.url("/pieces/12/uprights/ways")), sees("Take it"), still)
	shoot(t, wide, "compare")
	do(t, wide, chromedp.Navigate(a.url("/pieces/19/-/plan")), press("Plan what is not planned"), sees("trips to the bench"), still)
	shoot(t, wide, "whole-plan")
	do(t, wide, chromedp.Navigate(a.url("/pieces/17/outside/plan")), verdict("fails"), press("The figures behind it"), sees("share that chips"), still)
	shoot(t, wide, "flaking")
	do(t, wide, chromedp.Navigate(a.url("/pieces/11/column/cut")), side("After it", "Sound"), press("Year 1"), sees("anyone sees it"), still)
	shoot(t, wide, "cut")
	do(t, wide, chromedp.Navigate(a.url("/rules#film.thirsty")), sees("speak now"), still)
	shoot(t, wide, "rules")
}
