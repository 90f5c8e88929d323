package e2e

import (
	"context"
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// slowed has the browser's processor work so many times slower.
func slowed(times float64) act {
	return emulates("setCPUThrottlingRate", map[string]float64{"rate": times})
}

// frames notes for every key how long it takes until a frame has been drawn after it.
const frames = `(() => {
	window.framesDrawn = [];
	addEventListener("keydown", (e) => requestAnimationFrame(() => {
		const drawn = new MessageChannel();
		drawn.port1.onmessage = () => window.framesDrawn.push(performance.now() - e.timeStamp);
		drawn.port2.postMessage(0);
	}), {capture: true});
	return true;
})()`

// redrawn comes true with the redrawn cut. To ask again and again would slow the page that is measured.
const redrawn = `new Promise((redrawn) => {
	const over = () => performance.getEntriesByName("rutile:redrawn").length > 0 && (redrawn(true), true);
	if (!over()) new PerformanceObserver((_, o) => over() && o.disconnect()).observe({type: "measure"});
})`

// BenchmarkRedraw measures from the hand's event to the frame that shows the
// changed cut, by the browser's own record of it; and to the first frame after a
// key. Each as it is, and with the processor slowed to a quarter.
func BenchmarkRedraw(b *testing.B) {
	for _, x := range []struct {
		name, path string
		ready      []act
		change     func(n int) act
	}{
		{"typing", "/pieces/12/uprights/plan", []act{chromedp.Click(chromedp.CSS(`[data-row="4"]`)), chromedp.WaitVisible(chromedp.CSS(`[data-step="4"] input[inputmode=decimal]`)), chromedp.Focus(chromedp.CSS(`[data-step="4"] input[inputmode=decimal]`))},
			func(n int) act {
				return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
					if _, err := chromedp.Evaluate[bool](`(document.activeElement.select(), true)`)(ctx, tab); err != nil {
						return err
					}
					_, err := chromedp.KeyEvent(fmt.Sprint(2+n%2))(ctx, tab)
					return err
				})
			}},
		{"moving", "/pieces/12/uprights/plan", []act{chromedp.Focus(chromedp.CSS(`[data-row="3"]`))},
			func(n int) act { return alt([]string{kb.ArrowUp, kb.ArrowDown}[n%2]) }},
		{"surveying", "/pieces/7/shells/survey", []act{chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			_, err := chromedp.Evaluate[bool](`([...document.querySelectorAll("fieldset button")].find((b) => b.innerText.startsWith("grease")).focus(), true)`)(ctx, tab)
			return err
		})},
			func(n int) act { return chromedp.KeyEvent(fmt.Sprint(1 + n%3)) }},
	} {
		for _, slow := range []float64{4, 1} {
			if slow == 1 && testing.Short() {
				continue // that it works at all, one of the two shows
			}
			b.Run(fmt.Sprintf("%s/slow=%.0f", x.name, slow), func(b *testing.B) {
				a := start(b, true)
				ctx := browser(b, 1280, 800)
				do(b, ctx, chromedp.Navigate(a.url(x.path)), chromedp.WaitVisible(chromedp.CSS(`[data-verdict]`)))
				do(b, ctx, x.ready...)
				do(b, ctx, chromedp.Sleep(500*time.Millisecond), slowed(slow)) // no hand is quicker
				if _, err := chromedp.Run(ctx, chromedp.Evaluate[bool](frames)); err != nil {
					b.Fatal(err)
				}
				var times []float64
				for b.Loop() {
					do(b, ctx, x.change(len(times)))
					if _, err := chromedp.Run(ctx, chromedp.Evaluate[bool](redrawn, chromedp.EvalAwaitPromise)); err != nil {
						b.Fatal(err)
					}
					got, err := chromedp.Run(ctx, chromedp.Evaluate[[]float64](`(() => {
						const all = performance.getEntriesByName("rutile:redrawn").map((e) => e.duration);
						performance.clearMeasures("rutile:redrawn");
						return all;
					})()`))
					if err != nil {
						b.Fatal(err)
					}
					times = append(times, got...)
				}
				drawn, err := chromedp.Run(ctx, chromedp.Evaluate[[]float64](`window.framesDrawn`))
				if err != nil || len(drawn) == 0 {
					b.Fatal(drawn, err)
				}
				slices.Sort(drawn)
				first := times[0]
				slices.Sort(times)
				b.ReportMetric(first, "ms-first")
				b.ReportMetric(times[len(times)/2], "ms-median")
				b.ReportMetric(times[len(times)*95/100], "ms-p95")
				b.ReportMetric(drawn[len(drawn)/2], "ms-frame")
				b.ReportMetric(drawn[len(drawn)*95/100], "ms-frame-p95")
				b.ReportMetric(0, "ns/op")
			})
		}
	}
}
