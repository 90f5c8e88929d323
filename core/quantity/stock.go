package quantity

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"rutile/core/craft"
	"rutile/core/measure"
)

// Stock is a can that a plan may take from.
type Stock struct {
	Can    int // of the piece's cans, from 1; 0 for one that no coat names
	Kind   craft.Product
	Name   string
	Colour string
	Left   float64 // litres, of powder as powder
	Open   bool
	// For names another piece that it is reserved for; empty for none.
	For string
}

// State is how what is there compares with what is needed.
type State string

// The states.
const (
	Enough State = "enough" // for the fullest hand
	Tight  State = "tight"  // for a usual one
	Short  State = "short"
	None   State = "none" // there is none
)

// Item is one thing that a piece needs of the shelf: a product in a colour, over all its zones and coats.
type Item struct {
	// Product is its kind; craft.NoProduct stands for the bonding additive.
	Product craft.Product
	Can     int
	Colour  string
	Coats   []Coat
	Need    Litres
	Have    float64
	// From are the cans that count, and State is how far they go.
	From  []Stock
	State State
	// Missing is what is to be bought for the usual hand, and Buy as cans.
	Missing float64
	Buy     []Tin
	// Reach is for how many coats of each zone it is enough, by the caller's number.
	Reach map[int]int
}

// Additive tells whether the item is the bonding additive.
func (x *Item) Additive() bool { return x.Product == craft.NoProduct }

// additiveSizes are those that bonding additive is sold in, in litres. Working default.
var additiveSizes = []float64{.25, .5, 1}

// amount is what a coat takes of the item.
func (x *Item) amount(c *Coat) Litres {
	if x.Additive() {
		return c.Additive
	}
	return c.Paint
}

// Items gathers what the coats of a piece need, each product in each colour once, in the order of the first
// coat of it, and holds it against what is there. colourOf is the colour that a coat has where it names none:
// it decides which cans are alike; empty for what has no colour of its own.
func Items(c *craft.Craft, coats []Coat, stock []Stock, colourOf func(*Coat) string) []Item {
	var out []Item
	add := func(x Item, k Coat) {
		for i := range out {
			o := &out[i]
			if o.Product == x.Product && o.Can == x.Can && o.Colour == x.Colour {
				o.Coats = append(o.Coats, k)
				return
			}
		}
		x.Coats = []Coat{k}
		out = append(out, x)
	}
	for _, k := range coats {
		x := Item{Product: c.KindOf(k.Product), Can: k.Can}
		if k.Can == 0 {
			x.Colour = colourOf(&k)
		}
		add(x, k)
	}
	for _, k := range coats {
		if k.Additive.Likely > 0 {
			add(Item{Product: craft.NoProduct}, k)
		}
	}
	taken := make([]float64, len(stock))
	// Coats that name a can come first, then the others take what is left.
	order := make([]int, len(out))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(named(&out[b]), named(&out[a])) })
	for _, i := range order {
		out[i].hold(c, stock, taken)
	}
	return out
}

func named(x *Item) int {
	if x.Can > 0 {
		return 1
	}
	return 0
}

// hold holds what an item needs against the stock, of which some was taken by items before.
func (x *Item) hold(c *craft.Craft, stock []Stock, taken []float64) {
	for i := range x.Coats {
		x.Need = x.Need.Plus(x.amount(&x.Coats[i]))
	}
	var mine []int
	for i := range stock {
		if s := &stock[i]; s.For == "" && x.takes(s) {
			mine = append(mine, i)
		}
	}
	slices.SortStableFunc(mine, func(a, b int) int { // open ones are used up first
		return cmp.Compare(opened(&stock[a]), opened(&stock[b]))
	})
	for _, i := range mine {
		if left := stock[i].Left - taken[i]; left > 0 {
			x.Have += left
		}
		x.From = append(x.From, stock[i])
	}
	want := x.Need.Likely
	for _, i := range mine {
		n := min(want, max(0, stock[i].Left-taken[i]))
		taken[i], want = taken[i]+n, want-n
	}
	const exact = 1e-9
	switch {
	case len(mine) == 0 || x.Have <= 0:
		x.State = None
	case x.Have >= x.Need.Most-exact:
		x.State = Enough
	case x.Have >= x.Need.Likely-exact:
		x.State = Tight
	default:
		x.State = Short
	}
	x.Reach = x.reach()
	if x.Missing = x.Need.Likely - x.Have; x.Missing <= exact {
		x.Missing = 0
		return
	}
	sizes := additiveSizes
	if !x.Additive() {
		sizes = c.Products[x.Product].Sizes
	}
	x.Buy = Tins(sizes, x.Need.Most-x.Have)
}

