package craft

import (
	"math"
	"testing"
)

func labelled(f LabelFigure, v float64) *Label {
	l := &Label{}
	l.Has[f], l.At[f] = true, v
	return l
}

// Every figure of a label takes the place of its column, in a can alone, and the kinds stay as they were.
func TestLabelsReplaceFigures(t *testing.T) {
	c := Default()
	chalk, _ := c.Product("paint_chalk")
	for f := range NumLabelFigures {
		row := &LabelFigures[f]
		v := row.Least + (row.Most-row.Least)/3
		own, ids := c.WithCans([]Can{{Kind: chalk, Label: labelled(f, v)}})
		can := &own.Products[ids[0]]
		if got := *row.column(can); f != LabelRecoatTo && math.Abs(got-v) > 1e-12 {
			t.Errorf("%s: %v, want %v", row.ID, got, v)
		}
		if own.KindOf(ids[0]) != chalk || !own.SameKind(ids[0], chalk) || can.Can != 1 || len(own.Kinds()) != len(c.Products) {
			t.Errorf("%s: the can is no longer of its kind", row.ID)
		}
		for g := range NumLabelFigures {
			if was, is := *LabelFigures[g].column(&c.Products[chalk]), *LabelFigures[g].column(&own.Products[chalk]); was != is {
				t.Errorf("%s of the kind changed by %s", LabelFigures[g].ID, row.ID)
			}
		}
	}
	// A window that begins after its end lasts until then.
	l := labelled(LabelRecoatFrom, 50)
	l.Has[LabelRecoatTo], l.At[LabelRecoatTo] = true, 5
	own, ids := c.WithCans([]Can{{Kind: chalk, Label: l}})
	if w := own.Products[ids[0]].Recoat; w.To < w.From {
		t.Errorf("%+v", w)
	}
}

// A surface that is named holds better and no worse, a stain that is named comes through less, and nothing else
// changes.
func TestLabelsNameSurfacesAndStains(t *testing.T) {
	c := Default()
	for p := range c.Kinds() {
		k := Product(p)
		l := &Label{On: []Family{MelamineFilm}, Stops: []Bleeder{Tannin}}
		own, ids := c.WithCans([]Can{{Kind: k, Label: l}})
		for f := range NumFamilies {
			was, is := own.GripFor(f, k, 0), own.GripFor(f, ids[0], 0)
			if is < was || f != MelamineFilm && is != was {
				t.Errorf("%s on %s: %v, before %v", c.Products[p].ID, f, is, was)
			}
		}
		for b := range Bleeders {
			was, is := own.LetsThrough(k, Bleeder(b)), own.LetsThrough(ids[0], Bleeder(b))
			if is > was || Bleeder(b) != Tannin && is != was {
				t.Errorf("%s lets %s through by %v, before %v", c.Products[p].ID, Bleeders[b].Name, is, was)
			}
		}
	}
}

// Cans keep their places, additives stay what they are, and there is room for as many as a file may have.
func TestCansKeepTheirPlaces(t *testing.T) {
	c := Default()
	chalk, _ := c.Product("paint_chalk")
	wax, _ := c.Product("wax_clear")
	own, ids := c.WithCans([]Can{{Kind: chalk, Colour: "#ece4d6", Sheen: Matt}, {Kind: NoProduct}, {Kind: wax}})
	if ids[1] != NoProduct || own.Products[ids[0]].Can != 1 || own.Products[ids[2]].Can != 3 || own.Products[ids[0]].Colour != "#ece4d6" || own.Products[ids[0]].Sheen != Matt {
		t.Errorf("%v", ids)
	}
	if same, none := c.WithCans(nil); same != c || none != nil {
		t.Error("no cans make another craft")
	}
	many := make([]Can, MostCans)
	for i := range many {
		many[i].Kind = chalk
	}
	own, ids = c.WithCans(many)
	if int(ids[MostCans-1]) != len(own.Products)-1 || own.Products[ids[MostCans-1]].Can != MostCans {
		t.Errorf("%d products for %d cans", len(own.Products), MostCans)
	}
	if !own.Fills(ids[0], ForUnder) {
		t.Error("a can of chalk paint does not serve as chalk paint does")
	}
	stocked := c.Stocked([]Can{{Kind: chalk, Label: labelled(LabelCover, 5)}, {Kind: chalk, Label: labelled(LabelCover, 7)}})
	if len(stocked.Products) != len(c.Products) || stocked.Products[chalk].Cover != 5 || c.Products[chalk].Cover == 5 {
		t.Errorf("stocked: %v", stocked.Products[chalk].Cover)
	}
}

func TestEveryKindKeepsForATime(t *testing.T) {
	for _, p := range Default().Kinds() {
		if p.Density <= 0 || p.Density > 2 || p.Keeps < p.KeepsOpen || p.KeepsOpen <= 0 {
			t.Errorf("%s weighs %v and keeps %d, open %d months", p.ID, p.Density, p.Keeps, p.KeepsOpen)
		}
		for id, x := range p.Usual() {
			if math.IsInf(x, 0) || math.IsNaN(x) {
				t.Errorf("%s: %s is %v", p.ID, id, x)
			}
		}
	}
}
