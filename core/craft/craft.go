package craft

import (
	"fmt"
	"hash/fnv"
	"slices"
)

// Substrate, Finish, Cleaner and Product are indices into a [Craft]'s tables.
type (
	Substrate uint8
	Finish    uint8
	Cleaner   uint8
	Product   uint8
)

// NoProduct stands for an old surface where a product could stand.
const NoProduct Product = 255

// Craft is one set of tables. A Craft is read by many goroutines and never
// changed after it was made; a studio with figures of its own makes a copy.
type Craft struct {
	Substrates []SubstrateRow
	Finishes   []FinishRow
	Cleaners   []CleanerRow
	Products   []ProductRow
	Effects    []EffectRow
	// Grip is the share of a full bond by surface family and coat family.
	Grip [NumFamilies][NumCoats]float64
	// Lets is the share of a stain one coat lets through.
	Lets [numBlockKinds][numColumns]float64
	// Version tells these tables from others: it changes whenever a row does.
	Version uint64
	// kinds is how many of the products are kinds; those of cans come after them.
	kinds int

	substrates map[string]Substrate
	finishes   map[string]Finish
	cleaners   map[string]Cleaner
	products   map[string]Product
	plausible  [NumFamilies][]Finish

	forProducts map[Purpose][]Product
	forCleaners map[Purpose][]Cleaner
}

var std = New(defaultProducts, defaultEffects)

// Default returns the working defaults.
func Default() *Craft { return std }

// New makes a craft of products and effects over the other tables. It panics where an id stands
// twice.
func New(products []ProductRow, effects []EffectRow) *Craft {
	c := &Craft{
		Substrates: defaultSubstrates,
		Finishes:   defaultFinishes,
		Cleaners:   defaultCleaners,
		Products:   slices.Clone(products),
		Effects:    effects,
		Lets:       defaultLets,
	}
	for i := range c.Products {
		c.Products[i].complete()
	}
	c.kinds = len(c.Products)
	for f := range c.Grip {
		for k := range c.Grip[f] {
			c.Grip[f][k] = Blank
		}
		copy(c.Grip[f][:], defaultGrip[f][:])
	}
	for k, cells := range defaultGripExtra {
		for f, g := range cells {
			c.Grip[f][k] = g
		}
	}
	c.substrates = index(c.Substrates, func(r *SubstrateRow) string { return r.ID }, Substrate(0))
	c.finishes = index(c.Finishes, func(r *FinishRow) string { return r.ID }, Finish(0))
	c.cleaners = index(c.Cleaners, func(r *CleanerRow) string { return r.ID }, Cleaner(0))
	c.products = index(c.Products, func(r *ProductRow) string { return r.ID }, Product(0))
	c.forProducts = ranked(c.Products, func(r *ProductRow) []Serve { return r.Serves }, Product(0))
	c.forCleaners = ranked(c.Cleaners, func(r *CleanerRow) []Serve { return r.Serves }, Cleaner(0))
	for f, ids := range plausible {
		for _, id := range ids {
			x, ok := c.finishes[id]
			if !ok {
				panic(fmt.Sprintf("craft: plausible finish %q has no row", id))
			}
			c.plausible[f] = append(c.plausible[f], x)
		}
	}
	h := fnv.New64a()
	fmt.Fprint(h, c.Substrates, c.Finishes, c.Cleaners, c.Products, c.Effects, c.Grip, c.Lets)
	c.Version = h.Sum64()
	return c
}

func index[R any, I ~uint8](rows []R, id func(*R) string, _ I) map[string]I {
	m := make(map[string]I, len(rows))
	for i := range rows {
		k := id(&rows[i])
		if _, dup := m[k]; dup {
			panic(fmt.Sprintf("craft: id %q twice", k))
		}
		m[k] = I(i)
	}
	return m
}

// Substrate returns the index of a substrate id.
func (c *Craft) Substrate(id string) (Substrate, bool) { x, ok := c.substrates[id]; return x, ok }

// Finish returns the index of a finish id.
func (c *Craft) Finish(id string) (Finish, bool) { x, ok := c.finishes[id]; return x, ok }

// Cleaner returns the index of a cleaner id.
func (c *Craft) Cleaner(id string) (Cleaner, bool) { x, ok := c.cleaners[id]; return x, ok }

// Product returns the index of a product id.
func (c *Craft) Product(id string) (Product, bool) { x, ok := c.products[id]; return x, ok }

// Plausible returns the finishes an untested surface of the given bare family
// may carry; none where an unknown finish can only be the bare surface.
func (c *Craft) Plausible(f Family) []Finish { return c.plausible[f] }

// GripOf returns the share of a full bond that coat family k reaches on
// surface family f when that is clean and keyed. Milk paint moves toward the
// figure of the full additive with the ratio of additive to paint.
func (c *Craft) GripOf(f Family, k Coat, additive float64) float64 {
	if k >= NumCoats {
		return 1
	}
	g := c.Grip[f][k]
	if k == MK && additive > 0 {
		g += (c.Grip[f][MB] - g) * min(1, additive/AdditiveFull)
	}
	return g
}

// LetsThrough returns T, the share of a stain that one coat of the product
// lets through.
func (c *Craft) LetsThrough(p Product, b Bleeder) float64 {
	row := &c.Products[p]
	t := c.Lets[row.Block][Bleeders[b].Column]
	if l := row.Label; l != nil && slices.Contains(l.Stops, b) {
		t = min(t, namedStain)
	}
	return t
}

// GripFor is [Craft.GripOf] for a product, raised where its label names the surface.
func (c *Craft) GripFor(f Family, p Product, additive float64) float64 {
	row := &c.Products[p]
	return row.grips(f, c.GripOf(f, row.Coat, additive))
}

// SoilNamed returns the soil with an id; false if there is none.
func SoilNamed(id string) (Soil, bool) {
	for i := range Soils {
		if Soils[i].ID == id {
			return Soil(i), true
		}
	}
	return 0, false
}

// BleederNamed returns the bleeder with an id; false if there is none.
func BleederNamed(id string) (Bleeder, bool) {
	for i := range Bleeders {
		if Bleeders[i].ID == id {
			return Bleeder(i), true
		}
	}
	return 0, false
}
