package app

import (
	"context"
	"fmt"
	"math"
	"reflect"
	"slices"

	"rutile/core/check"
	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/quantity"
	"rutile/core/shelf"
	"rutile/core/surface"
	"rutile/internal/wire"
)

// Needs is what the plans of a piece take: litres of each coat, what of it is on the shelf, or in the piece's
// own cans where there is no shelf, and what is used up besides.
func (j *Job) Needs() wire.Needs {
	c, u := j.Craft, j.Shop.Units
	out := wire.Needs{
		Format: wire.NeedsFormat, Version: wire.Version, Name: j.Piece.Name,
		Zones: []wire.ZoneNeed{}, Items: []wire.NeedItem{}, Supplies: []wire.Supply{}, Unknown: []string{}, Stale: j.stale(),
	}
	var all []quantity.Coat
	zones := make([]quantity.Zone, len(j.Zones))
	names := make([]string, len(j.Zones))
	for i := range j.Zones {
		z := &j.Zones[i]
		names[i] = j.name(i)
		w := surface.Walk(c, &z.Facts, z.Steps)
		zones[i] = quantity.Zone{Facts: &z.Facts, Relief: z.Relief, Trace: &w}
		src := &j.Piece.Zones[i]
		n := wire.ZoneNeed{ID: src.ID, Name: src.Name, M2: tidy(z.Area), Coats: []wire.CoatNeed{}}
		if z.Area > 0 {
			n.Area = u.Area(z.Area)
		} else if len(z.Steps) > 0 {
			out.Unknown = append(out.Unknown, names[i])
		}
		coats := quantity.Coats(c, &zones[i], i)
		for k := range coats {
			n.Coats = append(n.Coats, j.coatNeed(&coats[k]))
		}
		all = append(all, coats...)
		out.Zones = append(out.Zones, n)
	}
	colourOf := func(k *quantity.Coat) string {
		row := &c.Products[k.Product]
		if row.Role != craft.RolePaint {
			return ""
		}
		return orElse(k.Colour, orElse(row.Colour, j.Zones[k.Zone].Colour))
	}
	worst := quantity.Enough
	for _, x := range quantity.Items(c, all, j.available(all, colourOf), colourOf) {
		item := j.needItem(&x, names)
		out.Items = append(out.Items, item)
		if rankOf(x.State) > rankOf(worst) {
			worst = x.State
		}
	}
	for _, s := range quantity.Supplies(c, zones, j.masked()) {
		amount := fmt.Sprint(s.Amount)
		if s.Unit != "" {
			amount = fmt.Sprint(s.Amount, " ", s.Unit)
			if s.Unit == "m" {
				amount = u.Run(float64(s.Amount))
			}
		}
		out.Supplies = append(out.Supplies, wire.Supply{ID: s.ID, Name: s.Name, Amount: amount, Says: s.Says})
	}
	switch {
	case len(all) == 0 && len(out.Unknown) > 0:
		out.Says = "Enter the area of " + craft.Lower(craft.List(out.Unknown)) + " to see how much paint it takes."
	case len(all) == 0:
		out.Says = "No coats are planned yet."
	case worst == quantity.Enough:
		out.Says = "There is enough of everything."
	case worst == quantity.Tight:
		out.Says = "There is just enough of everything. Do not lay it on."
	case worst == quantity.Short:
		out.Says = "Something will run out. Buy it before the first coat."
	case j.Shop.Shelf == nil:
		out.Says = "No shelf was given to hold it against."
	default:
		out.Says = "Something is not on the shelf yet."
	}
	return out
}

func rankOf(s quantity.State) int {
	return slices.Index([]quantity.State{quantity.Enough, quantity.Tight, quantity.Short, quantity.None}, s)
}

// masked counts what is masked or stays in place on the piece.
func (j *Job) masked() int {
	n := 0
	for i := range j.Piece.TakeApart {
		if f := &j.Piece.TakeApart[i]; treatment(f) == "mask" {
			n += max(1, f.Count)
		}
	}
	return n
}

