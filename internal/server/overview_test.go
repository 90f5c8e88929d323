package server

import (
	"bytes"
	"context"
	"image"
	"image/jpeg"
	"image/png"
	"math"
	"math/rand/v2"
	"net/url"
	"os"
	"strconv"
	"strings"
	"testing"
	"time"

	"rutile/core/craft"
	"rutile/internal/app"
	"rutile/internal/photo"
	"rutile/internal/store"
	"rutile/internal/wire"
)

func TestPartsAreRead(t *testing.T) {
	h := handler(t)
	w := call{method: "GET", path: "/api/parts?text=" + url.QueryEscape(`3 drawer fronts 80x18; top 4' x 18 1/2"`)}.to(h)
	ps := decode[[]wire.Part](t, w)
	if w.Code != 200 || len(ps) != 2 || ps[0].Kind != "drawer_front" || ps[0].Count != 3 || ps[0].HeightCM != 18 || math.Abs(ps[1].DepthCM-46.99) > 1e-9 {
		t.Errorf("%d %s", w.Code, w.Body)
	}
	w = call{method: "GET", path: "/api/sizes?kind=leg_turned&text=" + url.QueryEscape("45 x 5")}.to(h)
	if p := decode[wire.Part](t, w); w.Code != 200 || p.HeightCM != 45 || p.AcrossCM != 5 || p.BaseCM != 5 {
		t.Errorf("%d %s", w.Code, w.Body)
	}
	// What is left out stays as it was measured.
	w = call{method: "GET", path: "/api/sizes?kind=door&thick_cm=2.4&text=" + url.QueryEscape("40 x 70")}.to(h)
	if p := decode[wire.Part](t, w); w.Code != 200 || p.HeightCM != 70 || p.ThickCM != 2.4 {
		t.Errorf("%d %s", w.Code, w.Body)
	}
	for _, c := range []struct {
		path string
		code int
		says string
	}{
		{"/api/parts?text=" + url.QueryEscape("3 gizmos 80x18"), 422, "“gizmos” is not a known part"},
		{"/api/parts?text=", 422, "Nothing is typed"},
		{"/api/sizes?kind=gizmo&text=3", 404, "no such kind"},
		{"/api/sizes?kind=door&text=40", 422, "A door has width × height"},
		{"/api/sizes?kind=frame&member_cm=20&text=40x60", 422, "Its members leave no opening."},
		{"/api/templates/gizmo", 404, "no such template"},
		{"/api/templates/chest?sizes=" + url.QueryEscape("80 x 90"), 422, "It needs width × height × depth."},
		{"/api/templates/chest?sizes=" + url.QueryEscape("-3 x 4 x 5"), 422, "cannot be negative"},
		{"/api/templates/chest?counts=many", 422, "“many” is not a whole number."},
		{"/api/templates/chest?counts=0", 422, "between 1 and 200 drawers"},
	} {
		if w := (call{method: "GET", path: c.path}).to(h); w.Code != c.code || !strings.Contains(w.Body.String(), c.says) {
			t.Errorf("%s: %d %s", c.path, w.Code, w.Body)
		}
	}
}

func TestTemplatesAreMade(t *testing.T) {
	h := handler(t)
	all := decode[[]wire.TemplateWord](t, call{method: "GET", path: "/api/templates"}.to(h))
	if len(all) < 10 || all[0].ID != "chest" || all[0].Sizes != "80 × 90 × 45 cm" || len(all[0].Elevation.Shapes) == 0 {
		t.Errorf("%d templates, the first %+v", len(all), all[0])
	}
	made := decode[wire.TemplateParts](t, call{method: "GET", path: "/api/templates/chest?counts=4&sizes=" + url.QueryEscape("60 x 100 x 40 cm")}.to(h))
	if len(made.Parts) != 6 || made.Parts[2].Count != 4 || made.Parts[1].WidthCM != 60 || made.Look.Elevation.H != 100 || made.Look.Loose != 4 {
		t.Errorf("%+v", made.Parts)
	}
}

func TestTheCheckLooksOver(t *testing.T) {
	body := strings.Replace(example(t), `"zones"`, `"parts": [{"kind": "top", "width_cm": 90, "depth_cm": 30, "zone": "uprights"}], "zones"`, 1)
	r := decode[wire.CheckResult](t, call{method: "POST", path: "/api/check", body: body}.to(handler(t)))
	if r.Overview == nil || len(r.Overview.Parts) != 1 || r.Overview.Elevation.W != 90 || !r.Overview.Zones[0].Typed {
		t.Errorf("%+v", r.Overview)
	}
}

func picture(t *testing.T, w, h int) string {
	t.Helper()
	m := image.NewRGBA(image.Rect(0, 0, w, h))
	for i := range m.Pix {
		m.Pix[i] = uint8(i * 7 / 5)
	}
	var b bytes.Buffer
	if err := jpeg.Encode(&b, m, nil); err != nil {
		t.Fatal(err)
	}
	return b.String()
}

