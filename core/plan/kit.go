package plan

import (
	"math/bits"
	"slices"

	"rutile/core/craft"
	"rutile/core/surface"
)

// Tool is something besides brushes and paper that work may need.
type Tool uint8

// The tools.
const (
	Roller Tool = iota
	Gun         // a spray gun, with room to use it
	Sander      // a small orbital sander with dust extraction
	HotAir      // a hot air gun
	numTools
)

// ToolRow names a tool.
type ToolRow struct{ ID, Name string }

// Tools is indexed by Tool. Brushes, rags, abrasives and pads are taken for granted.
var Tools = [numTools]ToolRow{
	Roller: {"roller", "Foam roller and tray"},
	Gun:    {"gun", "Spray gun"},
	Sander: {"sander", "Orbital sander with extraction"},
	HotAir: {"hot_air", "Hot air gun"},
}

// ToolNamed returns the tool with an id; false if there is none.
func ToolNamed(id string) (Tool, bool) {
	i := slices.IndexFunc(Tools[:], func(r ToolRow) bool { return r.ID == id })
	return Tool(max(0, i)), i >= 0
}

// PaintUse is what a paint of choice is chosen for.
type PaintUse uint8

// The uses.
const (
	UseEveryday PaintUse = iota // a solid face indoors in eggshell or more
	UseMatt                     // the same in matt or flatter
	UseHard                     // table tops, kitchens, floors
	UseWeather                  // outdoors
	numPaintUses
)

// PaintUses names them.
var PaintUses = [numPaintUses]ToolRow{
	UseEveryday: {"everyday", "Everyday furniture"},
	UseMatt:     {"matt", "Matt faces"},
	UseHard:     {"hard", "Kitchens and table tops"},
	UseWeather:  {"weather", "Outdoors"},
}

// Kit is what a studio owns and likes: its tools, the products it keeps, and its paints of choice. A plan
// uses it; what lies outside is bought or borrowed, and only where that gains something.
type Kit struct {
	ID, Name string
	Says     string // what it is for, as a sentence
	Tools    []string
	Products []string // ids
	// Choice is the id of the paint of choice for each use; empty where any will do.
	Choice [numPaintUses]string
	// Open and Closed are the ids of products of which there is an open can on the shelf, or a closed one,
	// that would do for the zone. Where Shelf is set, plans prefer those, the open ones first.
	Shelf        bool
	Open, Closed []string
}

// Kits are the kits that come with the program, the usual one first. Working defaults.
var Kits = []Kit{
	{
		ID: "brush", Name: "Small brush studio", Says: "Shellac, primers and paints for furniture indoors, applied with brush and foam roller.",
		Tools:    []string{"roller"},
		Products: []string{"shellac_clear", "shellac_pigmented", "primer_stainblock_wb", "primer_bond_wb", "paint_chalk", "paint_acrylic", "paint_enamel_wb", "paint_trim", "clear_wb", "clear_wb_hard", "clear_acrylic_varnish", "wax_clear", "wax_white", "glaze_wb", "crackle_medium"},
		Choice:   [numPaintUses]string{UseEveryday: "paint_trim", UseMatt: "paint_chalk", UseHard: "paint_enamel_wb"},
	},
	{
		ID: "spray", Name: "Spraying", Says: "A spray gun with a place to use it, and what is usually sprayed.",
		Tools:    []string{"gun", "sander"},
		Products: []string{"shellac_pigmented", "primer_bond_wb", "primer_stainblock_wb", "paint_enamel_wb", "clear_wb", "clear_wb_hard"},
		Choice:   [numPaintUses]string{UseEveryday: "paint_enamel_wb", UseHard: "paint_enamel_wb"},
	},
	{
		ID: "powder", Name: "Powder paint", Says: "Milk paint in powder with its bonding additive, waxes and oils, and warm air to make it flake.",
		Tools:    []string{"hot_air"},
		Products: []string{"paint_milk", "shellac_clear", "wax_clear", "wax_dark", "wax_white", "wax_oil", "oil_penetrating", "crackle_medium", "clear_acrylic_varnish"},
		Choice:   [numPaintUses]string{UseMatt: "paint_milk"},
	},
	{
		ID: "outdoor", Name: "Outdoors and metal", Says: "Metal primers, oil enamel, masonry sealer and paint.",
		Tools:    []string{"sander"},
		Products: []string{"primer_metal", "primer_galv", "primer_stainblock_oil", "sealer_masonry", "paint_enamel_oil", "paint_masonry", "clear_oil"},
		Choice:   [numPaintUses]string{UseWeather: "paint_enamel_oil"},
	},
}

// KitNamed returns the kit of an id: one of a studio's own, which may stand for one that comes with the
// program, or one of these; false if there is none.
func KitNamed(id string, own []Kit) (Kit, bool) {
	for _, list := range [][]Kit{own, Kits} {
		for i := range list {
			if list[i].ID == id {
				return list[i], true
			}
		}
	}
	return Kit{}, false
}

// DefaultKit is the kit of a studio that has not said what it owns.
func DefaultKit() *Kit { k := Kits[0]; return &k }

