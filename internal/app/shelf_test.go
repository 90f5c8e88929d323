package app

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"math"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/plan"
	"rutile/core/quantity"
	"rutile/core/shelf"
	"rutile/core/surface"
	"rutile/internal/store"
	"rutile/internal/wire"
)

// studio is one with an empty store, at one moment.
func studio(t testing.TB) *Studio {
	t.Helper()
	now := time.Date(2026, 11, 24, 11, 0, 0, 0, time.UTC)
	return NewStudio(engine, StudioOptions{Store: emptyStore(t), Site: drying.Usual, Now: func() time.Time { return now }})
}

func put(t testing.TB, s *Studio, can string) wire.ShelfCan {
	t.Helper()
	x, err := s.PutCan(ctx, "", 0, []byte(can))
	if err != nil {
		t.Fatal(can, err)
	}
	return x
}

const beech = `"substrate": "beech", "finish": "varnish_oil", "gloss": "satin", "soils": [{"id": "grime", "level": 1}], "area_m2": 1.2, "wear": "handled"`

func pieceOf(zone, cans string) []byte {
	return []byte(`{"format": "rutile/piece", "version": 1, "made": 2010, "zones": [{"id": "top", ` + zone + `}], "cans": [` + cans + `]}`)
}

// A file with its cans is judged the same with the shelf that they stand on and without it: the figures travel with
// the file.
func TestPageAndCommandAgree(t *testing.T) {
	s := studio(t)
	x := put(t, s, `{"id": "new", "kind": "paint_chalk", "name": "Ours", "colour": "#ece4d6", "size_l": 1, "left_l": 0.9, "opened": "2026-10-01", "label": {"recoat_from_h": 20, "cover_m2_l": 6, "on": ["melamine_film"]}}`)
	can, err := json.Marshal(x.Can)
	if err != nil {
		t.Fatal(err)
	}
	data := pieceOf(`"substrate": "laminate_hpl", "finish": "none", "gloss": "satin", "soils": [], "area_m2": 1.2, "target": {"colour": "#ece4d6", "sheen": "matt"}, "steps": [
		{"do": "abrade", "grit": 220, "how": "hand"}, {"do": "dust"}, {"do": "coat", "product": "paint_chalk", "can": "`+x.ID+`", "coats": 2}, {"do": "wait", "hours": 24}, {"do": "coat", "product": "clear_wb", "coats": 2, "sheen": "matt"}]`, string(can))
	page, _, err := s.Check(ctx, data)
	if err != nil {
		t.Fatal(err)
	}
	shop := s.Workshop(ctx)
	shop.Shelf = nil
	command, err := engine.Job(decoded(t, string(data)), shop).Check(ctx, Want{Repairs: true, Section: true, Look: true, Brief: true})
	if err != nil {
		t.Fatal(err)
	}
	if !reflect.DeepEqual(page, command) {
		t.Error("the page and the command say different things")
	}
	z := page.Zones[0]
	if z.Verdict != "sound" {
		t.Errorf("the label names laminate, and it is %s: %s", z.Verdict, z.Says)
	}
	waits := ""
	for _, st := range z.Section.Steps {
		waits += st.Notes + "; "
	}
	if !strings.Contains(waits, "20 h") || !strings.Contains(waits, "from the label") || !strings.Contains(waits, "“Ours”") {
		t.Errorf("the waits are %q", waits)
	}
	windows := 0
	for _, l := range z.Section.Layers {
		if l.FromLabel {
			windows++
		}
	}
	if windows != 2 {
		t.Errorf("in the cross-section the windows of %d layers are from the label, want both coats'", windows)
	}
	// Without the can the same plan is where painters divide.
	without := strings.Replace(string(data), `"can": "`+x.ID+`", `, "", 1)
	other, _, err := s.Check(ctx, []byte(without))
	if err != nil || other.Zones[0].Verdict != "watch" {
		t.Errorf("without the label it is %s, %v", other.Zones[0].Verdict, err)
	}
	// A repair of a plan with a can keeps the can.
	short := strings.Replace(string(data), `{"do": "dust"}, `, "", 1)
	r, _, err := s.Check(ctx, []byte(short))
	if err != nil {
		t.Fatal(err)
	}
	kept := false
	for _, f := range r.Zones[0].Findings {
		for _, rep := range f.Repairs {
			kept = kept || slices.ContainsFunc(rep.Steps, func(st wire.Step) bool { return st.Can == x.ID && st.Product == "paint_chalk" })
		}
	}
	if !kept {
		t.Error("no repair keeps the can")
	}
}