func opened(s *Stock) int {
	if s.Open {
		return 0
	}
	return 1
}

func (x *Item) takes(s *Stock) bool {
	switch {
	case s.Kind != x.Product:
		return false
	case x.Can > 0:
		return s.Can == x.Can
	case x.Additive():
		return true
	}
	return s.Colour == "" || x.Colour == "" || s.Colour == x.Colour
}

// reach is for how many coats of each zone the stock is enough: the first coats of all zones, then the
// second ones, as they are worked.
func (x *Item) reach() map[int]int {
	out := map[int]int{}
	left := x.Have
	for _, k := range x.inTurn() {
		left -= x.amount(k).Likely
		if left < -1e-9 {
			break
		}
		out[k.Zone]++
	}
	return out
}

// inTurn are its coats as they are worked: the first coats of all zones, then the second.
func (x *Item) inTurn() []*Coat {
	out := make([]*Coat, len(x.Coats))
	nth := map[*Coat]int{}
	count := map[int]int{}
	for i := range x.Coats {
		out[i] = &x.Coats[i]
		count[out[i].Zone]++
		nth[out[i]] = count[out[i].Zone]
	}
	slices.SortStableFunc(out, func(a, b *Coat) int { return cmp.Compare(nth[a], nth[b]) })
	return out
}

// Says is what an item comes to, as a sentence; amount words litres of it, and zones are what the zones are
// called.
func (x *Item) Says(amount func(litres float64) string, zones []string) string {
	need := amount(x.Need.Likely)
	switch x.State {
	case Enough:
		return fmt.Sprintf("Enough for %s: %s needed, %s there.", all(len(x.Coats)), need, amount(x.Have))
	case Tight:
		return fmt.Sprintf("Just enough for %s: %s needed, %s there. A full brush takes up to %s.", all(len(x.Coats)), need, amount(x.Have), amount(x.Need.Most))
	case None:
		return fmt.Sprintf("Not on the shelf: %s needed for %s.", need, measure.Count(len(x.Coats), "coat", "coats"))
	}
	var reach []string
	first := ""
	seen := map[int]bool{}
	for _, k := range x.inTurn() {
		if seen[k.Zone] {
			continue
		}
		seen[k.Zone] = true
		if n := x.Reach[k.Zone]; n > 0 {
			reach = append(reach, fmt.Sprintf("%s of %s", coats(n), the(zones, k.Zone)))
		}
	}
	reached := map[int]int{}
	rest := 0
	for _, k := range x.inTurn() {
		if reached[k.Zone] < x.Reach[k.Zone] {
			reached[k.Zone]++
			continue
		}
		reached[k.Zone]++
		if rest == 0 {
			first = fmt.Sprintf("%s coat of %s needs %s more", ordinal(reached[k.Zone]), the(zones, k.Zone), amount(x.Missing))
		}
		rest++
	}
	if rest > 1 {
		first = fmt.Sprintf("the other %d coats need %s more", rest, amount(x.Missing))
	}
	if len(reach) == 0 {
		return fmt.Sprintf("%s there, not enough for one coat: %s.", amount(x.Have), first)
	}
	return "Enough for " + craft.List(reach) + "; " + first + "."
}

func all(n int) string {
	switch n {
	case 1:
		return "its one coat"
	case 2:
		return "both coats"
	}
	return fmt.Sprintf("all %d coats", n)
}

var counts = []string{"no", "one", "two", "three", "four", "five", "six"}

func coats(n int) string {
	if n < len(counts) {
		if n == 1 {
			return "one coat"
		}
		return counts[n] + " coats"
	}
	return fmt.Sprintf("%d coats", n)
}

func ordinal(n int) string {
	words := []string{"", "the first", "a second", "a third", "a fourth", "a fifth", "a sixth"}
	if n < len(words) {
		return words[n]
	}
	return fmt.Sprintf("coat %d, the next", n)
}

// the is a zone within a sentence.
func the(zones []string, i int) string {
	name := "the zone"
	if i >= 0 && i < len(zones) && zones[i] != "" {
		name = craft.Lower(zones[i])
		if !strings.HasPrefix(name, "the ") {
			name = "the " + name
		}
	}
	return name
}
