// Package e2e drives the real page in a headless browser, against the real
// server on a real database.
package e2e

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"io/fs"
	"net"
	"net/http"
	"os"
	"os/exec"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"rutile/core/clock"
	"rutile/core/craft"
	"rutile/core/stage"
	usecases "rutile/internal/app"
	"rutile/internal/authority"
	"rutile/internal/demo"
	"rutile/internal/instruments"
	"rutile/internal/server"
	"rutile/internal/store"
	"rutile/web"
)

var shots = flag.String("shots", "", "folder to write the pictures of the main views to")

// noon is when everything here happens: the air of the instruments is the same in
// every run.
var noon = time.Date(2026, 11, 24, 11, 20, 0, 0, time.UTC)

// act is one thing a person does, or waits for.
type act = chromedp.Action[chromedp.Void]

// app is a running server with a folder of its own, which can be killed and
// started again at the same address.
type app struct {
	t    testing.TB
	dir  string
	addr string
	stop func()

	// page and stages stand in the place of the built ones where they are given.
	page   fs.FS
	stages []stage.Entry
	// times are the machine's clocks, where a test sets them by hand.
	times func() clock.Moment
	// now is the server's clock; nil for noon, always.
	now func() time.Time
	// workshop is the address for devices in the workshop's network, where the application is open to them.
	workshop string
	// authority vouches for that address.
	authority *authority.Authority
	// refuse is asked of every request; what is not 0 is the status that it is refused with.
	refuse func(*http.Request) int
}

func start(t testing.TB, withDemo bool) *app { return refusing(t, withDemo, nil) }

// refusing starts the application, with requests refused.
func refusing(t testing.TB, withDemo bool, refuse func(*http.Request) int) *app {
	t.Helper()
	a := unstarted(t)
	a.refuse = refuse
	a.begin(withDemo)
	return a
}

// unstarted is the application with a folder of its own, before it is started.
func unstarted(t testing.TB) *app {
	t.Helper()
	if _, err := fs.Stat(web.Dist(), "index.html"); err != nil {
		t.Fatal("the page is not built: run make build first")
	}
	return &app{t: t, dir: t.TempDir(), addr: "127.0.0.1:0", page: web.Dist()}
}

// demoFolder is the folder of a demo studio at noon. It is filled once, and copied for each test.
var demoFolder = sync.OnceValues(func() (string, error) {
	dir, err := os.MkdirTemp("", "rutile-e2e-")
	if err != nil {
		return "", err
	}
	afterAll(func() { _ = os.RemoveAll(dir) })
	s, err := store.Open(dir)
	if err != nil {
		return "", err
	}
	return dir, errors.Join(demo.Fill(context.Background(), s, noon), s.Close())
})

// inSoak leaves a test to the long runs: in short ones another test walks over the same screens, and what is behind them is
// tested without a browser.
func inSoak(t *testing.T) {
	t.Helper()
	if testing.Short() {
		t.Skip("runs in make soak")
	}
}

// atTheEnd is done after all tests.
var atTheEnd struct {
	sync.Mutex
	all []func()
}

func afterAll(f func()) {
	atTheEnd.Lock()
	defer atTheEnd.Unlock()
	atTheEnd.all = append(atTheEnd.all, f)
}

// begin fills the folder and starts the server.
func (a *app) begin(withDemo bool) {
	t := a.t
	t.Helper()
	if withDemo {
		dir, err := demoFolder()
		if err != nil {
			t.Fatal(err)
		}
		if err := os.CopyFS(a.dir, os.DirFS(dir)); err != nil {
			t.Fatal(err)
		}
	}
	a.up(withDemo)
	t.Cleanup(func() { a.down() })
}

