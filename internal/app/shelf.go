package app

import (
	"context"
	"crypto/rand"
	"encoding/json"
	"errors"
	"fmt"
	"image"
	_ "image/jpeg" // pictures are kept as JPEG
	"math"
	"slices"
	"strings"
	"sync"

	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/shelf"
	"rutile/internal/exchange"
	"rutile/internal/store"
	"rutile/internal/wire"
)

// Largest files of the shelf, in bytes.
const (
	MaxCansBytes    = exchange.MaxCansBytes
	MaxPaletteBytes = exchange.MaxPaletteBytes
)

// ErrDocumentChanged is a write of a can, blend or palette refused because it has changed meanwhile.
var ErrDocumentChanged = store.ErrDocumentChanged

// newID is an id that no other studio has either: cans travel with pieces.
func newID() string { return "k" + strings.ToLower(rand.Text()[:11]) }

// shelfRead is the shelf as it was last read.
type shelfRead struct {
	mu     sync.Mutex
	now    *Shelf // nil until it is read
	writes int    // how often it was written
}

func (r *shelfRead) get() (*Shelf, int) {
	r.mu.Lock()
	defer r.mu.Unlock()
	return r.now, r.writes
}

// keep keeps what was read, unless it was written since.
func (r *shelfRead) keep(now *Shelf, writes int) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.writes == writes {
		r.now = now
	}
}

// forget says that the shelf was written.
func (r *shelfRead) forget() {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.now = nil
	r.writes++
}

// shelfNow is the studio's cans, read once and kept until one is written.
func (s *Studio) shelfNow(ctx context.Context) (*Shelf, error) {
	now, writes := s.shelf.get()
	if now != nil {
		return now, nil
	}
	docs, err := s.Store.Documents(ctx, store.Cans)
	if err != nil {
		return nil, err
	}
	cans := make([]shelved, 0, len(docs))
	for _, d := range docs {
		var x wire.Can
		if err := json.Unmarshal(d.Body, &x); err != nil || x.ID != d.ID {
			s.Log.Error("shelf", "can", d.ID, "err", err)
			continue
		}
		cans = append(cans, shelved{canOf(s.Craft, &x), x.ReservedID, &x, d.Rev})
	}
	out := shelfOf(s.Craft, cans, s.Now().Format(dateOnly))
	s.shelf.keep(out, writes)
	return out, nil
}

const dateOnly = "2006-01-02"

// shelfOf puts cans in the order in which they are used.
func shelfOf(c *craft.Craft, cans []shelved, today string) *Shelf {
	cores := make([]shelf.Can, len(cans))
	by := make(map[string]int, len(cans))
	for i := range cans {
		cores[i] = cans[i].Can
		by[cans[i].ID] = i
	}
	shelf.Order(c, cores, today)
	out := &Shelf{cans: make([]shelved, len(cans)), by: make(map[string]int, len(cans))}
	for i, x := range cores {
		out.cans[i] = cans[by[x.ID]]
		out.by[x.ID] = i
	}
	out.version = out.summed()
	return out
}

// ShelfOf is a shelf of cans that are kept elsewhere, as in a file.
func (e *Engine) ShelfOf(cans []wire.Can, today string) *Shelf {
	all := make([]shelved, 0, len(cans))
	for i := range cans {
		x := &cans[i]
		if x.ID == "" {
			x.ID = fmt.Sprintf("can-%d", i+1)
		}
		all = append(all, shelved{canOf(e.Craft, x), x.ReservedID, x, 1})
	}
	return shelfOf(e.Craft, all, today)
}

// ListShelf is the cans in which all of some words are found, or all cans.
func (s *Studio) ListShelf(ctx context.Context, words string) (wire.Shelf, error) {
	now, err := s.shelfNow(ctx)
	if err != nil {
		return wire.Shelf{}, err
	}
	shop := s.Workshop(ctx)
	used, err := s.usedCans(ctx)
	if err != nil {
		return wire.Shelf{}, err
	}
	out := wire.Shelf{Cans: []wire.ShelfCan{}, Total: len(now.cans)}
	for i := range now.cans {
		if shelf.Matches(s.Craft, &now.cans[i].Can, words) {
			x := ShelfCan(s.Craft, &now.cans[i], shop.Today, shop.Units)
			x.Used = append(x.Used, used[x.ID]...)
			out.Cans = append(out.Cans, x)
		}
	}
	return out, nil
}

