package format

import (
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"
	"text/tabwriter"

	"rutile/core/apart"
	"rutile/core/colour"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/mend"
	"rutile/core/parts"
)

// Look is what a piece comes to, looked over: areas, the elevation, what its
// damage takes and what comes off.
type Look struct {
	Parts     []PartLook    `json:"parts"`
	Zones     []ZoneLook    `json:"zones"`
	Elevation Elevation     `json:"elevation"`
	Mending   Mending       `json:"mending" doc:"Of all zones, with the holes that new hardware leaves"`
	Fittings  []FittingLook `json:"fittings"`
	Suggested []Fitting     `json:"suggested" doc:"What the parts say comes off and the list does not hold yet"`
	Loose     int           `json:"loose" doc:"Parts that are painted and belong to no zone"`
}

// PartLook is what a part comes to.
type PartLook struct {
	Title   string   `json:"title"`
	Kind    string   `json:"kind" doc:"What it is, in words"`
	Sizes   string   `json:"sizes" doc:"In the studio's units"`
	Wants   string   `json:"wants" doc:"Which sizes its kind has"`
	AreaM2  float64  `json:"area_m2"`
	Area    string   `json:"area" doc:"In the studio's units; words where it is not painted"`
	Run     string   `json:"run,omitempty" doc:"Its running length, where one counts it so"`
	Faces   []Factor `json:"faces" doc:"Each face that is painted, with its square metres"`
	Painted []string `json:"painted" doc:"Ids of these faces"`
	Hidden  bool     `json:"hidden,omitempty" doc:"Nothing of it shows from the front"`
	Moves   bool     `json:"moves,omitempty" doc:"It slides or closes"`
	Fit     string   `json:"fit,omitempty" doc:"What the coats leave of its gap"`
	Tight   bool     `json:"tight,omitempty" doc:"It may stick once it is coated"`
	Note    string   `json:"note,omitempty"`
}

// ZoneLook is what a zone comes to.
type ZoneLook struct {
	ID      string  `json:"id"`
	AreaM2  float64 `json:"area_m2"`
	Area    string  `json:"area" doc:"In the studio's units; empty where it is not known"`
	PartsM2 float64 `json:"parts_m2" doc:"What its parts come to"`
	Typed   bool    `json:"typed,omitempty" doc:"The area was typed, and not worked out from parts"`
	Parts   int     `json:"parts"`
	CoverM2 float64 `json:"cover_m2" doc:"What paint has to cover: more where the surface is rough"`
	LengthM float64 `json:"length_m"`
	EdgesM  float64 `json:"edges_m"`
	Work    float64 `json:"work" doc:"How much longer a square metre takes than on a plain panel; 0 where it is not known"`
	Says    string  `json:"says" doc:"All of it in words"`
	Colour  string  `json:"colour" doc:"As it is now"`
	Mark    string  `json:"mark" doc:"The marks by which the eye tells it"`
	Mending Mending `json:"mending"`
}

// Elevation is the front of the piece, to scale.
type Elevation struct {
	W      float64     `json:"w_cm"`
	H      float64     `json:"h_cm"`
	Shapes []ElevShape `json:"shapes"`
	Says   string      `json:"says" doc:"How wide and high it is"`
}

// ElevShape is one part as it shows, as paths in centimetres.
type ElevShape struct {
	Part   int    `json:"part" doc:"Index of the part"`
	N      int    `json:"n" doc:"Which of its count, from 1"`
	D      string `json:"d" doc:"Outline; what it leaves open is cut out"`
	Lines  string `json:"lines,omitempty"`
	Recess bool   `json:"recess,omitempty" doc:"It lies back, behind an opening"`
}

// Mending is what damage takes.
type Mending struct {
	Minutes float64    `json:"minutes"`
	Items   []MendItem `json:"items" doc:"In the order of the zone's damage; those that take nothing are left out"`
	Says    []string   `json:"says"`
}

