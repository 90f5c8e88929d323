package app

import (
	"encoding/json"
	"math"
	"slices"
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/surface"
	"rutile/internal/wire"
)

func TestExampleIsSound(t *testing.T) {
	p := example(t)
	r := checked(t, p, Want{Repairs: true})
	if r.Verdict != "sound" || r.Zones[0].Verdict != "sound" {
		t.Errorf("the example is %s", r.Verdict)
	}
	if a := r.Zones[0].Adhesion; a.Demand != .5 || a.Strength < .75 || a.Risk > .02 || a.Words != "below 2 %" {
		t.Errorf("adhesion %+v", a)
	}
	if b := r.Zones[0].Bleed; len(b) != 1 || b[0].ID != "tannin" || b[0].DeltaE > .3 {
		t.Errorf("bleed %+v", b)
	}
}

// The minutes of the steps are those of the plan, and each step's time in all
// ends where the next begins.
func TestHoursBySteps(t *testing.T) {
	p := example(t)
	z := checked(t, p, Want{Repairs: true}).Zones[0]
	sum := 0.
	for _, f := range z.Hours.Steps {
		sum += f.Value
	}
	if len(z.Hours.Steps) != 7 || math.Abs(sum/60-*z.Hours.HandsOn) > .02 {
		t.Errorf("%d steps take %.1f min, the plan %.2f h", len(z.Hours.Steps), sum, *z.Hours.HandsOn)
	}
	if w := z.Hours.Steps[5].Words; z.Hours.Steps[5].Value != 0 || w != "Wait 24 h: 24 h until the next step" {
		t.Errorf("the wait is %v, %q", z.Hours.Steps[5].Value, w)
	}
	p.Zones[0].AreaM2 = 0
	z = checked(t, p, Want{Repairs: true}).Zones[0]
	if f := z.Hours.Steps[0]; f.Value != 0 || !strings.Contains(f.Words, "not known without an area") {
		t.Errorf("without an area: %+v", f)
	}
}

func TestExampleSpoilt(t *testing.T) {
	for _, x := range []struct {
		name  string
		spoil func(*wire.Zone)
		code  string
	}{
		{"sanded through, without its blocker", func(z *wire.Zone) {
			z.Steps[1].Through = true
			z.Steps = slices.Delete(z.Steps, 3, 4)
		}, "bleed.tannin"},
		{"gloss laminate without blocker and scuff", func(z *wire.Zone) {
			z.Substrate, z.Finish, z.Gloss, z.Bleeders = "laminate_hpl", "none", "gloss", nil
			z.Steps = slices.Delete(z.Steps, 1, 4)
		}, "adhesion.key"},
	} {
		p := example(t)
		x.spoil(&p.Zones[0])
		r := checked(t, p, Want{Repairs: true})
		if r.Verdict != "fails" || !slices.ContainsFunc(r.Zones[0].Findings, func(f wire.Finding) bool { return f.Code == x.code && f.Severity == "fail" }) {
			t.Errorf("%s: %s, %+v", x.name, r.Verdict, r.Zones[0].Findings)
		}
	}
}

