package format

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"reflect"
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/identify"
)

func brownTable(t testing.TB) *Piece { return exampleOf(t, "brown-table") }

func exampleOf(t testing.TB, name string) *Piece {
	t.Helper()
	data, err := os.ReadFile("../../examples/" + name + ".json")
	if err != nil {
		t.Fatal(err)
	}
	p, err := Decode(data)
	if err != nil {
		t.Fatal(err)
	}
	return p
}

func TestBadEvidenceIsNamed(t *testing.T) {
	for _, x := range []struct{ name, fields, path, says string }{
		{"the same test twice", `"evidence": [{"test": "alcohol", "outcome": "sticky"}, {"test": "uv", "outcome": "none"}, {"test": "alcohol", "outcome": "nothing"}]`,
			"$.zones[0].evidence[2].test", `evidence[0] answers this test already, with "sticky"`},
		{"a test that is never made", `"evidence": [{"test": "flame", "outcome": "nothing"}]`, "$.zones[0].evidence[0].test", "not a known id"},
		{"an outcome of another test", `"evidence": [{"test": "alcohol", "outcome": "blooms"}]`, "$.zones[0].evidence[0].outcome", "the test alcohol has no such outcome; known are not_sure, sticky"},
		{"no outcome", `"evidence": [{"test": "alcohol"}]`, "$.zones[0].evidence[0].outcome", "missing"},
		{"a day in no calendar", `"evidence": [{"test": "alcohol", "outcome": "sticky", "date": "2026-02-30"}]`, "$.zones[0].evidence[0].date", "there is no such day"},
		{"a lead test in no calendar", `"lead_test": {"result": "negative", "by": "laboratory", "date": "2026-13-01"}`, "$.zones[0].lead_test.date", "there is no such day"},
		{"a lead test without its day", `"lead_test": {"result": "negative", "by": "laboratory"}`, "$.zones[0].lead_test.date", "missing"},
		{"a lead test by a neighbour", `"lead_test": {"result": "negative", "by": "neighbour", "date": "2026-11-01"}`, "$.zones[0].lead_test.by", "not a known id"},
		{"a class beyond the scale", `"patches": [{"id": "a", "product": "paint_chalk", "over": "varnish_film", "on": "board", "class": 6, "rated": "2026-11-01"}]`, "$.zones[0].patches[0].class", "too large, at most 5"},
		{"a rating without its day", `"patches": [{"id": "a", "product": "paint_chalk", "over": "varnish_film", "on": "board", "class": 3}]`, "$.zones[0].patches[0].rated", "missing"},
		{"rated before it was laid", `"patches": [{"id": "a", "product": "paint_chalk", "over": "varnish_film", "on": "board", "made": "2026-11-10", "class": 3, "rated": "2026-11-01"}]`, "$.zones[0].patches[0].rated", "rated before it was laid"},
		{"a patch twice", `"patches": [{"id": "a", "product": "paint_chalk", "over": "varnish_film", "on": "board"}, {"id": "a", "product": "paint_chalk", "over": "varnish_film", "on": "board"}]`, "$.zones[0].patches[1].id", "has this id already"},
		{"a reading of the time", `"readings": [{"field": "gloss_gu", "value": 3, "at": "noon", "by": "meter"}]`, "$.zones[0].readings[0].at", "not in the form 2026-11-24T10:15"},
	} {
		_, err := Decode([]byte(zoneJSON(`"substrate": "oak", ` + x.fields)))
		var e *Error
		if !errors.As(err, &e) || e.Path != x.path || !strings.Contains(e.Says, x.says) {
			t.Errorf("%s: %v", x.name, err)
		}
	}
}

func TestEvidenceIsReadAndWritten(t *testing.T) {
	p := brownTable(t)
	data, err := json.Marshal(p)
	if err != nil {
		t.Fatal(err)
	}
	q, err := Decode(data)
	if err != nil || !reflect.DeepEqual(p, q) {
		t.Errorf("it comes back otherwise: %v", err)
	}
	if z := q.Zones[0]; len(z.Evidence) != 5 || z.Evidence[4].Note == "" || *z.Patches[0].Class != 4 {
		t.Errorf("%+v", z)
	}
}