// Files that name cans wrongly are refused with the place.
func TestCansInFilesAreChecked(t *testing.T) {
	step := `"steps": [{"do": "coat", "product": "paint_chalk", "can": "a"}]`
	for cans, says := range map[string]string{
		``:                                `$.zones[0].steps[0].can: "a": the piece has no such can`,
		`{"id": "a", "kind": "clear_wb"}`: "that can holds clear_wb",
		`{"id": "a", "kind": "paint_chalk"}, {"id": "a", "kind": "paint_chalk"}`:                       "$.cans[1].id",
		`{"id": "a", "kind": "paint_chalk", "size_l": 1, "left_l": 2}`:                                 "more is left than the can holds",
		`{"id": "a", "kind": "paint_chalk", "opened": "2026-02-30"}`:                                   "$.cans[0].opened",
		`{"id": "a", "kind": "paint_chalk", "label": {"recoat_from_h": 5, "recoat_to_h": 2}}`:          "the window ends before it begins",
		`{"id": "a", "kind": "paint_chalk", "label": {"cover_m2_l": 0}}`:                               "$.cans[0].label.cover_m2_l",
		`{"id": "a", "kind": "paint_chalk", "label": {"on": ["wood_bare"], "not_on": ["wood_bare"]}}`:  "suitable as well",
		`{"id": "a", "kind": "paint_chalk", "label": {"on": ["marble"]}}`:                              "$.cans[0].label.on[0]",
		`{"id": "a", "kind": "paint_chalk", "size_l": -1}`:                                             "$.cans[0].size_l",
		`{"id": "a", "kind": "paint_chalk", "colour": "cream"}`:                                        "$.cans[0].colour",
		`{"id": "a", "kind": "paint_chalk", "label": {"min_c": 20, "max_c": 10}}`:                      "below the least",
		strings.TrimSuffix(strings.Repeat(`{"id": "a", "kind": "paint_chalk"},`, wire.MaxCans+1), ","): "at most 150",
	} {
		_, err := wire.Decode(pieceOf(beech+", "+step, cans))
		if err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%.80s: %v; want %q", cans, err, says)
		}
	}
}

