package craft

import "slices"

// How kinds of products are usually sold and applied, by their role. Working defaults.
var (
	usualMethods = map[Role][]string{
		RolePrimer: {"brush", "roller", "spray"}, RolePaint: {"brush", "roller", "spray"}, RoleClear: {"brush", "spray"},
		RoleWax: {"rag"}, RoleStain: {"brush"}, RoleMedium: {"brush"},
	}
	usualSizes = map[Role][]float64{
		RolePrimer: {.5, 1, 2.5}, RolePaint: {.5, 1, 2.5}, RoleClear: {.25, .75, 2.5}, RoleWax: {.25, .5}, RoleStain: {.25, 1}, RoleMedium: {.25, .5},
	}
)

// sold sets what a product is sold in: sheens, and the sizes of its cans in litres. Left out, it has the
// one sheen of its row and the usual sizes of its role.
func (p ProductRow) sold(sheens []Sheen, litres ...float64) ProductRow {
	p.Sheens = sheens
	if len(litres) > 0 {
		p.Sizes = litres
	}
	return p
}

// by sets the ways of applying a product, the usual one first.
func (p ProductRow) by(methods ...string) ProductRow {
	p.Methods = methods
	return p
}

// upTo sets the area, in square metres, up to which a painter thinks of a product: on flat faces and on
// slender parts.
func (p ProductRow) upTo(flat, slender float64) ProductRow {
	p.MostFlat, p.MostSlender = flat, slender
	return p
}

// complete fills in what a row leaves to its role.
func (p *ProductRow) complete() {
	if p.Sheens == nil {
		p.Sheens = []Sheen{p.Sheen}
	}
	if p.Methods == nil {
		p.Methods = usualMethods[p.Role]
	}
	if p.Sizes == nil {
		p.Sizes = usualSizes[p.Role]
	}
	p.store()
	p.card()
}

// store says how long a product keeps, what it weighs and what it is mixed with, by what it is made of.
// Working defaults.
func (p *ProductRow) store() {
	switch {
	case p.Powder():
		p.Keeps, p.KeepsOpen, p.Density = 24, 12, .7 // heaped, as powder
	case p.Carrier == Alcohol:
		p.Keeps, p.KeepsOpen, p.Density = 12, 6, .93 // it goes on reacting with the alcohol
	case p.TwoPart:
		p.Keeps, p.KeepsOpen, p.Density = 24, 12, 1.35
	case p.Carrier == Paste:
		p.Keeps, p.KeepsOpen, p.Density = 60, 36, .85
	case p.Carrier == OilCarrier:
		p.Keeps, p.KeepsOpen, p.Density = 36, 12, .9
	case p.Carrier == StrongSolvent:
		p.Keeps, p.KeepsOpen, p.Density = 60, 36, .95
	case p.Carrier == Solvent && p.Opaque():
		p.Keeps, p.KeepsOpen, p.Density = 60, 24, 1.3
	case p.Carrier == Solvent:
		p.Keeps, p.KeepsOpen, p.Density = 36, 12, .9
	case p.Opaque():
		p.Keeps, p.KeepsOpen, p.Density = 36, 18, 1.35
	default:
		p.Keeps, p.KeepsOpen, p.Density = 24, 12, 1.03
	}
	switch {
	case p.Powder():
		p.Ratio = 1
	case p.TwoPart:
		p.Ratio = .25
	}
}

// OneSheen tells that a product comes in the sheen it has and in no other.
func (p *ProductRow) OneSheen() bool { return len(p.Sheens) == 1 }

// SoldIn is the sheen nearest to one that is wanted that a product is sold in; of two equally near the
// flatter. Where none is wanted it is the usual one.
func (p *ProductRow) SoldIn(want Sheen) Sheen {
	if want == NoSheen {
		return p.Sheen
	}
	best := p.Sheens[0]
	for _, s := range p.Sheens[1:] {
		if apart(s, want) < apart(best, want) {
			best = s
		}
	}
	return best
}

func apart(a, b Sheen) int {
	if a > b {
		a, b = b, a
	}
	return int(b - a)
}

// Apart is how many classes lie between two sheens.
func (s Sheen) Apart(o Sheen) int { return apart(s, o) }

// Slender is the work factor from which parts count as frames, legs and rails. Working default.
const Slender = 1.4

// Makes tells whether a painter thinks of a product for an area in square metres of some work factor.
func (p *ProductRow) Makes(area, work float64) bool {
	most := p.MostFlat
	if work >= Slender {
		most = p.MostSlender
	}
	return most == 0 || area > 0 && area <= most
}

// AppliedBy tells whether a method suits a product.
func (p *ProductRow) AppliedBy(method string) bool { return slices.Contains(p.Methods, method) }
