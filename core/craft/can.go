package craft

import (
	"math"
	"slices"
)

// LabelFigure is a figure that the label of a can may give in place of its kind's.
type LabelFigure uint8

// The figures.
const (
	LabelTouch LabelFigure = iota
	LabelRecoatFrom
	LabelRecoatTo
	LabelSand
	LabelCure
	LabelCover
	LabelPotLife
	LabelRatio
	LabelThin
	LabelMinC
	LabelMaxC
	LabelMaxRH
	// NumLabelFigures counts them.
	NumLabelFigures
)

// LabelRow describes a figure of a label: what it is called, its unit and limits, and which column of a
// product's row it replaces.
type LabelRow struct {
	ID, Name, Unit string
	Least, Most    float64
	column         func(*ProductRow) *float64
}

// LabelFigures is indexed by LabelFigure.
var LabelFigures = [NumLabelFigures]LabelRow{
	LabelTouch:      {"touch_h", "Touch dry after", "h", .01, 240, func(p *ProductRow) *float64 { return &p.Touch }},
	LabelRecoatFrom: {"recoat_from_h", "Next coat from", "h", .01, 720, func(p *ProductRow) *float64 { return &p.Recoat.From }},
	LabelRecoatTo:   {"recoat_to_h", "Next coat without sanding until", "h", .05, 8760, func(p *ProductRow) *float64 { return &p.Recoat.To }},
	LabelSand:       {"sand_h", "May be sanded from", "h", .05, 720, func(p *ProductRow) *float64 { return &p.Sand }},
	LabelCure:       {"cure_days", "Fully hard after", "days", .1, 120, func(p *ProductRow) *float64 { return &p.Cure }},
	LabelCover:      {"cover_m2_l", "Covers", "m² per litre", .5, 60, func(p *ProductRow) *float64 { return &p.Cover }},
	LabelPotLife:    {"pot_life_h", "Pot life once mixed", "h", .05, 720, func(p *ProductRow) *float64 { return &p.PotLife }},
	LabelRatio:      {"ratio", "Water or hardener to one part", "parts by volume", .005, 5, func(p *ProductRow) *float64 { return &p.Ratio }},
	LabelThin:       {"thin_pct", "Thinned by at most", "%", 0, 300, func(p *ProductRow) *float64 { return &p.ThinMax }},
	LabelMinC:       {"min_c", "Not below", "°C", -20, 40, func(p *ProductRow) *float64 { return &p.MinC }},
	LabelMaxC:       {"max_c", "Not above", "°C", 0, 60, func(p *ProductRow) *float64 { return &p.MaxC }},
	LabelMaxRH:      {"max_rh_pct", "Humidity at most", "%", 10, 100, func(p *ProductRow) *float64 { return &p.MaxRH }},
}

// Label is what stands on a can besides its kind: figures that take the place of its kind's, and the
// surfaces, uses and stains that it names. A label and its safety data sheet come before every table here.
type Label struct {
	// Has tells which figures it gives, and At what they are, in the units of [LabelFigures].
	Has [NumLabelFigures]bool
	At  [NumLabelFigures]float64
	// On are the surfaces that it names as suitable, and NotOn those that it excludes.
	On, NotOn []Family
	// For are the uses that it names, and NotFor those that it excludes.
	For, NotFor Uses
	// Stops are the stains that it says it blocks.
	Stops []Bleeder
}

// Empty tells whether a label says nothing beyond the kind.
func (l *Label) Empty() bool {
	return l == nil || l.Has == [NumLabelFigures]bool{} && len(l.On)+len(l.NotOn)+len(l.Stops) == 0 && l.For|l.NotFor == 0
}

// Gives tells whether the label gives a figure.
func (l *Label) Gives(f LabelFigure) bool { return l != nil && l.Has[f] }

// GivesWindow tells whether the label gives an end of the recoat window.
func (l *Label) GivesWindow() bool { return l.Gives(LabelRecoatFrom) || l.Gives(LabelRecoatTo) }

// Names tells whether the label names a surface as suitable.
func (l *Label) Names(f Family) bool { return l != nil && slices.Contains(l.On, f) }

// Excludes tells whether the label excludes a surface.
func (l *Label) Excludes(f Family) bool { return l != nil && slices.Contains(l.NotOn, f) }