// Plans take what is open before what is closed, and that before what is not there; and they say so.
func TestPlansTakeWhatIsOpen(t *testing.T) {
	zone := beech + `, "target": {"colour": "#d3d8d8", "sheen": "satin"}`
	best := func(s *Studio) wire.WayPlan {
		t.Helper()
		j, i, err := s.ReadZone(ctx, pieceOf(zone, ""), "top")
		if err != nil {
			t.Fatal(err)
		}
		p, err := j.PlanZone(ctx, i, plan.Ways[:1], PlanOptions{})
		if err != nil || p.Plans[0].Infeasible != nil {
			t.Fatal(p, err)
		}
		return p.Plans[0]
	}
	paint := func(w wire.WayPlan) (kind, can string) {
		for _, st := range w.Steps {
			if st.Do == "coat" && strings.HasPrefix(st.Product, "paint_") {
				kind, can = st.Product, st.Can
			}
		}
		return kind, can
	}
	empty := studio(t)
	usual, _ := paint(best(empty))
	other := "paint_enamel_wb"
	if usual == other {
		other = "paint_trim"
	}
	s := studio(t)
	open := put(t, s, `{"id": "new", "kind": "`+other+`", "name": "The open one", "colour": "#d3d8d8", "sheen": "satin", "size_l": 1, "left_l": 0.7, "opened": "2026-11-01"}`)
	put(t, s, `{"id": "new", "kind": "`+other+`", "name": "A red", "colour": "#8e2b2d", "sheen": "satin", "size_l": 1, "left_l": 0.7, "opened": "2026-11-01"}`)
	w := best(s)
	if kind, can := paint(w); kind != other || can != open.ID {
		t.Errorf("with an open can of %s the plan takes %s from %q; without a shelf it takes %s", other, kind, can, usual)
	}
	if !strings.Contains(w.Shelf, "The open one (open)") || len(w.Cans) != 1 || w.Cans[0].ID != open.ID {
		t.Errorf("it says %q, and carries %+v", w.Shelf, w.Cans)
	}
	// Too little of it, past its life, or kept for another piece: it is left where it is.
	for _, bad := range []string{`"left_l": 0.02, "opened": "2026-11-01"`, `"left_l": 0.7, "opened": "2020-01-01"`, `"left_l": 0.7, "opened": "2026-11-01", "reserved_id": 7, "reserved_for": "Rack"`} {
		s := studio(t)
		put(t, s, `{"id": "new", "kind": "`+other+`", "name": "No", "colour": "#d3d8d8", "sheen": "satin", "size_l": 1, `+bad+`}`)
		if w := best(s); w.Shelf != "" {
			t.Errorf("%s: %s", bad, w.Shelf)
		}
	}
	// What its label forbids is never taken, be it the surface or the use.
	for _, label := range []string{`{"not_on": ["varnish_film", "primer_film", "shellac_new", "acrylic_paint"]}`, `{"not_for": ["damp"]}`} {
		s := studio(t)
		put(t, s, `{"id": "new", "kind": "`+other+`", "name": "Not here", "colour": "#d3d8d8", "sheen": "satin", "size_l": 1, "left_l": 0.9, "opened": "2026-11-01", "label": `+label+`}`)
		j, i, err := s.ReadZone(ctx, bytes.Replace(pieceOf(zone, ""), []byte(`"made"`), []byte(`"use": ["damp"], "made"`), 1), "top")
		if err != nil {
			t.Fatal(err)
		}
		p, err := j.PlanZone(ctx, i, plan.Ways[:1], PlanOptions{})
		if err != nil {
			t.Fatal(err)
		}
		if w := p.Plans[0]; w.Shelf != "" || w.Verdict == "fails" {
			t.Errorf("%s: %s, %s", label, w.Shelf, w.Verdict)
		}
	}
	// The figures of the can are those that the plan is made with.
	quick := studio(t)
	put(t, quick, `{"id": "new", "kind": "`+other+`", "name": "Quick", "colour": "#d3d8d8", "sheen": "satin", "size_l": 1, "left_l": 0.7, "opened": "2026-11-01", "label": {"recoat_from_h": 0.5}}`)
	q := best(quick)
	if kind, can := paint(q); kind != other || can == "" || q.Elapsed >= w.Elapsed {
		t.Errorf("%s from %q takes %v h where its label allows the next coat after half an hour, and %v h as usual", kind, can, q.Elapsed, w.Elapsed)
	}
}