// Beliefs, the belief as the survey would say it, and what the check makes of it.
func TestIdentifyAPiece(t *testing.T) {
	c, p := craft.Default(), brownTable(t)
	r, err := IdentifyPiece(c, p, "", CheckOptions{Site: usual})
	if err != nil || len(r.Zones) != 1 || r.Format != "rutile/identify" {
		t.Fatal(r, err)
	}
	z := r.Zones[0]
	if z.Made[0].ID != "oak" || z.On[0].ID != "shellac" || z.On[0].P < .9 || len(z.Answers) != 5 || !z.Done {
		t.Errorf("%+v", z)
	}
	if z.Take == nil || z.Take.Substrate != "oak" || z.Take.Finish != "shellac" || z.Take.Sure != "likely" || z.Take.Says != "Oak under shellac" {
		t.Errorf("to take: %+v", z.Take)
	}
	sum := 0.
	for _, w := range z.Walked {
		sum += w.P
		if w.Verdict == "" {
			t.Errorf("%s has no verdict", w.Name)
		}
	}
	if sum < .85 || sum > 1.001 {
		t.Errorf("what is walked makes up %.2f", sum)
	}
	var b bytes.Buffer
	if err := r.Text(&b, "Brown table"); err != nil || !strings.Contains(b.String(), "Open-grained wood (oak), likely; under shellac, as good as certain.") || !strings.Contains(b.String(), "answered: What does alcohol do? Sticky within a minute") {
		t.Errorf("%v\n%s", err, b.String())
	}
	// Taken, it is tested; another finish is spoken against, in the check as well.
	known := func(finish string) *Known {
		p.Zones[0].Substrate, p.Zones[0].Finish = "oak", finish
		return Check(c, p, CheckOptions{Site: usual}).Zones[0].Known
	}
	if k := known("shellac"); k == nil || k.Finish.Sure != "tested" || k.Substrate.Sure != "tested" || k.Walked != 1 {
		t.Errorf("%+v", k)
	}
	if k := known("varnish_oil"); k == nil || k.Finish.Sure != "doubted" || k.Walked < 2 || !strings.HasPrefix(k.Finish.Says, "the tests speak against it") {
		t.Errorf("%+v", k)
	}
	p.Zones[0].Evidence = nil
	if k := known("shellac"); k != nil {
		t.Errorf("nothing was tested, and %+v is said", k)
	}
	if _, err := IdentifyPiece(c, p, "nowhere", CheckOptions{}); err == nil || !strings.Contains(err.Error(), `"nowhere": the piece has no such zone`) {
		t.Error(err)
	}
}

// Answers that fit nothing, and tests that cannot be made, are told and take
// nothing down with them.
func TestEvidenceThatFitsNothing(t *testing.T) {
	c := craft.Default()
	p, err := Decode([]byte(zoneJSON(`"substrate": "unknown_wood", "evidence": [{"test": "face", "outcome": "glassy"}, {"test": "edge", "outcome": "fibres"}, {"test": "knock", "outcome": "ring"},
		{"test": "water", "outcome": "soaks"}, {"test": "fingernail", "outcome": "furrow"}, {"test": "smell", "outcome": "plastic"}],
		"steps": [{"do": "coat", "product": "paint_chalk"}]`)))
	if err != nil {
		t.Fatal(err)
	}
	z := Identify(c, p, 0, CheckOptions{Site: usual})
	if !z.Excluded || z.Take != nil || !strings.Contains(z.Says, "fit nothing") || len(z.Against) == 0 || len(z.Against[0].Tests) == 0 {
		t.Errorf("%+v", z)
	}
	r := Check(c, p, CheckOptions{Site: usual}).Zones[0]
	if r.Verdict == "sound" {
		t.Error("a surface that fits nothing makes a sound plan")
	}
	p.Zones[0].Substrate = "steel"
	z = Identify(c, p, 0, CheckOptions{Site: usual})
	if len(z.Aside) != 3 || !strings.Contains(z.Aside[0].Why, "cannot be made on metal") {
		t.Errorf("%+v", z.Aside)
	}
}

func TestHowPatchesStand(t *testing.T) {
	c := craft.Default()
	p := brownTable(t)
	p.Zones[0].Substrate, p.Zones[0].Finish = "oak", "shellac"
	class := 1
	p.Zones[0].Patches = []Patch{
		{ID: "a", Product: "shellac_pigmented", Over: "shellac_film", On: "hidden"},
		{ID: "b", Product: "shellac_pigmented", Over: "shellac_film", On: "hidden", Made: "2026-11-20", Look: "2026-11-27"},
		{ID: "c", Product: "shellac_pigmented", Over: "shellac_film", On: "hidden", Made: "2026-11-20", Look: "2026-11-21"},
		{ID: "d", Product: "paint_chalk", Over: "varnish_film", On: "board", Made: "2026-11-20", Rated: "2026-11-22", Class: &class},
	}
	states := func(today string) string {
		var w []string
		for _, s := range Check(c, p, CheckOptions{Site: usual, Today: today}).Zones[0].Patches {
			w = append(w, s.State)
			if s.Name == "" || s.Says == "" || s.LookIn < 1 {
				t.Errorf("%+v", s)
			}
		}
		return strings.Join(w, " ")
	}
	if got := states("2026-11-25"); got != "planned curing ready rated" {
		t.Error(got)
	}
	if got := states("2026-12-25"); got != "planned ready ready rated" {
		t.Error(got)
	}
	z := Check(c, p, CheckOptions{Site: usual}).Zones[0]
	if !strings.Contains(z.Patches[3].Says, "The plan as it stands has no such bond") || z.Bonds[0].Boards != 0 {
		t.Errorf("%+v", z.Patches[3])
	}
	p.Zones[0].Patches[0].Class, p.Zones[0].Patches[0].Rated, p.Zones[0].Patches[0].Made, p.Zones[0].Patches[0].Look = &class, "2026-11-22", "2026-11-20", "2026-11-24"
	z = Check(c, p, CheckOptions{Site: usual}).Zones[0]
	if s := z.Patches[0].Says; !strings.Contains(s, "when it was still soft") || !strings.Contains(s, "The bond goes down from 0.") {
		t.Error(s)
	}
	if b := z.Bonds[0]; b.Boards != 1 || b.Before <= b.Strength || b.Holds == "well" {
		t.Errorf("%+v", b)
	}
	// What a bond was made under is what a new patch of it takes along.
	for _, b := range z.Bonds {
		if b.Under.Key <= 0 || b.Under.Cap <= 0 || b.LookIn < 1 || b.LookIn > 7 {
			t.Errorf("%+v", b)
		}
	}
}

