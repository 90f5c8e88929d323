package plan

import (
	"slices"
	"testing"

	stages "rutile/core/stage"
)

// What opens the way is filled in at some stage of the work.
func TestRelaxationsNameFieldsOfStages(t *testing.T) {
	for _, c := range changes {
		if !slices.ContainsFunc(stages.Entries, func(e stages.Entry) bool { return slices.Contains(e.Fields, c.field) }) {
			t.Errorf("%s names the field %q, which is filled in at no stage", c.id, c.field)
		}
	}
}
