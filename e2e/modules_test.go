package e2e

import (
	"context"
	_ "embed"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/evanw/esbuild/pkg/api"
)

//go:embed walk.js
var walkJS string

// modules opens an empty tab with the page's plain modules in it, as they are in the source: what
// they export is in the variable modules.
func modules(t *testing.T) context.Context {
	t.Helper()
	const entry = `
		export * from "./src/session/session";
		export * from "./src/session/history";
		export * from "./src/session/merged";
		export * from "./src/session/typed";
		export * from "./src/section/layout";
		export * from "./src/piece/edit";
		export * from "./src/ui/clock";
		export * from "./src/ui/units";
		export * from "./src/work/times";
		export * from "./src/today/onward";
		export * from "./src/clocks/merged";
	`
	b := api.Build(api.BuildOptions{
		Stdin: &api.StdinOptions{Contents: entry, ResolveDir: "../web", Loader: api.LoaderTS}, Bundle: true, Format: api.FormatIIFE, GlobalName: "modules",
	})
	for _, e := range b.Errors {
		t.Fatal(e.Text)
	}
	ctx := browser(t, 400, 300)
	for _, js := range []string{string(b.OutputFiles[0].Contents) + ";globalThis.modules = modules; true", walkJS + "; true"} {
		if _, err := chromedp.Run(ctx, chromedp.Evaluate[bool](js)); err != nil {
			t.Fatal(err)
		}
	}
	return ctx
}

// ask has an expression over the modules worked out.
func ask[T any](t *testing.T, ctx context.Context, js string) T {
	t.Helper()
	text, err := chromedp.Run(ctx, chromedp.Evaluate[string]("JSON.stringify("+js+") ?? 'null'"))
	if err != nil {
		t.Fatalf("%v: %s", err, js)
	}
	var out T
	if err := json.Unmarshal([]byte(text), &out); err != nil {
		t.Fatalf("%v: %.300s", err, text)
	}
	return out
}

// doing is one thing that happens in a walk.
type doing struct {
	Do      string `json:"do"`
	Tab     string `json:"tab,omitempty"`
	Field   int    `json:"field"`
	Text    string `json:"text,omitempty"`
	Keep    bool   `json:"keep,omitempty"`
	Arrives bool   `json:"arrives,omitempty"`
	MS      int    `json:"ms,omitempty"`
}

// tabNow is a tab as it stands after a doing.
type tabNow struct {
	Tab, Is string
	Names   []string
	Areas   []float64
	Undo    [][]string
	Typed   []struct{ Zone, Text, Is string }
	Unsaved bool
}

// noted is one line of what a walk has written down: of how all stands, what has changed.
type noted struct {
	Do     *doing
	State  []string
	Adopts []string // a tab, and whose draft

	Save, Added string // by which tab
	Base, Doc   []string

	At     []tabNow
	Open   []string
	Drafts [][]string
	Undo   [][]string
	Areas  []float64
}

type walked struct{ Log []noted }

const walkFields = 3

