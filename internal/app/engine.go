// Package app holds the use cases, from a decoded file to the answer. A piece is converted to the
// core's types once, as a [Job], and every use case works on that. Limits on work and the cache of
// judged pieces are here, too.
package app

import (
	"context"
	"errors"
	"runtime"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/plan"
	"rutile/core/stage"
)

// ErrBusy tells that as many plans are being searched for as may be at once.
var ErrBusy = errors.New("too many plans are being searched for right now; try again in a few seconds")

// Engine answers questions about pieces. It is safe for several goroutines at once.
type Engine struct {
	Craft *craft.Craft
	// Book is what zones are judged by, and Stages are the stages of the work.
	Book   *check.Book
	Stages []stage.Entry

	asking    chan struct{} // one for each question for plans that is being answered
	searching chan struct{} // one for each search at work
}

// mostAsking is how many questions for plans are answered at once. Each may take several
// searches, of which only as many work at once as there are processors.
const mostAsking = 8

// NewEngine makes an engine over a craft's tables, nil for the usual ones, with the rule book and the
// usual stages.
func NewEngine(c *craft.Craft) *Engine {
	if c == nil {
		c = craft.Default()
	}
	return &Engine{
		Craft: c, Book: check.Standard(), Stages: stage.Entries,
		asking: make(chan struct{}, mostAsking), searching: make(chan struct{}, runtime.GOMAXPROCS(0)),
	}
}

// admit lets a question for plans in, or refuses it with ErrBusy. Whoever is let in calls
// leave once it is answered.
func (e *Engine) admit() (leave func(), err error) {
	select {
	case e.asking <- struct{}{}:
		return func() { <-e.asking }, nil
	default:
		return nil, ErrBusy
	}
}

// search does the work of one search once there is room for it; the only error of its own is
// that of a context that is done before.
func (e *Engine) search(ctx context.Context, work func() error) error {
	select {
	case e.searching <- struct{}{}: // there is room: a search that is stopped says how far it came
	default:
		select {
		case e.searching <- struct{}{}:
		case <-ctx.Done():
			return ctx.Err()
		}
	}
	defer func() { <-e.searching }()
	return work()
}

// find searches for one plan.
func (e *Engine) find(ctx context.Context, ask plan.Request) (a plan.Answer, err error) {
	err = e.search(ctx, func() (err error) {
		a, err = plan.Find(ctx, e.Craft, ask)
		return err
	})
	return a, err
}