// With is everything that is in either of two kits; of paints of choice the first one's. Neither is
// changed.
func (k *Kit) With(o *Kit) *Kit {
	if k == nil {
		out := *o
		return &out
	}
	out := *k
	out.Name = k.Name + " and " + craft.Lower(o.Name)
	union := func(a, b []string) []string {
		out := slices.Clone(a)
		for _, x := range b {
			if !slices.Contains(out, x) {
				out = append(out, x)
			}
		}
		return out
	}
	out.Tools, out.Products = union(k.Tools, o.Tools), union(k.Products, o.Products)
	out.Shelf, out.Open, out.Closed = k.Shelf || o.Shelf, union(k.Open, o.Open), union(k.Closed, o.Closed)
	for i := range out.Choice {
		if out.Choice[i] == "" {
			out.Choice[i] = o.Choice[i]
		}
	}
	return &out
}

// Together are several kits as one; nil where there are none, and then everything counts as there.
func Together(kits []Kit) *Kit {
	var out *Kit
	for i := range kits {
		out = out.With(&kits[i])
	}
	return out
}

// Has tells whether a tool is there; everything is where there is no kit.
func (k *Kit) Has(t Tool) bool { return k == nil || slices.Contains(k.Tools, Tools[t].ID) }

// Keeps tells whether a product is there; everything is where there is no kit.
func (k *Kit) Keeps(id string) bool { return k == nil || slices.Contains(k.Products, id) }

// buys is a set of what lies outside a kit: a bit for each product, and above them one for each tool.
type buys uint64

const firstTool = 64 - int(numTools)

// productBit is the bit of a product.
func productBit(x craft.Product) buys { return 1 << min(int(x), firstTool-1) }

// toolBit is the bit of a tool.
func toolBit(t Tool) buys { return 1 << (firstTool + int(t)) }

func (b buys) len() int { return bits.OnesCount64(uint64(b)) }

// buying is how many things of a set the kit has not, and restocking how many cans of what it has must be
// opened or bought all the same: a closed can counts a quarter.
func (p *planner) buying(b buys) float64 { return float64((b & p.outside).len()) }
func (p *planner) restocking(b buys) float64 {
	const closed = .25
	return float64((b & p.unstocked).len()) + closed*float64((b&p.unopened).len())
}

// shelved marks the products that the kit has and the shelf has not, and those of which there are only closed
// cans.
func (p *planner) shelved() (unstocked, unopened buys) {
	k := p.ask.Kit
	if k == nil || !k.Shelf {
		return 0, 0
	}
	for i := range p.craft.Kinds() {
		id := p.craft.Products[i].ID
		bit := productBit(craft.Product(i))
		switch {
		case p.outside&bit != 0 || slices.Contains(k.Open, id):
		case slices.Contains(k.Closed, id):
			unopened |= bit
		default:
			unstocked |= bit
		}
	}
	return unstocked, unopened
}

// outsideOf marks the products and tools that are not in the kit.
func (p *planner) outsideOf() buys {
	var out buys
	if p.ask.Kit == nil {
		return 0
	}
	for i := range p.craft.Kinds() {
		if !p.ask.Kit.Keeps(p.craft.Products[i].ID) {
			out |= productBit(craft.Product(i))
		}
	}
	for t := range numTools {
		if !p.ask.Kit.Has(t) {
			out |= toolBit(t)
		}
	}
	return out
}

// needs are what some steps need, as far as it lies outside the kit or is not open on the shelf.
func (p *planner) needs(steps []surface.Step) buys {
	var out buys
	for i := range steps {
		s := &steps[i]
		switch {
		case s.Do == surface.Coat:
			out |= productBit(p.craft.KindOf(s.Product))
			if s.Method == "spray" {
				out |= toolBit(Gun)
			}
		case s.Do == surface.Effect && s.Heat, s.Do == surface.Strip && craft.Treatment(s.StripHow) == craft.StripHeat:
			out |= toolBit(HotAir)
		}
	}
	return out & (p.outside | p.unstocked | p.unopened)
}

// Item is one thing that a plan needs and the kit has not.
type Item struct {
	Product string // its id, empty for a tool
	Tool    string // its id, empty for a product
	Name    string
	Borrow  bool // rather than bought
}

// items names what is in a set.
func (p *planner) items(b buys) []Item {
	var out []Item
	b &= p.outside
	for i := range p.craft.Kinds() {
		if b&productBit(craft.Product(i)) != 0 {
			out = append(out, Item{Product: p.craft.Products[i].ID, Name: p.craft.Products[i].Name})
		}
	}
	for t := range numTools {
		if b&toolBit(t) != 0 {
			out = append(out, Item{Tool: Tools[t].ID, Name: Tools[t].Name, Borrow: true})
		}
	}
	return out
}

// useOf is what the paint of a zone is chosen for.
func (p *planner) useOf() PaintUse {
	z := &p.zone
	switch {
	case z.Uses&craft.UseOutdoor != 0 || z.Wear == craft.Outdoor:
		return UseWeather
	case z.Wear == craft.Tabletop || z.Wear == craft.WetWear || z.Wear == craft.Floor:
		return UseHard
	case z.Sheen != craft.NoSheen && z.Sheen <= craft.Matt:
		return UseMatt
	}
	return UseEveryday
}

// chosen tells whether a paint is that of choice for the zone, or there is none.
func (p *planner) chosen(x craft.Product) bool {
	if p.ask.Kit == nil {
		return true
	}
	id := p.ask.Kit.Choice[p.useOf()]
	return id == "" || p.craft.Products[x].ID == id
}
