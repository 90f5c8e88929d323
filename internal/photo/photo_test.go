package photo

import (
	"bytes"
	"compress/zlib"
	"context"
	"encoding/binary"
	"errors"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"math/rand/v2"
	"os"
	"strconv"
	"strings"
	"testing"
)

// scene is red on the left, blue on the right, green in the upper left corner.
func scene(w, h int) *image.RGBA {
	m := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			c := color.RGBA{200, 40, 40, 255}
			if x >= w/2 {
				c = color.RGBA{40, 40, 200, 255}
			}
			if x < w/4 && y < h/4 {
				c = color.RGBA{30, 180, 30, 255}
			}
			m.SetRGBA(x, y, c)
		}
	}
	return m
}

func jpegOf(t testing.TB, m image.Image) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := jpeg.Encode(&b, m, &jpeg.Options{Quality: 95}); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

func pngOf(t testing.TB, m image.Image) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := png.Encode(&b, m); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// exif is what a camera writes into a JPEG: which way is up, the day, and
// where it stood.
func exif(way uint16) []byte {
	const place = "51 deg 30 min, at the stage door"
	var b bytes.Buffer
	put := func(v any) { _ = binary.Write(&b, binary.BigEndian, v) }
	entry := func(tag, kind uint16, n, v uint32) { put(tag); put(kind); put(n); put(v) }
	b.WriteString("MM\x00*")
	put(uint32(8))
	put(uint16(3))
	entry(0x0112, 3, 1, uint32(way)<<16)
	entry(0x8769, 4, 1, 50) // the Exif folder
	entry(0x8825, 4, 1, 90) // the folder of the place
	put(uint32(0))
	put(uint16(1)) // at 50
	entry(0x9003, 2, 20, 68)
	put(uint32(0))
	b.WriteString("2026:10:31 18:45:00\x00") // at 68
	b.WriteString("\x00\x00")
	put(uint16(1)) // at 90
	entry(0x001b, 7, uint32(len(place)), 108)
	put(uint32(0))
	b.WriteString(place)
	return b.Bytes()
}

func withExif(j, tiff []byte) []byte {
	body := append([]byte("Exif\x00\x00"), tiff...)
	seg := append([]byte{0xff, 0xe1, byte((len(body) + 2) >> 8), byte(len(body) + 2)}, body...)
	return append(append(bytes.Clone(j[:2]), seg...), j[2:]...)
}

func take(t testing.TB, data []byte) (Picture, image.Image) {
	t.Helper()
	p, err := Take(context.Background(), data)
	if err != nil {
		t.Fatal(err)
	}
	m, err := jpeg.Decode(bytes.NewReader(p.Large))
	if err != nil {
		t.Fatal(err)
	}
	return p, m
}

// hue tells which of the scene's colours lies at a share of the picture.
func hue(m image.Image, x, y float64) string {
	b := m.Bounds()
	r, g, bl, _ := m.At(int(x*float64(b.Dx())), int(y*float64(b.Dy()))).RGBA()
	switch {
	case g > r && g > bl:
		return "green"
	case r > bl:
		return "red"
	}
	return "blue"
}

func corners(m image.Image) string {
	return hue(m, .1, .1) + " " + hue(m, .9, .1) + " " + hue(m, .1, .9) + " " + hue(m, .9, .9)
}

func TestEveryKindIsTakenIn(t *testing.T) {
	file := func(name string) []byte {
		d, err := os.ReadFile("testdata/" + name)
		if err != nil {
			t.Fatal(err)
		}
		return d
	}
	for name, data := range map[string][]byte{
		"jpeg": jpegOf(t, scene(192, 128)), "png": pngOf(t, scene(192, 128)), "webp": file("small.webp"), "heic": file("small.heic"),
	} {
		p, m := take(t, data)
		if p.Width != 192 || p.Height != 128 || corners(m) != "green blue red blue" {
			t.Errorf("%s became %d x %d: %s", name, p.Width, p.Height, corners(m))
		}
	}
}

func TestLargeOnesAreMadeSmaller(t *testing.T) {
	for _, c := range []struct{ w, h, lw, lh int }{
		{4100, 2050, 2048, 1024}, {3000, 4000, 1536, 2048}, {2048, 100, 2048, 100}, {9000, 30, 2048, 7}, {700, 700, 700, 700},
	} {
		p, m := take(t, jpegOf(t, scene(c.w, c.h)))
		if p.Width != c.lw || p.Height != c.lh || m.Bounds().Dx() != c.lw || corners(m)[:10] != "green blue" {
			t.Errorf("%d x %d became %d x %d: %s", c.w, c.h, p.Width, p.Height, corners(m))
		}
		s, err := jpeg.Decode(bytes.NewReader(p.Small))
		if err != nil || max(s.Bounds().Dx(), s.Bounds().Dy()) != Small {
			t.Errorf("the small one of %d x %d: %v", c.w, c.h, err)
		}
	}
}

