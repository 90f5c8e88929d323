package format

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"

	"rutile/core/apart"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/mend"
	"rutile/core/parts"
)

// sizes are the fields of a part's sizes, indexed as the core's.
func (p *Part) sizes() [parts.NumDims]*float64 {
	return [parts.NumDims]*float64{
		parts.Width: &p.WidthCM, parts.Height: &p.HeightCM, parts.Depth: &p.DepthCM, parts.Thick: &p.ThickCM,
		parts.Across: &p.AcrossCM, parts.AcrossAt: &p.BaseCM, parts.Girth: &p.GirthCM, parts.Member: &p.MemberCM,
	}
}

// core turns a part into the core's; zone is the index of its zone. The error
// is an *Error whose path is that of the field within the part.
func (p *Part) core(zone int) (parts.Part, error) {
	k, _ := parts.KindNamed(p.Kind)
	out := parts.Part{Kind: k, Name: p.Name, Count: max(1, p.Count), Zone: zone, Painted: k.UsualFaces(), Seen: -1, Gap: -1}
	for d, x := range p.sizes() {
		out.Size[d] = *x
	}
	out.Fill()
	if p.Faces != nil {
		out.Painted = 0
	}
	for i, id := range p.Faces {
		f, ok := k.FaceNamed(id)
		if !ok {
			return out, &Error{fmt.Sprintf(".faces[%d]", i), strconv.Quote(id), fmt.Sprintf("%s has no such face", craft.Lower(parts.Kinds[k].Name))}
		}
		out.Painted |= f
	}
	out.Relief, _ = parts.ReliefNamed(p.Relief)
	out.Place, _ = parts.PlaceNamed(p.Place)
	if p.Seen != nil {
		out.Seen = *p.Seen
	}
	if p.GapMM != nil {
		out.Gap = *p.GapMM
	}
	if err := out.Check(); err != nil {
		e := &Error{Says: err.Error()}
		if f := parts.Field(err); f != "" {
			e.Path = "." + f
			if d, ok := parts.DimNamed(f); ok {
				e.Path += "_cm"
				e.Value = strconv.FormatFloat(*p.sizes()[d], 'g', 6, 64)
			}
		}
		return out, e
	}
	return out, nil
}

// PartFrom writes a part of the core. Sizes that only follow from others are
// written, too: they are what was measured or agreed on.
func PartFrom(p *parts.Part) Part {
	row := &parts.Kinds[p.Kind]
	out := Part{Kind: row.ID, Name: p.Name, Count: p.Count, Place: parts.Places[p.Place].ID}
	for d, x := range out.sizes() {
		*x = p.Size[d]
	}
	if p.Painted != p.Kind.UsualFaces() {
		out.Faces = []string{}
		for i, f := range row.Faces {
			if p.Painted&(1<<i) != 0 {
				out.Faces = append(out.Faces, f.ID)
			}
		}
	}
	if p.Relief != parts.Smooth {
		out.Relief = parts.Reliefs[p.Relief].ID
	}
	if p.Seen >= 0 {
		n := p.Seen
		out.Seen = &n
	}
	if p.Gap >= 0 {
		g := p.Gap
		out.GapMM = &g
	}
	return out
}

// PartsFrom writes parts of the core.
func PartsFrom(ps []parts.Part) []Part {
	out := make([]Part, len(ps))
	for i := range ps {
		out[i] = PartFrom(&ps[i])
	}
	return out
}

// Measured are a decoded piece's parts for the core, each with the index of
// its zone.
func (p *Piece) Measured() []parts.Part {
	out := make([]parts.Part, len(p.Parts))
	for i := range p.Parts {
		out[i], _ = p.Parts[i].core(p.zoneAt(p.Parts[i].Zone))
	}
	return out
}

// measuredAs is what the parts of a zone come to.
func (p *Piece) measuredAs(zone string) parts.Measured {
	var own []parts.Part
	for i := range p.Parts {
		if p.Parts[i].Zone == zone {
			q, _ := p.Parts[i].core(0)
			own = append(own, q)
		}
	}
	return parts.OfZone(own, 0)
}

// AreaOf is a zone's area in square metres: as typed, or what its parts come
// to; 0 where it is not known.
func (p *Piece) AreaOf(zone int) float64 {
	if z := &p.Zones[zone]; z.AreaM2 > 0 {
		return z.AreaM2
	}
	return tidy(p.measuredAs(p.Zones[zone].ID).M2)
}