func TestCansAreKeptChangedAndPutBack(t *testing.T) {
	s := studio(t)
	x := put(t, s, `{"id": "new", "kind": "paint_chalk", "name": "  Cream ", "colour": "#ece4d6", "size_l": 1}`)
	if x.ID == "new" || x.Name != "Cream" || x.Rev != 1 || x.Left != "full" || x.Share != 1 {
		t.Errorf("%+v", x)
	}
	less := .4
	x.Can.LeftL = &less
	body, err := json.Marshal(x.Can)
	if err != nil {
		t.Fatal(err)
	}
	y, err := s.PutCan(ctx, x.ID, 1, body)
	if err != nil || y.Rev != 2 || y.Left != "400 ml left" {
		t.Errorf("%+v, %v", y, err)
	}
	if again, err := s.PutCan(ctx, x.ID, 1, body); err != nil || again.Rev != 2 {
		t.Errorf("sent twice: %+v, %v", again, err)
	}
	if _, err := s.PutCan(ctx, x.ID, 1, bytes.Replace(body, []byte("Cream"), []byte("Other"), 1)); !errors.Is(err, ErrDocumentChanged) {
		t.Errorf("an old revision was written over: %v", err)
	}
	var none *NotFound
	if err := s.RemoveCan(ctx, x.ID); err != nil {
		t.Fatal(err)
	}
	if err := s.RemoveCan(ctx, x.ID); !errors.As(err, &none) {
		t.Errorf("removed twice: %v", err)
	}
	if _, err := s.PutCan(ctx, x.ID, 2, body); !errors.As(err, &none) {
		t.Errorf("a removed can was changed: %v", err)
	}
	if back, err := s.PutCan(ctx, x.ID, 0, body); err != nil || back.Left != "400 ml left" {
		t.Errorf("%+v, %v", back, err)
	}
	var bad *wire.Error
	for _, doc := range []string{`{"id": "new"}`, `{"id": "new", "kind": "paint_chalk", "photo": "none-there.jpg"}`, `{"id": "new", "kind": "paint_chalk", "left_l": -1}`, `[]`, `{`} {
		if _, err := s.PutCan(ctx, "", 0, []byte(doc)); !errors.As(err, &bad) {
			t.Errorf("%s: %v", doc, err)
		}
	}
	if list, err := s.ListShelf(ctx, ""); err != nil || list.Total != 1 {
		t.Errorf("%+v, %v", list, err)
	}
}

func TestTheSameCSVTwice(t *testing.T) {
	s := studio(t)
	data := []byte("name,kind,colour,size_l,left_l\nA,Chalk paint,#ece4d6,1,0.5\nA,Chalk paint,#ece4d6,1,1\nB,clear wax,,0.25,\nC,no such,,,\n")
	look, err := s.ImportCans(ctx, data, true)
	if err != nil || len(look.New) != 3 || look.Count != 1 || look.Done {
		t.Fatalf("%+v, %v", look, err)
	}
	if list, _ := s.ListShelf(ctx, ""); list.Total != 0 {
		t.Error("looking at it put cans on the shelf")
	}
	first, err := s.ImportCans(ctx, data, false)
	if err != nil || len(first.New) != 3 || !first.Done {
		t.Fatalf("%+v, %v", first, err)
	}
	second, err := s.ImportCans(ctx, data, false)
	if err != nil || len(second.New) != 0 || second.Same != 3 || second.Says != "No new can; 3 are on the shelf already; 1 row cannot be used." {
		t.Errorf("%+v, %v", second, err)
	}
	out, err := s.ExportCans(ctx)
	if err != nil {
		t.Fatal(err)
	}
	if back, err := s.ImportCans(ctx, out, false); err != nil || len(back.New) != 0 || back.Same != 3 {
		t.Errorf("its own export: %+v, %v", back, err)
	}
	var unfit *Unfit
	var many strings.Builder
	many.WriteString("name,kind\n")
	for i := range 9000 {
		fmt.Fprintf(&many, "Can %d,paint_chalk\n", i)
	}
	if _, err := s.ImportCans(ctx, []byte(many.String()), false); !errors.As(err, &unfit) {
		t.Errorf("more than the shelf holds: %v", err)
	}
	if list, _ := s.ListShelf(ctx, ""); list.Total != 3 {
		t.Errorf("%d cans after refusals", list.Total)
	}
}

