package e2e

import (
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

func TestZZ(t *testing.T) {
	*shots = "/tmp/shots"
	a := start(t, true)
	ctx := browser(t, 1280, 800)
	do(t, ctx, chromedp.Navigate(a.url("/pieces/13/fronts")), verdict("fails"), sees("Chalk paint"), press("Detergent wash"),press("Add after it"), sees("Makes sense next"), chromedp.Sleep(300*time.Millisecond))
	shoot(t, ctx, "z-picker")
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/uprights/plan")), sees("Chalk paint"), press("Pigmented shellac"), chromedp.Sleep(300*time.Millisecond))
	shoot(t, ctx, "z-editor")
	phone := browser(t, 390, 844)
	do(t, phone, chromedp.Navigate(a.url("/pieces/11/column")), verdict("fails"), sees("will show"))
	shoot(t, phone, "z-phone")
	do(t, ctx, chromedp.Navigate(a.url("/pieces/12/uprights/sheet")), sees("job sheet"))
	shoot(t, ctx, "z-sheet")
}