// The shape of a result is a contract.
func TestResultShape(t *testing.T) {
	p := zonePiece(t, `"substrate": "oak", "finish": "none", "soils": [], "steps": [{"do": "coat", "product": "paint_chalk"}]`)
	data, err := json.Marshal(checked(t, p, Want{Repairs: true}))
	if err != nil {
		t.Fatal(err)
	}
	var r map[string]any
	if err := json.Unmarshal(data, &r); err != nil {
		t.Fatal(err)
	}
	if r["format"] != "rutile/check" || r["version"] != 1. || r["verdict"] != "fails" {
		t.Errorf("top of the result: %v %v %v", r["format"], r["version"], r["verdict"])
	}
	z := r["zones"].([]any)[0].(map[string]any)
	for _, k := range []string{"id", "verdict", "adhesion", "bleed", "hiding", "chips", "hours", "findings"} {
		if _, ok := z[k]; !ok {
			t.Errorf("a zone has no %s", k)
		}
	}
	if z["hiding"] != nil || z["chips"] != nil {
		t.Error("what is not computed is not null")
	}
	a := z["adhesion"].(map[string]any)
	for _, k := range []string{"risk", "strength", "demand", "class", "weakest"} {
		if _, ok := a[k]; !ok {
			t.Errorf("adhesion has no %s", k)
		}
	}
	w := a["weakest"].(map[string]any)
	if w["step"] != 1. || w["coat"] != "paint_chalk" || w["on"] != "oak" {
		t.Errorf("weakest %v", w)
	}
	if h := z["hours"].(map[string]any); h["hands_on"] != nil || h["elapsed"].(float64) <= 0 {
		t.Errorf("hours %v", h)
	}
	f := z["findings"].([]any)[0].(map[string]any)
	for _, k := range []string{"code", "severity", "step", "title", "why", "figures", "repairs"} {
		if _, ok := f[k]; !ok {
			t.Errorf("a finding has no %s", k)
		}
	}
	if f["code"] != "bleed.tannin" || f["figures"].(map[string]any)["delta_e"].(float64) < 5 {
		t.Errorf("finding %v", f)
	}
	rp := f["repairs"].([]any)[0].(map[string]any)
	if rp["kind"] != "edit" || len(rp["steps"].([]any)) < 2 || rp["title"] == "" {
		t.Errorf("repair %v", rp)
	}
}

// A repair's steps can be put into the file as they are.
func TestRepairsAreValidSteps(t *testing.T) {
	p := zonePiece(t, `"substrate": "mahogany", "finish": "varnish_oil", "gloss": "gloss", "soils": [{"id": "grease", "level": 2}],
		"steps": [{"do": "abrade", "grit": 180, "how": "machine"}, {"do": "fill", "with": "filler_fine"}, {"do": "coat", "product": "paint_milk", "coats": 2}]`)
	r := checked(t, p, Want{Repairs: true})
	n := 0
	for _, f := range r.Zones[0].Findings {
		for _, rp := range f.Repairs {
			if rp.Kind != "edit" {
				continue
			}
			n++
			q := *p
			q.Zones = []wire.Zone{p.Zones[0]}
			q.Zones[0].Steps = rp.Steps
			data, err := json.Marshal(q)
			if err != nil {
				t.Fatal(err)
			}
			if _, err := wire.Decode(data); err != nil {
				t.Errorf("%s: %v", rp.Title, err)
			}
			if !slices.ContainsFunc(rp.Steps, func(s wire.Step) bool { return s.Do == "fill" && s.With == "filler_fine" }) {
				t.Errorf("%s loses a step that is not judged", rp.Title)
			}
		}
	}
	if n < 5 {
		t.Errorf("only %d edits", n)
	}
}

func TestAcknowledgedCautions(t *testing.T) {
	p := zonePiece(t, `"substrate": "birch", "finish": "none", "soils": [], "acknowledged": [{"code": "safety.dust", "date": "2026-11-20"}],
		"steps": [{"do": "abrade", "grit": 180}, {"do": "dust"}, {"do": "coat", "product": "shellac_clear"}]`)
	r := checked(t, p, Want{Repairs: true})
	got := map[string]string{}
	for _, f := range r.Zones[0].Findings {
		got[f.Code] = f.Acknowledged
	}
	if got["safety.dust"] != "2026-11-20" || got["safety.solvent"] != "" {
		t.Errorf("acknowledged: %v", got)
	}
	if r.Verdict != "sound" {
		t.Errorf("cautions make a sound plan %s", r.Verdict)
	}
}