func TestBlendsOfAStudio(t *testing.T) {
	s := studio(t)
	recipe := `{"name": "Green", "colour": "#6f8474", "parts": [{"kind": "paint_chalk", "colour": "#f4f1e8", "parts": 4}, {"kind": "paint_chalk", "colour": "#2f4a3c", "parts": 3}]}`
	b, err := s.PutBlend(ctx, "", 0, []byte(recipe))
	if err != nil || b.Rev != 1 || b.Result == "" || !strings.HasPrefix(b.Says, "4 parts of ") || !strings.Contains(b.Says, " and 3 of ") {
		t.Fatalf("%+v, %v", b, err)
	}
	for doc, says := range map[string]string{
		`{"parts": []}`: "at least one part",
		`{"name": "x", "parts": [{"kind": "paint_chalk", "colour": "#f4f1e8", "parts": 41}]}`:                                                               "40",
		`{"name": "x", "parts": [{"kind": "clear_wb", "colour": "#f4f1e8", "parts": 1}]}`:                                                                   "cannot be blended",
		`{"name": "x", "parts": [{"kind": "paint_chalk", "colour": "#f4f1e8", "parts": 1}, {"kind": "paint_enamel_oil", "colour": "#f4f1e8", "parts": 1}]}`: "do not mix",
		`{"parts": [{"kind": "paint_chalk", "colour": "#f4f1e8", "parts": 1}]}`:                                                                             "give the blend a name",
		`{"name": "x", "parts": [` + strings.TrimSuffix(strings.Repeat(`{"kind": "paint_chalk", "colour": "#f4f1e8", "parts": 1},`, 6), ",") + `]}`:         "at most 5",
		`{"name": "x", "parts": [{"kind": "paint_chalk", "colour": "beige", "parts": 1}]}`:                                                                  "#rrggbb",
		`{"name": "x", "parts": [{"kind": "paint_chalk", "colour": "#f4f1e8", "parts": 0}]}`:                                                                "at least one part",
		`{"name": "x", "parts": [{"kind": "paint_chalk", "colour": "#f4f1e8", "parts": 1.5}]}`:                                                              "expected integer",
	} {
		if _, err := s.PutBlend(ctx, "", 0, []byte(doc)); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%s: %v; want %q", doc, err, says)
		}
	}
	r, err := s.Blend(ctx, []byte(recipe), BlendOptions{Litres: .7, With: "#ffffff"})
	if err != nil || len(r.Amounts) != 2 || r.Amounts[0].Litres != .4 || r.TopUp == "" || r.TopUpIs == "" || r.Against == "" || len(r.Nudges) == 0 {
		t.Errorf("%+v, %v", r, err)
	}
	// A blend of one paint is that paint.
	one, err := s.Blend(ctx, []byte(`{"parts": [{"kind": "paint_chalk", "colour": "#6f8474", "parts": 3}]}`), BlendOptions{})
	if err != nil || one.Colour != "#6f8474" || !strings.HasSuffix(one.Says, " alone") {
		t.Errorf("%+v, %v", one, err)
	}
	var unfit *Unfit
	if _, err := s.Nearest(ctx, "#6f8474", "", ""); !errors.As(err, &unfit) {
		t.Errorf("an empty shelf blends: %v", err)
	}
	n, err := s.Nearest(ctx, "#6f8474", ownPalette, "")
	if err != nil || len(n.Blends) < 2 || n.Blends[0].Off > n.Blends[1].Off || n.Of != 36 {
		t.Errorf("%+v, %v", n, err)
	}
	all, err := s.Blends(ctx)
	if err != nil || len(all) != 1 {
		t.Fatalf("%+v, %v", all, err)
	}
	if err := s.RemoveBlend(ctx, b.ID); err != nil {
		t.Error(err)
	}
	if _, err := s.PutBlend(ctx, b.ID, 0, []byte(strings.Replace(recipe, `{"name"`, `{"id": "`+b.ID+`", "name"`, 1))); err != nil {
		t.Errorf("put back: %v", err)
	}
}

