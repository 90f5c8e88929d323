package main

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"rutile/core/plan"
	"rutile/internal/wire"
)

const dresser = "../../examples/dresser.json"

func pieceOf(t *testing.T, text string) *wire.Piece {
	t.Helper()
	p, err := wire.Decode([]byte(text))
	if err != nil {
		t.Fatalf("%v in %s", err, text)
	}
	return p
}

// The piece comes back with steps where there were none, and passes its check;
// what cannot be planned is told on standard error and in the exit code.
func TestPlan(t *testing.T) {
	out, errs, code := rutile("", "plan", dresser)
	if code != 1 || !strings.Contains(errs, "zone Back, an old door is not planned: Suspected lead") || !strings.Contains(errs, "what would make a plan possible") {
		t.Fatal(code, errs)
	}
	p := pieceOf(t, out)
	for _, z := range p.Zones {
		if planned := len(z.Steps) > 0 && z.Way == "best"; planned != (z.ID != "back") {
			t.Errorf("%s: %d steps by %q", z.ID, len(z.Steps), z.Way)
		}
	}
	checked, _, _ := rutile(out, "check", "-")
	var r wire.CheckResult
	if err := json.Unmarshal([]byte(checked), &r); err != nil {
		t.Fatal(err)
	}
	for _, z := range r.Zones {
		// Its varnish has no date, so that a test for lead is all that is left to settle.
		for _, f := range z.Findings {
			if z.ID != "back" && f.Severity != "note" && f.Code != "safety.lead" {
				t.Errorf("%s is %s: %s", z.ID, z.Verdict, z.Says)
			}
		}
	}
	// Planned again it stays as it is, and nothing is left to be planned but that.
	again, _, _ := rutile(out, "plan", "-")
	if again != out {
		t.Error("a plan that was there is another one now")
	}
}

func TestPlanByAWay(t *testing.T) {
	out, _, code := rutile("", "plan", dresser, "--way", "prime", "--text")
	if code != 1 || !strings.Contains(out, "trips instead of") || !strings.Contains(out, "Bonding primer") || !strings.Contains(out, "drying meanwhile") {
		t.Errorf("%d %s", code, out)
	}
	_, errs, code := rutile("", "plan", dresser, "--way", "prym")
	if code != 2 || !strings.Contains(errs, "--way prym: ways of working are best, scuff_and_seal") {
		t.Errorf("%d %s", code, errs)
	}
}

func TestPlanEveryWay(t *testing.T) {
	out, errs, code := rutile("", "plan", dresser, "--all")
	if code != 1 {
		t.Fatal(code, errs)
	}
	var r wire.Plans
	if err := json.Unmarshal([]byte(out), &r); err != nil {
		t.Fatal(err)
	}
	if r.Format != "rutile/plans" || len(r.Zones) != 5 {
		t.Fatalf("%s with %d zones", r.Format, len(r.Zones))
	}
	for _, z := range r.Zones {
		if len(z.Plans) != len(plan.Ways) {
			t.Errorf("%s has %d plans", z.ID, len(z.Plans))
		}
		for i, x := range z.Plans {
			switch {
			case x.Infeasible != nil && len(x.Infeasible.Why) == 0, x.Infeasible == nil && (x.Risk == nil || len(x.Steps) == 0 || !x.Proved):
				t.Errorf("%s by %s: %+v", z.ID, x.Way, x)
			case i > 0 && x.Infeasible == nil && (z.Plans[i-1].Infeasible != nil || x.Points < z.Plans[i-1].Points):
				t.Errorf("%s: %s comes after what is worse", z.ID, x.Way)
			}
		}
	}
	out, _, _ = rutile("", "plan", dresser, "--all", "--text")
	for _, want := range []string{"1. ", "peeling", "It depends on", "no plan passes", "What would make a plan possible"} {
		if !strings.Contains(out, want) {
			t.Errorf("%q is not said", want)
		}
	}
}

func TestPlanExplains(t *testing.T) {
	out, errs, _ := rutile("", "plan", dresser, "--explain")
	if pieceOf(t, out).Zones[0].Steps == nil {
		t.Error("the piece is not on standard output alone")
	}
	for _, want := range []string{"beginnings of plans opened", "merged", "cut by a rule", "no other plan that can be made with this vocabulary has fewer", "the second best", "points more", "no plan passes"} {
		if !strings.Contains(errs, want) {
			t.Errorf("%q is not explained in\n%s", want, errs)
		}
	}
}

