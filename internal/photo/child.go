package photo

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"os/exec"
	"strconv"
	"time"
)

// Decoders are large, cannot be interrupted, and read what anybody sends. They run in a process of
// their own, which is this same program told so by its environment; one that takes too long or too
// much is ended, and the studio goes on.
const (
	childEnv = "RUTILE_UNPACK_PICTURE" // holds the length of the file
	// childTime is how long a picture may take, heicTime one of the slower kind.
	childTime = 20 * time.Second
	heicTime  = 40 * time.Second
	// maxOut is more than any picture is once it is small, in bytes.
	maxOut = 32 << 20
)

// head is what comes before the pictures that the other process writes.
type head struct {
	Name          string
	Width, Height int
	Taken         string
	Large, Small  int // bytes
}

// RunChild does what [Take] started a program for, if it did: it unpacks a picture and tells main
// to end with the code. False where the program was started for anything else. Every main that
// imports pictures, that of tests too, calls it first.
func RunChild() (code int, started bool) {
	length, err := strconv.Atoi(os.Getenv(childEnv))
	if err != nil {
		return 0, false
	}
	limitMemory()
	return unpackHere(length, os.Stdin, os.Stdout, os.Stderr), true
}

func inChild() bool { return os.Getenv(childEnv) != "" }

// unpackInChild has a picture unpacked by another process. What that process says of the picture is
// an *[Error].
func unpackInChild(ctx context.Context, kind string, data []byte) (Picture, error) {
	self, err := os.Executable()
	if err != nil {
		return Picture{}, fmt.Errorf("find this program: %w", err)
	}
	most := childTime
	if kind == heicKind.name {
		most = heicTime
	}
	within, stop := context.WithTimeout(ctx, most)
	defer stop()
	cmd := exec.CommandContext(within, self)
	cmd.Env = append(os.Environ(), fmt.Sprintf("%s=%d", childEnv, len(data)), "GOGC=20", "GOMEMLIMIT=160MiB", "GOMAXPROCS=1")
	cmd.Stdin = bytes.NewReader(data)
	out, said := limited{most: maxOut}, limited{most: 4 << 10}
	cmd.Stdout, cmd.Stderr = &out, &said
	err = cmd.Run()
	switch {
	case ctx.Err() != nil:
		return Picture{}, ctx.Err()
	case within.Err() != nil:
		return Picture{}, bad("This %s picture takes too long to unpack. Send it smaller, as JPEG.", kind)
	case err == nil:
		return received(out.Bytes())
	case cmd.ProcessState != nil && cmd.ProcessState.ExitCode() == refused:
		return Picture{}, &Error{said.String()}
	}
	return Picture{}, bad("This %s picture cannot be unpacked here. Send it smaller, as JPEG.", kind)
}

// limited keeps what is written to it up to a length, and refuses the rest.
type limited struct {
	bytes.Buffer
	most int
}

func (l *limited) Write(p []byte) (int, error) {
	if l.Len()+len(p) > l.most {
		return 0, io.ErrShortBuffer
	}
	return l.Buffer.Write(p)
}

// received reads what the other process has written.
func received(b []byte) (Picture, error) {
	var h head
	line, rest, ok := bytes.Cut(b, []byte("\n"))
	if !ok || json.Unmarshal(line, &h) != nil || h.Large < 1 || h.Small < 1 || h.Large+h.Small != len(rest) || h.Width < 1 || h.Height < 1 {
		return Picture{}, errors.New("the unpacked data is not a picture")
	}
	return Picture{Name: h.Name, Width: h.Width, Height: h.Height, Taken: h.Taken, Large: rest[:h.Large:h.Large], Small: rest[h.Large:]}, nil
}

// refused is the exit code with which the other process says why.
const refused = 3

// unpackHere is what the other process does.
func unpackHere(length int, in io.Reader, out, said io.Writer) int {
	data := make([]byte, min(max(0, length), MaxBytes))
	if _, err := io.ReadFull(in, data); err != nil {
		return 1
	}
	p, err := unpack(data)
	if err != nil {
		fmt.Fprint(said, err)
		return refused
	}
	line, err := json.Marshal(head{p.Name, p.Width, p.Height, p.Taken, len(p.Large), len(p.Small)})
	if err != nil {
		return 1
	}
	for _, b := range [][]byte{append(line, '\n'), p.Large, p.Small} {
		if _, err := out.Write(b); err != nil {
			return 1
		}
	}
	return 0
}