func (a *app) up(isDemo bool) {
	a.t.Helper()
	l, err := net.Listen("tcp", a.addr)
	if err != nil {
		a.t.Fatal(err)
	}
	a.addr = l.Addr().String()
	s, err := store.Open(a.dir)
	if err != nil {
		a.t.Fatal(err)
	}
	ctx, cancel := context.WithCancel(context.Background())
	done := make(chan error, 2)
	engine := usecases.NewEngine(craft.Default())
	if a.stages != nil {
		engine.Stages = a.stages
	}
	studio := usecases.NewStudio(engine, usecases.StudioOptions{
		Store: s, Site: demo.Site, Instruments: instruments.Simulated(demo.InstrumentSeed), Now: a.clock, Times: a.times, Demo: isDemo,
	})
	options := server.Options{Studio: studio, Page: a.page}
	open := 1
	if a.workshop == "" {
		handler := server.New(options)
		go func() { done <- server.Serve(ctx, l, a.refusals(handler)) }()
	} else {
		open = 2
		here, workshop := a.opened(studio, &options)
		lan, err := net.Listen("tcp", a.workshop)
		if err != nil {
			a.t.Fatal(err)
		}
		a.workshop = lan.Addr().String()
		go func() { done <- server.Serve(ctx, l, a.refusals(here)) }()
		go func() {
			done <- server.ServeTLS(ctx, lan, a.refusals(workshop), a.authority.TLS(time.Now, func() []string { return nil }))
		}()
	}
	a.stop = func() {
		cancel()
		for range open {
			if err := <-done; err != nil {
				a.t.Errorf("server: %v", err)
			}
		}
		if err := s.Close(); err != nil {
			a.t.Errorf("store: %v", err)
		}
	}
}

// refusals puts what a test refuses before a handler.
func (a *app) refusals(handler http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if a.refuse != nil {
			if status := a.refuse(r); status != 0 {
				w.Header().Set("Content-Type", "application/problem+json")
				w.WriteHeader(status)
				_, _ = io.WriteString(w, `{"detail": "The test will not have it."}`)
				return
			}
		}
		handler.ServeHTTP(w, r)
	})
}

// clock is the moment that it is at the server.
func (a *app) clock() time.Time {
	if a.now != nil {
		return a.now()
	}
	return noon
}

func (a *app) down() {
	if a.stop != nil {
		a.stop()
		a.stop = nil
	}
}

func (a *app) url(path string) string { return "http://" + a.addr + path }

// browser opens a tab of the given width, with a profile of its own; what goes wrong in the page's
// script or against its content policy fails the test.
func browser(t testing.TB, width, height int) context.Context {
	t.Helper()
	parent, err := oneBrowser()
	if err != nil {
		t.Fatal(err)
	}
	ctx, stop := chromedp.NewContext(parent, chromedp.WithNewBrowserContext())
	watched(t, ctx, stop, width, height)
	return ctx
}

// oneBrowser is the browser of all tests that need none of their own. It is started once.
var oneBrowser = sync.OnceValues(func() (context.Context, error) {
	dir, err := os.MkdirTemp("", "rutile-e2e-browser-")
	if err != nil {
		return nil, err
	}
	options, err := browserOptions(chromedp.UserDataDir(dir))
	if err != nil {
		return nil, err
	}
	alloc, stopAlloc := chromedp.NewExecAllocator(context.Background(), options...)
	ctx, stop := chromedp.NewContext(alloc)
	afterAll(func() { stop(); stopAlloc(); _ = os.RemoveAll(dir) })
	return ctx, chromedp.Do(ctx, chromedp.Navigate("about:blank")) // this starts the browser
})

// ownBrowser starts a browser, and returns what closes it before the test ends.
func ownBrowser(t testing.TB, width, height int, more ...chromedp.ExecAllocatorOption) (ctx context.Context, closes func()) {
	t.Helper()
	options, err := browserOptions(more...)
	if err != nil {
		t.Fatal(err)
	}
	alloc, stopAlloc := chromedp.NewExecAllocator(context.Background(), options...)
	ctx, stop := chromedp.NewContext(alloc)
	closes = func() { stop(); stopAlloc() }
	watched(t, ctx, closes, width, height)
	return ctx, closes
}

func browserOptions(more ...chromedp.ExecAllocatorOption) ([]chromedp.ExecAllocatorOption, error) {
	path := ""
	for _, name := range []string{"chromium-headless-shell", "chromium"} {
		if p, err := exec.LookPath(name); err == nil {
			path = p
			break
		}
	}
	if path == "" {
		return nil, errors.New("no chromium: make test installs it")
	}
	options := append(chromedp.DefaultExecAllocatorOptions[:],
		chromedp.ExecPath(path), chromedp.NoSandbox, chromedp.DisableGPU,
		chromedp.Flag("disable-quic", true), chromedp.Flag("disable-component-update", true),
		chromedp.Flag("font-render-hinting", "none"))
	return append(options, more...), nil
}

