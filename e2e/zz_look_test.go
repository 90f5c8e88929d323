package e2e

import (
	"os"
	"testing"
	"time"
	"context"
	"fmt"

	"github.com/chromedp/chromedp"
)

func snap(t *testing.T, ctx context.Context, name string) {
	png, err := chromedp.Run(ctx, chromedp.CaptureScreenshot())
	if err != nil { t.Fatal(err) }
	os.WriteFile(fmt.Sprintf("/tmp/w/shot/%s.png", name), png, 0o644)
}

func TestZZLook(t *testing.T) {
	os.MkdirAll("/tmp/w/shot", 0o755)
	a := start(t, true)
	a.bare()
	wide := browser(t, 1280, 800)
	phone := browser(t, 390, 844)
	dark := os.Getenv("DARK") != ""
	if dark {
		do(t, wide, chromedp.Navigate(a.url("/")), shows("[data-zone]"), keys("t"), chromedp.Sleep(300*time.Millisecond))
		do(t, phone, chromedp.Navigate(a.url("/")), shows("[data-zone]"), keys("t"), chromedp.Sleep(300*time.Millisecond))
	}
	for i, v := range views {
		do(t, wide, chromedp.Navigate(a.url(v.path)), shows(v.there), chromedp.Sleep(600*time.Millisecond))
		snap(t, wide, fmt.Sprintf("w%02d", i))
		do(t, phone, chromedp.Navigate(a.url(v.path)), shows(v.there), chromedp.Sleep(400*time.Millisecond))
		snap(t, phone, fmt.Sprintf("p%02d", i))
	}
}
