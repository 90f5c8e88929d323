package craft

import (
	"go/ast"
	"go/parser"
	"go/token"
	"slices"
	"strconv"
	"testing"
)

// purposes are all that serve.go names.
func purposes(t *testing.T) []Purpose {
	t.Helper()
	f, err := parser.ParseFile(token.NewFileSet(), "serve.go", nil, 0)
	if err != nil {
		t.Fatal(err)
	}
	var out []Purpose
	ast.Inspect(f, func(n ast.Node) bool {
		v, ok := n.(*ast.ValueSpec)
		if ok && len(v.Values) == 1 {
			if id, ok := v.Type.(*ast.Ident); ok && id.Name == "Purpose" {
				s, err := strconv.Unquote(v.Values[0].(*ast.BasicLit).Value)
				if err != nil {
					t.Fatal(err)
				}
				out = append(out, Purpose(s))
			}
		}
		return true
	})
	for w := range Wears {
		out = append(out, ForSeal(Wear(w)))
	}
	return out
}

// Every purpose is filled, by products or by cleaners, in an order that is plain; and no row fills one
// that there is not.
func TestPurposesAreFilled(t *testing.T) {
	c := Default()
	all := purposes(t)
	if len(all) < 30 {
		t.Fatalf("only %d purposes were found", len(all))
	}
	for i, p := range all {
		if slices.Contains(all[:i], p) {
			t.Errorf("%s stands for two purposes", p)
		}
		if len(c.For(p)) == 0 && len(c.CleanersFor(p)) == 0 {
			t.Errorf("nothing fills %s", p)
		}
		if x := c.First(p); len(c.For(p)) > 0 && !c.Fills(x, p) {
			t.Errorf("%s is first for %s and does not fill it", c.Products[x].ID, p)
		}
	}
	ranks := map[Purpose][]int{}
	of := func(id string, serves []Serve) {
		for _, s := range serves {
			if !slices.Contains(all, s.For) || s.Rank < 1 {
				t.Errorf("%s fills %q at rank %d", id, s.For, s.Rank)
			}
			if slices.Contains(ranks[s.For], s.Rank) {
				t.Errorf("two rows fill %s at rank %d", s.For, s.Rank)
			}
			ranks[s.For] = append(ranks[s.For], s.Rank)
		}
	}
	for i := range c.Products {
		of(c.Products[i].ID, c.Products[i].Serves)
	}
	for i := range c.Cleaners {
		of(c.Cleaners[i].ID, c.Cleaners[i].Serves)
	}
	for p, rs := range ranks {
		slices.Sort(rs)
		if rs[len(rs)-1] != len(rs) {
			t.Errorf("the ranks of %s are %v", p, rs)
		}
	}
	if c.First("nothing") != NoProduct || len(c.For("nothing")) > 0 {
		t.Error("something fills a purpose that there is not")
	}
}

// A recipe lays what there is, has its paint once, and works the effect once at the most.
func TestRecipesAreWhole(t *testing.T) {
	c := Default()
	for i := range c.Effects {
		r := &c.Effects[i]
		for _, over := range []Crackling{CrackMedium, CrackLift, CrackTacky} {
			x := r.RecipeFor(over)
			counts := map[RecipePartKind]int{}
			for _, p := range x.Parts {
				counts[p.Kind]++
				if p.For != "" && len(c.For(p.For)) == 0 || p.Kind == LayOne && p.For == "" {
					t.Errorf("%s lays %q", r.ID, p.For)
				}
			}
			if counts[LayPaint] > 1 || counts[WorkIt] > 1 || counts[SealIt] > 1 || counts[LayAgain] > counts[LayPaint] || len(x.Parts) == 0 {
				t.Errorf("%s: %v", r.ID, counts)
			}
			if x.NoGround && x.Ground != "" || x.Ground != "" && len(c.For(x.Ground)) == 0 {
				t.Errorf("%s stands on %q", r.ID, x.Ground)
			}
		}
		for k := range r.Recipes {
			for _, o := range r.Recipes[:k] {
				if o.Over == r.Recipes[k].Over {
					t.Errorf("%s has two recipes for one way of crackling", r.ID)
				}
			}
		}
	}
	if first := Solid.Parts[0]; first.Kind != LayPaint {
		t.Errorf("a solid face begins with %+v", first)
	}
	// A look without a recipe is worked on dry paint, on a closed ground where it asks for one.
	plain := (&EffectRow{ID: "x", Sealed: true, Settles: 1}).RecipeFor(CrackLift)
	if len(plain.Parts) != 4 || plain.Parts[1].For != ForPlainSeal || plain.Parts[2].After == 0 {
		t.Errorf("%+v", plain)
	}
}

// Other rows are another craft, whose version tells it from this one; what is not changed is not.
func TestCraftsTellThemselvesApart(t *testing.T) {
	c := Default()
	row := c.Products[0]
	row.ID = "another"
	more := New(append(slices.Clone(c.Products), row), c.Effects)
	if more.Version == c.Version || New(c.Products, c.Effects).Version != c.Version {
		t.Errorf("versions %d, %d", c.Version, more.Version)
	}
	if x, ok := more.Product("another"); !ok || !slices.Contains(more.For(ForBarrier), x) || len(c.For(ForBarrier)) == len(more.For(ForBarrier)) {
		t.Error("a further row does not fill what it says")
	}
	defer func() {
		if recover() == nil {
			t.Error("an id stands twice and nobody says so")
		}
	}()
	New(append(slices.Clone(c.Products), c.Products[0]), c.Effects)
}
