package app

import (
	"context"
	"reflect"
	"slices"
	"strings"
	"testing"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/plan"
	"rutile/core/stage"
	"rutile/core/surface"
	"rutile/internal/wire"
)

// What is made up here stands for what somebody adds by following CONTRIBUTING: one row or one entry
// each. Every test sees it judged, offered, planned and explained without another line changed.

// like is a row like another, with an id of its own.
func like(id, name string, of string, more func(*craft.ProductRow)) craft.ProductRow {
	c := craft.Default()
	x, ok := c.Product(of)
	if !ok {
		panic(of)
	}
	row := c.Products[x]
	row.ID, row.Name = id, name
	more(&row)
	return row
}

func madeUp(products []craft.ProductRow, effects []craft.EffectRow) *Engine {
	c := craft.Default()
	return NewEngine(craft.New(slices.Concat(c.Products, products), slices.Concat(c.Effects, effects)))
}

func oak(target wire.Target, steps ...wire.Step) *wire.Piece {
	p := wire.New("Box")
	p.Zones = []wire.Zone{{ID: "top", Substrate: "oak", Finish: "none", Soils: []wire.Level{}, AreaM2: 1, Target: &target, Steps: steps}}
	return &p
}

func planned(t *testing.T, e *Engine, p *wire.Piece) wire.WayPlan {
	t.Helper()
	everything := &plan.Kit{ID: "all"}
	for i := range e.Craft.Products {
		everything.Products = append(everything.Products, e.Craft.Products[i].ID)
	}
	shop := usual
	shop.Kit = everything
	z, err := e.Job(p, shop).PlanZone(ctx, 0, plan.Ways[:1], PlanOptions{Section: true})
	if err != nil || z.Plans[0].Infeasible != nil {
		t.Fatalf("%v %+v", err, z.Plans[0].Infeasible)
	}
	return z.Plans[0]
}

func lays(steps []wire.Step, product string) bool {
	return slices.ContainsFunc(steps, func(s wire.Step) bool { return s.Product == product })
}

func offered(t *testing.T, e *Engine, p *wire.Piece, at int, product string) wire.NextStep {
	t.Helper()
	next, err := e.Job(p, usual).Next(ctx, 0, at)
	if err != nil {
		t.Fatal(err)
	}
	i := slices.IndexFunc(next, func(s wire.NextStep) bool { return s.Step.Product == product })
	if i < 0 {
		t.Fatalf("%s is not offered", product)
	}
	return next[i]
}

func judgedBy(t *testing.T, e *Engine, p *wire.Piece) wire.ZoneResult {
	t.Helper()
	r, err := e.Job(p, usual).Check(ctx, Want{Repairs: true, Section: true})
	if err != nil {
		t.Fatal(err)
	}
	return r.Zones[0]
}

func TestAMadeUpPaint(t *testing.T) {
	e := madeUp([]craft.ProductRow{like("paint_casein", "Casein paint", "paint_enamel_wb", func(r *craft.ProductRow) {
		r.Price, r.Remark, r.Hiding = 200, "made up", .97
	})}, nil)
	p := oak(wire.Target{Colour: "#e4e8df", Sheen: "eggshell"}, wire.Step{Do: "coat", Product: "shellac_pigmented"}, wire.Step{Do: "coat", Product: "paint_casein", Coats: 2})
	z := judgedBy(t, e, p)
	if z.Verdict == "fails" || z.Hiding == nil || z.Section.Layers[2].Name != "Casein paint" || len(z.Section.Layers[2].Joint.Figures) == 0 {
		t.Errorf("judged: %s, %+v", z.Verdict, z.Section.Layers)
	}
	p.Zones[0].Steps = p.Zones[0].Steps[:1]
	if o := offered(t, e, p, 1, "paint_casein"); o.Brings != "" || o.Verdict != "sound" || o.Group != "Paint" || o.Note != "made up" {
		t.Errorf("offered: %+v", o)
	}
	p.Zones[0].Steps = nil
	if w := planned(t, e, p); !lays(w.Steps, "paint_casein") || !strings.Contains(w.Finish, "casein paint") {
		t.Errorf("nothing is as cheap, and it is not planned: %q, %q", w.Words, w.Finish)
	}
	if !slices.ContainsFunc(e.Vocab().Products, func(w wire.ProductWord) bool { return w.ID == "paint_casein" && w.Role == "paint" }) {
		t.Error("the vocabulary does not have it")
	}
}

