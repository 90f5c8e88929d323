package photo

import (
	"bytes"
	"context"
	"encoding/binary"
	"errors"
	"os"
	"strings"
	"testing"
	"time"
)

// segment is a segment of a JPEG.
func segment(marker byte, body ...byte) []byte {
	return append(binary.BigEndian.AppendUint16([]byte{0xff, marker}, uint16(len(body)+2)), body...)
}

// says is a JPEG that says of itself what a hostile one does, with nothing behind it: its frame (0xc0
// or, progressive, 0xc2), its size, the sampling of its components, and so many scans.
func says(frame byte, w, h uint16, samplings []byte, scans int, more ...byte) []byte {
	body := []byte{8}
	body = binary.BigEndian.AppendUint16(binary.BigEndian.AppendUint16(body, h), w)
	body = append(body, byte(len(samplings)))
	for i, s := range samplings {
		body = append(body, byte(i+1), s, 0)
	}
	out := append([]byte{0xff, 0xd8}, more...)
	out = append(out, segment(frame, body...)...)
	for range scans {
		out = append(append(out, segment(0xda, 1, 1, 0, 0, 0, 0)...), 0x12, 0xff, 0x00, 0x34, 0xff, 0xd0, 0x56)
	}
	return append(out, 0xff, 0xd9)
}

var adobeCMYK = segment(0xee, append([]byte("Adobe"), 0, 100, 0, 0, 0, 0, 2)...)

// What a picture takes is foretold from its head. The bytes are those of samples, coefficients and
// conversions, worked out by hand.
func TestNeedsAreForetold(t *testing.T) {
	const mp = 1_000_000
	for _, c := range []struct {
		name  string
		data  []byte
		bytes int
		scans int
	}{
		{"a photograph of a phone", says(0xc0, 4000, 3000, []byte{0x22, 0x11, 0x11}, 1), 18 * mp, 1},
		{"the same, progressive", says(0xc2, 4000, 3000, []byte{0x22, 0x11, 0x11}, 10), (18 + 72) * mp, 10},
		{"nothing left out", says(0xc0, 4000, 3000, []byte{0x11, 0x11, 0x11}, 1), 36 * mp, 1},
		{"grey", says(0xc0, 4000, 3000, []byte{0x11}, 1), 12 * mp, 1},
		{"four colours", says(0xc0, 4000, 3000, []byte{0x11, 0x11, 0x11, 0x11}, 1, adobeCMYK...), (48 + 96) * mp, 1},
	} {
		_, n, err := look(c.data)
		if err != nil || n.bytes != c.bytes || n.scans != c.scans {
			t.Errorf("%s: %d bytes, %d scans, %v; want %d, %d", c.name, n.bytes, n.scans, err, c.bytes, c.scans)
		}
	}
	for _, c := range []struct {
		name string
		data []byte
		says string
	}{
		{"thousands of scans", says(0xc2, 6000, 4000, []byte{0x22, 0x11, 0x11}, 3000), "The JPEG picture has 3000 scans; at most 100 are allowed."},
		{"many scans of many pixels", says(0xc2, 6000, 4000, []byte{0x22, 0x11, 0x11}, 90), "90 scans of 24 million pixels, which takes too long"},
		{"fifty million in four colours", says(0xc0, 7000, 7000, []byte{0x11, 0x11, 0x11, 0x11}, 1, adobeCMYK...), "Unpacked, the picture would take 560 MB; at most 240 MB are allowed. Save it again as an ordinary JPEG"},
		{"fifty million, progressive", says(0xc2, 7000, 7000, []byte{0x11, 0x11, 0x11}, 10), "Unpacked, the picture would take 700 MB"},
	} {
		_, err := Take(context.Background(), c.data)
		var e *Error
		if !errors.As(err, &e) || !strings.Contains(e.Says, c.says) {
			t.Errorf("%s: %v", c.name, err)
		}
	}
}

// A head that is broken anywhere ends the look and nothing else.
func TestBrokenHeads(t *testing.T) {
	whole := says(0xc2, 4000, 3000, []byte{0x22, 0x11, 0x11}, 3, adobeCMYK...)
	for i := range whole {
		_ = jpegHeader(whole[:i])
		broken := bytes.Clone(whole)
		for _, b := range []byte{0, 1, 0x7f, 0xff} {
			broken[i] = b
			if j := jpegHeader(broken); j.scans > 4 || len(j.samples) > 4 {
				t.Errorf("byte %d as %d: %+v", i, b, j)
			}
		}
	}
}

