package app

import (
	"os"
	"path/filepath"
	"reflect"
	"testing"

	"rutile/core/craft"
	"rutile/core/stage"
)

// What the entries of stages name is there: a package of the core, a use case, a folder of the
// page; and a field is filled in at one stage only.
func TestStagesNameWhatThereIs(t *testing.T) {
	fields := map[craft.Field]string{}
	for _, e := range stage.Entries {
		for _, dir := range []string{filepath.Join("../../core", e.Core), filepath.Join("../../web/src", e.Folder)} {
			if info, err := os.Stat(dir); err != nil || !info.IsDir() {
				t.Errorf("%s names %s, which is no folder", e.ID, dir)
			}
		}
		if _, ok := reflect.TypeFor[*Job]().MethodByName(e.UseCase); !ok {
			t.Errorf("%s names the use case %s, which there is not", e.ID, e.UseCase)
		}
		if e.Name == "" || e.Open == "" || e.View == "" || e.Route == "" || e.Stands == nil {
			t.Errorf("%s is not filled in: %+v", e.ID, e)
		}
		for _, f := range e.Fields {
			if first, twice := fields[f]; twice {
				t.Errorf("%s is filled in at %s and at %s", f, first, e.ID)
			}
			fields[f] = string(e.ID)
		}
	}
	for _, f := range craft.Fields {
		if fields[f] == "" {
			t.Errorf("%s is filled in at no stage", f)
		}
		delete(fields, f)
	}
	if len(fields) > 0 {
		t.Errorf("no fields: %v", fields)
	}
}
