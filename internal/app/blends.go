package app

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strings"

	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/internal/store"
	"rutile/internal/wire"
)

// screenCaution stands beside every colour that was worked out.
const screenCaution = "An estimate on a screen, which is no colour card. Mix a little, paint a board, and look at it dry and in the light of the room."

// paintOf is a paint of a blend for the core.
func paintOf(c *craft.Craft, p *wire.BlendPart) (colour.Paint, bool) {
	k, ok := c.Product(p.Kind)
	col, hex := colour.Parse(p.Colour)
	if !ok || !hex || !mixable(&c.Products[k]) {
		return colour.Paint{}, false
	}
	row := &c.Products[k]
	return colour.PaintOf(col, row.Hiding, cmp.Or(p.Cover, row.Cover)), true
}

// mixable tells whether a product is a paint that is mixed with others of its kind.
func mixable(p *craft.ProductRow) bool {
	return p.Role == craft.RolePaint && p.Opaque() && !p.Aerosol && p.Coat != craft.TX
}

// paintsOf are the paints of a blend. The error is a *wire.Error that names the part.
func paintsOf(c *craft.Craft, parts []wire.BlendPart) ([]colour.Paint, []float64, error) {
	paints, n := make([]colour.Paint, len(parts)), make([]float64, len(parts))
	for i := range parts {
		p, ok := paintOf(c, &parts[i])
		if !ok {
			return nil, nil, &wire.Error{Path: fmt.Sprintf("$.parts[%d].kind", i), Value: fmt.Sprintf("%q", parts[i].Kind), Says: "it cannot be blended: only paints that hide and are not from an aerosol can"}
		}
		paints[i], n[i] = p, float64(parts[i].Parts)
	}
	for i := 1; i < len(parts); i++ {
		a, _ := c.Product(parts[0].Kind)
		b, _ := c.Product(parts[i].Kind)
		if c.Products[a].Carrier != c.Products[b].Carrier {
			return nil, nil, &wire.Error{Path: fmt.Sprintf("$.parts[%d].kind", i), Value: fmt.Sprintf("%q", parts[i].Kind), Says: fmt.Sprintf("%s and %s do not mix: one is thinned with water, the other with solvent", craft.Lower(c.Products[a].Name), craft.Lower(c.Products[b].Name))}
		}
	}
	return paints, n, nil
}

// partName is what a paint of a blend is called.
func partName(c *craft.Craft, p *wire.BlendPart) string {
	if p.Name != "" {
		return p.Name
	}
	out := colour.NameHex(p.Colour)
	if k, ok := c.Product(p.Kind); ok {
		out += " " + craft.Lower(c.Products[k].Name)
	}
	return out
}

// blendSays is a blend in words: 5 parts of white and 2 of ink, or white alone.
func blendSays(c *craft.Craft, parts []wire.BlendPart) string {
	var out []string
	name := ""
	for i := range parts {
		p := &parts[i]
		if p.Parts == 0 {
			continue
		}
		if name = partName(c, p); p.Name != "" {
			name = "“" + name + "”"
		}
		if len(out) == 0 {
			out = append(out, measure.Count(p.Parts, "part", "parts")+" of "+name)
		} else {
			out = append(out, fmt.Sprintf("%d of %s", p.Parts, name))
		}
	}
	if len(out) == 1 {
		return name + " alone"
	}
	return craft.List(out)
}

// BlendOptions are what is asked of a blend besides its colour.
type BlendOptions struct {
	Litres float64 // 0 for none: how much of it is to be made
	// With is the colour of another paint that takes the place of the one nearest to it when half of the blend
	// is used and it is filled up; empty for none.
	With string
	// Also are further paints that a step may bring in.
	Also []wire.BlendPart
}

// Blend works out what parts of paints come to. Errors are a *wire.Error or an *Unfit.
func (s *Studio) Blend(ctx context.Context, data []byte, o BlendOptions) (wire.BlendResult, error) {
	b, err := wire.DecodeBlend(data)
	if err != nil {
		return wire.BlendResult{}, err
	}
	now, err := s.shelfNow(ctx)
	if err != nil {
		return wire.BlendResult{}, err
	}
	for _, x := range now.Paints(s.Craft) {
		if !slices.ContainsFunc(b.Parts, func(p wire.BlendPart) bool { return p.Colour == x.Colour && p.Kind == x.Kind }) && len(b.Parts) > 0 && x.Kind == b.Parts[0].Kind {
			o.Also = append(o.Also, x)
		}
	}
	return s.Engine.Blend(&b, o, now, s.Workshop(ctx).Units)
}

