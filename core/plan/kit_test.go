package plan

import (
	"context"
	"slices"
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/surface"
)

func findIn(t *testing.T, facts string, kit *Kit, change func(*Request)) Answer {
	t.Helper()
	ask := Request{Zone: zoneOf(t, facts), Way: Ways[0], Kit: kit}
	if change != nil {
		change(&ask)
	}
	a, err := Find(context.Background(), craft.Default(), ask)
	if err != nil {
		t.Fatal(err)
	}
	return a
}

func names(items []Item) []string {
	var out []string
	for _, x := range items {
		out = append(out, x.Product+x.Tool)
	}
	return out
}

// A plan keeps to the kit where that is good enough, leaves it where that gains enough, and says what it
// needs besides; with the kit alone there is another plan, or none.
func TestAPlanUsesTheKit(t *testing.T) {
	brush, outdoor, powder := DefaultKit(), &Kits[3], &Kits[2]
	for _, x := range []struct {
		name, facts string
		kit         *Kit
		buys        []string
		within      bool
	}{
		{"varnished wood is painted from the kit", "beech varnish_oil satin; soils grime1; target satin", brush, nil, false},
		{"laminate too", "laminate_hpl satin; soils grime1; target satin", brush, nil, false},
		{"steel outdoors wants what the kit has not", "steel gloss; wear outdoor; use outdoor; colour #3f5a52", brush, []string{"primer_metal", "paint_enamel_oil"}, false},
		{"and with the kit for that nothing", "steel gloss; wear outdoor; use outdoor; colour #3f5a52", brush.With(outdoor), nil, false},
		{"a flaking look wants powder paint", "beech varnish_oil gloss; look chippy; colour #dfe3d6", brush, []string{"paint_milk"}, false},
		{"which another kit has", "beech varnish_oil gloss; look chippy; colour #dfe3d6", brush.With(powder), nil, false},
		{"without a kit everything is there", "steel gloss; wear outdoor; use outdoor; colour #3f5a52", nil, nil, false},
		{"a primer that saves a seat from peeling is bought", "laminate_hpl satin; soils grime1; target satin; wear seat", &Kit{ID: "bare", Products: []string{"paint_trim", "clear_wb_hard", "shellac_clear"}}, []string{"primer_bond_wb"}, true},
	} {
		a := findIn(t, x.facts, x.kit, nil)
		if a.Best == nil {
			t.Errorf("%s: no plan", x.name)
			continue
		}
		if got := names(a.Best.Buys); !slices.Equal(got, x.buys) {
			t.Errorf("%s: buys %v, not %v\n%s", x.name, got, x.buys, words(craft.Default(), a.Best))
		}
		if x.within != (a.Within != nil) {
			t.Errorf("%s: a plan with the kit alone: %v", x.name, a.Within != nil)
		}
		if a.Within != nil && (len(a.Within.Buys) > 0 || a.Within.Points < a.Best.Points) {
			t.Errorf("%s: with the kit alone it needs %v, at %v points instead of %v", x.name, a.Within.Buys, a.Within.Points, a.Best.Points)
		}
	}
	// What is bought gains something over the plan with the kit alone.
	poor := &Kit{ID: "poor", Products: []string{"paint_chalk", "wax_clear", "clear_wb_hard", "paint_enamel_wb"}}
	a := findIn(t, "melamine gloss; soils grime1; wear handled; target satin", poor, nil)
	if a.Best == nil || len(a.Best.Buys) == 0 || a.Within == nil || a.Within.Judged.Risk <= a.Best.Judged.Risk {
		t.Fatalf("%+v, with the kit alone %+v", a.Best, a.Within)
	}
	if says := Differ(craft.Default(), zoneOf(t, "melamine gloss"), UsualBench, a.Best, a.Within); !strings.Contains(says, "peels") && !strings.Contains(says, "holds less well") {
		t.Errorf("what that gains is %q", says)
	}
}

// The paint of choice is taken where it does as well, and each product in a sheen that it is sold in.
func TestPaintsOfChoice(t *testing.T) {
	c := craft.Default()
	for _, x := range []struct{ facts, choice, paint string }{
		{"beech varnish_oil satin; target satin", "paint_trim", "paint_trim"},
		{"beech varnish_oil satin; target satin", "paint_enamel_wb", "paint_enamel_wb"},
		{"beech varnish_oil satin; target gloss; wear display", "paint_trim", "paint_enamel_wb"}, // trim paint comes in satin
	} {
		kit := DefaultKit()
		kit.Choice[UseEveryday] = x.choice
		a := findIn(t, x.facts, kit, nil)
		if a.Best == nil || len(finish(c, a.Best.Steps).paints) == 0 {
			t.Fatal(x.facts)
		}
		if got := c.Products[finish(c, a.Best.Steps).paints[0].product].ID; got != x.paint {
			t.Errorf("%s with %s as the choice is painted with %s", x.facts, x.choice, got)
		}
	}
}