// Whatever is answered, beliefs add up, nothing breaks, and the next test is one
// that was not made.
func TestAnyEvidence(t *testing.T) {
	c := craft.Default()
	n := 0
	for i := range c.Substrates {
		for start := range identify.Tests {
			var ev []Answer
			for k := range 6 {
				x := &identify.Tests[(start+k*7)%len(identify.Tests)]
				ev = append(ev, Answer{Test: x.ID, Outcome: x.Outcomes[(start+k+i)%len(x.Outcomes)].ID})
			}
			ev = dedup(ev)
			p := &Piece{Zones: []Zone{{ID: "z", Substrate: c.Substrates[i].ID, Finish: "unknown", Evidence: ev}}}
			z := Identify(c, p, 0, CheckOptions{Site: usual})
			sum := 0.
			for _, m := range z.Made {
				sum += m.P
			}
			if sum < .9 || sum > 1.001 || len(z.Walked) == 0 || z.Says == "" {
				t.Fatalf("%s with %v: %.3f, %+v", c.Substrates[i].ID, ev, sum, z)
			}
			for _, x := range z.Next {
				if n := len(identify.Tests[identify.TestNamed(x.Test)].Outcomes); len(x.Rare) > 0 && len(x.Rare) > n-3 {
					t.Fatalf("%s leaves %d of %d outcomes", x.Test, n-len(x.Rare), n)
				}
				for _, e := range ev {
					if e.Test == x.Test {
						t.Fatalf("%s is asked again", x.Test)
					}
				}
			}
			n++
		}
	}
	if n < 1000 {
		t.Errorf("only %d", n)
	}
}

func dedup(ev []Answer) []Answer {
	var out []Answer
	for _, e := range ev {
		if !strings.Contains(fmt.Sprint(out), "{"+e.Test+" ") {
			out = append(out, e)
		}
	}
	return out
}

func BenchmarkIdentifyWithAPlan(b *testing.B) {
	c, p := craft.Default(), brownTable(b)
	p.Zones[0].Evidence = p.Zones[0].Evidence[:2]
	for b.Loop() {
		Identify(c, p, 0, CheckOptions{Site: usual})
	}
}

// Mending is work on the old coat too.
func TestNothingIsMendedDryOnASuspect(t *testing.T) {
	how := func(fields string) string {
		p, err := Decode([]byte(`{"format": "rutile/piece", "version": 1, "made": 1935, "zones": [{"id": "a", "substrate": "pine", "finish": "paint_alkyd_old", "defects": [{"id": "gouge", "count": 1, "length_cm": 4}]` + fields + `}]}`))
		if err != nil {
			t.Fatal(err)
		}
		items := LookOver(craft.Default(), p, CheckOptions{Site: usual}, nil).Zones[0].Mending.Items
		if len(items) != 1 {
			t.Fatal(items)
		}
		return items[0].How
	}
	if s := how(""); s != heldByLead {
		t.Error(s)
	}
	if s := how(`, "lead_test": {"result": "negative", "by": "assessor", "date": "2026-11-20"}`); s == heldByLead {
		t.Error(s)
	}
}

// The page is told which sheen a meter's reading stands for.
func TestAReadingOfGlossIsASheen(t *testing.T) {
	for units, want := range map[string]string{"4": "dead_flat", "37": "satin", "90": "gloss"} {
		p, err := Decode([]byte(zoneJSON(`"substrate": "oak", "finish": "varnish_oil", "gloss": "matt", "gloss_gu": ` + units)))
		if err != nil {
			t.Fatal(err)
		}
		if got := Check(craft.Default(), p, CheckOptions{Site: usual}).Zones[0].Gloss; got != want {
			t.Errorf("%s units are %s", units, got)
		}
	}
}