// A picture that takes long holds up only those like it.
func TestOthersPass(t *testing.T) {
	leave, err := large.enter(context.Background())
	if err != nil {
		t.Fatal(err)
	}
	defer leave()
	if _, err := Take(context.Background(), jpegOf(t, scene(64, 48))); err != nil {
		t.Errorf("an ordinary picture: %v", err)
	}
	ctx, stop := context.WithTimeout(context.Background(), 10*time.Millisecond)
	defer stop()
	if _, err := Take(ctx, says(0xc0, 8000, 6000, []byte{0x11, 0x11, 0x11}, 1)); !errors.Is(err, context.DeadlineExceeded) {
		t.Errorf("another large one: %v", err)
	}
	// No more of them wait than leave room for others.
	done, stop := context.WithCancel(context.Background())
	waits := make(chan error, 1)
	go func() {
		_, err := large.enter(done)
		waits <- err
	}()
	for len(large.queue) < cap(large.queue) {
		time.Sleep(time.Millisecond)
	}
	if _, err := large.enter(context.Background()); !errors.Is(err, ErrBusy) {
		t.Errorf("one more: %v", err)
	}
	stop()
	if err := <-waits; !errors.Is(err, context.Canceled) {
		t.Errorf("one that gave up: %v", err)
	}
	if len(large.queue) != 1 {
		t.Errorf("%d are in the queue", len(large.queue))
	}
}

// A HEIC picture is measured by its envelope, and refused by it, without a process.
func TestTheEnvelopeOfAHEIC(t *testing.T) {
	whole, err := os.ReadFile("testdata/small.heic")
	if err != nil {
		t.Fatal(err)
	}
	if c, err := heicEnvelope(whole); err != nil || c.Width != 192 || c.Height != 128 {
		t.Errorf("%+v, %v", c, err)
	}
	size := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, 192), 128)
	large := bytes.ReplaceAll(whole, size, []byte{0, 1, 0, 0, 0, 1, 0, 0})
	for _, c := range []struct {
		name, says string
		data       []byte
	}{
		{"too large", "The picture is 65536 × 65536 pixels", large},
		{"nothing behind its name", "The HEIC picture is damaged or incomplete", whole[:32]},
		{"nonsense behind its name", "The HEIC picture is damaged or incomplete", append(bytes.Clone(whole[:32]), bytes.Repeat([]byte("nonsense"), 1000)...)},
		{"nothing but boxes", "The HEIC picture is damaged or incomplete", append(bytes.Clone(whole[:32]), bytes.Repeat([]byte{0, 0, 0, 8, 'f', 'r', 'e', 'e'}, 10_000)...)},
	} {
		_, _, err := look(c.data)
		var e *Error
		if !errors.As(err, &e) || !strings.Contains(e.Says, c.says) {
			t.Errorf("%s: %v", c.name, err)
		}
	}
}

// What the other process sends back is read as carefully as a picture.
func TestWhatAChildSends(t *testing.T) {
	for _, b := range []string{"", "\n", "{}\n", `{"Name":"a.jpg","Width":1,"Height":1,"Large":5,"Small":1}` + "\nabc", `{"Name":"a.jpg","Width":1,"Height":1,"Large":-1,"Small":4}` + "\nabc", "no JSON\nabc"} {
		if p, err := received([]byte(b)); err == nil {
			t.Errorf("%q became %+v", b, p)
		}
	}
}

// FuzzHeader looks for a head of a JPEG that its reader does not survive.
func FuzzHeader(f *testing.F) {
	f.Add(says(0xc2, 400, 300, []byte{0x22, 0x11, 0x11}, 3, adobeCMYK...))
	f.Add(jpegOf(f, scene(16, 16)))
	f.Fuzz(func(t *testing.T, data []byte) {
		if j := jpegHeader(data); j.scans > len(data)/4+1 || len(j.samples) > 4 {
			t.Errorf("%+v of %d bytes", j, len(data))
		}
	})
}

// FuzzEnvelope looks for an envelope of a HEIC picture that its reader does not survive. Its pixels
// are left to the process of its own.
func FuzzEnvelope(f *testing.F) {
	d, err := os.ReadFile("testdata/small.heic")
	if err != nil {
		f.Fatal(err)
	}
	f.Add(d)
	f.Add(d[:len(d)/2])
	f.Fuzz(func(t *testing.T, data []byte) {
		c, err := heicEnvelope(data)
		if err == nil && (c.Width == 0 || c.Width > 1<<32 || c.Height > 1<<32) {
			t.Errorf("%+v", c)
		}
		k, ok := kindOf(data)
		if !ok || k.name != heicKind.name {
			return
		}
		if turn, taken := meta(data, k); turn != 1 || len(taken) > len("2026-11-25") {
			t.Errorf("turned %d, taken %q", turn, taken)
		}
	})
}