// Blend works out what a blend comes to, with what is on a shelf, which may be nil.
func (e *Engine) Blend(b *wire.Blend, o BlendOptions, shelf *Shelf, u measure.Units) (wire.BlendResult, error) {
	c := e.Craft
	out := wire.BlendResult{Nudges: []wire.Nudged{}, Caution: screenCaution}
	paints, n, err := paintsOf(c, b.Parts)
	if err != nil {
		return out, err
	}
	mixed := colour.Mix(paints, n)
	out.Colour, out.Name = mixed.Masstone.Hex(), colour.Name(mixed.Masstone)
	out.Says = blendSays(c, b.Parts)
	if want, ok := colour.Parse(b.Colour); ok {
		out.Off, out.Against = Tenths(colour.Difference(mixed.Masstone, colour.Masstone(want))), colour.Against(mixed.Masstone, colour.Masstone(want))
	}
	out.Nudges = nudges(c, b.Parts, paints, o.Also)
	if o.Litres > 0 {
		if o.Litres > wire.MaxCanLitres {
			return out, &Unfit{fmt.Sprintf("%v litres is more than %d.", o.Litres, wire.MaxCanLitres)}
		}
		out.Amounts = amounts(c, b.Parts, o.Litres, shelf, u)
	}
	if o.With != "" {
		if err := topUp(b, o, paints, n, mixed, &out); err != nil {
			return out, err
		}
	}
	return out, nil
}

// nudges are the blend with a part more or less, in each direction in which that does something.
func nudges(c *craft.Craft, parts []wire.BlendPart, paints []colour.Paint, also []wire.BlendPart) []wire.Nudged {
	all := slices.Clone(parts)
	pool := slices.Clone(paints)
	const most = 40
	for i := range also {
		if p, ok := paintOf(c, &also[i]); ok && len(all) < most {
			x := also[i]
			x.Parts = 0
			all, pool = append(all, x), append(pool, p)
		}
	}
	now := make([]int, len(all))
	for i := range all {
		now[i] = all[i].Parts
	}
	out := []wire.Nudged{}
	for d := range colour.NumDirections {
		next, ok := colour.Nudge(pool, now, d)
		if !ok {
			continue
		}
		x := wire.Nudged{ID: colour.Directions[d].ID, Name: colour.Directions[d].Name, Parts: []wire.BlendPart{}}
		f := make([]float64, len(next))
		for i, k := range next {
			f[i] = float64(k)
			if k > 0 || i < len(parts) {
				p := all[i]
				p.Parts = k
				x.Parts = append(x.Parts, p)
			}
			switch step := k - now[i]; {
			case step > 0:
				x.Says = "one part more of " + partName(c, &all[i])
			case step < 0:
				x.Says = "one part less of " + partName(c, &all[i])
			}
		}
		x.Colour = colour.Mix(pool, f).Masstone.Hex()
		out = append(out, x)
	}
	return out
}

// amounts are the paints of a blend measured out for some litres.
func amounts(c *craft.Craft, parts []wire.BlendPart, litres float64, shelf *Shelf, u measure.Units) []wire.PartLitre {
	total := 0
	for _, p := range parts {
		total += p.Parts
	}
	out := []wire.PartLitre{}
	for i := range parts {
		p := &parts[i]
		if p.Parts == 0 {
			continue
		}
		l := litres * float64(p.Parts) / float64(total)
		x := wire.PartLitre{Name: partName(c, p), Colour: p.Colour, Parts: p.Parts, Litres: math.Round(l*1e4) / 1e4, Says: u.Volume(l)}
		if can, ok := shelf.find(p.Can); ok && can.Holds() < l {
			x.Missing = fmt.Sprintf("%s missing: its can holds %s", u.Volume(l-can.Holds()), u.Volume(can.Holds()))
		} else if p.Can != "" && !ok {
			x.Missing = "its can is no longer on the shelf"
		}
		out = append(out, x)
	}
	return out
}

// topUp says what changes when half of a blend is used and it is filled up with the same parts, one of the
// paints being another: half of the pot is the old blend, half the new one.
func topUp(b *wire.Blend, o BlendOptions, paints []colour.Paint, n []float64, mixed colour.Paint, out *wire.BlendResult) error {
	with, ok := colour.Parse(o.With)
	if !ok {
		return &Unfit{"Say the colour of the other paint as #rrggbb."}
	}
	other := slices.Clone(paints)
	at, near := -1, math.Inf(1)
	for i := range paints {
		if d := colour.Difference(paints[i].Masstone, with); n[i] > 0 && d < near {
			at, near = i, d
		}
	}
	if at < 0 {
		return nil
	}
	old := &paints[at]
	other[at] = colour.Paint{Masstone: colour.Masstone(with), Scatter: old.Scatter}
	instead := "Filled up half-way with the other paint in the place of " + b.Parts[at].Name + ", "
	if b.Parts[at].Name == "" {
		instead = "Filled up half-way with the other paint in the place of the " + colour.Name(old.Masstone) + ", "
	}
	both := append(slices.Clone(paints), other...)
	pot := colour.Mix(both, append(slices.Clone(n), n...))
	out.TopUpIs = pot.Masstone.Hex()
	switch de := colour.Difference(pot.Masstone, mixed.Masstone); {
	case de < 1:
		out.TopUp = instead + "it stays the same to the eye."
	case de < colour.SeenBeside:
		out.TopUp = instead + fmt.Sprintf("it becomes %s: seen where two coats meet. Keep one side of the piece to one mix.", colour.Against(pot.Masstone, mixed.Masstone))
	default:
		out.TopUp = instead + fmt.Sprintf("it becomes %s: clearly another colour. Mix enough at once.", colour.Against(pot.Masstone, mixed.Masstone))
	}
	return nil
}