// What a label's word counts for. Makers test on new, clean panels: a surface that is named holds at least
// so much of a full bond, a primer more than a paint, and a stain that is named is let through to at most
// so much. Working defaults.
const (
	namedPrimer, namedCoat = .78, .68
	namedStain             = .18
)

// lay puts the label's figures in the place of a row's.
func (p *ProductRow) lay(l *Label) {
	p.Label = l
	for f := range LabelFigures {
		if l.Has[f] {
			*LabelFigures[f].column(p) = l.At[f]
		}
	}
	p.Recoat.To = max(p.Recoat.To, p.Recoat.From)
	if l.Has[LabelRecoatFrom] {
		p.Left = NoSaying // the label tells
	}
	p.Outside = p.Outside || l.For&UseOutdoor != 0
}

// grips is a grip on a surface as the label raises it.
func (p *ProductRow) grips(on Family, g float64) float64 {
	switch {
	case !p.Label.Names(on):
		return g
	case p.Role == RolePrimer:
		return max(g, namedPrimer)
	}
	return max(g, namedCoat)
}

// Can is a can of paint, primer or clear as products go: of a kind, in a colour and a sheen, with its label.
type Can struct {
	Kind   Product
	Colour string // as #rrggbb; empty where it has none of its own
	Sheen  Sheen
	Label  *Label
}

// MostCans is how many cans one craft holds beside its kinds.
const MostCans = 150

// WithCans is the craft with a further product for each can; what they are follows in the same order. A can
// of NoProduct stays that. The craft itself is not changed. Its kinds stand first, and proposals and plans
// choose among kinds only.
func (c *Craft) WithCans(cans []Can) (*Craft, []Product) {
	if len(cans) == 0 {
		return c, nil
	}
	own := *c
	own.Products = append(make([]ProductRow, 0, len(c.Products)+len(cans)), c.Products...)
	out := make([]Product, len(cans))
	for i := range cans {
		if out[i] = cans[i].Kind; out[i] == NoProduct || len(own.Products) >= int(NoProduct) {
			continue
		}
		row := c.Products[cans[i].Kind]
		row.Can = i + 1
		row.fill(&cans[i])
		out[i] = Product(len(own.Products))
		own.Products = append(own.Products, row)
	}
	return &own, out
}

// Stocked is the craft with the figures of cans in the place of their kinds': for planning with what is
// there. Of two cans of a kind the first counts. The craft itself is not changed.
func (c *Craft) Stocked(cans []Can) *Craft {
	out := c
	var done [NoProduct]bool
	for i := range cans {
		k := cans[i].Kind
		if k == NoProduct || done[k] {
			continue
		}
		done[k] = true
		if cans[i].Label.Empty() {
			continue
		}
		if out == c {
			x := *c
			out = &x
			out.Products = slices.Clone(c.Products)
		}
		out.Products[k].lay(cans[i].Label)
	}
	return out
}

// fill makes a row that of a can.
func (p *ProductRow) fill(can *Can) {
	if !can.Label.Empty() {
		p.lay(can.Label)
	}
	if can.Colour != "" {
		p.Colour = can.Colour
	}
	if can.Sheen != NoSheen {
		p.Sheen, p.Sheens = can.Sheen, []Sheen{can.Sheen}
	}
}

// Kinds are the products without those of cans.
func (c *Craft) Kinds() []ProductRow { return c.Products[:c.kinds] }

// KindOf is the kind of a product: itself, or for that of a can the kind it is of.
func (c *Craft) KindOf(p Product) Product {
	if p == NoProduct || int(p) < c.kinds {
		return p
	}
	k, _ := c.Product(c.Products[p].ID)
	return k
}

// SameKind tells whether two products are of one kind.
func (c *Craft) SameKind(a, b Product) bool { return a == b || c.KindOf(a) == c.KindOf(b) }

// Usual are the figures of a row that a label may replace, by their ids; those that it has not are left out.
func (p *ProductRow) Usual() map[string]float64 {
	out := map[string]float64{}
	for _, r := range LabelFigures {
		if x := *r.column(p); !math.IsInf(x, 0) && x != 0 {
			out[r.ID] = x
		}
	}
	return out
}
