package server

import (
	"context"
	"errors"
	"net/http"
	"os"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5"

	"rutile/core/measure"
	"rutile/core/parts"
	"rutile/internal/format"
	"rutile/internal/photo"
	"rutile/internal/store"
)

// photoTime is how long a picture may take on its way here.
const photoTime = 3 * time.Minute

type partsOut struct{ Body []format.Part }

// parts reads parts as one jots them down.
func (h *handlers) parts(ctx context.Context, in *struct {
	Text string `query:"text" doc:"As 3 drawer fronts 80x18; several are parted by semicolons"`
}) (*partsOut, error) {
	ps, err := parts.Read(in.Text, h.checking(ctx).Units)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	return &partsOut{format.PartsFrom(ps)}, nil
}

type partOut struct{ Body format.Part }

// sizes reads the sizes of one part.
func (h *handlers) sizes(ctx context.Context, in *struct {
	Kind   string  `query:"kind" required:"true"`
	Text   string  `query:"text" doc:"As 80 x 18 cm"`
	Thick  float64 `query:"thick_cm" doc:"As it is now; kept where the text leaves it out"`
	Girth  float64 `query:"girth_cm" doc:"As it is now; kept where the text leaves it out"`
	Member float64 `query:"member_cm" doc:"As it is now; kept where the text leaves it out"`
}) (*partOut, error) {
	k, ok := parts.KindNamed(in.Kind)
	if !ok {
		return nil, huma.Error404NotFound("There is no such kind of part.")
	}
	was := parts.Sizes{parts.Thick: in.Thick, parts.Girth: in.Girth, parts.Member: in.Member}
	s, err := parts.ReadSizes(k, in.Text, was, h.checking(ctx).Units)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	p := parts.New(k, 1)
	p.Size = s
	return &partOut{format.PartFrom(&p)}, nil
}

type templatesOut struct{ Body []format.TemplateWord }

func (h *handlers) templates(ctx context.Context, _ *struct{}) (*templatesOut, error) {
	return &templatesOut{format.Templates(h.checking(ctx).Units)}, nil
}

// Made is what a template comes to.
type Made struct {
	Parts []format.Part `json:"parts"`
	Look  format.Look   `json:"look"`
}

type madeOut struct{ Body Made }

func (h *handlers) template(ctx context.Context, in *struct {
	ID     string `path:"id"`
	Sizes  string `query:"sizes" doc:"As 80 x 90 x 45 cm; empty for the usual ones"`
	Counts string `query:"counts" doc:"As 3,2; empty for the usual ones"`
}) (*madeOut, error) {
	t, ok := parts.TemplateNamed(in.ID)
	if !ok {
		return nil, huma.Error404NotFound("There is no such template.")
	}
	o := h.checking(ctx)
	var cm []float64
	var n []int
	var err error
	if strings.TrimSpace(in.Sizes) != "" {
		if cm, err = measure.Lengths(in.Sizes, o.Units); err != nil {
			return nil, huma.Error422UnprocessableEntity(err.Error())
		}
		if len(cm) != len(t.Sizes) {
			return nil, huma.Error422UnprocessableEntity("It wants " + t.Wants() + ".")
		}
	}
	for _, s := range strings.FieldsFunc(in.Counts, func(r rune) bool { return r == ',' }) {
		k, err := strconv.Atoi(strings.TrimSpace(s))
		if err != nil {
			return nil, huma.Error422UnprocessableEntity("“" + s + "” is no whole number.")
		}
		n = append(n, k)
	}
	ps, err := t.Make(cm, n, o.Units)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	p := format.New(t.Name)
	p.Parts = format.PartsFrom(ps)
	return &madeOut{Made{p.Parts, format.LookOver(h.Craft, &p, o, nil)}}, nil
}

// PhotoIn is a picture as a request's body.
type PhotoIn struct {
	RawBody []byte `contentType:"application/octet-stream"`
}

// PhotoKept is a picture taken in.
type PhotoKept struct {
	format.Photo
	Already bool `json:"already" doc:"The same picture was kept before"`
}

type photoOut struct{ Body PhotoKept }

func (h *handlers) takePhoto(ctx context.Context, in *PhotoIn) (*photoOut, error) {
	p, err := photo.Take(ctx, in.RawBody)
	var e *photo.Error
	switch {
	case errors.As(err, &e):
		return nil, huma.Error422UnprocessableEntity(e.Says)
	case err != nil:
		return nil, h.failed(err)
	}
	already, err := h.Store.KeepPhoto(p.Name, p.Large, p.Small)
	if err != nil {
		return nil, h.failed(err)
	}
	return &photoOut{PhotoKept{format.Photo{File: p.Name, Width: p.Width, Height: p.Height, Taken: p.Taken}, already}}, nil
}

// photos serves the pictures that are kept.
func photos(s *store.Store, small bool) http.HandlerFunc {
	return func(w http.ResponseWriter, r *http.Request) {
		f, err := s.Photo(chi.URLParam(r, "file"), small)
		if err != nil {
			problem(w, http.StatusNotFound, "There is no such picture here.")
			return
		}
		defer f.Close()
		w.Header().Set("Content-Type", "image/jpeg")
		w.Header().Set("Cache-Control", "private, no-cache")
		http.ServeContent(w, r, "", modified(f), f)
	}
}

func modified(f *os.File) time.Time {
	if info, err := f.Stat(); err == nil {
		return info.ModTime()
	}
	return time.Time{}
}