func TestAMadeUpBlocker(t *testing.T) {
	e := madeUp([]craft.ProductRow{like("primer_sealing", "Sealing primer", "shellac_pigmented", func(r *craft.ProductRow) {
		r.Price, r.Smell, r.Serves = 100, 0, []craft.Serve{{For: craft.ForFilledSpots, Rank: 1}}
	})}, nil)
	bare := oak(wire.Target{Colour: "#f4f2ec", Sheen: "matt"}, wire.Step{Do: "coat", Product: "paint_chalk", Coats: 2})
	var repairs []string
	for _, f := range judgedBy(t, e, bare).Findings {
		if f.Code == "bleed.tannin" {
			for _, r := range f.Repairs {
				repairs = append(repairs, r.Title)
			}
		}
	}
	if !slices.ContainsFunc(repairs, func(s string) bool { return strings.Contains(s, "sealing primer") }) {
		t.Errorf("tannin rises, and what mends it is %q", repairs)
	}
	bare.Zones[0].Steps = nil
	if o := offered(t, e, bare, 0, "primer_sealing"); !strings.Contains(o.Why, "Without it, tannin leaves") {
		t.Errorf("offered: %+v", o)
	}
	if w := planned(t, e, bare); !lays(w.Steps, "primer_sealing") || !strings.Contains(w.Ground, "sealing primer") {
		t.Errorf("nothing blocks as cheaply, and it is not planned: %q", w.Words)
	}
	// A place among the proposals of a rule is a field of its row.
	filled := oak(wire.Target{Colour: "#f4f2ec"}, wire.Step{Do: "fill", With: "filler_fine"}, wire.Step{Do: "abrade", Grit: 220}, wire.Step{Do: "dust"}, wire.Step{Do: "coat", Product: "paint_chalk", Coats: 2})
	filled.Zones[0].Substrate = "birch"
	found := false
	for _, f := range judgedBy(t, e, filled).Findings {
		found = found || f.Code == "prep.filler_after_primer" && slices.ContainsFunc(f.Repairs, func(r wire.Repair) bool { return strings.Contains(r.Title, "ealing primer") })
	}
	if !found {
		t.Error("its row says that it goes on filled spots, and no rule proposes it there")
	}
}

