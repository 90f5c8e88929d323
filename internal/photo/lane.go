package photo

import (
	"context"
	"errors"
	"time"
)

// ErrBusy tells that as many pictures are being unpacked as may be at once, and those that wait have
// not got on.
var ErrBusy = errors.New("too many pictures are being unpacked right now")

// lane lets pictures of one kind through, a few at a time, and has few more wait. A picture that takes long
// or much holds up only those like it: those that wait do not fill the server.
type lane struct{ queue, places chan struct{} }

func laneOf(places, waiting int) lane {
	return lane{make(chan struct{}, places+waiting), make(chan struct{}, places)}
}

var (
	ordinary = laneOf(2, 8) // what cameras and phones make
	large    = laneOf(1, 1)
	heicLane = laneOf(2, 1)
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

// enter waits for a place, where there is room to wait. Whoever got one calls leave.
func (l *lane) enter(ctx context.Context) (leave func(), err error) {
	select {
	case l.queue <- struct{}{}:
	default:
		return nil, ErrBusy
	}
	defer func() {
		if err != nil {
			<-l.queue
		}
	}()
	wait := time.NewTimer(patience)
	defer wait.Stop()
	select {
	case l.places <- struct{}{}:
		return func() { <-l.places; <-l.queue }, nil
	case <-ctx.Done():
		return nil, ctx.Err()
	case <-wait.C:
		return nil, ErrBusy
	}
}
