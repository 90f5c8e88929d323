package app

import (
	"fmt"
	"hash/fnv"
	"slices"

	"rutile/core/check"
	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/plan"
	"rutile/core/quantity"
	"rutile/core/shelf"
	"rutile/core/surface"
	"rutile/internal/wire"
)

// kindOf is what is in a can; craft.NoProduct stands for the bonding additive.
func kindOf(c *craft.Craft, id string) craft.Product {
	if k, ok := c.Product(id); ok {
		return k
	}
	return craft.NoProduct
}

// canOf is a can for the core.
func canOf(c *craft.Craft, x *wire.Can) shelf.Can {
	out := shelf.Can{
		ID: x.ID, Name: x.Name, Kind: kindOf(c, x.Kind), Colour: x.Colour, Size: x.SizeL, Left: -1,
		Opened: x.Opened, Bought: x.Bought, Batch: x.Batch, For: x.ReservedFor, Label: x.Label.Core(),
	}
	if x.ReservedID > 0 && out.For == "" {
		out.For = "another piece"
	}
	out.Sheen, _ = craft.SheenNamed(x.Sheen)
	if x.LeftL != nil {
		out.Left = *x.LeftL
	} else if x.SizeL == 0 { // nobody said what it holds: it counts as enough
		out.Size = wire.MaxCanLitres
	}
	return out
}

// carry is a can as products go.
func carry(x *shelf.Can) craft.Can {
	return craft.Can{Kind: x.Kind, Colour: x.Colour, Sheen: x.Sheen, Label: x.Label}
}

// withCans gives the job the cans of its piece. What is left in them, and what they are reserved for, is what
// the shelf says now, where there is one.
func (j *Job) withCans() {
	j.Craft = j.Engine.Craft
	if len(j.Piece.Cans) == 0 {
		return
	}
	rows := make([]craft.Can, len(j.Piece.Cans))
	j.cans = make([]check.Can, len(j.Piece.Cans))
	for i := range j.Piece.Cans {
		x := canOf(j.Engine.Craft, &j.Piece.Cans[i])
		if now, ok := j.Shop.Shelf.find(x.ID); ok {
			x.Left, x.Size, x.For = now.Left, now.Size, now.reservedFrom(j.Shop.PieceID)
		}
		j.cans[i] = check.Can{Can: x}
		rows[i] = carry(&x)
	}
	j.Craft, j.canProducts = j.Engine.Craft.WithCans(rows)
}

// canNamed is the product of a can of the piece; false where the piece has none of that id.
func (j *Job) canNamed(id string) (craft.Product, bool) {
	i := slices.IndexFunc(j.Piece.Cans, func(x wire.Can) bool { return x.ID == id })
	if i < 0 || j.canProducts[i] == craft.NoProduct {
		return 0, false
	}
	return j.canProducts[i], true
}

// stepOf turns a step of the piece into one of the core.
func (j *Job) stepOf(s *wire.Step) surface.Step {
	out := stepOf(j.Craft, s)
	if s.Can != "" {
		if p, ok := j.canNamed(s.Can); ok {
			out.Product = p
		}
	}
	return out
}

// stepsFrom writes steps of the core, with the cans that they are taken from.
func (j *Job) stepsFrom(steps []surface.Step) []wire.Step { return writeSteps(j.Craft, j.cans, steps) }

func writeSteps(c *craft.Craft, cans []check.Can, steps []surface.Step) []wire.Step {
	out := stepsFrom(c, steps)
	for i := range steps {
		if steps[i].Do != surface.Coat {
			continue
		}
		if n := c.Products[steps[i].Product].Can; n > 0 && n <= len(cans) {
			out[i].Can = cans[n-1].ID
		}
	}
	return out
}

