package plan

import "context"

// Stuck says what stands in the way of a plan.
type Stuck struct{}

func (p *planner) stuck(context.Context, bool) *Stuck { return &Stuck{} }