func TestPatchesOfAPhotograph(t *testing.T) {
	s := studio(t)
	img := image.NewRGBA(image.Rect(0, 0, 100, 80))
	for y := range 80 {
		for x := range 100 {
			img.SetRGBA(x, y, color.RGBA{100, 120, 90, 255})
			if x > 50 {
				img.SetRGBA(x, y, color.RGBA{230, 225, 210, 255})
			}
		}
	}
	var b bytes.Buffer
	if err := jpeg.Encode(&b, img, &jpeg.Options{Quality: 98}); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Store.KeepPhoto("door.jpg", b.Bytes(), b.Bytes()); err != nil {
		t.Fatal(err)
	}
	p, err := s.PatchColour(ctx, "door.jpg", Spot{.2, .5, .05}, nil)
	if err != nil || p.Colour == "" || p.White != "" {
		t.Errorf("%+v, %v", p, err)
	}
	w, err := s.PatchColour(ctx, "door.jpg", Spot{.2, .5, .05}, &Spot{.8, .5, .05})
	if err != nil || w.Colour == p.Colour || w.White == "" {
		t.Errorf("%+v, %v", w, err)
	}
	var unfit *Unfit
	if _, err := s.PatchColour(ctx, "door.jpg", Spot{1.2, .5, .05}, nil); !errors.As(err, &unfit) {
		t.Errorf("outside the picture: %v", err)
	}
	var none *NotFound
	for _, file := range []string{"none.jpg", "../rutile.db", ""} {
		if _, err := s.PatchColour(ctx, file, Spot{.2, .5, .05}, nil); !errors.As(err, &none) {
			t.Errorf("%s: %v", file, err)
		}
	}
	// A picture that a can shows is not swept away.
	x := put(t, s, `{"id": "new", "kind": "paint_chalk", "photo": "door.jpg"}`)
	if n, err := s.Store.SweepPhotos(ctx, 0); err != nil || n != 0 {
		t.Errorf("%d pictures were removed, %v", n, err)
	}
	if err := s.RemoveCan(ctx, x.ID); err != nil {
		t.Fatal(err)
	}
	if n, err := s.Store.SweepPhotos(ctx, 0); err != nil || n != 1 {
		t.Errorf("%d pictures were removed, %v", n, err)
	}
}

// What a piece takes, held against the shelf; and what the shelf says otherwise by now.
func TestNeedsAgainstTheShelf(t *testing.T) {
	s := studio(t)
	x := put(t, s, `{"id": "new", "kind": "paint_chalk", "name": "Cream", "colour": "#ece4d6", "size_l": 1, "left_l": 0.15, "opened": "2026-11-01"}`)
	put(t, s, `{"id": "new", "kind": "clear_wb", "size_l": 1}`)
	can, err := json.Marshal(copyFor(&x.Can, 0))
	if err != nil {
		t.Fatal(err)
	}
	data := pieceOf(beech+`, "target": {"colour": "#ece4d6"}, "steps": [{"do": "coat", "product": "paint_chalk", "can": "`+x.ID+`", "coats": 2}, {"do": "coat", "product": "clear_wb", "coats": 1}, {"do": "coat", "product": "wax_clear", "coats": 1, "method": "rag"}]`, string(can))
	needs := func() wire.Needs {
		t.Helper()
		j, err := s.Read(ctx, data)
		if err != nil {
			t.Fatal(err)
		}
		return j.Needs()
	}
	n := needs()
	states := map[string]string{}
	for _, i := range n.Items {
		states[i.Product] = i.State
	}
	if states["paint_chalk"] != "short" || states["clear_wb"] != "enough" || states["wax_clear"] != "none" || len(n.Stale) != 0 || len(n.Zones[0].Coats) != 4 {
		t.Errorf("%v, %+v", states, n.Stale)
	}
	// More is left, by now: no need to touch the piece.
	full := x.Can
	full.LeftL = nil
	body, _ := json.Marshal(full)
	if _, err := s.PutCan(ctx, x.ID, 1, body); err != nil {
		t.Fatal(err)
	}
	if n := needs(); n.Items[0].State != "enough" || len(n.Stale) != 0 {
		t.Errorf("%+v", n.Items[0])
	}
	full.Label = &wire.Label{}
	cover := 6.
	full.Label.CoverM2L = &cover
	body, _ = json.Marshal(full)
	if _, err := s.PutCan(ctx, x.ID, 2, body); err != nil {
		t.Fatal(err)
	}
	if n := needs(); len(n.Stale) != 1 || n.Stale[0].Now == nil || n.Stale[0].Gone {
		t.Errorf("%+v", n.Stale)
	}
	if err := s.RemoveCan(ctx, x.ID); err != nil {
		t.Fatal(err)
	}
	if n := needs(); len(n.Stale) != 1 || !n.Stale[0].Gone {
		t.Errorf("%+v", n.Stale)
	}
}