// Listed are the cans of a shelf as they are shown.
func (s *Shelf) Listed(c *craft.Craft, words, today string, u measure.Units) wire.Shelf {
	out := wire.Shelf{Cans: []wire.ShelfCan{}, Total: len(s.cans)}
	for i := range s.cans {
		if shelf.Matches(c, &s.cans[i].Can, words) {
			out.Cans = append(out.Cans, ShelfCan(c, &s.cans[i], today, u))
		}
	}
	return out
}

// usedCans are the names of the pieces whose plans name a can, by its id.
func (s *Studio) usedCans(ctx context.Context) (map[string][]string, error) {
	uses, err := s.Store.CansNamed(ctx)
	if err != nil {
		return nil, err
	}
	out := map[string][]string{}
	for _, u := range uses {
		out[u.Can] = append(out[u.Can], u.Piece)
	}
	return out, nil
}

// ShelfCan is a can with what is to be known of it.
func ShelfCan(c *craft.Craft, x *shelved, today string, u measure.Units) wire.ShelfCan {
	out := wire.ShelfCan{
		Can: *x.wire, Rev: x.rev, Title: x.Title(c), KindName: shelf.KindName(c, x.Kind), Open: x.Open(), Usable: shelf.Usable(c, &x.Can, today),
		Warnings: []wire.Warning{}, Used: []string{}, Role: "additive", Says: labelSays(x.Label, u),
	}
	if x.Kind != craft.NoProduct {
		out.Role, out.Shows = string(c.Products[x.Kind].Role), orElse(x.Colour, c.Products[x.Kind].Colour)
	}
	if x.Colour != "" {
		out.ColourName = colour.NameHex(x.Colour)
	}
	if x.Sheen != craft.NoSheen {
		out.SheenName = craft.Sheens[x.Sheen].Name
	}
	if x.wire.SizeL > 0 {
		out.Size, out.Share = u.Size(x.Size), 1
		if x.Kind != craft.NoProduct && c.Products[x.Kind].Powder() {
			out.Size = amount(c, x.Kind, x.Size, u)
		}
		if x.Left >= 0 {
			out.Share = min(1, x.Left/x.Size)
		}
	}
	switch {
	case x.Empty():
		out.Left = "empty"
	case x.wire.SizeL > 0 && (x.Left < 0 || x.Left >= x.Size):
		out.Left = "full"
	case x.Left < 0:
		out.Left = "not said"
	default:
		out.Left = amount(c, x.Kind, x.Left, u) + " left"
	}
	for _, w := range shelf.Warnings(c, &x.Can, today, u) {
		out.Warnings = append(out.Warnings, wire.Warning(w))
	}
	return out
}

func amount(c *craft.Craft, kind craft.Product, litres float64, u measure.Units) string {
	return shelf.Amount(c, kind, litres, u)
}

// labelSays is what a label says besides the kind, in a sentence; empty for nothing.
func labelSays(l *craft.Label, u measure.Units) string {
	if l.Empty() {
		return ""
	}
	var out []string
	for f, r := range craft.LabelFigures {
		if !l.Has[f] {
			continue
		}
		v := l.At[f]
		value := measure.Number2(v) + " " + r.Unit
		switch craft.LabelFigure(f) {
		case craft.LabelTouch, craft.LabelRecoatFrom, craft.LabelRecoatTo, craft.LabelSand, craft.LabelPotLife:
			value = measure.Hours(v)
		case craft.LabelMinC, craft.LabelMaxC:
			value = u.Temp(v)
		}
		out = append(out, craft.Lower(r.Name)+" "+value)
	}
	families := func(fs []craft.Family) string {
		var names []string
		for _, f := range fs {
			names = append(names, craft.Families[f].Name)
		}
		return craft.List(names)
	}
	if len(l.On) > 0 {
		out = append(out, "for "+families(l.On))
	}
	if len(l.NotOn) > 0 {
		out = append(out, "not for "+families(l.NotOn))
	}
	if l.For != 0 {
		out = append(out, "for these uses: "+craft.List(l.For.Names()))
	}
	if l.NotFor != 0 {
		out = append(out, "not for these uses: "+craft.List(l.NotFor.Names()))
	}
	if len(l.Stops) > 0 {
		var names []string
		for _, b := range l.Stops {
			names = append(names, craft.Lower(craft.Bleeders[b].Name))
		}
		out = append(out, "blocks "+craft.List(names))
	}
	return craft.Upper(strings.Join(out, "; ")) + "."
}

