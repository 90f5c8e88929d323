package demo

import (
	"image"
	"image/color"
	"math"
	"math/rand/v2"
	"slices"

	"github.com/lucasb-eyer/go-colorful"
	"golang.org/x/image/vector"

	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/parts"
	"rutile/internal/app"
	"rutile/internal/wire"
)

// Size of a drawn stand-in for a photograph, in pixels.
const pictureW, pictureH = 960, 720

// standIn draws what a photograph of the piece would show: its elevation in a
// room, in the colours it has now, with the damage that markers point at.
func standIn(p *wire.Piece, f *wire.Photo, seed uint64) *image.RGBA {
	m := image.NewRGBA(image.Rect(0, 0, pictureW, pictureH))
	floor := pictureH * .86
	room(m, floor)
	j := app.NewEngine(craft.Default()).Job(p, app.Workshop{Air: Site})
	ps, look := j.Parts, j.Overview(nil)
	d := parts.Elevation(ps, measure.Metric)
	k := math.Min(pictureW*.78/d.W, pictureH*.72/d.H)
	at := func(q parts.Point) (float32, float32) {
		return float32(pictureW/2 + (q.X-d.W/2)*k), float32(floor + 14 - (d.H-q.Y)*k)
	}
	// Its shadow on the floor.
	fill(m, []parts.Point{{X: -.04 * d.W, Y: d.H - .01*d.H}, {X: 1.06 * d.W, Y: d.H - .01*d.H}, {X: 1.02 * d.W, Y: d.H + 12/k}, {X: 0, Y: d.H + 12/k}}, nil, at, color.NRGBA{20, 16, 12, 90})
	for i := range d.Shapes {
		s := &d.Shapes[i]
		hex := "#a89a86"
		if z := ps[s.Part].Zone; z >= 0 {
			hex = look.Zones[z].Colour
		} else if ps[s.Part].Kind == parts.Handle || ps[s.Part].Kind == parts.Knob {
			hex = "#7a6a4c"
		}
		c, err := colorful.Hex(hex)
		if err != nil {
			continue
		}
		if s.Recess {
			c = c.BlendLab(colorful.Color{}, .45)
		}
		r, g, b := c.Clamped().RGB255()
		fill(m, s.Outline, s.Hole, at, color.NRGBA{r, g, b, 255})
		edge(m, s.Outline, at, 2.2, color.NRGBA{20, 14, 10, 120})
		edge(m, s.Hole, at, 2.2, color.NRGBA{20, 14, 10, 120})
		for _, l := range s.Lines {
			edge(m, l, at, 1.6, color.NRGBA{20, 14, 10, 90})
		}
	}
	r := rand.New(rand.NewPCG(seed, 17))
	for _, mk := range f.Markers {
		blot(m, mk.X*pictureW, mk.Y*pictureH, r)
	}
	grain(m, r)
	return m
}

// room is a wall in evening light over a floor.
func room(m *image.RGBA, floor float64) {
	for y := range pictureH {
		for x := range pictureW {
			dx, dy := (float64(x)-pictureW*.4)/pictureW, (float64(y)-pictureH*.35)/pictureH
			glow := 1 - .5*(dx*dx+dy*dy)
			c := [3]float64{206, 196, 178}
			if float64(y) > floor {
				c = [3]float64{134, 112, 88}
				if x/90%2 == 0 {
					c = [3]float64{126, 104, 80}
				}
			}
			m.SetRGBA(x, y, color.RGBA{uint8(c[0] * glow), uint8(c[1] * glow), uint8(c[2] * glow), 255})
		}
	}
}

type toPixel func(parts.Point) (x, y float32)

// path is a shape in pixels, gathered before it is drawn: only the box around
// it is touched.
type path [][][2]float32

func (p path) draw(m *image.RGBA, c color.Color) {
	x0, y0, x1, y1 := float32(pictureW), float32(pictureH), float32(0), float32(0)
	for _, ring := range p {
		for _, q := range ring {
			x0, y0, x1, y1 = min(x0, q[0]), min(y0, q[1]), max(x1, q[0]), max(y1, q[1])
		}
	}
	r := image.Rect(int(x0)-1, int(y0)-1, int(x1)+2, int(y1)+2).Intersect(m.Rect)
	if r.Empty() {
		return
	}
	var z vector.Rasterizer
	z.Reset(r.Dx(), r.Dy())
	ox, oy := float32(r.Min.X), float32(r.Min.Y)
	for _, ring := range p {
		for i, q := range ring {
			if i == 0 {
				z.MoveTo(q[0]-ox, q[1]-oy)
			} else {
				z.LineTo(q[0]-ox, q[1]-oy)
			}
		}
		z.ClosePath()
	}
	z.Draw(m, r, image.NewUniform(c), image.Point{})
}

func ring(ps []parts.Point, at toPixel) [][2]float32 {
	out := make([][2]float32, len(ps))
	for i, q := range ps {
		out[i][0], out[i][1] = at(q)
	}
	return out
}

func fill(m *image.RGBA, outline, hole []parts.Point, at toPixel, c color.Color) {
	p := path{ring(outline, at)}
	if len(hole) > 0 { // the other way round, so that it is left out
		h := ring(hole, at)
		slices.Reverse(h)
		p = append(p, h)
	}
	p.draw(m, c)
}

// edge draws the lines of an outline, each as a thin bar.
func edge(m *image.RGBA, ps []parts.Point, at toPixel, wide float64, c color.Color) {
	if len(ps) < 2 {
		return
	}
	var p path
	for i := range ps {
		x0, y0 := at(ps[i])
		x1, y1 := at(ps[(i+1)%len(ps)])
		dx, dy := float64(x1-x0), float64(y1-y0)
		l := math.Hypot(dx, dy)
		if l == 0 || len(ps) == 2 && i == 1 {
			continue
		}
		nx, ny := float32(-dy/l*wide/2), float32(dx/l*wide/2)
		p = append(p, [][2]float32{{x0 + nx, y0 + ny}, {x1 + nx, y1 + ny}, {x1 - nx, y1 - ny}, {x0 - nx, y0 - ny}})
	}
	p.draw(m, c)
}

// blot is damage, seen from some way off.
func blot(m *image.RGBA, x, y float64, r *rand.Rand) {
	for range 5 {
		cx, cy, w := x+r.NormFloat64()*9, y+r.NormFloat64()*6, 4+r.Float64()*6
		var ps []parts.Point
		for i := range 9 {
			a, k := 2*math.Pi*float64(i)/9, w*(.7+.5*r.Float64())
			ps = append(ps, parts.Point{X: cx + k*math.Cos(a), Y: cy + .7*k*math.Sin(a)})
		}
		same := func(q parts.Point) (float32, float32) { return float32(q.X), float32(q.Y) }
		fill(m, ps, nil, same, color.NRGBA{28, 18, 12, 190})
	}
}

// grain is what a phone makes of a dim foyer.
func grain(m *image.RGBA, r *rand.Rand) {
	for i := 0; i < len(m.Pix); i += 4 {
		n := int(r.Uint32()%13) - 6
		for j := range 3 {
			m.Pix[i+j] = uint8(min(255, max(0, int(m.Pix[i+j])+n)))
		}
	}
}