// MendItem is what one line of damage takes.
type MendItem struct {
	Defect  string  `json:"defect"`
	Filler  string  `json:"filler,omitempty" enum:"filler_two_part,filler_fine"`
	ML      float64 `json:"ml,omitempty"`
	GlueML  float64 `json:"glue_ml,omitempty"`
	Minutes float64 `json:"minutes"`
	How     string  `json:"how"`
	Takes   string  `json:"takes" doc:"Material and time, in words"`
}

// FittingLook is what is known of something that comes off.
type FittingLook struct {
	Title  string `json:"title"`
	Labels string `json:"labels"`
	Do     string `json:"do"`
	Clean  string `json:"clean"`
	Store  string `json:"store"`
	Holes  string `json:"holes,omitempty"`
	Drills bool   `json:"drills,omitempty" doc:"Holes are filled and drilled before paint"`
}

// LookOver looks a decoded piece over. films are the dry films of the zones'
// plans in micrometres; nil where they are not known.
func LookOver(c *craft.Craft, p *Piece, o CheckOptions, films []float64) Look {
	air := p.air(o.Site)
	out := Look{Parts: []PartLook{}, Zones: []ZoneLook{}, Fittings: []FittingLook{}, Suggested: []Fitting{}}
	ps := p.Measured()
	d := parts.Elevation(ps, o.Units)
	out.Elevation = elevation(&d, o.Units)
	for i := range ps {
		w := partLook(&ps[i], o.Units)
		if z := ps[i].Zone; ps[i].Gap >= 0 && w.Moves {
			film := 0.
			if z >= 0 && z < len(films) {
				film = films[z]
			}
			w.Fit, w.Tight = fit(ps[i].Gap, film)
		}
		if ps[i].Zone < 0 && ps[i].Painted != 0 {
			out.Loose++
		}
		out.Parts = append(out.Parts, w)
	}
	for _, i := range d.Hidden {
		out.Parts[i].Hidden = true
	}
	for _, n := range d.Notes {
		out.Parts[n.Part].Note = n.Says
	}
	var damage []mend.Defect
	for i := range p.Zones {
		z := &p.Zones[i]
		out.Zones = append(out.Zones, zoneLook(c, z, parts.OfZone(ps, i), count(ps, i), o.Units))
		own := z.damage(c)
		out.Zones[i].Mending = mending(own, air)
		if len(own) > 0 && p.suspect(c, i, o) {
			for j := range out.Zones[i].Mending.Items {
				out.Zones[i].Mending.Items[j].How = heldByLead
			}
		}
		damage = append(damage, own...)
	}
	items := p.fittings()
	labels := apart.Labels(items)
	for i := range p.TakeApart {
		f := &p.TakeApart[i]
		row, _ := apart.RowOf(f.Kind)
		w := FittingLook{Title: f.Name, Labels: labels[i], Do: f.does(), Clean: row.Clean, Store: row.Store}
		if w.Title == "" {
			w.Title = row.Plural
			if items[i].Count == 1 {
				w.Title = row.Name
			}
		}
		if row.Holes {
			h := f.holes()
			w.Holes, w.Drills = h.Says, h.Drill > 0
			if h.Fill > 0 {
				damage = append(damage, mend.Defect{ID: "hole", Count: h.Fill})
			}
		}
		out.Fittings = append(out.Fittings, w)
	}
	for _, it := range apart.Suggest(ps) {
		held := false
		for i := range p.TakeApart {
			held = held || p.TakeApart[i].Kind == it.Kind
		}
		if !held {
			out.Suggested = append(out.Suggested, Fitting{Kind: it.Kind, Count: it.Count, Where: it.Where})
		}
	}
	out.Mending = mending(damage, air)
	return out
}

func count(ps []parts.Part, zone int) int {
	n := 0
	for i := range ps {
		if ps[i].Zone == zone {
			n++
		}
	}
	return n
}

