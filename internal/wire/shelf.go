package wire

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"rutile/core/colour"
	"rutile/core/craft"
)

// Limits on what a shelf holds.
const (
	MaxCans        = craft.MostCans // of a piece
	MaxShelf       = 5000           // of a studio
	MaxBlends      = 500
	MaxPalettes    = 50
	MaxSwatches    = 2000
	MaxBlendParts  = colour.MaxPaints
	MaxCanLitres   = 200
	MaxBlendedInto = 12 // lines that say what a can was mixed from
)

// Can is a can of a studio: on its shelf, and copied into the pieces whose plans name it.
type Can struct {
	ID          string   `json:"id"`
	Kind        string   `json:"kind"`
	Name        string   `json:"name,omitempty"`
	Colour      string   `json:"colour,omitempty"`
	Sheen       string   `json:"sheen,omitempty"`
	SizeL       float64  `json:"size_l,omitempty"`
	LeftL       *float64 `json:"left_l,omitempty"`
	Opened      string   `json:"opened,omitempty"`
	Bought      string   `json:"bought,omitempty"`
	PriceMinor  *int     `json:"price_minor,omitempty"`
	Batch       string   `json:"batch,omitempty"`
	Photo       string   `json:"photo,omitempty"`
	ReservedID  int      `json:"reserved_id,omitempty"`
	ReservedFor string   `json:"reserved_for,omitempty"`
	MixedFrom   []string `json:"mixed_from,omitempty"`
	Mixed       string   `json:"mixed,omitempty"`
	Note        string   `json:"note,omitempty"`
	Label       *Label   `json:"label,omitempty"`
}

// Label is what the label of a can says in place of what is usual for its kind.
type Label struct {
	TouchH      *float64 `json:"touch_h,omitempty"`
	RecoatFromH *float64 `json:"recoat_from_h,omitempty"`
	RecoatToH   *float64 `json:"recoat_to_h,omitempty"`
	SandH       *float64 `json:"sand_h,omitempty"`
	CureDays    *float64 `json:"cure_days,omitempty"`
	CoverM2L    *float64 `json:"cover_m2_l,omitempty"`
	PotLifeH    *float64 `json:"pot_life_h,omitempty"`
	Ratio       *float64 `json:"ratio,omitempty"`
	ThinPct     *float64 `json:"thin_pct,omitempty"`
	MinC        *float64 `json:"min_c,omitempty"`
	MaxC        *float64 `json:"max_c,omitempty"`
	MaxRHPct    *float64 `json:"max_rh_pct,omitempty"`
	On          []string `json:"on,omitempty"`
	NotOn       []string `json:"not_on,omitempty"`
	For         []string `json:"for,omitempty"`
	NotFor      []string `json:"not_for,omitempty"`
	Stops       []string `json:"stops,omitempty"`
}

// figures are the places of a label's figures, in the order of [craft.LabelFigures].
func (l *Label) figures() [craft.NumLabelFigures]**float64 {
	return [craft.NumLabelFigures]**float64{
		craft.LabelTouch: &l.TouchH, craft.LabelRecoatFrom: &l.RecoatFromH, craft.LabelRecoatTo: &l.RecoatToH, craft.LabelSand: &l.SandH,
		craft.LabelCure: &l.CureDays, craft.LabelCover: &l.CoverM2L, craft.LabelPotLife: &l.PotLifeH, craft.LabelRatio: &l.Ratio,
		craft.LabelThin: &l.ThinPct, craft.LabelMinC: &l.MinC, craft.LabelMaxC: &l.MaxC, craft.LabelMaxRH: &l.MaxRHPct,
	}
}

// Core is the label for the core; nil where it says nothing. Ids are known to exist, as decoding has checked
// them.
func (l *Label) Core() *craft.Label {
	if l == nil {
		return nil
	}
	out := &craft.Label{On: familiesNamed(l.On), NotOn: familiesNamed(l.NotOn)}
	for f, at := range l.figures() {
		if *at != nil {
			out.Has[f], out.At[f] = true, **at
		}
	}
	for _, id := range l.For {
		u, _ := craft.UsesNamed(id)
		out.For |= u
	}
	for _, id := range l.NotFor {
		u, _ := craft.UsesNamed(id)
		out.NotFor |= u
	}
	for _, id := range l.Stops {
		if b, ok := craft.BleederNamed(id); ok {
			out.Stops = append(out.Stops, b)
		}
	}
	if out.Empty() {
		return nil
	}
	return out
}

func familiesNamed(ids []string) []craft.Family {
	var out []craft.Family
	for _, id := range ids {
		if f := slices.IndexFunc(craft.Families[:], func(r craft.FamilyRow) bool { return r.ID == id }); f >= 0 {
			out = append(out, craft.Family(f))
		}
	}
	return out
}

