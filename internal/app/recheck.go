package app

import (
	"context"
	"crypto/rand"
	"errors"
	"reflect"
	"slices"
	"strconv"
	"sync"

	"rutile/core/check"
	"rutile/internal/wire"
)

// ErrStale tells that the check which a change is based on is no longer cached, or was made with
// other settings or on another day: check the whole piece.
var ErrStale = errors.New("this check has expired")

// live keeps the last checks of whole pieces, so that an edit of one zone judges that zone, however
// many others the piece has.
type live struct {
	mu   sync.Mutex
	run  string // identifies this run of the program; tokens of other runs are invalid
	last uint64
	kept []*kept // the oldest first
}

// kept is a check that a change may start from.
type kept struct {
	token    string
	job      *Job
	on       ground
	verdicts []string
	films    []float64
	looks    []wire.ZoneOverview
	steps    int // of all plans
}

// mostKept is how many checks are kept: a few tabs, and what was there before an edit. Of long
// pieces fewer are kept, so many steps of plans in all.
const (
	mostKept      = 16
	mostKeptSteps = 100_000
)

func (l *live) keep(k *kept) {
	l.mu.Lock()
	defer l.mu.Unlock()
	if l.run == "" {
		l.run = rand.Text()
	}
	l.last++
	k.token = l.run + "-" + strconv.FormatUint(l.last, 10)
	l.kept = append(l.kept, k)
	steps, from := 0, len(l.kept)
	for from > 0 {
		steps += l.kept[from-1].steps
		if from < len(l.kept) && (len(l.kept)-from >= mostKept || steps > mostKeptSteps) {
			break
		}
		from--
	}
	l.kept = slices.Delete(l.kept, 0, from)
}

func (l *live) find(token string) *kept {
	l.mu.Lock()
	defer l.mu.Unlock()
	for _, k := range l.kept {
		if k.token == token {
			return k
		}
	}
	return nil
}

// Check checks a whole piece, and keeps it for changes to start from under a token.
func (s *Studio) Check(ctx context.Context, data []byte) (r wire.CheckResult, token string, err error) {
	j, err := s.Read(ctx, data)
	if err != nil {
		return r, "", err
	}
	if all := j.allZones(); j.long(all) {
		leave, err := enter(ctx, s.long)
		if err != nil {
			return r, "", err
		}
		defer leave()
	}
	k := &kept{job: j, on: s.ground(&j.Shop), verdicts: make([]string, len(j.Zones)), steps: j.steps(j.allZones())}
	if r, k.films, err = j.check(ctx, Want{Repairs: true, Section: true, Look: true, Brief: true}); err != nil {
		return r, "", err
	}
	for i := range r.Zones {
		k.verdicts[i] = r.Zones[i].Verdict
	}
	k.looks = r.Overview.Zones
	s.live.keep(k)
	return r, k.token, nil
}

// CheckChange checks zones that have changed since a check, and says what is other than it was.
// Errors are ErrStale, a *wire.Error, or that of a context that is done.
func (s *Studio) CheckChange(ctx context.Context, token string, data []byte) (r wire.CheckChange, next string, err error) {
	was := s.live.find(token)
	shop := s.Workshop(ctx)
	if was == nil || was.on != s.ground(&shop) {
		return r, "", ErrStale
	}
	p, changed, err := wire.DecodeChange(data, was.job.Piece)
	if err != nil {
		return r, "", err
	}
	j, again := was.job.changed(p, changed)
	if j.long(again) {
		leave, err := enter(ctx, s.long)
		if err != nil {
			return r, "", err
		}
		defer leave()
	}
	k := &kept{
		job: j, on: was.on, steps: j.steps(j.allZones()), verdicts: append([]string{}, was.verdicts...), films: append([]float64{}, was.films...),
		looks: append([]wire.ZoneOverview{}, was.looks...),
	}
	want := Want{Repairs: true, Section: true}
	r.Zones = make([]wire.ZoneResult, len(again))
	brief := j.long(j.allZones())
	err = j.results(ctx, again, want, func(i int) bool { return brief && !slices.Contains(changed, i) }, func(n, i int, res *check.Result, z wire.ZoneResult) {
		r.Zones[n], k.verdicts[i], k.films[i] = z, z.Verdict, filmOf(res)
	})
	if err != nil {
		return wire.CheckChange{}, "", err
	}
	other := false // something of the overview besides a zone's own line
	for _, i := range changed {
		k.looks[i] = j.zoneOverview(i)
		if !reflect.DeepEqual(k.looks[i], was.looks[i]) {
			r.ZoneOverviews = append(r.ZoneOverviews, k.looks[i])
			other = other || !reflect.DeepEqual(k.looks[i].DamageWork, was.looks[i].DamageWork)
		}
	}
	for _, i := range again {
		other = other || k.films[i] != was.films[i] && j.fitted(i)
	}
	if other {
		l := j.Overview(k.films)
		r.Overview, r.ZoneOverviews = &l, nil
	}
	r.Verdict = worst(k.verdicts)
	s.live.keep(k)
	return r, k.token, nil
}