// randomWalk is a list of things that happen to a piece that is open in up to three tabs, and then
// all of it put right: the server answers, and every tab is opened and settled.
func randomWalk(r *rand.Rand) []doing {
	tabs := []string{"a", "b", "c"}
	out := []doing{{Do: "answered", Tab: "a"}}
	text := 0
	removed := false
	for n := 20 + r.IntN(40); n > 0; n-- {
		tab := tabs[min(r.IntN(3), r.IntN(3))]
		switch x := r.IntN(100); {
		case x < 26:
			text++
			d := doing{Do: "edit", Tab: tab, Field: r.IntN(walkFields), Text: fmt.Sprintf("%s%d", tab, text), MS: r.IntN(2500)}
			if r.IntN(25) == 0 {
				d.Text = "bad" + d.Text // the server will not take it
			}
			out = append(out, d)
			if d.Text[0] == 'b' && len(d.Text) > 3 && r.IntN(2) == 0 {
				out = append(out, doing{Do: "time", MS: 500}, doing{Do: "answered", Tab: tab})
			}
		case x < 31:
			text++
			d := doing{Do: "type", Tab: tab, Field: r.IntN(walkFields), Text: fmt.Sprint(text)}
			switch r.IntN(8) {
			case 0:
				d.Text = "wide"
			case 1:
				d = doing{Do: "empty", Tab: tab, Field: d.Field}
			}
			out = append(out, d)
		case x < 35:
			out = append(out, doing{Do: "undo", Tab: tab})
		case x < 37:
			out = append(out, doing{Do: "redo", Tab: tab})
		case x < 52:
			out = append(out, doing{Do: "time", MS: []int{50, 500, 3500}[r.IntN(3)]})
		case x < 70:
			out = append(out, doing{Do: "answered", Tab: tab})
		case x < 76:
			out = append(out, doing{Do: "lost", Tab: tab})
		case x < 81:
			out = append(out, doing{Do: "unheard", Tab: tab})
		case x < 84:
			out = append(out, doing{Do: "tick", Tab: tab})
		case x < 88:
			out = append(out, doing{Do: "reload", Tab: tab, Arrives: r.IntN(2) == 0}, doing{Do: "answered", Tab: tab})
		case x < 91:
			out = append(out, doing{Do: "close", Tab: tab})
		case x < 96:
			out = append(out, doing{Do: "open", Tab: tab})
			if r.IntN(4) == 0 {
				out = append(out, doing{Do: "lost", Tab: tab}, doing{Do: "tick", Tab: tab})
			}
			out = append(out, doing{Do: "answered", Tab: tab})
		case x < 99:
			out = append(out, doing{Do: "settle", Tab: tab, Keep: r.IntN(2) == 0})
		default:
			if !removed && r.IntN(4) == 0 {
				removed = true
				out = append(out, doing{Do: "remove"}, doing{Do: "tick", Tab: tab})
			}
		}
	}
	return append(out, healed(tabs)...)
}

// healed has everything put right: twice, since one tab's end may be news to another.
func healed(tabs []string) []doing {
	var out []doing
	for range 2 {
		for _, tab := range tabs {
			out = append(out, doing{Do: "open", Tab: tab}, doing{Do: "heal", Tab: tab})
		}
		for _, tab := range tabs {
			out = append(out, doing{Do: "close", Tab: tab})
		}
	}
	return out
}

// model follows a walk and says what must hold.
type model struct {
	shown        map[string]map[string]bool // by tab, the texts that have ever stood on its screen or in its undo
	typed        map[string]bool            // texts that somebody typed and nobody has knowingly replaced
	taken        map[string]bool            // texts that the server has had
	tabs         map[string]tabNow
	open         []string
	drafts, undo [][]string
}

// over are texts that a tab's own hand has replaced between two states of its screen.
func (m *model) over(before, after tabNow) {
	for i, was := range before.Names {
		if i < len(after.Names) && after.Names[i] != was {
			delete(m.typed, was)
		}
	}
}

func (m *model) follow(w *walked) error {
	m.taken[""] = true
	hand := map[string]bool{"edit": true, "undo": true, "redo": true}
	var d *doing
	for n := range w.Log {
		x := &w.Log[n]
		switch {
		case x.Do != nil:
			d = x.Do
			if d.Do == "reload" || d.Do == "close" {
				delete(m.tabs, d.Tab)
			}
		case x.Adopts != nil:
			// What another tab has worked on is gone on with here.
			for name := range m.shown[x.Adopts[1]] {
				m.see(x.Adopts[0], name)
			}
		case x.Save != "" || x.Added != "":
			for _, name := range x.Doc {
				m.taken[name] = true
			}
			// What a save takes away, its tab has seen.
			for i, was := range x.Base {
				if was != x.Doc[i] && was != "" && !m.shown[x.Save][was] {
					return fmt.Errorf("line %d: tab %s overwrote %q, which it had never seen", n, x.Save, was)
				}
			}
		case x.State == nil:
			if x.Open != nil {
				m.open = x.Open
			}
			if x.Drafts != nil {
				m.drafts = x.Drafts
			}
			if x.Undo != nil {
				m.undo = x.Undo
			}
			for _, tab := range x.At {
				if err := m.tab(d, tab, hand[d.Do] && d.Tab == tab.Tab); err != nil {
					return fmt.Errorf("line %d, %+v: %w", n, *d, err)
				}
			}
			if err := m.nothingLost(); err != nil {
				return fmt.Errorf("line %d, %+v: %w", n, *d, err)
			}
		}
	}
	return nil
}