// share works out what each zone takes of the piece's cans, and tells every zone what the others take.
func (j *Job) share() {
	if len(j.cans) == 0 {
		return
	}
	takes := make([][]float64, len(j.Zones))
	additive := make([]float64, len(j.Zones))
	sums, all := make([]float64, len(j.cans)), 0.
	for i := range j.Zones {
		takes[i] = make([]float64, len(j.cans))
		for _, k := range j.coatsOf(i) {
			additive[i] += k.Additive.Likely
			if k.Can > 0 {
				takes[i][k.Can-1] += k.Paint.Likely
			}
		}
		for n, x := range takes[i] {
			sums[n] += x
		}
		all += additive[i]
	}
	for i := range j.Zones {
		cans := slices.Clone(j.cans)
		for n := range cans {
			cans[n].Elsewhere = sums[n] - takes[i][n]
			if cans[n].Kind == craft.NoProduct {
				cans[n].Elsewhere = all - additive[i]
			}
		}
		j.Zones[i].Cans = cans
	}
}

// coatsOf is what the coats of a zone take.
func (j *Job) coatsOf(i int) []quantity.Coat {
	z := &j.Zones[i]
	if !(z.Area > 0) {
		return nil
	}
	w := surface.Walk(j.Craft, &z.Facts, z.Steps)
	return quantity.Coats(j.Craft, &quantity.Zone{Facts: &z.Facts, Relief: z.Relief, Trace: &w}, i)
}

// shelved is a can of the shelf with the number of the piece that it is reserved for.
type shelved struct {
	shelf.Can
	pieceID int
	wire    *wire.Can
	rev     int
}

// reservedFrom is what keeps the can from a piece of a number: what it is reserved for, if that is another.
func (x *shelved) reservedFrom(piece int) string {
	if x.pieceID != 0 && x.pieceID == piece {
		return ""
	}
	return x.For
}

// Shelf is the cans of a studio, for its jobs; nil where there is none.
type Shelf struct {
	cans    []shelved
	by      map[string]int
	version uint64
}

// sum tells shelves apart by what verdicts depend on: what is left in each can, and what it is reserved for;
// never 0 but for no shelf.
func (s *Shelf) sum() uint64 {
	if s == nil {
		return 0
	}
	return s.version
}

func (s *Shelf) summed() uint64 {
	h := fnv.New64a()
	for i := range s.cans {
		x := &s.cans[i]
		fmt.Fprintln(h, x.ID, x.Left, x.Size, x.For, x.pieceID)
	}
	return h.Sum64() | 1
}

func (s *Shelf) find(id string) (*shelved, bool) {
	if s == nil {
		return nil, false
	}
	i, ok := s.by[id]
	if !ok {
		return nil, false
	}
	return &s.cans[i], true
}

// stock are the cans that plans of a zone may take from, in the order in which they are used: they have something
// in them, are not past their life nor kept for another piece, and would suit the colour and the sheen.
func (j *Job) stock(i int) []*shelved {
	if j.Shop.Shelf == nil {
		return nil
	}
	z := &j.Zones[i]
	var out []*shelved
	for k := range j.Shop.Shelf.cans {
		x := &j.Shop.Shelf.cans[k]
		can := x.Can
		can.For = x.reservedFrom(j.Shop.PieceID)
		if can.Kind == craft.NoProduct || !shelf.Usable(j.Craft, &can, j.Shop.Today) || !suits(&j.Craft.Products[can.Kind], &can, z) || !lasts(&j.Craft.Products[can.Kind], &can, z) {
			continue
		}
		out = append(out, x)
	}
	return out
}

// lasts tells whether a can holds enough for one coat of a zone, as far as its area is known: what it lacks for
// the others is seen once there is a plan.
func lasts(row *craft.ProductRow, x *shelf.Can, z *check.Zone) bool {
	cover := row.Cover
	if x.Label.Gives(craft.LabelCover) {
		cover = x.Label.At[craft.LabelCover]
	}
	return x.Holds()*quantity.Makes(row) >= z.Area*max(1, z.Relief)/cover
}