// Blend is a recipe: parts of paints by volume.
type Blend struct {
	ID     string      `json:"id,omitempty"`
	Name   string      `json:"name,omitempty"`
	Colour string      `json:"colour,omitempty"`
	Parts  []BlendPart `json:"parts"`
	Made   string      `json:"made,omitempty"`
	Note   string      `json:"note,omitempty"`
}

// BlendPart is one paint of a blend.
type BlendPart struct {
	Kind   string  `json:"kind"`
	Colour string  `json:"colour"`
	Parts  int     `json:"parts"`
	Can    string  `json:"can,omitempty"`
	Name   string  `json:"name,omitempty"`
	Cover  float64 `json:"cover_m2_l,omitempty"`
}

// shelfObjects are the objects of the shelf, for the table of fields.
func shelfObjects(kinds, sheens []string) []Object {
	families := idsOf(craft.Families[:], func(r craft.FamilyRow) string { return r.ID })
	uses := idsOf(craft.UseRows, func(r craft.UseRow) string { return r.ID })
	stains := idsOf(craft.Bleeders[:], func(r craft.BleederRow) string { return r.ID })
	can := Object{Name: "can", Says: "A can of paint, primer, clear, wax or additive. In a piece it is a copy, so that the file can be judged without the shelf.", Fields: []Field{
		formed("id", FormID, "id, once on the shelf").must(),
		ids("kind", kinds, "what is in it: a product, or the bonding additive").must(),
		text("name", "what the studio calls it").absent("its kind and colour"),
		formed("colour", FormColour, "its colour").absent("none of its own, or white for tinting"),
		ids("sheen", sheens, "its sheen").absent("as is usual for its kind"),
		above("size_l", MaxCanLitres, "what it held when it was full, in litres; of powder as powder"),
		number("left_l", 0, MaxCanLitres, "what is left, in litres").absent("all of it"),
		formed("opened", FormDay, "the date it was opened").absent("closed"),
		formed("bought", FormDay, "the date it was bought").absent("not known"),
		whole("price_minor", 0, 1_000_000_000, "its price, in minor units of the studio's currency"),
		text("batch", "batch number"),
		formed("photo", FormPhoto, "picture of its label, in the picture folder"),
		whole("reserved_id", 0, 1<<31-1, "number of the piece that it is reserved for").absent("none"),
		text("reserved_for", "name of that piece"),
		list("mixed_from", text("", ""), MaxBlendedInto, "of a mixed can: its parts, a line each"),
		formed("mixed", FormDay, "of a mixed can: the date it was mixed"),
		note("note", "a note"),
		one("label", "label", "what its label says").absent("as is usual for its kind"),
	}}
	label := Object{Name: "label", Says: "What the label of a can says in place of what is usual for its kind. The label and the safety data sheet always come first."}
	for f := range craft.LabelFigures {
		r := &craft.LabelFigures[f]
		label.Fields = append(label.Fields, number(r.ID, r.Least, r.Most, strings.ToLower(r.Name[:1])+r.Name[1:]+", in "+r.Unit).absent("as is usual"))
	}
	label.Fields = append(label.Fields,
		list("on", ids("", families, ""), len(families), "surfaces that it names as suitable"),
		list("not_on", ids("", families, ""), len(families), "surfaces that it excludes"),
		list("for", ids("", uses, ""), len(uses), "uses that it names"),
		list("not_for", ids("", uses, ""), len(uses), "uses that it excludes"),
		list("stops", ids("", stains, ""), len(stains), "stains that it says it blocks"),
	)
	blend := Object{Name: "blend", Says: "A recipe for a colour: parts of paints by volume.", Fields: []Field{
		formed("id", FormID, "id, once in the studio"),
		text("name", "name"),
		formed("colour", FormColour, "the colour that was wanted").absent("none"),
		many("parts", "blend_part", MaxBlendParts, "its paints").must(),
		formed("made", FormDay, "the date it was last mixed"),
		note("note", "a note"),
	}}
	part := Object{Name: "blend_part", Says: "One paint of a blend.", Fields: []Field{
		ids("kind", kinds, "what it is").must(),
		formed("colour", FormColour, "its colour").must(),
		whole("parts", 0, colour.MaxParts, "whole parts by volume").must(),
		formed("can", FormID, "id of the can it is taken from").absent("none in particular"),
		text("name", "what it is called"),
		number("cover_m2_l", 0, 60, "square metres that a litre covers").absent("as is usual for its kind"),
	}}
	return []Object{can, label, blend, part}
}