func (m *model) see(tab, name string) {
	if m.shown[tab] == nil {
		m.shown[tab] = map[string]bool{}
	}
	m.shown[tab][name] = true
}

// tab follows how one tab has changed; byHand tells that the painter has changed what it shows.
func (m *model) tab(d *doing, tab tabNow, byHand bool) error {
	before, was := m.tabs[tab.Tab]
	if was && byHand {
		m.over(before, tab)
	}
	// Who takes the other version gives up their own knowingly: undo has it.
	if before.Is == "conflict" && tab.Is == "saved" {
		for i, was := range before.Names {
			if was != tab.Names[i] && !slices.ContainsFunc(tab.Undo, func(p []string) bool { return slices.Contains(p, was) }) {
				return fmt.Errorf("tab %s took the other version, and undo does not have %q", tab.Tab, was)
			}
		}
		m.over(before, tab)
	}
	if d.Do == "edit" && byHand && slices.Contains(tab.Names, d.Text) {
		m.typed[d.Text] = true
	}
	for _, names := range slices.Concat([][]string{tab.Names}, tab.Undo) {
		for _, name := range names {
			m.see(tab.Tab, name)
		}
	}
	// Saved is said of what the server has taken, and of nothing else.
	if tab.Is == "saved" {
		for _, name := range tab.Names {
			if !m.taken[name] {
				return fmt.Errorf("tab %s says saved, and the server has never had %q", tab.Tab, name)
			}
		}
		if tab.Unsaved {
			return fmt.Errorf("tab %s is saved and not", tab.Tab)
		}
	}
	// A size that was typed holds until it is read.
	if d.Do == "type" && d.Tab == tab.Tab && before.Names != nil {
		if !slices.ContainsFunc(tab.Typed, func(x struct{ Zone, Text, Is string }) bool { return x.Text == d.Text && x.Is == "asked" }) {
			return fmt.Errorf("tab %s does not have %q, which was just typed: %+v", tab.Tab, d.Text, tab.Typed)
		}
	}
	for _, x := range tab.Typed {
		i := int(x.Zone[1] - '0')
		if x.Is == "read" && before.Names != nil && slices.ContainsFunc(before.Typed, func(y struct{ Zone, Text, Is string }) bool {
			return y.Zone == x.Zone && y.Text == x.Text && y.Is != "read"
		}) && fmt.Sprint(tab.Areas[i]) != x.Text {
			return fmt.Errorf("tab %s has read %q, and %v stands there", tab.Tab, x.Text, tab.Areas[i])
		}
	}
	m.tabs[tab.Tab] = tab
	return nil
}

// nothingLost tells that every text somebody typed is somewhere: with the server, on a screen, in
// what undo goes back to, or in a draft.
func (m *model) nothingLost() error {
	for name := range m.typed {
		if m.taken[name] {
			continue
		}
		there := func(p []string) bool { return slices.Contains(p, name) }
		have := slices.ContainsFunc(m.drafts, there) || slices.ContainsFunc(m.undo, there)
		for _, tab := range m.open {
			t := m.tabs[tab]
			have = have || there(t.Names) || slices.ContainsFunc(t.Undo, there)
		}
		if !have {
			return fmt.Errorf("%q is lost", name)
		}
	}
	return nil
}