// available are the cans that the piece's coats may come from.
func (j *Job) available(coats []quantity.Coat, colourOf func(*quantity.Coat) string) []quantity.Stock {
	var out []quantity.Stock
	add := func(x *shelf.Can, can int, reserved string) {
		s := quantity.Stock{Can: can, Kind: x.Kind, Name: x.Title(j.Craft), Colour: x.Colour, Left: x.Holds(), Open: x.Open(), For: reserved}
		if shelf.LifeOf(j.Craft, x, j.Shop.Today, j.Shop.Units).Past() && can == 0 {
			return
		}
		// A can that comes near a colour counts as that colour.
		if x.Kind != craft.NoProduct && j.Craft.Products[x.Kind].Role == craft.RolePaint {
			for i := range coats {
				if want := colourOf(&coats[i]); want != "" && j.Craft.KindOf(coats[i].Product) == x.Kind && nearColour(x.Colour, want) {
					s.Colour = want
					break
				}
			}
		}
		out = append(out, s)
	}
	named := map[string]bool{}
	for i := range j.cans {
		named[j.cans[i].ID] = true
		add(&j.cans[i].Can, i+1, "")
	}
	if j.Shop.Shelf != nil {
		for i := range j.Shop.Shelf.cans {
			x := &j.Shop.Shelf.cans[i]
			if named[x.ID] {
				continue
			}
			add(&x.Can, 0, x.reservedFrom(j.Shop.PieceID))
		}
	}
	return out
}

// coatNeed writes what one coat takes.
func (j *Job) coatNeed(k *quantity.Coat) wire.CoatNeed {
	c, u := j.Craft, j.Shop.Units
	row := &c.Products[k.Product]
	out := wire.CoatNeed{
		Step: j.planStep(k.Zone, k.Step), Coat: k.CoatNo, Name: row.Name, Colour: k.Colour, Litres: ml(k.Mixed.Likely), Least: ml(k.Mixed.Least), Most: ml(k.Mixed.Most),
		Says: u.Volume(k.Mixed.Likely) + " (" + u.Volume(k.Mixed.Least) + " to " + u.Volume(k.Mixed.Most) + ")", FromCan: k.Label,
		PaintL: ml(k.Paint.Likely), ThinnerL: ml(k.Thinner.Likely), AddedL: ml(k.Additive.Likely), Factors: []wire.Factor{},
	}
	if k.Can > 0 {
		out.Can = j.cans[k.Can-1].ID
		out.Name = j.cans[k.Can-1].Title(c)
		out.Colour = orElse(out.Colour, row.Colour)
	}
	if row.Role == craft.RolePaint {
		out.Colour = orElse(out.Colour, j.Zones[k.Zone].Colour)
	}
	if k.Thinner.Likely > 0 || k.Additive.Likely > 0 {
		parts := []string{amount(c, c.KindOf(k.Product), k.Paint.Likely, u) + " of " + paintWord(row)}
		if k.Thinner.Likely > 0 {
			parts = append(parts, u.Volume(k.Thinner.Likely)+" of "+thinnerWord(row))
		}
		if k.Additive.Likely > 0 {
			parts = append(parts, u.Volume(k.Additive.Likely)+" of bonding additive")
		}
		out.Parts = craft.List(parts)
	}
	add := func(id string, v float64, shown, words string) {
		out.Factors = append(out.Factors, wire.Factor{ID: id, Value: tidy(v), Shown: shown, Words: words})
	}
	add("area", k.Area, u.Area(k.Area), "the area of this coat")
	if k.Relief != 1 {
		add("relief", k.Relief, "× "+measure.Number2(k.Relief), "more to cover than the tape says")
	}
	if k.Soaks != 1 {
		add("soaks", k.Soaks, "× "+measure.Number2(k.Soaks), "what the absorbent ground takes in its first coat")
	}
	words := "covered by a litre, a working default of its kind"
	if k.Label {
		words = "covered by a litre, from the label"
	}
	add("cover", k.Cover, measure.Number(k.Cover)+" m²", words)
	add("loss", k.Loss, fmt.Sprintf("%.0f %%", k.Loss*100), "never reaches the surface this way")
	return out
}