// suits tells whether a can would do for a zone: a paint comes near its colour, and a paint or clear has its
// sheen, so far as either is known; and its label does not exclude a use of the zone.
func suits(row *craft.ProductRow, x *shelf.Can, z *check.Zone) bool {
	if x.Label != nil && check.Unfit(&z.Facts, x.Label) != 0 {
		return false
	}
	if row.Role == craft.RolePaint && !nearColour(x.Colour, z.Colour) {
		return false
	}
	shines := row.Role == craft.RolePaint || row.Role == craft.RoleClear
	return !shines || x.Sheen == craft.NoSheen || z.Sheen == craft.NoSheen || row.OneSheen() || x.Sheen == z.Sheen
}

// nearColour tells whether a can's colour is the one wanted, or either is not known.
func nearColour(is, want string) bool {
	a, ok1 := colour.Parse(is)
	b, ok2 := colour.Parse(want)
	if !ok2 {
		return true
	}
	return ok1 && colour.Difference(colour.Masstone(a), colour.Masstone(b)) <= check.ColourOff
}

// planning is what a zone is planned with: the craft with the figures of the cans that it would take, and the
// kit with what is on the shelf.
func (j *Job) planning(i int, kit *plan.Kit) (*craft.Craft, *plan.Kit) {
	if j.Shop.Shelf == nil || len(j.Shop.Shelf.cans) == 0 {
		return j.Craft, kit
	}
	stock := j.stock(i)
	rows := make([]craft.Can, len(stock))
	with := plan.Kit{Name: "the shelf", Shelf: true}
	for k, x := range stock {
		rows[k] = carry(&x.Can)
		id := j.Craft.Products[x.Kind].ID
		with.Products = append(with.Products, id)
		if x.Open() {
			with.Open = append(with.Open, id)
		} else {
			with.Closed = append(with.Closed, id)
		}
	}
	both := kit.With(&with)
	both.ID, both.Name, both.Says = kit.ID, kit.Name, kit.Says
	return j.Craft.Stocked(rows), both
}

// taken is a plan of the core with the cans that its coats are taken from.
type taken struct {
	craft *craft.Craft
	steps []surface.Step
	cans  []check.Can
	wire  []wire.Can // of the piece, with those that are new
	from  []string   // what the cans are called, the open ones first
}

// take says which cans of the shelf the coats of a plan are taken from: for each product the can that is used
// first of those with enough for the whole zone. Coats in another colour than the zone's take only cans of
// their own colour. left is what other zones have left of each can, by its id; what the plan takes is taken off.
func (j *Job) take(i int, steps []surface.Step, left map[string]float64) taken {
	return j.takeBut(i, steps, left, nil)
}

