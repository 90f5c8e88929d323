// Package app holds the use cases, from a decoded file to the answer. A piece is converted to the
// core's types once, as a [Job], and every use case works on that. Limits on work and the cache of
// judged pieces are here, too.
package app

import (
	"context"
	"errors"
	"fmt"
	"runtime"
	"runtime/debug"
	"sync/atomic"
	"time"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/plan"
	"rutile/core/stage"
)

// ErrBusy tells that as much work is being done as may be at once.
var ErrBusy = errors.New("the server is busy; try again in a few seconds")

// Budgets are how long searches for plans may take. A search that is out of time answers with the best
// it has found, and says that it is not proved.
type Budgets struct {
	Zone  time.Duration // for one zone by all its ways of working, and for one zone of a piece
	Piece time.Duration // for all zones of a piece
}

// UsualBudgets are those of a server that was told no others. Working defaults.
var UsualBudgets = Budgets{Zone: 10 * time.Second, Piece: time.Minute}

// Engine answers questions about pieces. It is safe for several goroutines at once.
type Engine struct {
	Craft *craft.Craft
	// Book is what zones are judged by, and Stages are the stages of the work.
	Book   *check.Book
	Stages []stage.Entry
	// Budgets bound searches for plans.
	Budgets Budgets

	// What may be at work at once: questions for the plans of a zone, for those of a piece, checks
	// of long pieces; and the searches of all questions together.
	zones, pieces, long, searching chan struct{}
	// light counts the short questions that are being answered: searches let them pass.
	light atomic.Int64
}

// queueTime is how long a question waits for its place before it is told that the server is busy.
const queueTime = time.Second

// NewEngine makes an engine over a craft's tables, nil for the usual ones, with the rule book and the
// usual stages.
func NewEngine(c *craft.Craft) *Engine {
	if c == nil {
		c = craft.Default()
	}
	procs := runtime.GOMAXPROCS(0)
	places := func(n int) chan struct{} { return make(chan struct{}, max(1, n)) }
	return &Engine{
		Craft: c, Book: check.Standard(), Stages: stage.Entries, Budgets: UsualBudgets,
		zones: places(procs), pieces: places(procs - 1), long: places(procs - 1), searching: places(procs),
	}
}

// enter waits a moment for a place, and answers ErrBusy where there is none. Whoever is let in calls
// leave once it is done.
func enter(ctx context.Context, places chan struct{}) (leave func(), err error) {
	wait := time.NewTimer(queueTime)
	defer wait.Stop()
	select {
	case places <- struct{}{}:
		return func() { <-places }, nil
	case <-ctx.Done():
		return nil, ctx.Err()
	case <-wait.C:
		return nil, ErrBusy
	}
}

// admit lets a question for plans in, or refuses it with ErrBusy. The work it does is stopped, and
// answers with what it has, when its budget is spent or stop is closed; nil for never. Whoever is let in
// calls leave once it is answered.
func (e *Engine) admit(ctx context.Context, places chan struct{}, budget time.Duration, stop <-chan struct{}) (work context.Context, leave func(), err error) {
	out, err := enter(ctx, places)
	if err != nil {
		return nil, nil, err
	}
	work, cancel := context.WithTimeout(ctx, budget)
	select {
	case <-stop: // before it began
		cancel()
	default:
	}
	go func() {
		select {
		case <-stop:
			cancel()
		case <-work.Done():
		}
	}()
	return work, func() { cancel(); out() }, nil
}

// spent tells that admitted work is over because of its budget, or was stopped, while somebody still waits
// for its answer.
func spent(ctx, work context.Context) bool { return ctx.Err() == nil && work.Err() != nil }

// Light counts a short question as being answered until done is called. Long searches give way to it.
func (e *Engine) Light() (done func()) {
	e.light.Add(1)
	return func() { e.light.Add(-1) }
}

// giveWay lets short questions pass. It waits a moment at most, so that a search gets on however many
// they are.
func (e *Engine) giveWay() {
	for range 4 {
		if e.light.Load() == 0 {
			return
		}
		time.Sleep(time.Millisecond)
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
	return aside(work)
}

// aside does work on a thread of its own, which the system runs only when nothing shorter is to be done.
func aside(work func() error) (err error) {
	var broke any
	done := make(chan struct{})
	go func() {
		defer close(done)
		defer func() {
			if v := recover(); v != nil {
				broke = fmt.Errorf("%v\n%s", v, debug.Stack())
			}
		}()
		runtime.LockOSThread() // for good: the thread ends with the work
		lowPriority()
		err = work()
	}()
	<-done
	if broke != nil {
		panic(broke) // where the request is answered
	}
	return err
}

// find searches for one plan.
func (e *Engine) find(ctx context.Context, ask plan.Request) (a plan.Answer, err error) {
	err = e.search(ctx, func() (err error) {
		a, err = plan.Find(ctx, e.Craft, ask)
		return err
	})
	return a, err
}