// Whatever happens to a piece that is open in several tabs, to the server and to what goes between
// them: nothing typed is lost, and nothing of another tab is overwritten unseen. In the end all of it
// is saved.
func TestRandomWalksOverTheSession(t *testing.T) {
	t.Parallel()
	ctx := modules(t)
	walks, batch := 2000, 50
	if testing.Short() {
		walks = 800
	}
	states := map[string]int{}
	for from := 0; from < walks; from += batch {
		all := make([][]doing, batch)
		for i := range all {
			all[i] = randomWalk(rand.New(rand.NewPCG(uint64(from+i), 17)))
		}
		in, err := json.Marshal(all)
		if err != nil {
			t.Fatal(err)
		}
		out := ask[[]walked](t, ctx, fmt.Sprintf("%s.map((w) => walk(w, %d))", in, walkFields))
		for i := range out {
			m := &model{shown: map[string]map[string]bool{}, typed: map[string]bool{}, taken: map[string]bool{}, tabs: map[string]tabNow{}}
			err := m.follow(&out[i])
			if err == nil {
				err = m.ended()
			}
			for _, x := range out[i].Log {
				if x.State != nil {
					states[strings.Join(x.State, " · ")]++
				}
			}
			if err != nil {
				t.Errorf("walk %d: %v", from+i, err)
				if testing.Verbose() {
					for n, x := range out[i].Log {
						line, _ := json.Marshal(x)
						t.Logf("%d %.600s", n, line)
					}
				}
				return
			}
		}
	}
	// The picture in the documents is true: whatever a walk went is drawn, and the walks went wherever it leads.
	drawn := sessionPicture(t)
	for way, n := range states {
		if !drawn[way] {
			t.Errorf("a walk went %s, which docs/session.md does not draw (%d times)", way, n)
		}
	}
	for way := range drawn {
		if states[way] == 0 && seldom[way] == [2]string{} && !testing.Short() {
			t.Errorf("docs/session.md draws %s, and no walk went there", way)
		}
	}
	t.Logf("%d walks, %d kinds of change of state", walks, len(states))
}

// seldom are ways that walks do not go, or hardly ever: a session and an event.
var seldom = map[string][2]string{
	"refused · redone · edited":   {`at("refused", {history: {past: [], future: [JSON.stringify(piece("other"))]}})`, `{type: "redone"}`},
	"refused · not read · edited": {`at("refused", wide)`, `{type: "not read", key: keyOf(place), text: "wide", why: "no", at: 1}`},
	"saved · not read · edited":   {`at("saved", wide)`, `{type: "not read", key: keyOf(place), text: "wide", why: "no", at: 1}`},
	"refused · seen · saved":      {`at("refused")`, `{type: "seen", since: 3, saved: saved("mine"), changes: []}`},
	"refused · seen · edited":     {`at("refused", {sent: [written(piece("other"))]})`, `{type: "seen", since: 3, saved: saved("other"), changes: []}`},
	"refused · not seen · gone":   {`at("refused")`, `{type: "not seen", since: 3, status: 404}`},
}

func TestWaysThatAreSeldomGone(t *testing.T) {
	t.Parallel()
	ctx := modules(t)
	to := func(session, event string) string {
		return ask[string](t, ctx, fmt.Sprintf(`(() => {
			const { begin, next, keyOf, spelled, written } = modules;
			const piece = (name) => ({format: "rutile/piece", version: 1, name, zones: [{id: "a", substrate: "oak", area_m2: 2}]});
			const saved = (name) => ({id: 7, rev: 4, created: "then", piece: piece(name)});
			const place = {zone: "a"};
			const wide = {typed: {[keyOf(place)]: {place, text: "wide", stands: spelled(piece("mine"), place), is: "asked"}}};
			const at = (is, more) => ({...begin(7)[0], state: {is}, rev: 3, created: "then", piece: piece("mine"), ...more});
			return next(%s, %s)[0].state.is;
		})()`, session, event))
	}
	drawn := sessionPicture(t)
	states := map[string]bool{}
	for way := range drawn {
		at := strings.Split(way, " · ")
		states[at[0]], states[at[2]] = true, true
	}
	for way, x := range seldom {
		want := way[strings.LastIndex(way, " ")+1:]
		if got := to(x[0], x[1]); got != want || !drawn[way] {
			t.Errorf("%s: it comes to %s", way, got)
		}
	}
	if len(states) != 11 {
		t.Errorf("%d states are drawn", len(states))
	}
	for is := range states {
		if got := to(fmt.Sprintf("at(%q)", is), `{type: "removed"}`); got != "over" {
			t.Errorf("removed while %s: it comes to %s", is, got)
		}
	}
}

