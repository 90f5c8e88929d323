package photo

import (
	"bytes"
	"encoding/binary"
	"image"
	"image/color"
	"strings"
)

// Limits on what unpacking a picture may take, foretold from what its file says of itself.
const (
	// maxMemory is the most memory, in bytes. Working default: with what is beside it, a picture stays
	// under 400 MB.
	maxMemory = 240 << 20
	// maxScans is the most scans of a JPEG; cameras and programs write at most about twenty.
	maxScans = 100
	// maxScanned is the most pixels times scans of a JPEG: each scan goes over all of the picture.
	maxScanned = 1_000_000_000
)

// need is what unpacking a picture takes.
type need struct {
	bytes int // of memory
	scans int // over the whole picture; 0 where the kind has none
}

// needs foretells what a picture takes, or says why it is refused for that.
func needs(data []byte, k kind, config func([]byte) (image.Config, error)) (need, error) {
	c, err := config(data)
	if err != nil && strings.Contains(err.Error(), "dimension overflow") {
		return need{}, bad("The picture says it is larger than any picture can be.")
	}
	if err != nil {
		return need{}, damaged(k, err)
	}
	w, h := c.Width, c.Height
	switch {
	case w < 1 || h < 1:
		return need{}, bad("The picture has no size.")
	case w > MaxSide || h > MaxSide:
		return need{}, bad("The picture is %d × %d pixels; no side may be longer than %d. Make it smaller and send it again.", w, h, MaxSide)
	case w*h > MaxPixels:
		return need{}, bad("The picture has %d million pixels; at most %d million are allowed.", w*h/1_000_000, MaxPixels/1_000_000)
	}
	n := need{bytes: w * h * bytesOf(c.ColorModel)}
	advice := "Send it as JPEG."
	switch k.name {
	case jpegKind.name:
		n, advice = jpegNeeds(data, w, h), "Save it again as an ordinary JPEG, or smaller."
	case pngKind.name:
		if interlaced(data) {
			n.bytes += n.bytes / 2 // its largest pass beside the whole
		}
	case webpKind.name:
		if len(data) > 15 && string(data[12:16]) != "VP8 " {
			n.bytes += 4 * w * h // what is lossless, or see-through, is unpacked twice
		}
	}
	switch {
	case n.scans > maxScans:
		return n, bad("The JPEG picture has %d scans; at most %d are allowed. Save it again as an ordinary JPEG.", n.scans, maxScans)
	case n.scans*w*h > maxScanned:
		return n, bad("The JPEG picture has %d scans of %d million pixels, which takes too long to unpack. Save it again as an ordinary JPEG, or smaller.", n.scans, w*h/1_000_000)
	case n.bytes > maxMemory:
		return n, bad("Unpacked, the picture would take %d MB; at most %d MB are allowed. %s", n.bytes>>20, maxMemory>>20, advice)
	}
	return n, nil
}

// bytesOf is what a pixel takes once it is unpacked.
func bytesOf(m color.Model) int {
	switch m {
	case color.YCbCrModel, color.NYCbCrAModel:
		return 3
	case color.GrayModel, color.AlphaModel:
		return 1
	case color.RGBA64Model, color.NRGBA64Model:
		return 8
	case color.Gray16Model:
		return 2
	}
	if _, ok := m.(color.Palette); ok {
		return 1
	}
	return 4
}

func interlaced(png []byte) bool {
	const at = 28 // the last byte of the first chunk's body
	return len(png) > at && png[at] != 0
}

// jpegNeeds foretells what a JPEG takes: its samples; where it is progressive, the coefficients of
// all of them, which are kept to the end, four bytes each; and where it is not in YCbCr, what it is
// converted to.
func jpegNeeds(data []byte, w, h int) need {
	j := jpegHeader(data)
	n := need{scans: j.scans}
	samples := 0
	for _, c := range j.samples {
		samples += w * h * c[0] * c[1] / max(1, j.most[0]*j.most[1])
	}
	n.bytes = samples
	if j.progressive {
		n.bytes += 4 * samples
	}
	switch len(j.samples) {
	case 4:
		n.bytes += 8 * w * h
	case 3:
		if j.rgb {
			n.bytes += 4 * w * h
		}
	}
	return n
}

// jpegHead is what the segments of a JPEG say (ITU-T T.81, annex B).
type jpegHead struct {
	progressive, rgb bool
	samples          [][2]int // of each component, across and down
	most             [2]int
	scans            int
}

// jpegHeader goes through the segments of a JPEG. What is broken ends it: the decoder tells.
func jpegHeader(d []byte) jpegHead {
	var j jpegHead
	for at := 2; at+4 <= len(d); {
		if d[at] != 0xff {
			// Within a scan: to the next marker.
			next := bytes.IndexByte(d[at:], 0xff)
			if next < 0 {
				break
			}
			at += next
		}
		if at+1 >= len(d) {
			break
		}
		m := d[at+1]
		switch {
		case m == 0xff: // filling
			at++
			continue
		case m == 0, m == 1, m >= 0xd0 && m <= 0xd8: // a byte of data, or a marker without a segment
			at += 2
			continue
		case m == 0xd9 || at+4 > len(d): // the end
			return j
		}
		size := int(binary.BigEndian.Uint16(d[at+2:]))
		body := d[min(at+4, len(d)):min(at+2+max(2, size), len(d))]
		switch {
		case m == 0xda:
			j.scans++
		case m == 0xc0 || m == 0xc1 || m == 0xc2:
			j.progressive = m == 0xc2
			j.frame(body)
		case m == 0xee && len(body) >= 12 && string(body[:5]) == "Adobe":
			j.rgb = body[11] == 0
		}
		at += 2 + max(2, size)
	}
	return j
}

// frame reads the components of a frame.
func (j *jpegHead) frame(b []byte) {
	j.samples, j.most = nil, [2]int{}
	for i := 6; i+3 <= len(b) && len(j.samples) < 4; i += 3 {
		h, v := int(b[i+1]>>4), int(b[i+1]&15)
		j.samples = append(j.samples, [2]int{h, v})
		j.most[0], j.most[1] = max(j.most[0], h), max(j.most[1], v)
	}
	if len(j.samples) == 3 && b[6] == 'R' && b[9] == 'G' && b[12] == 'B' {
		j.rgb = true
	}
}
