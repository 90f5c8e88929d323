package app

import "sync"

// runs are the searches for plans that somebody may ask about or stop, by names that they were given.
type runs struct {
	mu sync.Mutex
	by map[string]*run
}

type run struct {
	stop     chan struct{}
	stopped  bool
	done, of int
}

// Run begins a search under a name, empty for one that nobody asks about, and puts what it is told of
// into o. The caller calls end once it is answered.
func (s *Studio) Run(name string, o *PlanOptions) (end func()) {
	if name == "" {
		return func() {}
	}
	r := &run{stop: make(chan struct{})}
	s.runs.mu.Lock()
	if s.runs.by == nil {
		s.runs.by = map[string]*run{}
	}
	s.runs.by[name] = r
	s.runs.mu.Unlock()
	tell := o.Done
	o.Stop, o.Done = r.stop, func(done, of int) {
		s.runs.mu.Lock()
		r.done, r.of = done, of
		s.runs.mu.Unlock()
		if tell != nil {
			tell(done, of)
		}
	}
	return func() {
		s.runs.mu.Lock()
		defer s.runs.mu.Unlock()
		if s.runs.by[name] == r {
			delete(s.runs.by, name)
		}
	}
}

// RunState says how far a search is; false where none of that name is at work.
func (s *Studio) RunState(name string) (done, of int, ok bool) {
	s.runs.mu.Lock()
	defer s.runs.mu.Unlock()
	r := s.runs.by[name]
	if r == nil {
		return 0, 0, false
	}
	return r.done, r.of, true
}

// StopRun stops a search, which then answers with what it has; false where none of that name is at work.
func (s *Studio) StopRun(name string) bool {
	s.runs.mu.Lock()
	defer s.runs.mu.Unlock()
	r := s.runs.by[name]
	if r == nil {
		return false
	}
	if !r.stopped {
		close(r.stop)
		r.stopped = true
	}
	return true
}