// sessionPicture are the ways that docs/session.md draws between the states, as "from · event · to". Where
// it says one of every state, TestWaysThatAreSeldomGone tries that.
func sessionPicture(t *testing.T) map[string]bool {
	t.Helper()
	doc, err := os.ReadFile("../docs/session.md")
	if err != nil {
		t.Fatal(err)
	}
	out := map[string]bool{}
	for _, m := range regexp.MustCompile(`(?m)^ +(\w+) --> (\w+): (.+)$`).FindAllStringSubmatch(string(doc), -1) {
		for _, event := range strings.Split(m[3], ",") {
			out[m[1]+" · "+strings.TrimSpace(event)+" · "+m[2]] = true
		}
	}
	if len(out) == 0 {
		t.Fatal("docs/session.md draws nothing")
	}
	return out
}

// ended tells that a walk that was put right ends with everything sent: no draft is left but of what
// the server will not take, and nothing but that was not taken.
func (m *model) ended() error {
	bad := func(name string) bool { return strings.HasPrefix(name, "bad") }
	for _, names := range m.drafts {
		if !slices.ContainsFunc(names, bad) {
			return fmt.Errorf("in the end %q is still kept in the browser", names)
		}
	}
	for name := range m.typed {
		if !m.taken[name] && !bad(name) && len(m.drafts) == 0 {
			return fmt.Errorf("in the end the server has never had %q", name)
		}
	}
	return nil
}

// A wait of 0 h is not a wait left open: another tab's revision that differs in nothing else is another version.
func TestAWaitOfNothingIsAWait(t *testing.T) {
	t.Parallel()
	ctx := modules(t)
	const piece = `(wait_h) => ({format: "rutile/piece", version: 1, zones: [{id: "a", substrate: "oak", steps: [{do: "coat", product: "paint_chalk", wait_h}]}]})`
	for _, x := range []struct {
		js   string
		want string
	}{
		{`written(p(0)) === written(p(undefined))`, "false"},
		{`written(p(0)) === written(p(0))`, "true"},
		// What the server leaves out says nothing; an empty list of soils says that somebody has looked.
		{`written({...p(1), name: "", parts: [], zones: [{veneer: false, defects: [], way: undefined}]}) === written({zones: [{}], version: 1, format: "rutile/piece"})`, "true"},
		{`written({zones: [{soils: []}]}) === written({zones: [{}]})`, "false"},
		// Saved with a wait left open; another tab has set it to 0 h, or the other way round.
		{`seen(undefined, 0)`, `"conflict"`},
		{`seen(0, undefined)`, `"conflict"`},
		{`seen(0, 0)`, `"saved"`},
	} {
		got := ask[json.RawMessage](t, ctx, fmt.Sprintf(`(() => {
			const {begin, next, written} = modules, p = %s;
			const seen = (mine, theirs) => {
				let [s] = begin(1);
				[s] = next(s, {type: "loaded", saved: {id: 1, rev: 1, created: "then", piece: p(mine)}});
				[s] = next(s, {type: "seen", since: 1, saved: {id: 1, rev: 2, created: "then", piece: p(theirs)}, changes: []});
				return s.state.is;
			};
			return %s;
		})()`, piece, x.js))
		if string(got) != x.want {
			t.Errorf("%s is %s", x.js, got)
		}
	}
}

