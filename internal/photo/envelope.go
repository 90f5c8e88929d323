package photo

import (
	"encoding/binary"
	"errors"
	"image"
)

// errEnvelope tells that a file is not put together as a HEIC picture is.
var errEnvelope = errors.New("its parts are not as they should be")

// mostBoxes is how many boxes of an envelope are looked at; phones write about two hundred.
const mostBoxes = 5000

// heicEnvelope reads the size of a HEIC picture from the boxes around it (ISO/IEC 14496-12 and 23008-12):
// the largest size that its properties name. It looks at no pixels, so that what is no picture, or
// too large a one, is refused before the large decoder is started.
func heicEnvelope(d []byte) (image.Config, error) {
	var c image.Config
	left := mostBoxes
	var meta []byte
	err := boxes(d, &left, func(kind string, body []byte) error {
		if kind == "meta" && meta == nil {
			meta = body
		}
		return nil
	})
	const version = 4 // bytes before the boxes in a full box
	if err != nil || len(meta) < version {
		return c, errEnvelope
	}
	err = boxes(meta[version:], &left, func(kind string, body []byte) error {
		if kind != "iprp" {
			return nil
		}
		return boxes(body, &left, func(kind string, body []byte) error {
			if kind != "ipco" {
				return nil
			}
			return boxes(body, &left, func(kind string, body []byte) error {
				if kind != "ispe" || len(body) < version+8 {
					return nil
				}
				w, h := int(binary.BigEndian.Uint32(body[version:])), int(binary.BigEndian.Uint32(body[version+4:]))
				if w*h > c.Width*c.Height || c.Width == 0 {
					c.Width, c.Height = w, h
				}
				return nil
			})
		})
	})
	if err == nil && c.Width == 0 {
		err = errEnvelope
	}
	return c, err
}

// boxes goes through boxes that lie one behind the other.
func boxes(d []byte, left *int, each func(kind string, body []byte) error) error {
	for len(d) > 0 {
		if *left--; *left < 0 || len(d) < 8 {
			return errEnvelope
		}
		size, head := uint64(binary.BigEndian.Uint32(d)), uint64(8)
		switch size {
		case 0: // to the end
			size = uint64(len(d))
		case 1: // the size comes behind, as it is a long one
			if len(d) < 16 {
				return errEnvelope
			}
			size, head = binary.BigEndian.Uint64(d[8:]), 16
		}
		if size < head || size > uint64(len(d)) {
			return errEnvelope
		}
		if err := each(string(d[4:8]), d[head:size]); err != nil {
			return err
		}
		d = d[size:]
	}
	return nil
}