func TestPhotoLifeOverTheAPI(t *testing.T) {
	h := handler(t)
	send := func(body string) wire.PhotoKept {
		t.Helper()
		w := call{method: "POST", path: "/api/photos", body: body, header: map[string]string{"Content-Type": "image/jpeg"}}.to(h)
		if w.Code != 201 {
			t.Fatal(w.Code, w.Body)
		}
		return decode[wire.PhotoKept](t, w)
	}
	p := send(picture(t, 900, 600))
	if p.Already || p.Width != 900 || p.Height != 600 || !strings.HasSuffix(p.File, ".jpg") {
		t.Errorf("%+v", p)
	}
	if again := send(picture(t, 900, 600)); !again.Already || again.File != p.File {
		t.Errorf("the same again: %+v", again)
	}
	for path, side := range map[string]int{"/photos/" + p.File: 900, "/photos/small/" + p.File: photo.Small} {
		w := call{method: "GET", path: path}.to(h)
		m, err := jpeg.DecodeConfig(w.Body)
		if w.Code != 200 || err != nil || m.Width != side || w.Header().Get("Content-Type") != "image/jpeg" {
			t.Errorf("%s: %d, %v wide, %v", path, w.Code, m.Width, err)
		}
	}
	for _, path := range []string{"/photos/none.jpg", "/photos/..%2f..%2frutile.db", "/photos/rutile.db", "/photos/small/none.jpg"} {
		if w := (call{method: "GET", path: path}).to(h); w.Code != 404 {
			t.Errorf("%s: %d", path, w.Code)
		}
	}
}

func TestPhotosThatAreRefused(t *testing.T) {
	h := handler(t)
	var wide bytes.Buffer
	if err := png.Encode(&wide, image.NewGray(image.Rect(0, 0, 12000, 20))); err != nil {
		t.Fatal(err)
	}
	whole := picture(t, 900, 600)
	for _, c := range []struct {
		name string
		call call
		code int
		says string
	}{
		{"a text", call{body: "Dear painter"}, 422, "This is not a picture that can be read."},
		{"nothing", call{}, 400, "request body is required"},
		{"cut off", call{body: whole[:len(whole)/2]}, 422, "it ends too early"},
		{"12,000 pixels", call{body: wide.String()}, 422, "12000 × 20 pixels; no side may be longer than 10000"},
		{"too large", call{body: strings.Repeat("x", photo.MaxBytes+1)}, 413, "This is larger than 32 MB, the limit for a picture."},
		{"too large, and does not say", call{body: strings.Repeat("x", photo.MaxBytes+1), unsized: true}, 413, "too large"},
	} {
		c.call.method, c.call.path = "POST", "/api/photos"
		if w := c.call.to(h); w.Code != c.code || !strings.Contains(w.Body.String(), c.says) {
			t.Errorf("%s: %d %s", c.name, w.Code, w.Body)
		}
	}
}

// twelve is a photograph of twelve million pixels with a grain of its own.
func twelve(b *testing.B) string {
	b.Helper()
	m := image.NewYCbCr(image.Rect(0, 0, 4032, 3024), image.YCbCrSubsampleRatio420)
	r := rand.New(rand.NewPCG(3, 4))
	for i := range m.Y {
		m.Y[i] = uint8(i%4032/20 + r.IntN(24))
	}
	for i := range m.Cb {
		m.Cb[i], m.Cr[i] = uint8(100+r.IntN(9)), uint8(140+r.IntN(9))
	}
	var j bytes.Buffer
	if err := jpeg.Encode(&j, m, &jpeg.Options{Quality: 90}); err != nil {
		b.Fatal(err)
	}
	return j.String()
}

// BenchmarkStoreTwelveMegapixels sends a phone's photograph and waits until it
// is on the disk; peak-MB is the most memory the whole process ever had.
func BenchmarkStoreTwelveMegapixels(b *testing.B) {
	s, err := store.Open(b.TempDir())
	if err != nil {
		b.Fatal(err)
	}
	defer s.Close()
	h := New(Options{Studio: app.NewStudio(app.NewEngine(craft.Default()), app.StudioOptions{Store: s}), Page: builtPage})
	data := twelve(b)
	b.SetBytes(int64(len(data)))
	for b.Loop() {
		w := call{method: "POST", path: "/api/photos", body: data}.to(h)
		if w.Code != 201 || strings.Contains(w.Body.String(), `"already":true`) {
			b.Fatal(w.Code, w.Body)
		}
		b.StopTimer()
		if n, err := s.SweepPhotos(context.Background(), -time.Hour); n != 1 || err != nil {
			b.Fatal(n, err)
		}
		b.StartTimer()
	}
	b.ReportMetric(peak(), "peak-MB")
}

// peak is the most memory this process ever had, in megabytes; 0 where the
// system does not tell.
func peak() float64 {
	status, _ := os.ReadFile("/proc/self/status")
	for line := range strings.Lines(string(status)) {
		if f := strings.Fields(line); len(f) == 3 && f[0] == "VmHWM:" {
			kb, _ := strconv.ParseFloat(f[1], 64)
			return kb / 1024
		}
	}
	return 0
}