// A can that is reserved for a piece counts there, and is a watch in another.
func TestReservedCans(t *testing.T) {
	s := studio(t)
	x := put(t, s, `{"id": "new", "kind": "paint_chalk", "colour": "#ece4d6", "size_l": 1, "reserved_id": 7, "reserved_for": "Rack"}`)
	can, _ := json.Marshal(copyFor(&x.Can, 7))
	data := pieceOf(beech+`, "target": {"colour": "#ece4d6"}, "steps": [{"do": "clean", "with": "detergent", "rinse": true}, {"do": "abrade", "grit": 220, "how": "hand"}, {"do": "dust"}, {"do": "coat", "product": "paint_chalk", "can": "`+x.ID+`", "coats": 2}, {"do": "coat", "product": "wax_clear", "method": "rag"}]`, string(can))
	for id, want := range map[int]bool{7: false, 8: true, 0: true} {
		r, _, err := s.Check(OfPiece(ctx, id), data)
		if err != nil {
			t.Fatal(err)
		}
		found := slices.ContainsFunc(r.Zones[0].Findings, func(f wire.Finding) bool { return f.Code == "mix.reserved" })
		if found != want {
			t.Errorf("in piece %d it is told: %v", id, found)
		}
	}
}

// A can that a file reserves by name alone is for no piece of this studio: no plan takes it, and none that names it
// forgets that it is reserved.
func TestReservedByNameAlone(t *testing.T) {
	shop := Workshop{Air: drying.Usual, Today: "2026-11-24", Shelf: engine.ShelfOf([]wire.Can{
		{ID: "far", Kind: "paint_chalk", Colour: "#ece4d6", SizeL: 1, ReservedFor: "Rack"},
		{ID: "near", Kind: "clear_wb", SizeL: 1, Sheen: "matt"},
	}, "2026-11-24")}
	j := engine.Job(decoded(t, string(pieceOf(beech+`, "target": {"colour": "#ece4d6", "sheen": "matt"}, "steps": []`, `{"id": "far", "kind": "paint_chalk", "colour": "#ece4d6"}`))), shop)
	chalk, _ := engine.Craft.Product("paint_chalk")
	clear, _ := engine.Craft.Product("clear_wb")
	got := j.take(0, []surface.Step{{Do: surface.Coat, Product: chalk, Coats: 2, Auto: true}, {Do: surface.Coat, Product: clear, Coats: 2, Auto: true, Sheen: craft.Matt}}, nil)
	if steps := writeSteps(got.craft, got.cans, got.steps); steps[0].Can != "" || steps[1].Can != "near" || got.cans[0].For != "Rack" {
		t.Errorf("%+v, %+v", steps, got.cans)
	}
}

// A shelf that was written while it was being read is not kept as it was before.
func TestAReadShelfDoesNotOutliveAWrite(t *testing.T) {
	var r shelfRead
	_, writes := r.get()
	r.forget() // somebody writes
	r.keep(&Shelf{}, writes)
	if now, _ := r.get(); now != nil {
		t.Error("the shelf as it was before the write is kept")
	}
	_, writes = r.get()
	r.keep(&Shelf{}, writes)
	if now, _ := r.get(); now == nil {
		t.Error("what was read is not kept")
	}
}