// Paints are the cans of a shelf that can be blended, as parts.
func (s *Shelf) Paints(c *craft.Craft) []wire.BlendPart {
	var out []wire.BlendPart
	if s == nil {
		return out
	}
	for i := range s.cans {
		x := &s.cans[i]
		if x.Kind == craft.NoProduct || x.Colour == "" || x.Empty() || !mixable(&c.Products[x.Kind]) {
			continue
		}
		p := wire.BlendPart{Kind: x.wire.Kind, Colour: x.Colour, Can: x.ID, Name: x.Title(c)}
		if x.Label.Gives(craft.LabelCover) {
			p.Cover = x.Label.At[craft.LabelCover]
		}
		out = append(out, p)
	}
	return out
}

// mostTried is how many paints a search tries: the nearest to the wanted colour by themselves, and the whites
// and blacks that nearly every blend needs come first where there are more.
const mostTried = 40

// usualPaint is what a palette's colours are taken to be. Working default.
const usualPaint = "paint_acrylic"

// Nearest finds the blends nearest to a colour as it was typed: from the shelf where from is empty, otherwise
// from a palette. Errors are an *Unfit, a *NotFound or the store's.
func (s *Studio) Nearest(ctx context.Context, want, from, kind string) (wire.Nearest, error) {
	var pool []wire.BlendPart
	if from == "" {
		now, err := s.shelfNow(ctx)
		if err != nil {
			return wire.Nearest{}, err
		}
		pool = now.Paints(s.Craft)
		if len(pool) == 0 {
			return wire.Nearest{}, &Unfit{"There is no paint with a colour on the shelf. Put one there, or choose a palette."}
		}
	} else {
		p, err := s.Palette(ctx, from)
		if err != nil {
			return wire.Nearest{}, err
		}
		pool = PaletteParts(p.Swatches, kind)
	}
	return s.Engine.Nearest(want, pool, kind)
}

// Nearest finds the blends of some paints nearest to a colour as it was typed. Only paints of one kind are
// blended with each other: of kind, or where it is empty of the kind that comes nearest.
func (e *Engine) Nearest(want string, pool []wire.BlendPart, kind string) (wire.Nearest, error) {
	c := e.Craft
	col, in, err := colour.Read(want)
	if err != nil {
		return wire.Nearest{}, &Unfit{err.Error()}
	}
	out := wire.Nearest{Want: colourRead(col), Blends: []wire.NearestBlend{}, Caution: screenCaution}
	if !in {
		out.Want.Caution = "No screen can show this colour, and hardly any paint has it. What is shown is the nearest."
		col, _ = colour.Parse(out.Want.Colour)
	}
	kinds := map[string][]wire.BlendPart{}
	for _, p := range pool {
		if kind == "" || p.Kind == kind {
			kinds[p.Kind] = append(kinds[p.Kind], p)
		}
	}
	names := make([]string, 0, len(kinds))
	for k := range kinds {
		names = append(names, k)
	}
	slices.Sort(names)
	best := math.Inf(1)
	for _, k := range names {
		parts := nearestFirst(kinds[k], col)
		paints := make([]colour.Paint, 0, len(parts))
		usable := parts[:0]
		for i := range parts {
			if p, ok := paintOf(c, &parts[i]); ok {
				paints = append(paints, p)
				usable = append(usable, parts[i])
			}
		}
		found := colour.Nearest(paints, col)
		if len(found) == 0 || found[len(found)-1].Off >= best {
			continue
		}
		best = found[len(found)-1].Off
		out.Blends, out.Of = out.Blends[:0], len(paints)
		for _, b := range slices.Backward(found) {
			x := wire.NearestBlend{Colour: b.Paint.Masstone.Hex(), Name: colour.Name(b.Paint.Masstone), Off: Tenths(b.Off), Against: colour.Against(b.Paint.Masstone, colour.Masstone(col))}
			for i, at := range b.Paints {
				p := usable[at]
				p.Parts = b.Parts[i]
				x.Parts = append(x.Parts, p)
			}
			x.Says = blendSays(c, x.Parts)
			out.Blends = append(out.Blends, x)
		}
	}
	if len(out.Blends) == 0 {
		return out, &Unfit{"None of these paints can be blended."}
	}
	b := &out.Blends[0]
	switch {
	case b.Off < 1.5:
		out.Says = craft.Upper(b.Says) + " comes to the colour."
	case b.Off < 3:
		out.Says = craft.Upper(b.Says) + " comes near: it is " + b.Against + "."
	default:
		out.Says = "Nothing here reaches the colour. The nearest, " + b.Says + ", is " + b.Against + "."
	}
	return out, nil
}

