// Package photo imports pictures: a file of a phone or a camera becomes one upright JPEG of limited
// size, with nothing in it but its pixels.
package photo

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"image"
	"image/jpeg"
	_ "image/png" // read
	"math"
	"strings"
	"time"

	"github.com/bep/imagemeta"
	"github.com/gen2brain/heic"
	"golang.org/x/image/draw"
	"golang.org/x/image/math/f64"
	"golang.org/x/image/webp"
)

// Limits on what is taken in.
const (
	// MaxBytes is the largest file that is read.
	MaxBytes = 32 << 20
	// MaxSide is the longest side that is read, in pixels.
	MaxSide = 10_000
	// MaxPixels is the most pixels that are read.
	MaxPixels = 50_000_000
	// Large and Small are the longest sides of what is kept, in pixels.
	Large, Small = 2048, 360
	quality      = 84
)

// Error says why a picture cannot be taken in.
type Error struct{ Says string }

// Error returns the sentence.
func (e *Error) Error() string { return e.Says }

func bad(format string, args ...any) error { return &Error{fmt.Sprintf(format, args...)} }

// Picture is a picture taken in.
type Picture struct {
	Name          string // of its file: a digest of what it shows
	Width, Height int
	Taken         string // the day it was taken, as 2026-11-25; empty where it does not say
	Large, Small  []byte // JPEG
}

// Take reads a picture of any of the known kinds. It is unpacked by a process of its own, which is
// ended where it takes too long or too much. What the picture cannot be is an *[Error]; [ErrBusy]
// where too many others are being unpacked; the context's own error where it ends first.
func Take(ctx context.Context, data []byte) (Picture, error) {
	k, need, err := look(data)
	if err != nil {
		return Picture{}, err
	}
	if inChild() {
		return Picture{}, errors.New("main does not call RunChild") // or each process would start another
	}
	leave, err := need.lane(&k).enter(ctx)
	if err != nil {
		return Picture{}, err
	}
	defer leave()
	return unpackInChild(ctx, k.name, data)
}

// look looks at what a picture says of itself, before anything of it is unpacked.
func look(data []byte) (kind, need, error) {
	if len(data) > MaxBytes {
		return kind{}, need{}, bad("The picture is larger than %d MB.", MaxBytes>>20)
	}
	k, ok := kindOf(data)
	if !ok {
		return k, need{}, bad("This is not a picture that can be read. Use JPEG, PNG, WebP or HEIC.")
	}
	if !k.read {
		return k, need{}, bad("%s cannot be read here. Send it as JPEG, PNG, WebP or HEIC.", k.name)
	}
	n, err := needs(data, k, k.config)
	return k, n, err
}

// unpack makes a picture of a file.
func unpack(data []byte) (Picture, error) {
	k, _, err := look(data)
	if err != nil {
		return Picture{}, err
	}
	img, err := k.decode(data)
	if err != nil {
		return Picture{}, damaged(k, err)
	}
	turn, taken := meta(data, k)
	p, err := Of(upright(shrink(img, Large), turn))
	p.Taken = taken
	return p, err
}

// Of makes a picture of pixels.
func Of(img image.Image) (Picture, error) {
	large := shrink(img, Large)
	p := Picture{Width: large.Rect.Dx(), Height: large.Rect.Dy()}
	var err error
	if p.Large, err = encode(large); err != nil {
		return Picture{}, err
	}
	if p.Small, err = encode(shrink(large, Small)); err != nil {
		return Picture{}, err
	}
	sum := sha256.Sum256(p.Large)
	p.Name = hex.EncodeToString(sum[:16]) + ".jpg"
	return p, nil
}

// kind is a kind of picture file.
type kind struct {
	name   string
	read   bool
	meta   imagemeta.ImageFormat
	config func([]byte) (image.Config, error)
	decode func([]byte) (image.Image, error)
	// turned tells that decoding already turns it upright.
	turned bool
}

func std(data []byte) (image.Config, error) {
	c, _, err := image.DecodeConfig(bytes.NewReader(data))
	return c, err
}

func stdDecode(data []byte) (image.Image, error) {
	img, _, err := image.Decode(bytes.NewReader(data))
	return img, err
}

var (
	jpegKind = kind{"JPEG", true, imagemeta.JPEG, std, stdDecode, false}
	pngKind  = kind{"PNG", true, imagemeta.PNG, std, stdDecode, false}
	webpKind = kind{"WebP", true, imagemeta.WebP,
		func(d []byte) (image.Config, error) { return webp.DecodeConfig(bytes.NewReader(d)) },
		func(d []byte) (image.Image, error) { return webp.Decode(bytes.NewReader(d)) }, false}
	heicKind = kind{"HEIC", true, imagemeta.HEIF, heicEnvelope,
		func(d []byte) (image.Image, error) { return heic.Decode(bytes.NewReader(d)) }, true}
)

