package wire

import (
	"fmt"
	"strconv"

	"rutile/core/craft"
	"rutile/core/parts"
)

// sizes are the fields of a part's sizes, indexed as the core's.
func (p *Part) sizes() [parts.NumDims]*float64 {
	return [parts.NumDims]*float64{
		parts.Width: &p.WidthCM, parts.Height: &p.HeightCM, parts.Depth: &p.DepthCM, parts.Thick: &p.ThickCM,
		parts.Across: &p.AcrossCM, parts.AcrossAt: &p.BaseCM, parts.Girth: &p.GirthCM, parts.Member: &p.MemberCM,
	}
}

// Core turns a part into the core's; zone is the index of its zone. The error
// is an *Error whose path is that of the field within the part.
func (p *Part) Core(zone int) (parts.Part, error) {
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