// zoneAt is the index of the zone with an id; -1 for none.
func (p *Piece) zoneAt(id string) int {
	if id == "" {
		return -1
	}
	return slices.IndexFunc(p.Zones, func(z Zone) bool { return z.ID == id })
}

// lookedOver finds what a schema cannot say of parts, damage and pictures.
func (p *Piece) lookedOver() error {
	zone := func(path, id string) error {
		if id != "" && p.zoneAt(id) < 0 {
			return &Error{path + ".zone", strconv.Quote(id), "the piece has no such zone"}
		}
		return nil
	}
	for i := range p.Parts {
		path := fmt.Sprintf("$.parts[%d]", i)
		if _, err := p.Parts[i].core(-1); err != nil {
			e := err.(*Error)
			e.Path = path + e.Path
			return e
		}
		if err := zone(path, p.Parts[i].Zone); err != nil {
			return err
		}
	}
	for i, f := range p.TakeApart {
		if err := zone(fmt.Sprintf("$.take_apart[%d]", i), f.Zone); err != nil {
			return err
		}
	}
	labels := map[string]string{}
	for i, z := range p.Zones {
		for j, d := range z.Defects {
			path := fmt.Sprintf("$.zones[%d].defects[%d].label", i, j)
			if first, taken := labels[d.Label]; d.Label != "" && taken {
				return &Error{path, strconv.Quote(d.Label), first + " has this label already"}
			}
			labels[d.Label] = path
		}
	}
	for i, f := range p.Photos {
		path := fmt.Sprintf("$.photos[%d]", i)
		if slices.ContainsFunc(p.Photos[:i], func(g Photo) bool { return g.File == f.File }) {
			return &Error{path + ".file", strconv.Quote(f.File), "the same picture stands in the list twice"}
		}
		if err := zone(path, f.Zone); err != nil {
			return err
		}
		for j, m := range f.Markers {
			if _, ok := labels[m.Defect]; m.Defect != "" && !ok {
				return &Error{fmt.Sprintf("%s.markers[%d].defect", path, j), strconv.Quote(m.Defect), "no damage has this label"}
			}
		}
	}
	return nil
}

// damage is a zone's damage for the core.
func (z *Zone) damage(c *craft.Craft) []mend.Defect {
	bends := false
	if x, ok := c.Substrate(z.Substrate); ok {
		g := c.Substrates[x].Group
		bends = g == craft.GroupCane || g == craft.GroupCloth
	}
	out := make([]mend.Defect, len(z.Defects))
	for i, d := range z.Defects {
		out[i] = mend.Defect{ID: d.ID, Count: max(1, d.Count), SizeMM: d.Size, LongCM: d.Length, Bends: bends}
	}
	return out
}

// fittings are what comes off, for the core.
func (p *Piece) fittings() []apart.Item {
	out := make([]apart.Item, len(p.TakeApart))
	for i, f := range p.TakeApart {
		out[i] = apart.Item{Kind: f.Kind, Count: max(1, f.Count), Where: f.Where, Do: f.Do}
	}
	return out
}

// does is what is done with a fitting: what was chosen, or as is usual for its kind.
func (f *Fitting) does() string {
	if row, ok := apart.RowOf(f.Kind); ok {
		return cmp.Or(f.Do, row.Do)
	}
	return f.Do
}

// sitsOn tells whether a fitting sits on a zone: the one it names, or the only one
// where it names none.
func (p *Piece) sitsOn(f *Fitting, zone int) bool {
	return f.Zone == p.Zones[zone].ID || f.Zone == "" && len(p.Zones) == 1
}

// holes is what new hardware does to the holes of a fitting.
func (f *Fitting) holes() apart.Holes {
	mm := func(x *float64) float64 {
		if x == nil {
			return -1
		}
		return *x
	}
	return apart.HolesOf(f.Count, mm(f.HolesMM), mm(f.NewHoles))
}

// air is that of the piece's own workshop, or else of the studio's.
func (p *Piece) air(studio drying.Climate) drying.Climate {
	if p.Site != nil {
		return drying.Climate{TempC: p.Site.TempC, RH: p.Site.RHPct}
	}
	return studio
}