func partLook(p *parts.Part, u measure.Units) PartLook {
	row := &parts.Kinds[p.Kind]
	m := p.Measure()
	w := PartLook{
		Title: p.Title(), Kind: row.Name, Sizes: sizesSay(p, u), Wants: p.Kind.Wants(), AreaM2: tidy(m.M2), Moves: row.Moves,
		Area: "not painted", Faces: []Factor{}, Painted: []string{},
	}
	if m.M2 > 0 {
		w.Area = u.Area(m.M2)
	}
	if m.Length > 0 {
		w.Run = u.Run(m.Length)
	}
	for i, f := range row.Faces {
		if p.Painted&(1<<i) != 0 {
			m2 := p.FaceM2(i)
			w.Faces = append(w.Faces, Factor{f.ID, tidy(m2), u.Area(m2), fmt.Sprintf("%s: %s", f.Name, u.Area(m2))})
			w.Painted = append(w.Painted, f.ID)
		}
	}
	return w
}

func sizesSay(p *parts.Part, u measure.Units) string {
	var cm []float64
	for _, n := range parts.Kinds[p.Kind].Needs {
		cm = append(cm, p.Size[n.Dim])
	}
	return u.Sizes(cm...)
}

func fit(gap, film float64) (says string, tight bool) {
	if film == 0 {
		return fmt.Sprintf("%g mm now; the plan will tell how much the coats take", gap), false
	}
	f := parts.FitOf(gap, film)
	says = fmt.Sprintf("%g mm now, %s mm once both faces carry %s mm of coats", gap, hundredths(max(0, f.LeftMM)), hundredths(film/1000))
	switch {
	case f.Sticks:
		says += ": it will stick; plane it before paint"
	case f.Tight:
		says += ": tight in a damp season"
	}
	return says, f.Tight
}

func hundredths(x float64) string { return strconv.FormatFloat(math.Round(x*100)/100, 'f', -1, 64) }

func zoneLook(c *craft.Craft, z *Zone, m parts.Measured, n int, u measure.Units) ZoneLook {
	w := ZoneLook{
		ID: z.ID, AreaM2: z.AreaM2, PartsM2: tidy(m.M2), Typed: z.AreaM2 > 0, Parts: n,
		CoverM2: tidy(m.Cover), LengthM: tidy(m.Length), EdgesM: tidy(m.Edges), Work: tidy(m.Work), Colour: z.Colour,
	}
	if !w.Typed {
		w.AreaM2 = w.PartsM2
	}
	var say []string
	if w.AreaM2 > 0 {
		w.Area = u.Area(w.AreaM2)
		say = append(say, w.Area)
	}
	if w.Typed && n > 0 {
		say = append(say, "typed; its parts come to "+u.Area(m.M2))
	}
	if m.Cover > 1.005*m.M2 {
		say = append(say, u.Area(m.Cover)+" to cover")
	}
	if m.Edges > 0 {
		say = append(say, u.Run(m.Edges)+" of edges")
	}
	if m.Length > 0 {
		say = append(say, u.Run(m.Length)+" of long parts")
	}
	if s := parts.WorkWords(m.Work); s != "" {
		say = append(say, s)
	}
	w.Says = strings.Join(say, ", ")
	sub, _ := c.Substrate(z.Substrate)
	row := &c.Substrates[sub]
	w.Mark = row.Mark()
	if fin, ok := c.Finish(z.Finish); ok {
		// Through a clear film the material is seen.
		if f := &c.Finishes[fin]; f.Colour != "" && !f.Unknown {
			w.Mark = f.Mark()
		}
		if w.Colour == "" {
			w.Colour = colour.Ground(row, &c.Finishes[fin]).Hex()
		}
	}
	if w.Colour == "" {
		w.Colour = row.Colour
	}
	return w
}

// heldByLead stands for how damage is mended while that would make dust of
// lead.
const heldByLead = "The old coat may hold lead, and mending scrapes or sands it: not before a laboratory or a licensed assessor has excluded it."

// suspect tells whether lead forbids dry work on a zone.
func (p *Piece) suspect(c *craft.Craft, i int, o CheckOptions) bool {
	z := p.judged(c, i, o)
	return z.LeadBars(c)
}