func TestAMadeUpEffect(t *testing.T) {
	e := madeUp(nil, []craft.EffectRow{{
		ID: "speckle", Name: "Speckled", How: "paint flicked off a stiff brush", Wants: "a dry ground", Trap: "too wet runs",
		Ground: craft.GroundPaint, Lays: "paint_acrylic", Settles: 2, Minutes: 10, SealedBy: []craft.Role{craft.RoleClear, craft.RoleWax},
	}})
	p := oak(wire.Target{Colour: "#e4e8df", Look: "speckle"}, wire.Step{Do: "effect", Effect: "speckle"}, wire.Step{Do: "coat", Product: "shellac_pigmented"}, wire.Step{Do: "coat", Product: "paint_chalk", Coats: 2})
	z := judgedBy(t, e, p)
	if !slices.ContainsFunc(z.Findings, func(f wire.Finding) bool {
		return strings.HasPrefix(f.Code, "effect.") && strings.Contains(f.Title+f.Why, "peckled")
	}) {
		t.Errorf("it comes before any paint, and no rule says so: %s", z.Says)
	}
	p.Zones[0].Steps = p.Zones[0].Steps[1:]
	next, err := e.Job(p, usual).Next(ctx, 0, 2)
	if err != nil || !slices.ContainsFunc(next, func(s wire.NextStep) bool {
		return s.Step.Effect == "speckle" && strings.Contains(s.Why, "paint flicked off a stiff brush")
	}) {
		t.Errorf("it is wanted, and not offered with its reason: %v", err)
	}
	p.Zones[0].Steps = nil
	w := planned(t, e, p)
	at := slices.IndexFunc(w.Steps, func(s wire.Step) bool { return s.Effect == "speckle" })
	if at < 2 || w.Steps[at-1].Do != "coat" || w.Verdict == "fails" || !slices.ContainsFunc(w.Steps[at:], func(s wire.Step) bool { return s.Do == "coat" }) {
		t.Errorf("%s: %q", w.Verdict, w.Words)
	}
	// One with a recipe of its own is laid as that says.
	e = madeUp(nil, []craft.EffectRow{{
		ID: "veined", Name: "Veined", How: "cracks over a medium", Wants: "contrast", Ground: craft.GroundPaint, Cracks: true, Shows: true, By: []string{"crackle_medium"},
		Recipes: []craft.Recipe{{Parts: []craft.RecipePart{
			{Kind: craft.LayOne, For: craft.ForUnder, Coats: []int{2}, Tone: craft.ToneUnder}, {Kind: craft.LayOne, For: craft.ForCrackMedium}, {Kind: craft.LayOne, For: craft.ForThinTop}, {Kind: craft.SealIt},
		}}},
	}})
	p.Zones[0].Target.Look = "veined"
	if w := planned(t, e, p); !lays(w.Steps, "crackle_medium") {
		t.Errorf("%q", w.Words)
	}
	if !slices.ContainsFunc(e.Vocab().Effects, func(w wire.EffectWord) bool { return w.ID == "veined" }) {
		t.Error("the vocabulary does not have it")
	}
}

// noChalk is a rule that somebody might add.
var noChalk = check.Rule{
	Code: "film.chalky", Title: "Chalk paint is not wanted here", Why: "It is made up.", When: "A plan lays chalk paint. Fail.",
	Inputs: "the paints of a plan", Fix: "another paint",
	Step: func(k *check.Case, e *surface.Event) {
		if e.Doing.Do == surface.Coat && k.Craft.Products[e.Doing.Product].ID == "paint_chalk" {
			k.Add(check.Hit{Severity: check.Fail, Step: e.Step})
		}
	},
	Say: func(*check.Case, *check.Hit) (string, string) { return "", "Somebody has said so." },
	Repair: func(m *check.Repairer, h *check.Hit) {
		steps := slices.Clone(m.Zone.Steps)
		steps[h.Step-1].Product = m.Craft.First(craft.ForUsualPaint)
		m.Edit("Paint with something else", steps)
	},
	Stage: craft.StagePrepare,
}

func TestAMadeUpRule(t *testing.T) {
	e := NewEngine(craft.Default())
	rules := []check.Rule{noChalk}
	for _, r := range check.Standard().Rules {
		rules = append(rules, *r)
	}
	e.Book = check.NewBook(rules...)
	p := oak(wire.Target{Colour: "#e4e8df", Sheen: "dead_flat"}, wire.Step{Do: "coat", Product: "shellac_pigmented"}, wire.Step{Do: "coat", Product: "paint_chalk", Coats: 2}, wire.Step{Do: "coat", Product: "wax_clear"})
	z := judgedBy(t, e, p)
	i := slices.IndexFunc(z.Findings, func(f wire.Finding) bool { return f.Code == "film.chalky" })
	if i < 0 || z.Verdict != "fails" || z.Findings[i].Why != "Somebody has said so." || len(z.Findings[i].Repairs) != 1 || z.Findings[i].Repairs[0].Title != "Paint with something else" {
		t.Fatalf("judged: %s, %+v", z.Verdict, z.Findings)
	}
	if !slices.ContainsFunc(z.Stages, func(s wire.Stage) bool { return s.ID == "prepare" && s.State == "stuck" && s.Says == noChalk.Title }) {
		t.Errorf("it says its stage, and that is %+v", z.Stages)
	}
	p.Zones[0].Steps = p.Zones[0].Steps[:1]
	if o := offered(t, e, p, 1, "paint_chalk"); o.Brings != noChalk.Title || o.Why != "" {
		t.Errorf("offered: %+v", o)
	}
	p.Zones[0].Steps = nil
	with, without := planned(t, e, p), planned(t, NewEngine(craft.Default()), p)
	if lays(with.Steps, "paint_chalk") || !with.Proved || with.Points < without.Points {
		t.Errorf("planned: %q with %.1f points, without the rule %.1f", with.Words, with.Points, without.Points)
	}
	if !slices.ContainsFunc(e.Vocab().Rules, func(w wire.RuleWord) bool { return w.Code == "film.chalky" && w.Group == "Film and look" }) {
		t.Error("the rule book does not have it")
	}
}