func TestEmptyPiece(t *testing.T) {
	p := wire.New("Nothing")
	r := checked(t, &p, Want{Repairs: true})
	if r.Verdict != "watch" || r.Zones == nil {
		t.Errorf("a piece without zones is %s, %v", r.Verdict, r.Zones)
	}
}

// The drawing of a well-known plan, layer by layer.
func TestSectionOfTheExample(t *testing.T) {
	p := example(t)
	r := checked(t, p, Want{Repairs: true, Section: true})
	s := r.Zones[0].Section
	var got []string
	for _, l := range s.Layers {
		line := l.Kind + " " + l.Name + " " + l.Colour
		if l.Joint != nil {
			line += " " + l.Joint.Holds
		}
		got = append(got, line)
	}
	want := []string{
		"substrate Oak #c09a66",
		"finish Oil varnish #6b4a2b",
		"coat Pigmented shellac #f4f2ec well",
		"coat Chalk paint #e4e8df well",
		"coat Chalk paint #e4e8df well",
		"coat Water-based clear coat  well",
		"coat Water-based clear coat  well",
	}
	if !slices.Equal(got, want) {
		t.Errorf("the cut is\n%s\nwant\n%s", strings.Join(got, "\n"), strings.Join(want, "\n"))
	}
	if s.Grit != 220 || len(s.Source) != 1 || s.Source[0] != "tannin" {
		t.Errorf("grit %d, source %v", s.Grit, s.Source)
	}
	if s.Layers[2].Stain < .2 || s.Layers[2].Stain > .3 || s.Layers[6].Stain > s.Layers[2].Stain {
		t.Errorf("the stain does not fade: %v then %v", s.Layers[2].Stain, s.Layers[6].Stain)
	}
}

func TestSectionFollowsTheWalk(t *testing.T) {
	for _, x := range []struct {
		name, fields string
		want         []string
	}{
		{"sanded through", `"substrate": "oak", "finish": "varnish_oil", "soils": [], "steps": [{"do": "abrade", "grit": 80, "through": true}, {"do": "dust"}, {"do": "coat", "product": "paint_chalk"}]`, []string{"Oak", "Chalk paint"}},
		{"wax washed off", `"substrate": "oak", "finish": "wax", "soils": [], "steps": [{"do": "clean", "with": "white_spirit"}, {"do": "coat", "product": "shellac_clear"}]`, []string{"Oak", "Clear shellac"}},
		{"wax washed off old paint", `"substrate": "oak", "finish": "paint_porous_waxed", "soils": [], "steps": [{"do": "clean", "with": "white_spirit"}, {"do": "coat", "product": "shellac_clear"}]`, []string{"Oak", "matt porous paint", "Clear shellac"}},
		{"the plan's own wax washed off", `"substrate": "oak", "finish": "none", "soils": [], "steps": [{"do": "coat", "product": "paint_chalk"}, {"do": "coat", "product": "wax_clear"}, {"do": "clean", "with": "white_spirit"}]`, []string{"Oak", "Chalk paint"}},
		{"wax on wax washed off", `"substrate": "oak", "finish": "none", "soils": [], "steps": [{"do": "coat", "product": "paint_chalk"}, {"do": "coat", "product": "wax_clear"}, {"do": "coat", "product": "wax_dark"}, {"do": "clean", "with": "white_spirit"}]`, []string{"Oak", "Chalk paint"}},
		{"own wax on old waxed paint washed off", `"substrate": "oak", "finish": "paint_porous_waxed", "soils": [], "steps": [{"do": "coat", "product": "wax_dark"}, {"do": "clean", "with": "white_spirit"}]`, []string{"Oak", "matt porous paint"}},
		{"unknown", `"substrate": "oak", "soils": [], "steps": [{"do": "coat", "product": "paint_chalk"}]`, []string{"Oak", "Unknown, assumed wax", "Chalk paint"}},
		{"stains leave no layer", `"substrate": "oak", "finish": "none", "soils": [], "steps": [{"do": "coat", "product": "stain_water"}]`, []string{"Oak"}},
	} {
		p := zonePiece(t, x.fields)
		var got []string
		for _, l := range checked(t, p, Want{Repairs: true, Section: true}).Zones[0].Section.Layers {
			got = append(got, l.Name)
		}
		if !slices.Equal(got, x.want) {
			t.Errorf("%s: %q, want %q", x.name, got, x.want)
		}
	}
}

