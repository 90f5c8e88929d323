package app

import (
	"encoding/json"
	"fmt"
	"reflect"
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/identify"
	"rutile/internal/wire"
)

func TestEvidenceIsReadAndWritten(t *testing.T) {
	p := brownTable(t)
	data, err := json.Marshal(p)
	if err != nil {
		t.Fatal(err)
	}
	q, err := wire.Decode(data)
	if err != nil || !reflect.DeepEqual(p, q) {
		t.Errorf("it comes back otherwise: %v", err)
	}
	if z := q.Zones[0]; len(z.Evidence) != 5 || z.Evidence[4].Note == "" || *z.Patches[0].Class != 4 {
		t.Errorf("%+v", z)
	}
}

// Beliefs, the belief as the survey would say it, and what the check makes of it.
func TestIdentifyAPiece(t *testing.T) {
	p := brownTable(t)
	r, err := job(p).IdentifyPiece(ctx, "")
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
	// Taken, it is tested; another finish is spoken against, in the check as well.
	known := func(finish string) *wire.Known {
		p.Zones[0].Substrate, p.Zones[0].Finish = "oak", finish
		return checked(t, p, Want{Repairs: true}).Zones[0].Known
	}
	if k := known("shellac"); k == nil || k.Finish.Sure != "tested" || k.Substrate.Sure != "tested" || k.Walked != 1 {
		t.Errorf("%+v", k)
	}
	if k := known("varnish_oil"); k == nil || k.Finish.Sure != "doubted" || k.Walked < 2 || !strings.HasPrefix(k.Finish.Says, "the tests contradict it") {
		t.Errorf("%+v", k)
	}
	p.Zones[0].Evidence = nil
	if k := known("shellac"); k != nil {
		t.Errorf("nothing was tested, and %+v is said", k)
	}
	if _, err := job(p).IdentifyPiece(ctx, "nowhere"); err == nil || !strings.Contains(err.Error(), `"nowhere": the piece has no such zone`) {
		t.Error(err)
	}
}

func identified(t testing.TB, p *wire.Piece) wire.Identification {
	t.Helper()
	z, err := job(p).Identify(ctx, 0)
	if err != nil {
		t.Fatal(err)
	}
	return z
}

// Answers that fit nothing, and tests that cannot be made, are told and take
// nothing down with them.
func TestEvidenceThatFitsNothing(t *testing.T) {
	p := zonePiece(t, `"substrate": "unknown_wood", "evidence": [{"test": "face", "outcome": "glassy"}, {"test": "edge", "outcome": "fibres"}, {"test": "knock", "outcome": "ring"},
		{"test": "water", "outcome": "soaks"}, {"test": "fingernail", "outcome": "furrow"}, {"test": "smell", "outcome": "plastic"}],
		"steps": [{"do": "coat", "product": "paint_chalk"}]`)
	z := identified(t, p)
	if !z.Excluded || z.Take != nil || !strings.Contains(z.Says, "fit no known material") || len(z.Contradictions) == 0 || len(z.Contradictions[0].Tests) == 0 {
		t.Errorf("%+v", z)
	}
	r := checked(t, p, Want{Repairs: true}).Zones[0]
	if r.Verdict == "sound" {
		t.Error("a surface that fits nothing makes a sound plan")
	}
	p.Zones[0].Substrate = "steel"
	z = identified(t, p)
	if len(z.NotCounted) != 3 || !strings.Contains(z.NotCounted[0].Why, "does not work on metal") {
		t.Errorf("%+v", z.NotCounted)
	}
}

func checkedOn(t testing.TB, p *wire.Piece, today string) wire.CheckResult {
	t.Helper()
	w := usual
	w.Today = today
	r, err := engine.Job(p, w).Check(ctx, Want{Repairs: true})
	if err != nil {
		t.Fatal(err)
	}
	return r
}