// The letters typed into one field are one change; another field, a pause or a press is another.
func TestHistory(t *testing.T) {
	t.Parallel()
	ctx := modules(t)
	type state struct{ Past, Future []string }
	h := ask[[]state](t, ctx, `(() => {
		const {NO_HISTORY, withChange, branched, stepBack, stepForth} = modules;
		const p = (name, coats) => ({name, coats});
		const names = (h) => ({past: h.past.map((x) => JSON.parse(x).name), future: h.future.map((x) => JSON.parse(x).name)});
		const out = [];
		let h = NO_HISTORY, at = 1000, now = p("", 1);
		const to = (next, ms) => { at += ms; h = withChange(h, now, next, at); now = next; out.push(names(h)); };
		to(p("C", 1), 0); to(p("Ch", 1), 100); to(p("Chest", 1), 1400); // one word
		to(p("Chest 2", 1), 1600);                                      // after a pause
		to(p("Chest 3", 2), 100);                                       // two places at once
		let back = stepBack(h, now); out.push(names(back.history));
		let forth = stepForth(back.history, back.piece); out.push(names(forth.history));
		h = back.history; now = back.piece; to(p("Box", 1), 5000);      // what was undone is gone
		out.push(names(branched(h, p("Theirs", 1))));
		for (let i = 0; i < 150; i++) to(p("n" + i, 1), 5000);
		return [...out.slice(0, 9), {past: [String(h.past.length)], future: []}];
	})()`)
	want := []state{
		{[]string{""}, []string{}}, {[]string{""}, []string{}}, {[]string{""}, []string{}}, {[]string{"", "Chest"}, []string{}}, {[]string{"", "Chest", "Chest 2"}, []string{}},
		{[]string{"", "Chest"}, []string{"Chest 3"}}, {[]string{"", "Chest", "Chest 2"}, []string{}}, {[]string{"", "Chest", "Chest 2"}, []string{}},
		{[]string{"", "Chest", "Chest 2", "Theirs"}, []string{}}, {[]string{"100"}, []string{}},
	}
	if len(h) != len(want) {
		t.Fatalf("%+v", h)
	}
	for i := range want {
		if !slices.Equal(h[i].Past, want[i].Past) || !slices.Equal(h[i].Future, want[i].Future) {
			t.Errorf("%d: %q and %q, and not %q and %q", i, h[i].Past, h[i].Future, want[i].Past, want[i].Future)
		}
	}
}

// The cut stands on its foot, layer on layer without a gap, each thick enough to be pressed; findings
// stand under the lowest coat of their step, the worst of those at one place.
func TestLayoutOfTheCut(t *testing.T) {
	t.Parallel()
	ctx := modules(t)
	type drawing struct {
		Height float64
		Bands  []struct{ Top, Bottom float64 }
		Faults []struct {
			Y       float64
			Verdict string
		}
	}
	for _, x := range []struct {
		coats int
		wish  float64
		fit   string
	}{{1, 300, ""}, {4, 300, ""}, {12, 300, ""}, {12, 300, "must fit"}, {30, 285, "must fit"}, {4, 900, ""}} {
		d := ask[drawing](t, ctx, fmt.Sprintf(`(() => {
			const layers = [{kind: "substrate", name: "Oak", family: "", microns: 0}];
			for (let i = 0; i < %d; i++) layers.push({kind: "coat", name: "c", family: "", microns: 10 + 20 * (i %% 3), step: 2 + i, coat: 1, joint: {holds: "well", strength: 1}});
			const s = {layers, marks: [{step: 1, do: "clean", on: 0}], worn: []};
			const d = modules.layCut(s, 200, %v, %q || undefined);
			return {...d, faults: modules.faultsAt(s, d, new Map([[1, "watch"], [2, "fails"]]))};
		})()`, x.coats, x.wish, x.fit))
		if len(d.Bands) != x.coats+1 {
			t.Fatalf("%+v: %d bands", x, len(d.Bands))
		}
		for i, b := range d.Bands {
			least := 17.
			if x.fit != "" {
				least = 4
			}
			if b.Bottom-b.Top < least {
				t.Errorf("%+v: band %d is %v high", x, i, b.Bottom-b.Top)
			}
			if i > 0 && b.Bottom != d.Bands[i-1].Top {
				t.Errorf("%+v: band %d stands at %v, and what is below ends at %v", x, i, b.Bottom, d.Bands[i-1].Top)
			}
		}
		if d.Bands[0].Bottom > d.Height || d.Bands[x.coats].Top < 0 {
			t.Errorf("%+v: it does not stay in its %v", x, d.Height)
		}
		if x.fit != "" && x.coats < 20 && d.Height > x.wish+1 {
			t.Errorf("%+v: it is %v high", x, d.Height)
		}
		// Both findings are seen at the face of the material: the worse one stands there.
		if len(d.Faults) != 1 || d.Faults[0].Verdict != "fails" || d.Faults[0].Y != d.Bands[0].Top {
			t.Errorf("%+v: %+v", x, d.Faults)
		}
	}
}