func paintWord(row *craft.ProductRow) string {
	if row.Powder() {
		return "powder"
	}
	return craft.Lower(row.Name)
}

func thinnerWord(row *craft.ProductRow) string {
	switch {
	case row.TwoPart:
		return "hardener"
	case row.WaterBased():
		return "water"
	}
	return "thinner"
}

// ml keeps litres to the millilitre.
func ml(l float64) float64 { return math.Round(l*1000) / 1000 }

// needItem writes one thing that a piece takes from the shelf.
func (j *Job) needItem(x *quantity.Item, names []string) wire.NeedItem {
	c, u := j.Craft, j.Shop.Units
	words := func(l float64) string { return amount(c, x.Product, l, u) }
	out := wire.NeedItem{
		Name: shelf.KindName(c, x.Product), Product: craft.AdditiveID, Colour: x.Colour, NeedL: ml(x.Need.Likely), LeastL: ml(x.Need.Least), MostL: ml(x.Need.Most),
		HaveL: ml(x.Have), State: string(x.State), Says: x.Says(words, names), From: []string{}, Buy: []wire.Tins{},
	}
	if !x.Additive() {
		out.Product = c.Products[x.Product].ID
	}
	if x.Can > 0 {
		out.Can, out.Name = j.cans[x.Can-1].ID, j.cans[x.Can-1].Title(c)
		out.Colour = j.cans[x.Can-1].Colour
	}
	for _, s := range x.From {
		out.From = append(out.From, s.Name)
	}
	var buy []string
	for _, t := range x.Buy {
		out.Buy = append(out.Buy, wire.Tins{SizeL: t.Litres, Count: t.Count})
		size := u.Size(t.Litres)
		if !x.Additive() && c.Products[x.Product].Powder() {
			size = words(t.Litres)
		}
		if t.Count > 1 {
			buy = append(buy, fmt.Sprintf("%d of %s", t.Count, size))
		} else {
			buy = append(buy, "one of "+size)
		}
	}
	if len(buy) > 0 {
		out.BuySays = "Buy " + craft.List(buy) + "."
	}
	return out
}

// stale are the cans of the piece of which the shelf says something else by now.
func (j *Job) stale() []wire.StaleCan {
	out := []wire.StaleCan{}
	if j.Shop.Shelf == nil {
		return out
	}
	for i := range j.Piece.Cans {
		x := &j.Piece.Cans[i]
		title := j.cans[i].Title(j.Craft)
		now, ok := j.Shop.Shelf.find(x.ID)
		if !ok {
			out = append(out, wire.StaleCan{ID: x.ID, Name: title, Gone: true, Says: "“" + title + "” is no longer on the shelf. The plan keeps what it knows of it."})
			continue
		}
		is := copyFor(now.wire, j.Shop.PieceID)
		if !sameFigures(x, is) {
			out = append(out, wire.StaleCan{ID: x.ID, Name: title, Says: "The shelf says something else of “" + title + "” than this plan.", Now: is})
		}
	}
	return out
}

// sameFigures tells whether two copies of a can say the same of what decides a verdict. What is left in it and
// what it is reserved for come from the shelf anyway.
func sameFigures(a, b *wire.Can) bool {
	return a.Kind == b.Kind && a.Name == b.Name && a.Colour == b.Colour && a.Sheen == b.Sheen && a.Opened == b.Opened && a.Bought == b.Bought && reflect.DeepEqual(a.Label, b.Label)
}