// A camera held any way gives the same upright picture; of what it writes
// beside, the day is read and nothing is kept.
func TestUprightAndWithoutItsPlace(t *testing.T) {
	// What the scene looks like if a viewer turns it as the tag says.
	want := map[uint16]string{
		1: "green blue red blue", 2: "blue green blue red", 3: "blue red blue green", 4: "red blue green blue",
		5: "green red blue blue", 6: "red green blue blue", 7: "blue blue red green", 8: "blue blue green red",
	}
	for way := uint16(1); way <= 8; way++ {
		data := withExif(jpegOf(t, scene(480, 320)), exif(way))
		if !bytes.Contains(data, []byte("stage door")) {
			t.Fatal("the test writes no place")
		}
		p, m := take(t, data)
		if got := corners(m); got != want[way] {
			t.Errorf("way up %d: %s, want %s", way, got, want[way])
		}
		if way >= 5 && (p.Width != 320 || p.Height != 480) || way < 5 && p.Width != 480 {
			t.Errorf("way up %d: %d x %d", way, p.Width, p.Height)
		}
		if p.Taken != "2026-10-31" {
			t.Errorf("way up %d: taken %q", way, p.Taken)
		}
		for _, kept := range [][]byte{p.Large, p.Small} {
			if bytes.Contains(kept, []byte("stage door")) || bytes.Contains(kept, []byte("Exif")) {
				t.Error("the picture still says where it was taken")
			}
		}
	}
}

func TestTheSamePictureHasTheSameName(t *testing.T) {
	j := jpegOf(t, scene(480, 320))
	a, _ := take(t, j)
	b, _ := take(t, withExif(j, exif(1)))
	c, _ := take(t, jpegOf(t, scene(480, 321)))
	if a.Name != b.Name || a.Name == c.Name || !strings.HasSuffix(a.Name, ".jpg") || len(a.Name) != 36 {
		t.Errorf("%s, %s, and another %s", a.Name, b.Name, c.Name)
	}
}

// chunk is a chunk of a PNG.
func chunk(kind string, body []byte) []byte {
	out := binary.BigEndian.AppendUint32(nil, uint32(len(body)))
	out = append(append(out, kind...), body...)
	return binary.BigEndian.AppendUint32(out, crc32.ChecksumIEEE(out[4:]))
}

// claims is a small PNG that says it is w x h pixels, of a depth and a kind of
// colour, and holds nearly nothing.
func claims(w, h uint32, depth, colour byte) []byte {
	head := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, w), h)
	head = append(head, depth, colour, 0, 0, 0)
	var z bytes.Buffer
	f := zlib.NewWriter(&z)
	_, _ = f.Write(make([]byte, 1<<20))
	_ = f.Close()
	out := append([]byte("\x89PNG\r\n\x1a\n"), chunk("IHDR", head)...)
	out = append(out, chunk("IDAT", z.Bytes())...)
	return append(out, chunk("IEND", nil)...)
}

func TestWhatCannotBeTakenIn(t *testing.T) {
	whole := jpegOf(t, scene(480, 320))
	heicData, err := os.ReadFile("testdata/small.heic")
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		name string
		data []byte
		says string
	}{
		{"nothing", nil, "This is not a picture that can be read. Use JPEG, PNG, WebP or HEIC."},
		{"a text renamed to .jpg", []byte("Dear painter, the trunk is in the yard."), "not a picture that can be read"},
		{"a page", []byte("<svg xmlns='http://www.w3.org/2000/svg'><script/></svg>"), "not a picture that can be read"},
		{"a GIF", []byte("GIF89a............"), "A GIF cannot be read here. Send it as JPEG"},
		{"a film", []byte("\x00\x00\x00\x18ftypisom...."), "A film cannot be read here"},
		{"an AVIF", []byte("\x00\x00\x00\x18ftypavif...."), "An AVIF picture cannot be read here"},
		{"a JPEG cut off in its pixels", whole[:len(whole)/2], "The JPEG picture is damaged or incomplete: it ends too early."},
		{"a JPEG cut off in its head", whole[:40], "it ends too early"},
		{"a PNG cut off", pngOf(t, scene(48, 32))[:60], "The PNG picture is damaged or incomplete: it ends too early."},
		{"a HEIC cut off", heicData[:len(heicData)-200], "The HEIC picture is damaged or incomplete"},
		{"12,000 pixels wide", claims(12000, 900, 8, 2), "The picture is 12000 × 900 pixels; no side may be longer than 10000."},
		{"a bomb", claims(9000, 9000, 8, 2), "The picture has 81 million pixels; at most 50 million"},
		{"a bomb of deep colours", claims(7000, 7000, 16, 6), "Unpacked, the picture would take 373 MB; at most 240 MB"},
		{"a bomb beyond counting", claims(1<<31-1, 1<<31-1, 8, 2), "larger than any picture can be"},
		{"no size", claims(0, 10, 8, 2), "damaged"},
		{"too many bytes", append(bytes.Clone(whole), make([]byte, MaxBytes)...), "The picture is larger than 32 MB."},
	} {
		_, err := Take(context.Background(), c.data)
		var e *Error
		if !errors.As(err, &e) || !strings.Contains(e.Says, c.says) {
			t.Errorf("%s: %v, want words with %q", c.name, err, c.says)
		}
	}
}