// takeBut is take without the cans of some ids.
func (j *Job) takeBut(i int, steps []surface.Step, left map[string]float64, but []string) taken {
	out := taken{craft: j.Craft, steps: steps, cans: j.cans, wire: j.Piece.Cans}
	stock := j.stock(i)
	if len(stock) == 0 {
		return out
	}
	z := j.Zones[i]
	z.Steps = steps
	w := surface.Walk(j.Craft, &z.Facts, steps)
	need := map[craft.Product]float64{}
	for _, k := range quantity.Coats(j.Craft, &quantity.Zone{Facts: &z.Facts, Relief: z.Relief, Trace: &w}, i) {
		need[k.Product] += k.Paint.Likely
	}
	chosen := map[craft.Product]*shelved{}
	for _, x := range stock {
		holds, seen := left[x.ID]
		if !seen {
			holds = x.Holds()
		}
		if chosen[x.Kind] == nil && holds >= need[x.Kind] && !slices.Contains(but, x.ID) {
			chosen[x.Kind] = x
		}
	}
	out.steps = slices.Clone(steps)
	out.wire = slices.Clone(j.Piece.Cans)
	place := map[string]int{} // of a can among the piece's, from 1
	for k := range out.wire {
		place[out.wire[k].ID] = k + 1
	}
	names := map[int]*shelved{} // by step
	for k := range out.steps {
		s := &out.steps[k]
		if s.Do != surface.Coat {
			continue
		}
		x := chosen[s.Product]
		row := &j.Craft.Products[s.Product]
		switch {
		case x == nil:
			continue
		case row.Role == craft.RolePaint && !nearColour(x.Colour, orElse(s.Colour, z.Colour)):
			continue
		case s.Sheen != craft.NoSheen && x.Sheen != craft.NoSheen && s.Sheen != x.Sheen:
			continue
		}
		if place[x.ID] == 0 {
			if len(out.wire) >= wire.MaxCans {
				continue
			}
			out.wire = append(out.wire, *copyFor(x.wire, j.Shop.PieceID))
			place[x.ID] = len(out.wire)
		}
		names[k] = x
	}
	if len(names) == 0 {
		return taken{craft: j.Craft, steps: steps, cans: j.cans, wire: j.Piece.Cans}
	}
	rows := make([]craft.Can, len(out.wire))
	out.cans = make([]check.Can, len(out.wire))
	for k := range out.wire {
		x := canOf(j.Engine.Craft, &out.wire[k])
		if now, ok := j.Shop.Shelf.find(x.ID); ok {
			x.Left, x.Size, x.For = now.Left, now.Size, now.reservedFrom(j.Shop.PieceID)
		}
		out.cans[k] = check.Can{Can: x}
		if k < len(j.cans) {
			out.cans[k].Elsewhere = j.elsewhere(i, k)
		}
		rows[k] = carry(&x)
	}
	var products []craft.Product
	out.craft, products = j.Engine.Craft.WithCans(rows)
	used := map[string]bool{}
	for k, x := range names {
		out.steps[k].Product = products[place[x.ID]-1]
		used[x.ID] = true
	}
	if no := out.excluded(&z.Facts); no != "" { // its label forbids what it would lie on
		return j.takeBut(i, steps, left, append(but, no))
	}
	for _, x := range stock {
		if !used[x.ID] {
			continue
		}
		words := x.Title(j.Craft)
		if x.Open() {
			words += " (open)"
		}
		out.from = append(out.from, words)
		if left != nil {
			was, seen := left[x.ID]
			if !seen {
				was = x.Holds()
			}
			left[x.ID] = was - need[x.Kind]
		}
	}
	return out
}

// elsewhere is what the other zones take of one of the piece's cans.
func (j *Job) elsewhere(i, can int) float64 {
	if cans := j.Zones[i].Cans; can < len(cans) {
		return cans[can].Elsewhere
	}
	return 0
}

func orElse(a, b string) string {
	if a != "" {
		return a
	}
	return b
}

// copyFor is a can as a piece keeps it: without what is of no use away from the shelf.
func copyFor(x *wire.Can, piece int) *wire.Can {
	out := *x
	out.Photo, out.PriceMinor, out.Note = "", nil, ""
	if piece != 0 && out.ReservedID == piece {
		out.ReservedID, out.ReservedFor = 0, ""
	}
	return &out
}

// says tells which cans a plan takes; empty for none.
func (t *taken) says() string {
	if len(t.from) == 0 {
		return ""
	}
	return "From your shelf: " + craft.List(t.from) + "."
}

// addCans adds those cans to a list that it has not.
func addCans(to, more []wire.Can) []wire.Can {
	to = slices.Clone(to)
	for _, x := range more {
		if len(to) < wire.MaxCans && !slices.ContainsFunc(to, func(o wire.Can) bool { return o.ID == x.ID }) {
			to = append(to, x)
		}
	}
	return to
}

// excluded is the id of a can that a plan would put on a surface which its label excludes; empty for none.
func (t *taken) excluded(f *surface.Facts) string {
	w := surface.Walk(t.craft, f, t.steps)
	for i := range w.Events {
		for _, b := range w.Events[i].Boundaries() {
			n := t.craft.Products[b.Product].Can
			if _, no := check.Excluded(t.craft, f, &b); no && n > 0 {
				return t.cans[n-1].ID
			}
		}
	}
	return ""
}