// The colours of places that lie beside the old finish. Working defaults.
var filled = colour.FromLab(82, 2, 14)

// knotted is how much darker a knot is, in L*.
const knotted = 22.

// grounds are the colours that the coats of a zone lie on, the zone as it is first.
func (j *Job) grounds(i int) []wire.GroundLooks {
	c, z, src := j.Craft, &j.Zones[i], &j.Piece.Zones[i]
	sub, fin := &c.Substrates[z.Substrate], &c.Finishes[z.Finish]
	var out []wire.GroundLooks
	add := func(id, name string, col colour.RGB) {
		for _, g := range out {
			have, _ := colour.Parse(g.Colour)
			const alike = 4
			if colour.Difference(have, col) < alike {
				return
			}
		}
		out = append(out, wire.GroundLooks{ID: id, Name: name, Colour: col.Hex(), Coats: []wire.CoatLook{}})
	}
	none, _ := c.Finish("none")
	bare := colour.Ground(sub, &c.Finishes[none])
	stripped, sanded := false, false
	for k := range z.Steps {
		stripped = stripped || z.Steps[k].Do == surface.Strip || z.Steps[k].Do == surface.Abrade && z.Steps[k].Through
		sanded = sanded || z.Steps[k].Do == surface.Abrade || z.Steps[k].Do == surface.Effect
	}
	switch {
	case stripped:
		add("bare", "Stripped bare", bare)
	case fin.Unknown && src.Colour == "":
		for _, f := range surface.Variants(c, &z.Facts) {
			row := &c.Finishes[f.Finish]
			add(row.ID, "If it is "+craft.Lower(row.Name), colour.Ground(sub, row))
		}
	default:
		add("now", "As it is now", check.GroundColour(c, z))
	}
	if !fin.Bare && sanded {
		add("bare", "Sanded through to the bare material", bare)
	}
	for _, d := range src.Defects {
		if d.ID == "hole" || d.ID == "gouge" || d.ID == "dent" {
			add("filled", "Filled places", filled)
		}
	}
	if z.Knots > 0 {
		l, a, b := bare.Lab()
		add("knots", "Knots", colour.FromLab(max(5, l-knotted), a+6, b))
	}
	const most = 5
	return out[:min(len(out), most)]
}