// What a picture says of itself may be anything: it is taken in all the same.
func TestHostileMetadata(t *testing.T) {
	j := jpegOf(t, scene(48, 32))
	good := exif(6)
	r := rand.New(rand.NewPCG(1, 2))
	cases := map[string][]byte{
		"a folder that contains itself": append([]byte("MM\x00*\x00\x00\x00\x08\x00\x01\x87\x69\x00\x04\x00\x00\x00\x01\x00\x00\x00\x08"), 0, 0, 0, 8),
		"a value of four gigabytes":     []byte("MM\x00*\x00\x00\x00\x08\x00\x01\x90\x03\x00\x02\xff\xff\xff\xff\x00\x00\x00\x1a\x00\x00\x00\x00"),
		"sixty thousand entries":        append([]byte("MM\x00*\x00\x00\x00\x08\xff\xff"), make([]byte, 40000)...),
		"an impossible way up":          exif(700),
		"nothing":                       nil,
		"zeros":                         make([]byte, 60000),
	}
	for range 300 {
		broken := bytes.Clone(good)
		for range 1 + r.IntN(12) {
			broken[r.IntN(len(broken))] = byte(r.IntN(256))
		}
		cases["broken "+strconv.Itoa(len(cases))] = broken
	}
	for name, tiff := range cases {
		p, err := unpack(withExif(j, tiff)) // as a process of its own does
		if err != nil || p.Width*p.Height != 48*32 {
			t.Errorf("%s: %v", name, err)
		}
	}
	if p, _ := take(t, withExif(j, exif(700))); p.Width != 48 {
		t.Error("an impossible way up turned it")
	}
}

// A spoilt HEIC is a picture or a sentence, and never the end of the program.
func TestSpoiltHEIC(t *testing.T) {
	whole, err := os.ReadFile("testdata/small.heic")
	if err != nil {
		t.Fatal(err)
	}
	r := rand.New(rand.NewPCG(5, 6))
	for range 3 {
		data := bytes.Clone(whole)
		for range 8 {
			data[16+r.IntN(len(data)-16)] = byte(r.IntN(256))
		}
		_, err := Take(context.Background(), data)
		if err != nil && !errors.As(err, new(*Error)) {
			t.Errorf("%v", err)
		}
	}
	if code := unpackHere(10, strings.NewReader("no picture"), &bytes.Buffer{}, &bytes.Buffer{}); code != refused {
		t.Errorf("what is no picture ends with %d", code)
	}
}

func FuzzTake(f *testing.F) {
	f.Add(jpegOf(f, scene(16, 16)))
	f.Add(pngOf(f, scene(16, 16)))
	f.Add(withExif(jpegOf(f, scene(16, 16)), exif(6)))
	d, err := os.ReadFile("testdata/small.webp")
	if err != nil {
		f.Fatal(err)
	}
	f.Add(d)
	f.Fuzz(func(t *testing.T, data []byte) {
		if k, ok := kindOf(data); ok && k.name == heicKind.name {
			t.Skip("its decoder is large and slow")
		}
		p, err := unpack(data)
		if err == nil && (p.Width < 1 || p.Width > Large || p.Height > Large || len(p.Small) == 0) {
			t.Errorf("%d x %d", p.Width, p.Height)
		}
	})
}

func TestAnEndedRequestIsNotServed(t *testing.T) {
	data := jpegOf(t, scene(16, 16))
	for range cap(ordinary.places) {
		leave, err := ordinary.enter(context.Background())
		if err != nil {
			t.Fatal(err)
		}
		defer leave()
	}
	ctx, cancel := context.WithCancel(context.Background())
	cancel()
	if _, err := Take(ctx, data); !errors.Is(err, context.Canceled) {
		t.Error(err)
	}
}