// canned refuses cans of a piece that a schema cannot refuse, and steps that name one that is not there.
func (p *Piece) canned() error {
	kind := make(map[string]string, len(p.Cans))
	for i := range p.Cans {
		x := &p.Cans[i]
		at := fmt.Sprintf("$.cans[%d]", i)
		if _, dup := kind[x.ID]; dup {
			return &Error{at + ".id", strconv.Quote(x.ID), "another can already has this id"}
		}
		kind[x.ID] = x.Kind
		if err := x.consistent(at); err != nil {
			return err
		}
	}
	for i := range p.Zones {
		for j := range p.Zones[i].Steps {
			s := &p.Zones[i].Steps[j]
			if s.Can == "" {
				continue
			}
			at := fmt.Sprintf("$.zones[%d].steps[%d].can", i, j)
			switch k, ok := kind[s.Can]; {
			case !ok:
				return &Error{at, strconv.Quote(s.Can), "the piece has no such can; its cans are listed under cans, with their figures"}
			case k != s.Product:
				return &Error{at, strconv.Quote(s.Can), fmt.Sprintf("that can holds %s, and this coat is of %s", k, s.Product)}
			}
		}
	}
	return nil
}

// consistent finds what a schema cannot say of a can at a path.
func (x *Can) consistent(at string) error {
	if x.LeftL != nil && x.SizeL > 0 && *x.LeftL > x.SizeL*1.0001 {
		return &Error{at + ".left_l", fmt.Sprint(*x.LeftL), fmt.Sprintf("more is left than the can holds, which is %v litres", x.SizeL)}
	}
	if l := x.Label; l != nil {
		if l.RecoatFromH != nil && l.RecoatToH != nil && *l.RecoatToH < *l.RecoatFromH {
			return &Error{at + ".label.recoat_to_h", fmt.Sprint(*l.RecoatToH), fmt.Sprintf("the window ends before it begins, at %v h", *l.RecoatFromH)}
		}
		if l.MinC != nil && l.MaxC != nil && *l.MaxC < *l.MinC {
			return &Error{at + ".label.max_c", fmt.Sprint(*l.MaxC), fmt.Sprintf("it is below the least, %v °C", *l.MinC)}
		}
		for _, s := range l.On {
			if slices.Contains(l.NotOn, s) {
				return &Error{at + ".label.not_on", strconv.Quote(s), "the label names this surface as suitable as well"}
			}
		}
		for _, s := range l.For {
			if slices.Contains(l.NotFor, s) {
				return &Error{at + ".label.not_for", strconv.Quote(s), "the label names this use as well"}
			}
		}
	}
	return nil
}

// dated refuses dates of a can at a path that are in no calendar.
func (x *Can) dated(at string) error {
	for name, d := range map[string]string{"opened": x.Opened, "bought": x.Bought, "mixed": x.Mixed} {
		if err := day(at+"."+name, d); err != nil {
			return err
		}
	}
	return nil
}

// DecodeCan reads a can of the shelf. The error, if any, is an *Error.
func DecodeCan(data []byte) (Can, error) {
	var x Can
	if err := decodeRoot(data, "a can", CanObject, &x); err != nil {
		return x, err
	}
	x.Name = strings.TrimSpace(x.Name)
	if err := x.consistent("$"); err != nil {
		return x, err
	}
	return x, x.dated("$")
}

// DecodeBlend reads a blend. The error, if any, is an *Error.
func DecodeBlend(data []byte) (Blend, error) {
	var b Blend
	if err := decodeRoot(data, "a blend", BlendObject, &b); err != nil {
		return b, err
	}
	b.Name = strings.TrimSpace(b.Name)
	all := 0
	for _, p := range b.Parts {
		all += p.Parts
	}
	switch {
	case all == 0:
		return b, &Error{"$.parts", "", "a blend needs at least one part of one paint"}
	case all > colour.MaxParts:
		return b, &Error{"$.parts", fmt.Sprint(all), fmt.Sprintf("a blend has at most %d parts in all", colour.MaxParts)}
	}
	return b, day("$.made", b.Made)
}

func decodeRoot(data []byte, what, object string, into any) error {
	if len(data) > MaxBytes {
		return tooLarge()
	}
	doc, err := scan(data, what)
	if err != nil {
		return err
	}
	return doc.fill(object, into)
}

// At is a figure of the label; nil where it gives none.
func (l *Label) At(f craft.LabelFigure) *float64 {
	if l == nil {
		return nil
	}
	return *l.figures()[f]
}

// Set gives a figure.
func (l *Label) Set(f craft.LabelFigure, v float64) { *l.figures()[f] = &v }

// Labelled is the can's label, made where it has none.
func (x *Can) Labelled() *Label {
	if x.Label == nil {
		x.Label = &Label{}
	}
	return x.Label
}

// Check finds what of a can does not fit together. The error is an *Error.
func (x *Can) Check() error { return x.consistent("$") }