func mending(ds []mend.Defect, air drying.Climate) Mending {
	w := mend.Of(ds, air)
	out := Mending{Minutes: tidy(w.Minutes), Items: []MendItem{}, Says: w.Says()}
	if out.Says == nil {
		out.Says = []string{}
	}
	for _, it := range w.Items {
		m := MendItem{Defect: it.Defect, ML: tidy(it.ML), GlueML: tidy(it.Glue), Minutes: tidy(it.Minutes), How: it.How}
		say := []string{fmt.Sprintf("%.0f min", max(1, it.Minutes))}
		switch it.Filler {
		case mend.TwoPart:
			m.Filler = craft.Fillers[0]
			say = append(say, "two-part filler "+ml(it.ML))
		case mend.Fine:
			m.Filler = craft.Fillers[1]
			say = append(say, "fine filler "+ml(it.ML))
		}
		if it.Glue > 0 {
			say = append(say, "glue "+ml(it.Glue))
		}
		m.Takes = strings.Join(say, ", ")
		out.Items = append(out.Items, m)
	}
	return out
}

func ml(x float64) string {
	if x < 1 {
		return "under 1 ml"
	}
	return fmt.Sprintf("%.0f ml", x)
}

func elevation(d *parts.Drawing, u measure.Units) Elevation {
	out := Elevation{W: mm(d.W), H: mm(d.H), Shapes: make([]ElevShape, len(d.Shapes))}
	if len(d.Shapes) > 0 {
		out.Says = fmt.Sprintf("%s wide, %s high", u.Length(d.W), u.Length(d.H))
	}
	var b []byte
	for i := range d.Shapes {
		s := &d.Shapes[i]
		w := ElevShape{Part: s.Part, N: s.N, Recess: s.Recess}
		b = path(b[:0], s.Outline, true)
		if len(s.Hole) > 0 {
			b = path(b, s.Hole, true)
		}
		w.D = string(b)
		b = b[:0]
		for _, l := range s.Lines {
			b = path(b, l, false)
		}
		w.Lines = string(b)
		out.Shapes[i] = w
	}
	return out
}

func mm(cm float64) float64 { return float64(int(cm*10+.5)) / 10 }

// path writes points as an SVG path, to the tenth of a millimetre.
func path(b []byte, ps []parts.Point, shut bool) []byte {
	for i, p := range ps {
		if i == 0 {
			b = append(b, 'M')
		} else {
			b = append(b, 'L')
		}
		b = strconv.AppendFloat(b, float64(int(p.X*100+.5))/100, 'f', -1, 64)
		b = append(b, ' ')
		b = strconv.AppendFloat(b, float64(int(p.Y*100+.5))/100, 'f', -1, 64)
	}
	if shut {
		b = append(b, 'Z')
	}
	return b
}

// Areas writes the table of parts and zones for reading in a terminal.
func (l *Look) Areas(w io.Writer, p *Piece, u measure.Units) error {
	t := tabwriter.NewWriter(w, 2, 0, 2, ' ', 0)
	fmt.Fprintf(t, "%s\n\nPart\tCount\tSizes\tArea\tLength\tZone\n", name(p))
	for i := range l.Parts {
		q, zone := &l.Parts[i], p.Parts[i].Zone
		if zone == "" {
			zone = "-"
		}
		run := q.Run
		if run == "" {
			run = "-"
		}
		fmt.Fprintf(t, "%s\t%d\t%s\t%s\t%s\t%s\n", q.Title, max(1, p.Parts[i].Count), q.Sizes, q.Area, run, zone)
	}
	if len(l.Zones) > 0 {
		fmt.Fprintf(t, "\nZone\tParts\tArea\tTo cover\tEdges\tLong parts\tHands\n")
	}
	run := func(m float64) string {
		if m == 0 {
			return "-"
		}
		return u.Run(m)
	}
	for i := range l.Zones {
		z := &l.Zones[i]
		work := "-"
		if s := parts.WorkWords(z.Work); s != "" {
			work = fmt.Sprintf("x %.2f, %s", z.Work, s)
		}
		area := z.Area
		if area == "" {
			area = "not known"
		} else if z.Typed {
			area += " (typed)"
		}
		fmt.Fprintf(t, "%s\t%d\t%s\t%s\t%s\t%s\t%s\n", title(&p.Zones[i]), z.Parts, area, u.Area(z.CoverM2), run(z.EdgesM), run(z.LengthM), work)
	}
	if err := t.Flush(); err != nil {
		return err
	}
	for i := range l.Parts {
		if n := l.Parts[i].Note; n != "" {
			fmt.Fprintf(w, "\n%s: %s\n", l.Parts[i].Title, n)
		}
	}
	_, err := fmt.Fprintf(w, "\nSizes are as typed. Corners, joints and what is hidden in them are not taken off.\n")
	return err
}