// watched opens a tab and closes it when the test ends; what its page complains of fails the test.
func watched(t testing.TB, ctx context.Context, closes func(), width, height int) {
	t.Helper()
	t.Cleanup(closes)
	messages := chromedp.Console(ctx) // this opens the tab
	complaints := make(chan string, 100)
	go func() {
		defer close(complaints)
		for m, err := range messages {
			if err != nil {
				return
			}
			if m.Type == "error" || m.Type == chromedp.ConsoleException {
				select {
				case complaints <- m.Text:
				default:
				}
			}
		}
	}()
	t.Cleanup(func() {
		closes()
		for text := range complaints {
			// A request that the server's absence or refusal broke is the
			// subject of a test and no fault of the page; so is a screen that a test has stopped.
			if !strings.Contains(text, "Failed to load resource") && !strings.Contains(text, "stopped on purpose") {
				t.Errorf("the page complained: %s", text)
			}
		}
	})
	do(t, ctx, chromedp.EmulateViewport(int64(width), int64(height)))
}

// emulates has the browser be on another machine, or elsewhere, in one respect.
func emulates(what string, params any) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return tab.Call(ctx, "Emulation."+what, params, nil)
	})
}

// do does one thing after another; each has half a minute.
func do(t testing.TB, ctx context.Context, acts ...act) {
	t.Helper()
	for i, a := range acts {
		limited, stop := context.WithTimeout(ctx, 30*time.Second)
		err := chromedp.Do(limited, a)
		stop()
		if err == nil {
			continue
		}
		body, _ := chromedp.Run(ctx, chromedp.Evaluate[string](`document.querySelector("main")?.innerText.slice(-2500) ?? ""`))
		t.Fatalf("action %d: %v\nthe page says:\n%s", i+1, err, body)
	}
}

// click presses what a selector finds, in the dialog on top where one is open, once it is there and can
// be pressed.
func click(css string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		var err error
		// An answer of the server may draw it anew just before it is hit.
		for range 5 {
			err = until(ctx, tab, fmt.Sprintf(`(() => {
				document.querySelector("[data-e2e]")?.removeAttribute("data-e2e");
				const top = [...document.querySelectorAll("dialog[open]")].at(-1) ?? document;
				const e = [...top.querySelectorAll(%[1]q)].find((e) => !e.disabled && e.getClientRects().length > 0);
				if (e) {
					e.setAttribute("data-e2e", "");
					window.missed = undefined;
					addEventListener("pointerdown", (d) => { window.missed = !d.target.closest(%[1]q); }, {capture: true, once: true});
				}
				return !!e;
			})()`, css), css+" to press")
			if err != nil {
				return err
			}
			soon, stop := context.WithTimeout(ctx, 3*time.Second)
			_, err = chromedp.Click(chromedp.CSS("[data-e2e]"))(soon, tab)
			stop()
			if err != nil {
				continue
			}
			// What moves just before it is pressed is pressed again.
			if missed, _ := chromedp.Evaluate[bool](`window.missed === true`)(ctx, tab); !missed {
				return nil
			}
			err = fmt.Errorf("%s moves away from every press", css)
		}
		return err
	})
}

// drag takes one element and lets it go on another.
func drag(from, to string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		p, err := chromedp.Evaluate[[]float64](fmt.Sprintf(`[%q, %q].flatMap((css) => {
			const r = document.querySelector(css).getBoundingClientRect();
			return [r.x + r.width / 2, r.y + r.height / 2];
		})`, from, to))(ctx, tab)
		if err != nil {
			return err
		}
		_, err = chromedp.DragAndDropXY(p[0], p[1], p[2], p[3])(ctx, tab)
		return err
	})
}

// shows waits until there is what a selector finds, hides until there is nothing of it.
func shows(css string) act { return found(css, true) }
func hides(css string) act { return found(css, false) }

func found(css string, wanted bool) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return until(ctx, tab, fmt.Sprintf(`!!document.querySelector(%q) === %t`, css, wanted), fmt.Sprintf("%s, there: %t", css, wanted))
	})
}

// row is a step of the plan by its number and what it is done with.
func row(n int, is string) string { return fmt.Sprintf(`[data-row="%d"][data-is=%q]`, n, is) }

// counts waits until a selector finds so many.
func counts(css string, n int) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return until(ctx, tab, fmt.Sprintf(`document.querySelectorAll(%q).length === %d`, css, n), fmt.Sprintf("%d of %s", n, css))
	})
}