// PutCan keeps a can: a new one where id is empty, otherwise over revision base, which is 0 for one that was
// removed. Errors are a *wire.Error, an *Unfit, a *NotFound, ErrDocumentChanged or the store's.
func (s *Studio) PutCan(ctx context.Context, id string, base int, data []byte) (wire.ShelfCan, error) {
	x, err := wire.DecodeCan(data)
	if err != nil {
		return wire.ShelfCan{}, err
	}
	now, err := s.shelfNow(ctx)
	if err != nil {
		return wire.ShelfCan{}, err
	}
	switch {
	case id == "":
		if len(now.cans) >= wire.MaxShelf {
			return wire.ShelfCan{}, &Unfit{fmt.Sprintf("The shelf is full: it holds %d cans.", wire.MaxShelf)}
		}
		if x.ID = newID(); base != 0 {
			base = 0
		}
	case x.ID != id:
		return wire.ShelfCan{}, &Unfit{"The can has another id than its address."}
	}
	if x.Photo != "" {
		f, err := s.Store.Photo(x.Photo, true)
		if err != nil {
			return wire.ShelfCan{}, &wire.Error{Path: "$.photo", Value: fmt.Sprintf("%q", x.Photo), Says: "there is no such picture"}
		}
		f.Close()
	}
	rev, err := s.keep(ctx, store.Cans, x.ID, base, &x)
	if err != nil {
		return wire.ShelfCan{}, err
	}
	s.shelf.forget()
	shop := s.Workshop(ctx)
	return ShelfCan(s.Craft, &shelved{canOf(s.Craft, &x), x.ReservedID, &x, rev}, shop.Today, shop.Units), nil
}

// keep keeps a document over a revision. What is no longer there is a *NotFound.
func (s *Studio) keep(ctx context.Context, of store.Kind, id string, base int, x any) (rev int, err error) {
	body, err := json.Marshal(x)
	if err != nil {
		return 0, err
	}
	rev, err = s.Store.PutDocument(ctx, of, id, base, body)
	if errors.Is(err, store.ErrNoDocument) {
		err = &NotFound{fmt.Sprintf("This %s is no longer there. It may have been removed in another tab.", of)}
	}
	return rev, err
}

// drop removes a document. What is no longer there is a *NotFound.
func (s *Studio) drop(ctx context.Context, of store.Kind, id string) error {
	err := s.Store.RemoveDocument(ctx, of, id)
	if errors.Is(err, store.ErrNoDocument) {
		return &NotFound{fmt.Sprintf("This %s is no longer there. It may have been removed in another tab.", of)}
	}
	return err
}

// RemoveCan takes a can off the shelf. Pieces whose plans name it keep what they know of it.
func (s *Studio) RemoveCan(ctx context.Context, id string) error {
	defer s.shelf.forget()
	return s.drop(ctx, store.Cans, id)
}

// mostGrams is the most that a can may weigh.
const mostGrams = 500_000