// Days are counted as the calendar has them, over the change of the clocks too.
func TestDays(t *testing.T) {
	t.Parallel()
	ctx := modules(t)
	for _, x := range [][3]string{{"2026-03-28", "2", "2026-03-30"}, {"2026-10-24", "2", "2026-10-26"}, {"2026-12-31", "1", "2027-01-01"}, {"2028-02-28", "1", "2028-02-29"}, {"2026-11-24", "0", "2026-11-24"}} {
		if got := ask[string](t, ctx, fmt.Sprintf(`modules.daysAfter(%q, %s)`, x[0], x[1])); got != x[2] {
			t.Errorf("%s days after %s is %s", x[1], x[0], got)
		}
	}
}

// Two changes of what was drawn, the second made before the first was: both stand.
func TestMerged(t *testing.T) {
	t.Parallel()
	ctx := modules(t)
	for _, x := range []struct{ first, later, want string }{
		{`{...p, name: "Box"}`, `{...p, made: 1900}`, `{"name":"Box","zones":[{"id":"a","steps":[1,2]},{"id":"b"}],"made":1900}`},
		{`{...p, name: "Box"}`, `{...p, name: "Chest"}`, `{"name":"Chest","zones":[{"id":"a","steps":[1,2]},{"id":"b"}]}`},
		{`{...p, zones: [{...p.zones[0], gloss: "matt"}, p.zones[1]]}`, `{...p, zones: [p.zones[0], {...p.zones[1], gloss: "satin"}]}`, `{"name":"","zones":[{"id":"a","steps":[1,2],"gloss":"matt"},{"id":"b","gloss":"satin"}]}`},
		{`{...p, zones: [{...p.zones[0], steps: [1, 2, 3]}, p.zones[1]]}`, `{...p, zones: [{...p.zones[0], steps: [2]}, p.zones[1]]}`, `{"name":"","zones":[{"id":"a","steps":[2]},{"id":"b"}]}`},
		{`{...p, zones: [p.zones[1]]}`, `{...p, name: "Box"}`, `{"name":"Box","zones":[{"id":"b"}]}`},
		{`p`, `{...p, name: undefined}`, `{"zones":[{"id":"a","steps":[1,2]},{"id":"b"}]}`},
	} {
		got := ask[json.RawMessage](t, ctx, fmt.Sprintf(`(() => { const p = {name: "", zones: [{id: "a", steps: [1, 2]}, {id: "b"}]}; return modules.merged(p, %s, %s); })()`, x.first, x.later))
		if string(got) != x.want {
			t.Errorf("%s and %s: %s", x.first, x.later, got)
		}
	}
}

// Counts, dates and times are written in one way, in the studio's units.
func TestCountsAndDates(t *testing.T) {
	t.Parallel()
	ctx := modules(t)
	for js, want := range map[string]string{
		`modules.count(1, "zone", "zones")`:              "1 zone",
		`modules.count(0, "zone", "zones")`:              "0 zones",
		`modules.count(12, "row was", "rows were")`:      "12 rows were",
		`modules.date("2026-11-05", "metric")`:           "5 Nov 2026",
		`modules.date("2026-11-05", "us")`:               "Nov 5, 2026",
		`modules.date("soon", "us")`:                     "soon",
		`modules.clock("2026-01-31T14:05:09", "metric")`: "31 Jan 2026, 14:05",
		`modules.clock("2026-01-31T14:05", "us")`:        "Jan 31, 2026, 2:05 pm",
		`modules.hour("2026-01-31T00:30", "us")`:         "12:30 am",
		`modules.hour("2026-01-31T12:00", "us")`:         "12:00 pm",
		`modules.hour("2026-01-31T00:30", "metric")`:     "00:30",
		`modules.zoneTitle({id: "back-panel_2"})`:        "Back panel 2",
		`modules.zoneTitle({id: "top", name: "My top"})`: "My top",
		`modules.list(["Top", "Doors", "Plinth"])`:       "Top, Doors and Plinth",
		`modules.temp(15.94, "metric")`:                  "15.9 °C",
	} {
		if got := ask[string](t, ctx, js); got != want {
			t.Errorf("%s is %q, not %q", js, got, want)
		}
	}
}