// Spraying wants a gun: without one that is said, with what opens the way; with one it is planned, and
// wide plain faces are rolled only where there is a roller.
func TestTools(t *testing.T) {
	c := craft.Default()
	sprayed := func(a *Answer) bool {
		return slices.ContainsFunc(a.Best.Steps, func(s surface.Step) bool { return s.Method == "spray" })
	}
	gun := func(r *Request) { r.Way = wayOf(t, "sprayed") }
	a := findIn(t, "mdf; area 3; target satin", DefaultKit(), gun)
	if a.Best != nil || a.Infeasible.Why[0].Title != "There is no spray gun in your kit" || a.Infeasible.Relaxations[0].ID != "gun" || a.Infeasible.Relaxations[0].Field != craft.FieldKit {
		t.Errorf("%+v", a.Infeasible)
	}
	if a = findIn(t, "mdf; area 3; target satin", DefaultKit().With(&Kits[1]), gun); a.Best == nil || !sprayed(&a) {
		t.Error("there is a gun, and it is not sprayed")
	}
	for _, x := range []struct {
		facts  string
		kit    *Kit
		method string
	}{
		{"laminate_hpl satin; area 5; target satin", DefaultKit(), "roller"},
		{"laminate_hpl satin; area .5; target satin", DefaultKit(), "brush"},
		{"laminate_hpl satin; area 5; target satin", &Kit{ID: "own", Products: DefaultKit().Products}, "brush"},
	} {
		a := findIn(t, x.facts, x.kit, nil)
		for i := range a.Best.Steps {
			if s := &a.Best.Steps[i]; s.Do == surface.Coat && c.Products[s.Product].AppliedBy("roller") && s.Method != x.method {
				t.Errorf("%s: %s by %s", x.facts, c.Products[s.Product].ID, s.Method)
			}
		}
	}
	// A sander takes wide plain faces that stand it, and by hand go veneer, laminate and what is small.
	for facts, machine := range map[string]bool{"beech varnish_oil satin; area 4": true, "beech varnish_oil satin; area .5": false, "walnut varnish_oil satin; veneer; area 4; colour #202830": false, "laminate_hpl satin; area 4": false, "birch; area 4": true} {
		a := findIn(t, facts, Together(Kits), nil)
		if got := slices.ContainsFunc(a.Best.Steps, func(s surface.Step) bool { return s.How == craft.Machine }); got != machine {
			t.Errorf("%s: by machine %v\n%s", facts, got, words(c, a.Best))
		}
	}
	// Kits are named and joined without changing each other.
	if _, ok := KitNamed("no such kit", nil); ok {
		t.Error("a kit that there is not was found")
	}
	if k, _ := KitNamed("brush", []Kit{{ID: "brush", Name: "mine"}}); k.Name != "mine" {
		t.Error("one's own kit does not come first")
	}
	n := len(Kits[0].Products)
	if all := Together(Kits); len(Kits[0].Products) != n || !all.Has(Gun) || !all.Keeps("paint_masonry") || all.Keeps("primer_plastic") || Together(nil) != nil {
		t.Errorf("together: %+v", all)
	}
	for i := range Kits {
		for _, id := range append(slices.Clone(Kits[i].Products), Kits[i].Choice[:]...) {
			if _, ok := c.Product(id); !ok && id != "" {
				t.Errorf("%s has %q", Kits[i].ID, id)
			}
		}
		for _, id := range Kits[i].Tools {
			if _, ok := ToolNamed(id); !ok {
				t.Errorf("%s has the tool %q", Kits[i].ID, id)
			}
		}
	}
	if len(c.Products) >= firstTool {
		t.Errorf("%d products do not fit into a set of what is bought", len(c.Products))
	}
}

// What is open on the shelf is taken before what is closed, and that before what must be bought; what it gains is
// not worth a worse plan.
func TestAPlanPrefersWhatIsOpen(t *testing.T) {
	facts := "beech varnish_oil satin; target satin; colour #d3d8d8; soils grime1"
	paint := func(k *Kit) string {
		t.Helper()
		a := findIn(t, facts, k, nil)
		out := ""
		for _, s := range a.Best.Steps {
			if row := &craft.Default().Products[s.Product]; s.Do == surface.Coat && row.Role == craft.RolePaint {
				out = row.ID
			}
		}
		return out
	}
	kit := *DefaultKit()
	usual := paint(&kit)
	other := "paint_enamel_wb"
	if usual == other {
		other = "paint_trim"
	}
	shelf := func(open, closed []string) *Kit {
		k := kit
		k.Choice = [numPaintUses]string{}
		k.Shelf, k.Open, k.Closed = true, append(slices.Clone(kit.Products), open...), closed
		k.Open = slices.DeleteFunc(k.Open, func(id string) bool { return strings.HasPrefix(id, "paint_") && !slices.Contains(open, id) })
		return &k
	}
	for _, x := range []struct {
		open, closed []string
		want         string
	}{{[]string{other}, nil, other}, {[]string{usual}, nil, usual}, {nil, []string{other}, other}} {
		if got := paint(shelf(x.open, x.closed)); got != x.want {
			t.Errorf("open %v, closed %v: %s", x.open, x.closed, got)
		}
	}
}
