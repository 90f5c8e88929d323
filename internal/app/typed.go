package app

import (
	"context"
	"errors"
	"math"
	"os"
	"strconv"
	"strings"

	"rutile/core/colour"
	"rutile/core/measure"
	"rutile/core/parts"
	"rutile/internal/photo"
	"rutile/internal/wire"
)

// Area reads an area as people write it; an *Unfit where it is none.
func (s *Studio) Area(ctx context.Context, text string) (wire.Area, error) {
	u := s.Workshop(ctx).Units
	m2, err := measure.Area(text, u)
	if err != nil {
		return wire.Area{}, &Unfit{err.Error()}
	}
	m2 = math.Round(m2*1e4) / 1e4
	if m2 == 0 {
		return wire.Area{}, &Unfit{"That is smaller than a square centimetre."}
	}
	return wire.Area{AreaM2: m2, Says: u.Area(m2)}, nil
}

// ColourName is a colour, written as #rrggbb, with its plain name; an *Unfit where it is none.
func (s *Studio) ColourName(_ context.Context, of string) (wire.ColourWord, error) {
	c, ok := colour.Parse(of)
	if !ok {
		return wire.ColourWord{}, &Unfit{"A colour is written #rrggbb, for example #e4e8df."}
	}
	return wire.ColourWord{Name: colour.Name(c), Colour: c.Hex()}, nil
}

// Parts reads typed parts; an *Unfit where it cannot.
func (s *Studio) Parts(ctx context.Context, text string) ([]wire.Part, error) {
	ps, err := parts.Read(text, s.Workshop(ctx).Units)
	if err != nil {
		return nil, &Unfit{err.Error()}
	}
	return wire.PartsFrom(ps), nil
}

// Sizes reads the sizes of one part of a kind. What it has now of was stays where the text leaves
// it out. Errors are a *NotFound or an *Unfit.
func (s *Studio) Sizes(ctx context.Context, kind, text string, was wire.Part) (wire.Part, error) {
	k, ok := parts.KindNamed(kind)
	if !ok {
		return wire.Part{}, &NotFound{"There is no such kind of part."}
	}
	size, err := parts.ReadSizes(k, text, parts.Sizes{parts.Thick: was.ThickCM, parts.Girth: was.GirthCM, parts.Member: was.MemberCM}, s.Workshop(ctx).Units)
	if err != nil {
		return wire.Part{}, &Unfit{err.Error()}
	}
	p := parts.New(k, 1)
	p.Size = size
	return wire.PartFrom(&p), nil
}

// Templates describes the templates in the studio's units.
func (s *Studio) Templates(ctx context.Context) []wire.TemplateWord {
	return Templates(s.Workshop(ctx).Units)
}

// FromTemplate is what a template comes to with sizes and counts as people write them, or with the usual
// ones where they are empty. Errors are a *NotFound or an *Unfit.
func (s *Studio) FromTemplate(ctx context.Context, id, sizes, counts string) (wire.TemplateParts, error) {
	t, ok := parts.TemplateNamed(id)
	if !ok {
		return wire.TemplateParts{}, &NotFound{"There is no such template."}
	}
	shop := s.Workshop(ctx)
	var cm []float64
	var n []int
	var err error
	if strings.TrimSpace(sizes) != "" {
		if cm, err = measure.Lengths(sizes, shop.Units); err != nil {
			return wire.TemplateParts{}, &Unfit{err.Error()}
		}
		if len(cm) != len(t.Sizes) {
			return wire.TemplateParts{}, &Unfit{"It needs " + t.Wants() + "."}
		}
	}
	for _, x := range strings.FieldsFunc(counts, func(r rune) bool { return r == ',' }) {
		k, err := strconv.Atoi(strings.TrimSpace(x))
		if err != nil {
			return wire.TemplateParts{}, &Unfit{"“" + wire.Clip(x) + "” is not a whole number."}
		}
		n = append(n, k)
	}
	ps, err := t.Make(cm, n, shop.Units)
	if err != nil {
		return wire.TemplateParts{}, &Unfit{err.Error()}
	}
	p := wire.New(t.Name)
	p.Parts = wire.PartsFrom(ps)
	return wire.TemplateParts{Parts: p.Parts, Look: s.Job(&p, shop).Overview(nil)}, nil
}

// TakePhoto takes a picture in. Errors are an *Unfit or the store's.
func (s *Studio) TakePhoto(ctx context.Context, data []byte) (wire.PhotoKept, error) {
	p, err := photo.Take(ctx, data)
	var e *photo.Error
	switch {
	case errors.As(err, &e):
		return wire.PhotoKept{}, &Unfit{e.Says}
	case errors.Is(err, photo.ErrBusy):
		return wire.PhotoKept{}, ErrBusy
	case err != nil:
		return wire.PhotoKept{}, err
	}
	already, err := s.Store.KeepPhoto(p.Name, p.Large, p.Small)
	return wire.PhotoKept{Photo: wire.Photo{File: p.Name, Width: p.Width, Height: p.Height, Taken: p.Taken}, Already: already}, err
}

// Photo opens a stored picture, large or small; the caller closes it. The error is a *NotFound
// where there is none.
func (s *Studio) Photo(name string, small bool) (*os.File, error) {
	f, err := s.Store.Photo(name, small)
	if err != nil {
		return nil, &NotFound{"There is no such picture."}
	}
	return f, nil
}