// Weigh is what is left in a can by its weight with the tin, in grams; tare is that of the empty tin, 0 for
// what is usual.
func (s *Studio) Weigh(ctx context.Context, kind string, size, grams, tare float64) (wire.Weighed, error) {
	if !(grams <= mostGrams) || !(tare <= mostGrams) {
		return wire.Weighed{}, &Unfit{fmt.Sprintf("A can weighs at most %d kg.", mostGrams/1000)}
	}
	if _, ok := exchange.KindNamed(s.Craft, kind); !ok || !(size > 0) || size > wire.MaxCanLitres {
		return wire.Weighed{}, &Unfit{"Say what is in the can, and what it held when it was full."}
	}
	k := kindOf(s.Craft, kind)
	if tare <= 0 {
		tare = math.Round(shelf.Tare(s.Craft, k, size))
	}
	left, err := shelf.Weighed(s.Craft, k, size, grams, tare)
	if err != nil {
		return wire.Weighed{}, &Unfit{craft.Upper(err.Error()) + "."}
	}
	u := s.Workshop(ctx).Units
	return wire.Weighed{LeftL: left, TareG: tare, Says: fmt.Sprintf("%s left, taking the empty tin as %s.", amount(s.Craft, k, left, u), u.Weight(tare))}, nil
}

// alike is what makes two cans the same can, as far as a list can tell: what changes with use is left out.
func alike(x *wire.Can) string {
	return strings.ToLower(fmt.Sprint(x.Kind, "|", x.Name, "|", x.Colour, "|", x.Sheen, "|", x.SizeL, "|", x.Batch, "|", x.Bought))
}

// ImportCans reads a CSV of cans, and puts those on the shelf that are not there yet unless it is only to
// look. Rows whose can is there already are counted and left alone, so that the same file twice does no harm.
// The error is an *exchange.Error in words of an *Unfit, or the store's.
func (s *Studio) ImportCans(ctx context.Context, data []byte, look bool) (wire.CansImported, error) {
	out := wire.CansImported{New: []string{}, Refused: []wire.RefusedRow{}}
	read, err := exchange.ReadCans(s.Craft, data)
	if err != nil {
		return out, &Unfit{err.Error()}
	}
	now, err := s.shelfNow(ctx)
	if err != nil {
		return out, err
	}
	there := map[string]int{}
	for i := range now.cans {
		there[alike(now.cans[i].wire)]++
	}
	var docs []store.Kept
	taken := map[string]bool{}
	for i := range read.Cans {
		x := &read.Cans[i]
		_, known := now.find(x.ID)
		if k := alike(x); known || there[k] > 0 {
			there[k]--
			out.Same++
			continue
		}
		if x.ID == "" || taken[x.ID] {
			x.ID = newID()
		}
		taken[x.ID] = true
		body, err := json.Marshal(x)
		if err != nil {
			return out, err
		}
		docs = append(docs, store.Kept{ID: x.ID, Body: body})
		core := canOf(s.Craft, x)
		out.New = append(out.New, core.Title(s.Craft))
	}
	if len(now.cans)+len(docs) > wire.MaxShelf {
		return out, &Unfit{fmt.Sprintf("The shelf holds %d cans; with these it would be %d.", wire.MaxShelf, len(now.cans)+len(docs))}
	}
	out.Refused, out.Count = append(out.Refused, read.Refused...), read.NRefused
	out.Says = importedWords(len(docs), out.Same, out.Count)
	if look {
		return out, nil
	}
	if err := s.Store.AddDocuments(ctx, store.Cans, docs); err != nil {
		return out, err
	}
	s.shelf.forget()
	out.Done = true
	return out, nil
}

func importedWords(fresh, same, refused int) string {
	out := []string{measure.Count(fresh, "new can", "new cans")}
	if fresh == 0 {
		out[0] = "no new can"
	}
	if same > 0 {
		out = append(out, measure.Count(same, "is", "are")+" on the shelf already")
	}
	if refused > 0 {
		out = append(out, measure.Count(refused, "row", "rows")+" cannot be used")
	}
	return craft.Upper(strings.Join(out, "; ")) + "."
}

// ExportCans is the shelf as CSV.
func (s *Studio) ExportCans(ctx context.Context) ([]byte, error) {
	now, err := s.shelfNow(ctx)
	if err != nil {
		return nil, err
	}
	cans := make([]wire.Can, len(now.cans))
	for i := range now.cans {
		cans[i] = *now.cans[i].wire
	}
	return exchange.WriteCans(s.Craft, cans)
}