// kindOf tells the kind by what the file begins with, never by its name.
func kindOf(d []byte) (kind, bool) {
	has := func(at int, s string) bool { return len(d) >= at+len(s) && string(d[at:at+len(s)]) == s }
	switch {
	case has(0, "\xff\xd8\xff"):
		return jpegKind, true
	case has(0, "\x89PNG\r\n\x1a\n"):
		return pngKind, true
	case has(0, "RIFF") && has(8, "WEBP"):
		return webpKind, true
	case has(4, "ftyp"):
		switch {
		case has(8, "heic"), has(8, "heix"), has(8, "mif1"), has(8, "msf1"), has(8, "heim"), has(8, "heis"):
			return heicKind, true
		case has(8, "avif"), has(8, "avis"):
			return kind{name: "An AVIF picture"}, true
		}
		return kind{name: "A film"}, true
	case has(0, "GIF8"):
		return kind{name: "A GIF"}, true
	case has(0, "II*\x00"), has(0, "MM\x00*"):
		return kind{name: "A TIFF or raw picture"}, true
	case has(0, "BM"):
		return kind{name: "A BMP"}, true
	}
	return kind{}, false
}

func damaged(k kind, err error) error {
	return bad("The %s picture is damaged or incomplete: %s.", k.name, plainly(err))
}

// early is how decoders say that a file ends before its picture does.
var early = []string{"EOF", "short Huffman data", "not enough pixel data", "short chunk data", "missing SOI marker"}

// plainly is a decoder's complaint without the package it comes from.
func plainly(err error) string {
	s := err.Error()
	for _, e := range early {
		if strings.HasSuffix(s, e) {
			return "it ends too early"
		}
	}
	if i := strings.LastIndex(s, ": "); i >= 0 {
		s = s[i+2:]
	}
	return s
}

// meta reads orientation and date; no other metadata is read or kept. What cannot be read counts as
// absent.
func meta(data []byte, k kind) (turn int, taken string) {
	turn = 1
	_, _ = imagemeta.Decode(imagemeta.Options{
		R: bytes.NewReader(data), ImageFormat: k.meta, Sources: imagemeta.EXIF,
		LimitNumTags: 400, LimitTagSize: 4000, Timeout: time.Second,
		ShouldHandleTag: func(t imagemeta.TagInfo) bool {
			return t.Tag == "Orientation" || t.Tag == "DateTimeOriginal"
		},
		HandleTag: func(t imagemeta.TagInfo) error {
			switch v := t.Value.(type) {
			case uint16:
				if t.Tag == "Orientation" && v >= 1 && v <= 8 {
					turn = int(v)
				}
			case string:
				if day, err := time.Parse("2006:01:02 15:04:05", v); t.Tag == "DateTimeOriginal" && err == nil {
					taken = day.Format(time.DateOnly)
				}
			}
			return nil
		},
	})
	if k.turned {
		turn = 1
	}
	return turn, taken
}

// shrink makes a picture no longer than a side, halving it as often as it
// goes, so that no pixel is passed over.
func shrink(img image.Image, side int) *image.RGBA {
	w, h := img.Bounds().Dx(), img.Bounds().Dy()
	if out, ok := img.(*image.RGBA); ok && max(w, h) <= side {
		return out
	}
	tw, th := w, h
	if k := float64(side) / float64(max(w, h)); k < 1 {
		tw, th = max(1, int(math.Round(float64(w)*k))), max(1, int(math.Round(float64(h)*k)))
	}
	for w >= 2*tw && h >= 2*th && w > tw {
		w, h = w/2, h/2
		img = scale(img, w, h)
	}
	return scale(img, tw, th)
}

func scale(img image.Image, w, h int) *image.RGBA {
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	if o, ok := img.(interface{ Opaque() bool }); ok && o.Opaque() {
		draw.ApproxBiLinear.Scale(out, out.Rect, img, img.Bounds(), draw.Src, nil)
		return out
	}
	draw.Draw(out, out.Rect, image.White, image.Point{}, draw.Src) // what is see-through lies on paper
	draw.ApproxBiLinear.Scale(out, out.Rect, img, img.Bounds(), draw.Over, nil)
	return out
}

// turns maps a pixel of the picture as it was stored to where it belongs, for
// the eight ways up that Exif knows (tag 274), w and h being the stored sizes.
func turns(way int, w, h float64) (m f64.Aff3, swapped bool) {
	switch way {
	case 2:
		return f64.Aff3{-1, 0, w, 0, 1, 0}, false
	case 3:
		return f64.Aff3{-1, 0, w, 0, -1, h}, false
	case 4:
		return f64.Aff3{1, 0, 0, 0, -1, h}, false
	case 5:
		return f64.Aff3{0, 1, 0, 1, 0, 0}, true
	case 6:
		return f64.Aff3{0, -1, h, 1, 0, 0}, true
	case 7:
		return f64.Aff3{0, -1, h, -1, 0, w}, true
	case 8:
		return f64.Aff3{0, 1, 0, -1, 0, w}, true
	}
	return f64.Aff3{1, 0, 0, 0, 1, 0}, false
}

func upright(img *image.RGBA, way int) *image.RGBA {
	if way == 1 {
		return img
	}
	w, h := img.Rect.Dx(), img.Rect.Dy()
	m, swapped := turns(way, float64(w), float64(h))
	if swapped {
		w, h = h, w
	}
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	draw.NearestNeighbor.Transform(out, m, img, img.Rect, draw.Src, nil)
	return out
}

func encode(img image.Image) ([]byte, error) {
	var b bytes.Buffer
	if err := jpeg.Encode(&b, img, &jpeg.Options{Quality: quality}); err != nil {
		return nil, fmt.Errorf("write the picture: %w", err)
	}
	return b.Bytes(), nil
}