func TestHowPatchesStand(t *testing.T) {
	p := brownTable(t)
	p.Zones[0].Substrate, p.Zones[0].Finish = "oak", "shellac"
	class := 1
	p.Zones[0].Patches = []wire.Patch{
		{ID: "a", Product: "shellac_pigmented", Over: "shellac_film", On: "hidden"},
		{ID: "b", Product: "shellac_pigmented", Over: "shellac_film", On: "hidden", Made: "2026-11-20", RateFrom: "2026-11-27"},
		{ID: "c", Product: "shellac_pigmented", Over: "shellac_film", On: "hidden", Made: "2026-11-20", RateFrom: "2026-11-21"},
		{ID: "d", Product: "paint_chalk", Over: "varnish_film", On: "board", Made: "2026-11-20", Rated: "2026-11-22", Class: &class},
	}
	states := func(today string) string {
		var w []string
		for _, s := range checkedOn(t, p, today).Zones[0].Patches {
			w = append(w, s.State)
			if s.Name == "" || s.Says == "" || s.RateInDays < 1 {
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
	z := checked(t, p, Want{Repairs: true}).Zones[0]
	if !strings.Contains(z.Patches[3].Says, "The current plan has no such bond") || z.Bonds[0].Boards != 0 {
		t.Errorf("%+v", z.Patches[3])
	}
	p.Zones[0].Patches[0].Class, p.Zones[0].Patches[0].Rated, p.Zones[0].Patches[0].Made, p.Zones[0].Patches[0].RateFrom = &class, "2026-11-22", "2026-11-20", "2026-11-24"
	z = checked(t, p, Want{Repairs: true}).Zones[0]
	if s := z.Patches[0].Says; !strings.Contains(s, "when it was still soft") || !strings.Contains(s, "The bond is weaker than expected") {
		t.Error(s)
	}
	if b := z.Bonds[0]; b.Boards != 1 || b.Before <= b.Strength || b.Holds == "well" {
		t.Errorf("%+v", b)
	}
	// What a bond was made under is what a new patch of it takes along.
	for _, b := range z.Bonds {
		if b.Under.Key <= 0 || b.Under.Cap <= 0 || b.RateInDays < 1 || b.RateInDays > 7 {
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
			var ev []wire.Answer
			for k := range 6 {
				x := &identify.Tests[(start+k*7)%len(identify.Tests)]
				ev = append(ev, wire.Answer{Test: x.ID, Outcome: x.Outcomes[(start+k+i)%len(x.Outcomes)].ID})
			}
			ev = dedup(ev)
			p := &wire.Piece{Zones: []wire.Zone{{ID: "z", Substrate: c.Substrates[i].ID, Finish: "unknown", Evidence: ev}}}
			z := identified(t, p)
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

func dedup(ev []wire.Answer) []wire.Answer {
	var out []wire.Answer
	for _, e := range ev {
		if !strings.Contains(fmt.Sprint(out), "{"+e.Test+" ") {
			out = append(out, e)
		}
	}
	return out
}

func BenchmarkIdentifyWithAPlan(b *testing.B) {
	p := brownTable(b)
	p.Zones[0].Evidence = p.Zones[0].Evidence[:2]
	for b.Loop() {
		identified(b, p)
	}
}

// Mending is work on the old coat too.
func TestNoDryRepairOnASuspect(t *testing.T) {
	how := func(fields string) string {
		p := decoded(t, `{"format": "rutile/piece", "version": 1, "made": 1935, "zones": [{"id": "a", "substrate": "pine", "finish": "paint_alkyd_old", "defects": [{"id": "gouge", "count": 1, "length_cm": 4}]`+fields+`}]}`)
		items := job(p).Overview(nil).Zones[0].DamageWork.Items
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
		p := zonePiece(t, `"substrate": "oak", "finish": "varnish_oil", "gloss": "matt", "gloss_gu": `+units)
		if got := checked(t, p, Want{Repairs: true}).Zones[0].Gloss; got != want {
			t.Errorf("%s units are %s", units, got)
		}
	}
}
