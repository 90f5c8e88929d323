package photo

import (
	"context"
	"errors"
	"time"
)

// ErrBusy tells that as many pictures are being unpacked as may be at once, and those that wait have
// not got on.
var ErrBusy = errors.New("too many pictures are being unpacked right now")

// lane lets pictures of one kind through, a few at a time. A picture that takes long or much holds up
// only those like it.
type lane struct{ places chan struct{} }

var (
	ordinary = lane{make(chan struct{}, 2)} // what cameras and phones make
	large    = lane{make(chan struct{}, 1)}
	heicLane = lane{make(chan struct{}, 2)}
)

// Ordinary pictures take no more than these. Working defaults: a photograph of 16 million pixels.
const (
	ordinaryBytes = 64 << 20
	ordinaryScans = 20
)

// patience is how long a picture waits for its turn.
const patience = 30 * time.Second

// lane is where a picture goes that takes so much.
func (n need) lane(k *kind) *lane {
	switch {
	case k.name == heicKind.name:
		return &heicLane
	case n.bytes > ordinaryBytes || n.scans > ordinaryScans:
		return &large
	}
	return &ordinary
}

// enter waits for a place. Whoever got one calls leave.
func (l *lane) enter(ctx context.Context) (leave func(), err error) {
	wait := time.NewTimer(patience)
	defer wait.Stop()
	select {
	case l.places <- struct{}{}:
		return func() { <-l.places }, nil
	case <-ctx.Done():
		return nil, ctx.Err()
	case <-wait.C:
		return nil, ErrBusy
	}
}