// CoatLooks are the coats of a zone as swatches over every ground that it has.
func (j *Job) CoatLooks(ctx context.Context, i int) (wire.CoatLooks, error) {
	c, z := j.Craft, &j.Zones[i]
	out := wire.CoatLooks{Grounds: j.grounds(i), Wear: []wire.WearLayer{}, Want: z.Colour, Caution: screenCaution}
	coats := check.CoatColours(c, z)
	if len(coats) == 0 {
		out.Says = "No coat of the plan changes the colour yet."
		return out, ctx.Err()
	}
	layers := make([]colour.Layer, len(coats))
	last := len(coats) - 1 // where the last paint begins
	for k := range coats {
		layers[k] = coats[k].Layer
	}
	for last > 0 && coats[last-1].Paint == coats[len(coats)-1].Paint && c.SameKind(coats[last-1].Product, coats[len(coats)-1].Product) {
		last--
	}
	final := &coats[len(coats)-1]
	worst, worstOff := 0, -1.
	for g := range out.Grounds {
		x := &out.Grounds[g]
		ground, _ := colour.Parse(x.Colour)
		looks := colour.Looks(ground, layers)
		for k, l := range looks {
			row := &c.Products[coats[k].Product]
			off := colour.Difference(l, coats[k].Paint)
			x.Coats = append(x.Coats, wire.CoatLook{
				Step: j.planStep(i, coats[k].Step), Coat: coats[k].CoatNo, Name: j.coatName(row), Colour: l.Hex(), Paint: coats[k].Paint.Hex(), Word: colour.Cover(l, coats[k].Paint), Off: Tenths(off),
			})
		}
		before := ground
		if last > 0 {
			before = looks[last-1]
		}
		x.Needed, _ = colour.Needed(before, final.Paint, final.Power, check.NearEnough, 12)
		off := colour.Difference(looks[len(looks)-1], final.Paint)
		planned := len(coats) - last
		switch {
		case off <= check.NearEnough && x.Needed < planned:
			x.Says = fmt.Sprintf("Covers; %s would do.", measure.Count(x.Needed, "coat", "coats"))
		case off <= check.NearEnough:
			x.Says = "Covers."
		case x.Needed > planned && x.Needed < 12:
			x.Says = fmt.Sprintf("%s more: %s.", craft.Upper(measure.Count(x.Needed-planned, "coat", "coats")), colour.Cover(looks[len(looks)-1], final.Paint))
		default:
			x.Says = craft.Upper(colour.Cover(looks[len(looks)-1], final.Paint)) + "."
		}
		if off > worstOff {
			worst, worstOff = g, off
		}
	}
	if len(out.Grounds) > 1 {
		out.Grounds[worst].Worst = true
	}
	ground, _ := colour.Parse(out.Grounds[worst].Colour)
	primer := colour.Power(colour.FromLab(80, 0, 0), colour.Contrast(colour.FromLab(80, 0, 0), .85)) * colour.ThinSpots
	if u, ok := colour.Primed(ground, final.Paint, final.Power, primer, check.NearEnough); ok && u.Needs < out.Grounds[worst].Needed {
		saves := out.Grounds[worst].Needed - u.Needs
		out.Undercoat = &wire.Undercoat{
			Colour: u.Colour.Hex(), Name: colour.Name(u.Colour), Saves: saves,
			Says: fmt.Sprintf("An undercoat in %s saves %s of the paint: %d instead of %d.", colour.Name(u.Colour), measure.Count(saves, "coat", "coats"), u.Needs, out.Grounds[worst].Needed),
		}
	}
	r := check.Check(c, z, check.Options{NoRepairs: true})
	out.Final = r.Appearance.Final.Hex()
	if sealed := r.Sealed(c); colour.Difference(sealed, r.Appearance.Final) > .5 {
		out.Sealed = sealed.Hex()
		for k := len(z.Steps) - 1; k >= 0; k-- {
			if s := &z.Steps[k]; s.Do == surface.Coat {
				out.SealedBy = craft.Lower(c.Products[s.Product].Name)
				break
			}
		}
	}
	j.wear(&r, &out)
	out.Says = fmt.Sprintf("%s of %s, over %s.", craft.Upper(measure.Count(len(coats)-last, "coat", "coats")), craft.Lower(j.coatName(&c.Products[final.Product])), measure.Count(len(out.Grounds), "ground", "grounds"))
	return out, ctx.Err()
}

// coatName is what a coat is of: its can, or its kind.
func (j *Job) coatName(row *craft.ProductRow) string {
	if row.Can > 0 {
		return j.cans[row.Can-1].Title(j.Craft)
	}
	return row.Name
}

// wear lists what shows where the finished face wears, from the top down.
func (j *Job) wear(r *check.Result, out *wire.CoatLooks) {
	add := func(col colour.RGB, of string) {
		if n := len(out.Wear); n > 0 && out.Wear[n-1].Colour == col.Hex() {
			return
		}
		out.Wear = append(out.Wear, wire.WearLayer{Colour: col.Hex(), Name: colour.Name(col), Of: of})
	}
	ps := r.Appearance.Paints
	for k := len(ps) - 1; k >= 0; k-- {
		if k == len(ps)-1 || ps[k].Colour != ps[k+1].Colour || ps[k].Product != ps[k+1].Product {
			add(ps[k].Looks, craft.Lower(j.coatName(&j.Craft.Products[ps[k].Product])))
		}
	}
	add(r.Appearance.Ground, "what is below")
}