// nearestFirst are paints in the order of how near they are, the palest and the darkest first, and no more
// than are tried.
func nearestFirst(parts []wire.BlendPart, want colour.RGB) []wire.BlendPart {
	if len(parts) <= mostTried {
		return slices.Clone(parts)
	}
	type ranked struct {
		p       wire.BlendPart
		off, at float64
	}
	all := make([]ranked, 0, len(parts))
	for _, p := range parts {
		if c, ok := colour.Parse(p.Colour); ok {
			all = append(all, ranked{p, colour.Difference(c, want), c.Light()})
		}
	}
	out := make([]wire.BlendPart, 0, mostTried)
	take := func(n int, less func(a, b ranked) int) {
		slices.SortStableFunc(all, less)
		n = min(n, len(all))
		for _, x := range all[:n] {
			out = append(out, x.p)
		}
		all = all[n:]
	}
	take(4, func(a, b ranked) int { return cmp.Compare(b.at, a.at) })
	take(4, func(a, b ranked) int { return cmp.Compare(a.at, b.at) })
	take(mostTried-len(out), func(a, b ranked) int { return cmp.Compare(a.off, b.off) })
	return out
}

// Blends are the studio's recipes, by their names.
func (s *Studio) Blends(ctx context.Context) ([]wire.SavedBlend, error) {
	docs, err := s.Store.Documents(ctx, store.Blends)
	if err != nil {
		return nil, err
	}
	out := []wire.SavedBlend{}
	for _, d := range docs {
		var b wire.Blend
		if err := json.Unmarshal(d.Body, &b); err != nil {
			s.Log.Error("blend", "id", d.ID, "err", err)
			continue
		}
		out = append(out, s.saved(&b, d.Rev))
	}
	slices.SortFunc(out, func(a, b wire.SavedBlend) int {
		return cmp.Or(cmp.Compare(strings.ToLower(a.Name), strings.ToLower(b.Name)), cmp.Compare(a.ID, b.ID))
	})
	return out, nil
}

func (e *Engine) saved(b *wire.Blend, rev int) wire.SavedBlend {
	out := wire.SavedBlend{Blend: *b, Rev: rev, Says: blendSays(e.Craft, b.Parts)}
	if paints, n, err := paintsOf(e.Craft, b.Parts); err == nil {
		m := colour.Mix(paints, n).Masstone
		out.Result, out.ResultName = m.Hex(), colour.Name(m)
	}
	return out
}

// PutBlend keeps a recipe: a new one where id is empty, otherwise over revision base. Errors are those of
// PutCan.
func (s *Studio) PutBlend(ctx context.Context, id string, base int, data []byte) (wire.SavedBlend, error) {
	b, err := wire.DecodeBlend(data)
	if err != nil {
		return wire.SavedBlend{}, err
	}
	if _, _, err := paintsOf(s.Craft, b.Parts); err != nil {
		return wire.SavedBlend{}, err
	}
	if b.Name == "" {
		return wire.SavedBlend{}, &wire.Error{Path: "$.name", Says: "give the blend a name"}
	}
	switch {
	case id == "":
		docs, err := s.Store.Documents(ctx, store.Blends)
		if err != nil {
			return wire.SavedBlend{}, err
		}
		if len(docs) >= wire.MaxBlends {
			return wire.SavedBlend{}, &Unfit{fmt.Sprintf("There are %d blends already; remove one first.", wire.MaxBlends)}
		}
		b.ID, base = newID(), 0
	case b.ID != id:
		return wire.SavedBlend{}, &Unfit{"The blend has another id than its address."}
	}
	rev, err := s.keep(ctx, store.Blends, b.ID, base, &b)
	if err != nil {
		return wire.SavedBlend{}, err
	}
	return s.saved(&b, rev), nil
}

// RemoveBlend removes a recipe.
func (s *Studio) RemoveBlend(ctx context.Context, id string) error {
	return s.drop(ctx, store.Blends, id)
}