// ReadColour reads a typed colour. The error is an *Unfit.
func (e *Engine) ReadColour(text string) (wire.ColourRead, error) {
	c, in, err := colour.Read(text)
	if err != nil {
		return wire.ColourRead{}, &Unfit{err.Error()}
	}
	out := colourRead(c)
	if !in {
		out.Caution = "No screen can show this colour, and hardly any paint has it. What is shown is the nearest."
	}
	return out, nil
}

func colourRead(c colour.RGB) wire.ColourRead {
	shown, _ := colour.Parse(c.Hex())
	l, a, b := shown.Lab()
	return wire.ColourRead{Colour: c.Hex(), Name: colour.Name(shown), L: Tenths(l), A: Tenths(a), B: Tenths(b)}
}

// Spot is a round patch of a photograph: its centre and radius as shares of the width and height, and of the
// shorter side.
type Spot struct{ X, Y, R float64 }

// patches has room for as many pictures as are looked into at once.
var patches = make(chan struct{}, 2)

// PatchColour is the colour of a patch of a kept photograph, averaged in linear light, and corrected by the
// patch of something white where one is given. Errors are a *NotFound and an *Unfit.
func (s *Studio) PatchColour(ctx context.Context, file string, at Spot, white *Spot) (wire.PatchRead, error) {
	f, err := s.Store.Photo(file, false)
	if err != nil {
		return wire.PatchRead{}, &NotFound{"There is no such picture."}
	}
	defer f.Close()
	select { // a picture unpacked is some megabytes
	case patches <- struct{}{}:
		defer func() { <-patches }()
	case <-ctx.Done():
		return wire.PatchRead{}, ctx.Err()
	}
	img, _, err := image.Decode(f)
	if err != nil {
		return wire.PatchRead{}, &Unfit{"The picture cannot be read."}
	}
	c, ok := meanOf(img, at)
	if !ok {
		return wire.PatchRead{}, &Unfit{"The patch is outside the picture."}
	}
	out := wire.PatchRead{}
	says := "A photograph shows colours in the light it was taken in. Mark something white in the same light to correct it."
	if white != nil {
		w, ok := meanOf(img, *white)
		if !ok {
			return out, &Unfit{"The white patch is outside the picture."}
		}
		balanced, ok := colour.Balanced(c, w)
		if !ok {
			return out, &Unfit{"What you marked as white is too dark, too coloured, or burnt out. Mark a piece of white paper that shows some shade."}
		}
		c, out.White = balanced, w.Hex()
		says = "Corrected by the white patch. It is still an estimate: compare it with the piece itself."
	}
	out.ColourRead = colourRead(c)
	out.Caution = says
	return out, nil
}

func meanOf(img image.Image, at Spot) (colour.RGB, bool) {
	b := img.Bounds()
	w, h := float64(b.Dx()), float64(b.Dy())
	r := max(1, at.R*min(w, h))
	cx, cy := at.X*w, at.Y*h
	if !(at.X >= 0 && at.X <= 1 && at.Y >= 0 && at.Y <= 1) {
		return colour.RGB{}, false
	}
	type px struct{ r, g, b uint8 }
	var all []px
	step := max(1, int(r/60)) // some ten thousand pixels tell as much as millions
	for y := int(cy - r); y <= int(cy+r); y += step {
		for x := int(cx - r); x <= int(cx+r); x += step {
			p := image.Pt(b.Min.X+x, b.Min.Y+y)
			if dx, dy := float64(x)-cx, float64(y)-cy; !p.In(b) || dx*dx+dy*dy > r*r {
				continue
			}
			cr, cg, cb, _ := img.At(p.X, p.Y).RGBA()
			all = append(all, px{uint8(cr >> 8), uint8(cg >> 8), uint8(cb >> 8)})
		}
	}
	return colour.Mean(len(all), func(i int) (uint8, uint8, uint8) { return all[i].r, all[i].g, all[i].b })
}

// ownPalette is the id of the palette that comes with the program.
const ownPalette = "foyer"

