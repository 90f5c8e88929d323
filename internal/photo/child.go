package photo

import (
	"bytes"
	"context"
	"encoding/binary"
	"errors"
	"fmt"
	"image"
	"io"
	"os"
	"os/exec"
	"time"

	"github.com/gen2brain/heic"
)

// HEIC is unpacked by a large third-party decoder that cannot be interrupted. It runs in a process
// of its own, which is this same program told so by its environment; one that takes too long or too
// much is ended, and the studio goes on.
const (
	childEnv  = "RUTILE_UNPACK_HEIC"
	childTime = 40 * time.Second
)

// RunChild does what [Take] started a program for, if it did: it unpacks a picture and tells main
// to end with the code. False where the program was started for anything else. Every main that
// imports pictures, that of tests too, calls it first.
func RunChild() (code int, started bool) {
	if os.Getenv(childEnv) == "" {
		return 0, false
	}
	limitMemory()
	return unpackHere(os.Stdin, os.Stdout, os.Stderr), true
}

// unpackInChild has a HEIC picture unpacked by another process, already made as
// small as it is kept. What that process says of the picture is an *[Error].
func unpackInChild(ctx context.Context, data []byte) (image.Image, error) {
	self, err := os.Executable()
	if err != nil {
		return nil, fmt.Errorf("find this program: %w", err)
	}
	ctx, stop := context.WithTimeout(ctx, childTime)
	defer stop()
	cmd := exec.CommandContext(ctx, self)
	cmd.Env = append(os.Environ(), childEnv+"=1", "GOGC=20", "GOMEMLIMIT=160MiB")
	cmd.Stdin = bytes.NewReader(data)
	var out, said bytes.Buffer
	cmd.Stdout, cmd.Stderr = &out, &said
	err = cmd.Run()
	switch {
	case ctx.Err() == context.DeadlineExceeded:
		return nil, &Error{"This HEIC picture takes too long to unpack. Send it as JPEG."}
	case ctx.Err() != nil:
		return nil, ctx.Err()
	case err == nil && out.Len() > 8:
		b := out.Bytes()
		w, h := int(binary.BigEndian.Uint32(b)), int(binary.BigEndian.Uint32(b[4:]))
		if w < 1 || h < 1 || w > Large || h > Large || len(b) != 8+4*w*h {
			return nil, errors.New("the unpacked data is not a picture")
		}
		return &image.RGBA{Pix: b[8:], Stride: 4 * w, Rect: image.Rect(0, 0, w, h)}, nil
	case cmd.ProcessState != nil && cmd.ProcessState.ExitCode() == refused:
		return nil, &Error{said.String()}
	}
	return nil, &Error{"This HEIC picture cannot be unpacked here. Send it as JPEG."}
}

// refused is the exit code with which the other process says why.
const refused = 3

// unpackHere is what the other process does.
func unpackHere(in io.Reader, out, said io.Writer) int {
	data, err := io.ReadAll(io.LimitReader(in, MaxBytes+1))
	if err != nil {
		return 1
	}
	if err := small(data, heicKind, func(d []byte) (image.Config, error) { return heic.DecodeConfig(bytes.NewReader(d)) }); err != nil {
		fmt.Fprint(said, err)
		return refused
	}
	img, err := heic.Decode(bytes.NewReader(data))
	if err != nil {
		fmt.Fprint(said, damaged(heicKind, err))
		return refused
	}
	m := shrink(img, Large)
	head := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, uint32(m.Rect.Dx())), uint32(m.Rect.Dy()))
	if _, err := out.Write(append(head, m.Pix...)); err != nil {
		return 1
	}
	return 0
}