func TestPlanWeights(t *testing.T) {
	for weights, says := range map[string]string{
		"peel=0,stain=0,elapsed=0,hands=0,cost=0,smell=0": "all weights are 0",
		"peel=Inf":   "must be a number from 0 to 100",
		"peel=-1":    "must be a number from 0 to 100",
		"peel=NaN":   "must be a number from 0 to 100",
		"peel=much":  "that is not a number",
		"beauty=2":   "weights are written as peel, stain",
		"peel":       "weights are written as",
		"cost=1e300": "must be a number from 0 to 100",
	} {
		if _, errs, code := rutile("", "plan", dresser, "--weights", weights); code != 2 || !strings.Contains(errs, says) || !strings.Contains(errs, "--weights") {
			t.Errorf("%s: %d %s", weights, code, errs)
		}
	}
	fast, _, _ := rutile("", "plan", dresser, "--weights", "elapsed=50, smell=0")
	slow, _, _ := rutile("", "plan", dresser, "--weights", "elapsed=0,smell=20")
	if fast == slow {
		t.Error("weights change nothing")
	}
}

func TestPlanOfWhatCannotBeRead(t *testing.T) {
	if _, errs, code := rutile(`{"format": "rutile/piece", "version": 1, "zones": [{"id": "a", "substrate": "oak", "way": "No Way"}]}`, "plan", "-"); code != 2 || !strings.Contains(errs, "$.zones[0].way") {
		t.Errorf("%d %s", code, errs)
	}
	if out, errs, code := rutile(`{"format": "rutile/piece", "version": 1}`, "plan", "-"); code != 0 || errs != "" || len(pieceOf(t, out).Zones) != 0 {
		t.Errorf("a piece without zones: %d %s", code, errs)
	}
}

// Two hundred zones are planned, and a stopped run tells what it did not reach.
func TestPlanManyZones(t *testing.T) {
	var zones []string
	for i := range 200 {
		zones = append(zones, fmt.Sprintf(`{"id": "z%d", "substrate": "%s", "finish": "none", "soils": [], "target": {"colour": "#%06x"}}`, i, []string{"oak", "mdf", "laminate_hpl", "steel"}[i%4], 0xa0a000+i*7))
	}
	piece := `{"format": "rutile/piece", "version": 1, "made": 2010, "zones": [` + strings.Join(zones, ",") + `]}`
	out, errs, code := rutile(piece, "plan", "-")
	if code != 0 {
		t.Fatal(code, errs)
	}
	for _, z := range pieceOf(t, out).Zones {
		if len(z.Steps) == 0 {
			t.Fatalf("%s has no plan", z.ID)
		}
	}
	cmd := root()
	var stdout, stderr bytes.Buffer
	cmd.SetOut(&stdout)
	cmd.SetErr(&stderr)
	cmd.SetIn(strings.NewReader(piece))
	cmd.SetArgs([]string{"plan", "-"})
	ctx, stop := context.WithCancel(context.Background())
	stop()
	if code := run(ctx, cmd); code != 1 || !strings.Contains(stderr.String(), "stopped before this zone") {
		t.Errorf("stopped: %d %.200s", code, stderr.String())
	}
}

// Kits and habits are chosen by name, and what is not there is named.
func TestPlanByKitAndHabits(t *testing.T) {
	out, _, code := rutile("", "plan", dresser, "--text", "--all")
	if code != 1 || !strings.Contains(out, "Outside your kit: buy milk paint") {
		t.Errorf("%d\n%s", code, out)
	}
	if out, _, _ = rutile("", "plan", dresser, "--text", "--all", "--kit", "brush,powder"); strings.Contains(out, "buy milk paint") {
		t.Errorf("it is in the kit:\n%s", out)
	}
	if out, _, _ = rutile("", "plan", dresser, "--text", "--all", "--kit", "all", "--without", "block_twice,wash"); !strings.Contains(out, "Blocked once") || strings.Contains(out, "Outside your kit") {
		t.Errorf("without habits:\n%s", out)
	}
	for flag, says := range map[string]string{"--kit=garage": "kits are brush", "--without=sing": "habits are wash"} {
		if _, errs, code := rutile("", "plan", dresser, flag); code != 2 || !strings.Contains(errs, says) {
			t.Errorf("%s: %d %s", flag, code, errs)
		}
	}
}