// Palettes are the palette that comes with the program, the studio's own, and its cans.
func (s *Studio) Palettes(ctx context.Context) ([]wire.Palette, error) {
	out := []wire.Palette{{ID: ownPalette, Name: colour.PaletteName, Swatches: shippedSwatches(), Note: "Comes with Rutile; the names are made up."}}
	docs, err := s.Store.Documents(ctx, store.Palettes)
	if err != nil {
		return nil, err
	}
	for _, d := range docs {
		var p wire.Palette
		if err := json.Unmarshal(d.Body, &p); err != nil {
			s.Log.Error("palette", "id", d.ID, "err", err)
			continue
		}
		p.Own = true
		out = append(out, p)
	}
	return out, nil
}

func shippedSwatches() []wire.Swatch {
	out := make([]wire.Swatch, len(colour.Palette))
	for i, x := range colour.Palette {
		out[i] = wire.Swatch{Name: x.Name, Colour: x.Hex}
	}
	return out
}

// Palette is one palette; a *NotFound where there is none.
func (s *Studio) Palette(ctx context.Context, id string) (wire.Palette, error) {
	all, err := s.Palettes(ctx)
	if err != nil {
		return wire.Palette{}, err
	}
	if i := slices.IndexFunc(all, func(p wire.Palette) bool { return p.ID == id }); i >= 0 {
		return all[i], nil
	}
	return wire.Palette{}, &NotFound{"There is no such palette. It may have been removed."}
}

// ImportPalette keeps a GIMP palette. One of the same name and colours is recognised and not kept twice. The
// error is an *Unfit or the store's.
func (s *Studio) ImportPalette(ctx context.Context, data []byte, name string) (wire.Palette, error) {
	read, err := exchange.ReadPalette(data, name)
	if err != nil {
		return wire.Palette{}, &Unfit{err.Error()}
	}
	all, err := s.Palettes(ctx)
	if err != nil {
		return wire.Palette{}, err
	}
	out := wire.Palette{ID: newID(), Name: read.Name, Own: true, Swatches: read.Swatches}
	if read.NRefused > 0 {
		out.Note = fmt.Sprintf("%s left out; the first is line %d: %s.", measure.Count(read.NRefused, "line was", "lines were"), read.Refused[0].Line, read.Refused[0].Says)
	}
	for i := range all {
		if all[i].Name == out.Name && slices.Equal(all[i].Swatches, out.Swatches) {
			all[i].Note = "This palette was there already."
			return all[i], nil
		}
	}
	if len(all) > wire.MaxPalettes {
		return out, &Unfit{fmt.Sprintf("There are %d palettes already; remove one first.", wire.MaxPalettes)}
	}
	_, err = s.keep(ctx, store.Palettes, out.ID, 0, &out)
	return out, err
}

// RemovePalette removes one of the studio's own.
func (s *Studio) RemovePalette(ctx context.Context, id string) error {
	return s.drop(ctx, store.Palettes, id)
}

// PaletteFile is a palette as a GIMP palette.
func (s *Studio) PaletteFile(ctx context.Context, id string) ([]byte, error) {
	p, err := s.Palette(ctx, id)
	if err != nil {
		return nil, err
	}
	return exchange.WritePalette(&p), nil
}

// CansOf are the cans that a store keeps, for use without a studio.
func CansOf(ctx context.Context, s *store.Store) ([]wire.Can, error) {
	docs, err := s.Documents(ctx, store.Cans)
	if err != nil {
		return nil, err
	}
	var out []wire.Can
	for _, d := range docs {
		x, err := wire.DecodeCan(d.Body)
		if err != nil {
			return nil, fmt.Errorf("the can %s is damaged: %w", d.ID, err)
		}
		out = append(out, x)
	}
	return out, nil
}

// PaletteParts are the colours of a palette as paints of a kind, the usual one where it is empty.
func PaletteParts(of []wire.Swatch, kind string) []wire.BlendPart {
	if kind == "" {
		kind = usualPaint
	}
	out := make([]wire.BlendPart, len(of))
	for i, x := range of {
		out[i] = wire.BlendPart{Kind: kind, Colour: x.Colour, Name: x.Name}
	}
	return out
}