// verdict waits until the open zone has a verdict.
func verdict(v string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return until(ctx, tab, fmt.Sprintf(`document.querySelector("[data-verdict]")?.dataset.verdict === %q`, v), "verdict "+v)
	})
}

// seesInView waits until an element stands wholly inside the window.
func seesInView(css string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return until(ctx, tab, fmt.Sprintf(`(() => {
			const r = document.querySelector(%q)?.getBoundingClientRect();
			return !!r && r.top >= 0 && r.bottom <= innerHeight;
		})()`, css), css+" in view")
	})
}

// saved waits until the page says that everything is saved.
func saved() act { return shows(`[data-save="saved"]`) }

func until(ctx context.Context, tab *chromedp.Target, js, what string) error {
	deadline := time.Now().Add(25 * time.Second)
	for pause := 8 * time.Millisecond; ; pause = min(pause*3/2, 100*time.Millisecond) {
		// While the page is being changed for another there is nothing to ask.
		if ok, err := chromedp.Evaluate[bool](js)(ctx, tab); err == nil && ok {
			return nil
		}
		if time.Now().After(deadline) {
			return fmt.Errorf("waited in vain for %s", what)
		}
		time.Sleep(pause) // asking takes time from what is waited for
	}
}

// choose picks an option of a field's select, as a person would.
func choose(field, value string) act { return set("HTMLSelectElement", "change", field, value) }

// put puts a text into a field at one stroke, as a paste or a picked day.
func put(field, value string) act { return set("HTMLInputElement", "input", field, value) }

func set(kind, event, field, value string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		return until(ctx, tab, fmt.Sprintf(`(() => {
			const f = document.querySelector(%q);
			if (!f) return false;
			Object.getOwnPropertyDescriptor(%s.prototype, "value").set.call(f, %q);
			f.dispatchEvent(new Event(%q, {bubbles: true}));
			return true;
		})()`, of(field), kind, value, event), "the field "+field)
	})
}

// of is the selector of a field by its name; a selector stays what it is.
func of(field string) string {
	if strings.HasPrefix(field, "[") || strings.HasPrefix(field, "dialog") {
		return field
	}
	return fmt.Sprintf(`[data-field=%q]`, field)
}

// typeIn replaces what stands in a field.
func typeIn(field, text string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		if err := until(ctx, tab, fmt.Sprintf(`(document.querySelector(%q)?.select(), !!document.querySelector(%q))`, of(field), of(field)), "the field "+field); err != nil {
			return err
		}
		_, err := chromedp.SendKeys(chromedp.CSS(of(field)), text)(ctx, tab)
		return err
	})
}

// pick types into the list of what can be chosen, and chooses what is meant.
func pick(words string) act {
	return chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
		for _, a := range []act{focused("[role=combobox]"), keys(words), shows("[data-picker] [data-option], [role=listbox] [data-option]"), chromedp.KeyEvent(kb.Enter)} {
			if _, err := a(ctx, tab); err != nil {
				return err
			}
		}
		return nil
	})
}

// addStep adds a step on top of the plan.
func addStep(words string) []act {
	return []act{click("[data-add]"), pick(words), hides("[data-picker]")}
}

// value is what stands in a field.
func value(t testing.TB, ctx context.Context, field string) string {
	t.Helper()
	s, err := chromedp.Run(ctx, chromedp.Evaluate[string](fmt.Sprintf(`document.querySelector(%q).value`, of(field))))
	if err != nil {
		t.Fatal(err)
	}
	return s
}

// place is where an element stands in the window: left, top, width, height, in px.
func place(t testing.TB, ctx context.Context, css string) (at [4]float64) {
	t.Helper()
	at, err := chromedp.Run(ctx, chromedp.Evaluate[[4]float64](fmt.Sprintf(`(() => {
		const r = document.querySelector(%q).getBoundingClientRect();
		return [r.x, r.y, r.width, r.height];
	})()`, css)))
	if err != nil {
		t.Fatal(err)
	}
	return at
}

func shoot(t *testing.T, ctx context.Context, name string) {
	t.Helper()
	png, err := chromedp.Run(ctx, chromedp.CaptureScreenshot())
	if err != nil {
		t.Fatal(err)
	}
	if err := os.WriteFile(*shots+"/"+name+".png", png, 0o644); err != nil {
		t.Fatal(err)
	}
}