// A bag of powder that makes enough for a coat counts, though the powder alone would not cover it.
func TestPowderCountsAsMixed(t *testing.T) {
	milk, _ := engine.Craft.Product("paint_milk")
	row := &engine.Craft.Products[milk]
	z := &check.Zone{}
	z.Area = 1.3 * row.Cover
	if bag := (&shelf.Can{Kind: milk, Size: 1, Left: 1}); !lasts(row, bag, z) {
		t.Errorf("a litre of powder makes %v l, and %v m² need 1.3", quantity.Makes(row), z.Area)
	}
	if bag := (&shelf.Can{Kind: milk, Size: 1, Left: .7}); lasts(row, bag, z) {
		t.Error("0.7 l of powder is not enough")
	}
}

func TestImpossibleWeights(t *testing.T) {
	s := studio(t)
	var unfit *Unfit
	for _, x := range [][2]float64{{-1, 0}, {math.NaN(), 0}, {math.Inf(1), 0}, {500, math.NaN()}, {500, math.Inf(1)}, {9000, 0}} {
		if w, err := s.Weigh(ctx, "paint_chalk", 1, x[0], x[1]); !errors.As(err, &unfit) {
			t.Errorf("%v g, tare %v: %+v, %v", x[0], x[1], w, err)
		}
	}
	if w, err := s.Weigh(ctx, "paint_chalk", 1, 900, 140); err != nil || w.LeftL != .563 {
		t.Errorf("%+v, %v", w, err) // (900 - 140) g at 1.35 kg a litre
	}
}

// What is seen coat by coat: the darker ground is the worse one, and each step comes nearer.
func TestCoatsOverEveryGround(t *testing.T) {
	j := job(decoded(t, string(pieceOf(`"substrate": "pine", "finish": "varnish_oil", "gloss": "satin", "colour": "#4a2a1a", "soils": [], "area_m2": 1, "defects": [{"id": "knot", "count": 3}, {"id": "hole", "count": 2}], "target": {"colour": "#e3c65b", "sheen": "matt"},
		"steps": [{"do": "abrade", "grit": 180, "how": "hand"}, {"do": "dust"}, {"do": "coat", "product": "paint_chalk", "coats": 2}, {"do": "coat", "product": "wax_clear", "method": "rag"}]`, ""))))
	c, err := j.CoatLooks(ctx, 0)
	if err != nil || len(c.Grounds) != 4 || !c.Grounds[0].Worst || c.Sealed == "" || len(c.Wear) < 2 || c.Undercoat == nil || c.Undercoat.Saves < 1 {
		t.Fatalf("%+v, %v", c, err)
	}
	for _, g := range c.Grounds {
		if len(g.Coats) != 2 || g.Coats[1].Off > g.Coats[0].Off || g.Coats[0].Word == "" || g.Says == "" {
			t.Errorf("%+v", g)
		}
	}
}

// Shelf of 1,000 cans: listed with what is to be known of each, and searched.
func BenchmarkShelfOf1000(b *testing.B) {
	s := studio(b)
	docs := make([]store.Kept, 1000)
	for i := range docs {
		body, err := json.Marshal(wire.Can{ID: fmt.Sprintf("can-%d", i), Kind: engine.Craft.Products[i%40].ID, Name: fmt.Sprintf("Can %d", i), Colour: fmt.Sprintf("#%06x", i*7919%0xffffff), SizeL: 1, Opened: "2026-03-04"})
		if err != nil {
			b.Fatal(err)
		}
		docs[i] = store.Kept{ID: fmt.Sprintf("can-%d", i), Body: body}
	}
	if err := s.Store.AddDocuments(ctx, store.Cans, docs); err != nil {
		b.Fatal(err)
	}
	for _, x := range []struct{ name, find string }{{"List", ""}, {"Search", "can 99 grey"}} {
		b.Run(x.name, func(b *testing.B) {
			for b.Loop() {
				if _, err := s.ListShelf(ctx, x.find); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
	b.Run("AfterAWrite", func(b *testing.B) {
		for b.Loop() {
			s.shelf.forget()
			if _, err := s.ListShelf(ctx, ""); err != nil {
				b.Fatal(err)
			}
		}
	})
}
