package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
)

// TestShots draws the main views from the demo data. It runs only where a
// folder for the pictures is given: make shots.
func TestShots(t *testing.T) {
	if *shots == "" {
		t.Skip("pictures are drawn by make shots")
	}
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/")), sees("Terracotta planters"))
	shoot(t, ctx, "pieces")
	do(t, ctx, press("Laminate fronts"), verdict("fails"), sees("will not hold"))
	shoot(t, ctx, "zone-fails")
	do(t, ctx, press("The figures behind it"), chromedp.ScrollIntoView(chromedp.CSS(`[data-code="adhesion.weakest"]`)))
	shoot(t, ctx, "figures")
	do(t, ctx, press("then prime with bonding primer"), verdict("sound"), saved(), seesInView("[data-verdict]"))
	shoot(t, ctx, "zone-repaired")
	do(t, ctx, chromedp.Navigate(a.url("/pieces/3/column")), verdict("fails"), sees("will show"))
	shoot(t, ctx, "zone-bleeds")
	do(t, ctx, press("Mineral paint"), press("Add a step"), sees("Pigmented shellac"))
	shoot(t, ctx, "step-editing")
	phone := browser(t, 390, 844)
	do(t, phone, chromedp.Navigate(a.url("/pieces/3/column")), verdict("fails"), sees("will show"))
	shoot(t, phone, "phone")
}