// Sweep is the use case of a made-up stage: how often the floor is swept for a zone.
func (j *Job) Sweep(ctx context.Context, zone int) (int, error) {
	n := 0
	for i := range j.Zones[zone].Steps {
		if j.Zones[zone].Steps[i].Do == surface.Abrade {
			n++
		}
	}
	return n, ctx.Err()
}

// A made-up stage: sweeping the workshop before the job sheet.
func TestAMadeUpStage(t *testing.T) {
	swept := stage.Entry{
		ID: "sweep", Name: "Sweep", Open: "To be swept", Core: "sweep", UseCase: "Sweep", Route: "/api/sweep", View: "sweep", Folder: "sweep", Fields: []craft.Field{"broom"},
		Stands: func(w *stage.Work) (stage.State, string, int) {
			if w.Coats == 0 {
				return stage.Open, "Nothing is planned, and the floor is dusty", 0
			}
			return stage.Done, "Swept before the first coat", w.First + 1
		},
	}
	e := NewEngine(craft.Default())
	e.Stages = slices.Insert(slices.Clone(stage.Entries), len(stage.Entries)-1, swept)
	z := judgedBy(t, e, oak(wire.Target{Colour: "#e4e8df"}, wire.Step{Do: "clean", With: "detergent", Rinse: true}, wire.Step{Do: "coat", Product: "shellac_pigmented"}))
	if n := len(z.Stages); n != len(stage.Entries)+1 || z.Stages[n-2].ID != "sweep" || z.Stages[n-2].State != "done" || z.Stages[n-2].Step != 2 {
		t.Errorf("judged: %+v", z.Stages)
	}
	if z := judgedBy(t, e, oak(wire.Target{})); z.Stages[len(z.Stages)-2].State != "open" {
		t.Errorf("without a plan: %+v", z.Stages)
	}
	if !slices.ContainsFunc(e.Vocab().Stages, func(w wire.StageWord) bool {
		return w.ID == "sweep" && w.View == "sweep" && slices.Contains(w.Fields, "broom")
	}) {
		t.Error("the page is not told of it")
	}
	if _, ok := reflect.TypeFor[*Job]().MethodByName(swept.UseCase); !ok {
		t.Error("its use case is no method of a job")
	}
	sanded := e.Job(oak(wire.Target{}, wire.Step{Do: "abrade", Grit: 220}, wire.Step{Do: "dust"}), usual)
	if n, err := sanded.Sweep(ctx, 0); n != 1 || err != nil {
		t.Errorf("swept %d times, %v", n, err)
	}
	// The list of pieces leads there, where nothing before it is unfinished.
	for i := range e.Stages {
		if e.Stages[i].ID != "sweep" {
			e.Stages[i].Stands = func(*stage.Work) (stage.State, string, int) { return stage.Done, "done", 0 }
		}
	}
	p := oak(wire.Target{Colour: "#e4e8df"})
	j := e.Job(p, usual)
	r, err := j.judge(ctx, 0, check.Options{NoRepairs: true})
	if err != nil {
		t.Fatal(err)
	}
	s, err := j.summary(context.Background(), &wire.Saved{ID: 1, Rev: 1, Piece: *p}, []*check.Result{r})
	if err != nil || s.Stage != "sweep" || s.View != "sweep" || s.Stands != "To be swept" || s.Next != "Nothing is planned, and the floor is dusty" {
		t.Errorf("%+v, %v", s, err)
	}
}