func name(p *Piece) string {
	if p.Name != "" {
		return p.Name
	}
	return "Piece without a name"
}

// PartKind describes a kind of part.
type PartKind struct {
	Word
	Wants string     `json:"wants" doc:"Which sizes it has, in words"`
	Sizes []string   `json:"sizes" doc:"The fields of these sizes, in the order people say them"`
	Faces []PartFace `json:"faces"`
	Moves bool       `json:"moves,omitempty"`
}

// PartFace is a face that a kind of part has.
type PartFace struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Usual bool   `json:"usual,omitempty"`
}

func partKinds() []PartKind {
	out := make([]PartKind, parts.NumKinds)
	for k := range parts.Kinds {
		row := &parts.Kinds[k]
		out[k] = PartKind{Word: Word{ID: row.ID, Name: row.Name, Also: strings.Join(row.Words, " ")}, Wants: parts.Kind(k).Wants(), Moves: row.Moves}
		for _, n := range row.Needs {
			out[k].Sizes = append(out[k].Sizes, parts.DimIDs[n.Dim]+"_cm")
		}
		for _, f := range row.Faces {
			out[k].Faces = append(out[k].Faces, PartFace{f.ID, f.Name, f.Usual})
		}
	}
	return out
}

// DefectWord describes a kind of damage.
type DefectWord struct {
	Word
	Across string `json:"across,omitempty" doc:"What its size is; absent where none is asked"`
	Along  string `json:"along,omitempty" doc:"What its length is; absent where none is asked"`
}

// FittingWord describes a kind of thing that comes off.
type FittingWord struct {
	Word
	Do    string `json:"do" doc:"What is usually done with it"`
	Holes bool   `json:"holes,omitempty" doc:"The spacing of its holes matters"`
}

func defectWords() []DefectWord {
	var out []DefectWord
	for _, r := range craft.Defects {
		w := DefectWord{Word: word(r.ID, r.Name, "")}
		if m, ok := mend.RowOf(r.ID); ok {
			w.Across, w.Along, w.Note = m.Across, m.Along, m.How
		}
		out = append(out, w)
	}
	return out
}

func fittingWords() []FittingWord {
	var out []FittingWord
	for _, r := range apart.Rows {
		out = append(out, FittingWord{Word{ID: r.ID, Name: r.Name}, r.Do, r.Holes})
	}
	return out
}

// TemplateWord describes a template and shows it.
type TemplateWord struct {
	Word
	Sizes     string    `json:"sizes" doc:"The sizes it has when nobody says others"`
	Asks      string    `json:"asks" doc:"Which sizes it asks for, in words"`
	Counts    []Counted `json:"counts"`
	Elevation Elevation `json:"elevation"`
}

// Counted is what a template has several of.
type Counted struct {
	Name  string `json:"name"`
	Usual int    `json:"usual"`
	Least int    `json:"least"`
}

// Templates describes the templates in a studio's units.
func Templates(u measure.Units) []TemplateWord {
	out := make([]TemplateWord, len(parts.Templates))
	for i := range parts.Templates {
		t := &parts.Templates[i]
		w := TemplateWord{Word: Word{ID: t.ID, Name: t.Name}, Counts: []Counted{}}
		var cm []float64
		for _, a := range t.Sizes {
			cm = append(cm, a.Usual)
		}
		w.Sizes, w.Asks = u.Sizes(cm...), t.Wants()
		for _, a := range t.Counts {
			w.Counts = append(w.Counts, Counted{a.Name, int(a.Usual), int(a.Least)})
		}
		ps, err := t.Make(nil, nil, u)
		if err == nil {
			d := parts.Elevation(ps, u)
			w.Elevation = elevation(&d, u)
		}
		out[i] = w
	}
	return out
}