func TestImplied(t *testing.T) {
	for _, x := range []struct {
		fields string
		want   []string
	}{
		{`"substrate": "birch", "finish": "none"`, []string{}},
		{`"substrate": "birch", "finish": "stain_only"`, []string{"dye"}},
		{`"substrate": "oak", "finish": "none", "bleeders": []`, []string{"tannin"}},
		{`"substrate": "mahogany", "soils": [{"id": "nicotine", "level": 2}]`, []string{"tannin", "dye", "nicotine"}},
	} {
		p := zonePiece(t, x.fields)
		z := checked(t, p, Want{Repairs: true}).Zones[0]
		got := []string{}
		for _, l := range z.Rises {
			got = append(got, l.ID)
			if l.Level < 1 || l.Level > craft.MaxLevel {
				t.Errorf("%s implies %s at level %d", x.fields, l.ID, l.Level)
			}
		}
		if !slices.Equal(z.Implied, x.want) || !slices.Equal(got, x.want) || z.Implied == nil || z.Rises == nil {
			t.Errorf("%s implies %q as %q, want %q", x.fields, z.Implied, got, x.want)
		}
	}
}

func TestVocab(t *testing.T) {
	v := engine.Vocab()
	if len(v.Substrates) < 50 || len(v.Products) < 45 || len(v.Rules) < 25 || len(v.Effects) < 20 {
		t.Errorf("%d substrates, %d products, %d rules, %d effects", len(v.Substrates), len(v.Products), len(v.Rules), len(v.Effects))
	}
	data, err := json.Marshal(v)
	if err != nil {
		t.Fatal(err)
	}
	var all map[string]any
	if err := json.Unmarshal(data, &all); err != nil {
		t.Fatal(err)
	}
	lists := map[string][]any{}
	for at, words := range map[string]any{"": all, "ways.": all["ways"]} {
		for name, x := range words.(map[string]any) {
			if list, ok := x.([]any); ok {
				lists[at+name] = list
			}
		}
	}
	if len(v.Ways.Main) != v.Ways.Most {
		t.Errorf("%q are set side by side, of %d at the most", v.Ways.Main, v.Ways.Most)
	}
	for name, words := range lists {
		if len(words) == 0 {
			t.Errorf("%s is empty", name)
		}
		for _, x := range words {
			if w, ok := x.(map[string]any); x == "" || ok && (w["id"] == "" || w["name"] == "") {
				t.Errorf("%s has a word without id or name: %v", name, x)
			}
		}
	}
}

// Everything the picker offers can be put into a plan as it is.
func TestStartsAreValidSteps(t *testing.T) {
	v := engine.Vocab()
	kinds := map[string]bool{}
	for _, s := range v.Options {
		kinds[s.Step.Do] = true
		p := wire.New(s.Name)
		p.Zones = []wire.Zone{{ID: "a", Substrate: "oak", Steps: []wire.Step{s.Step}}}
		data, err := json.Marshal(p)
		if err != nil {
			t.Fatal(err)
		}
		if _, err := wire.Decode(data); err != nil || s.Group == "" || s.Name == "" {
			t.Errorf("%s: %v", s.Name, err)
		}
	}
	for _, kind := range surface.Kinds {
		if !kinds[kind.ID] {
			t.Errorf("%s is not offered", kind.ID)
		}
	}
	if n := len(v.Options); n < len(v.Cleaners)+len(v.Products)+10 {
		t.Errorf("only %d steps are offered", n)
	}
}
