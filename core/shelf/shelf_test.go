package shelf

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"rutile/core/craft"
	"rutile/core/measure"
)

const today = "2026-11-28"

func can(t testing.TB, kind string, f func(*Can)) Can {
	t.Helper()
	p, ok := craft.Default().Product(kind)
	if !ok {
		t.Fatal(kind)
	}
	x := Can{ID: kind, Kind: p, Size: 1, Left: 1}
	f(&x)
	return x
}

func TestCansGrowOld(t *testing.T) {
	c := craft.Default()
	for _, x := range []struct {
		kind, opened, bought string
		want                 string // the first warning
	}{
		{"shellac_clear", "2026-01-10", "", "past"},
		{"shellac_clear", "2026-06-20", "", "soon"},
		{"shellac_clear", "2026-11-01", "", ""},
		{"shellac_clear", "", "2025-10-01", "past"}, // closed for over a year
		{"shellac_clear", "2026-11-01", "2025-01-01", "past"},
		{"paint_acrylic", "2025-11-01", "", ""},
		{"paint_acrylic", "", "", ""},
		{"paint_acrylic", "no day", "", ""},
	} {
		k := can(t, x.kind, func(k *Can) { k.Opened, k.Bought = x.opened, x.bought })
		got := ""
		if w := Warnings(c, &k, today, measure.Metric); len(w) > 0 {
			got = w[0].ID
		}
		if got != x.want {
			t.Errorf("%s opened %s bought %s: %q, want %q", x.kind, x.opened, x.bought, got, x.want)
		}
		if (x.want == "past") == Usable(c, &k, today) {
			t.Errorf("%s: usable is wrong", x.kind)
		}
	}
	low := can(t, "paint_chalk", func(k *Can) { k.Left = .1 })
	none := can(t, "paint_chalk", func(k *Can) { k.Left = 0 })
	kept := can(t, "paint_chalk", func(k *Can) { k.For = "The lectern" })
	if w := Warnings(c, &low, today, measure.Metric); len(w) != 1 || w[0].ID != "low" {
		t.Error(w)
	}
	if w := Warnings(c, &none, today, measure.Metric); len(w) != 1 || w[0].ID != "empty" || Usable(c, &none, today) || Usable(c, &kept, today) {
		t.Error(w)
	}
}

func TestCansAreWeighed(t *testing.T) {
	c := craft.Default()
	chalk, _ := c.Product("paint_chalk")
	tare := Tare(c, chalk, 1)
	for _, x := range []struct{ grams, want float64 }{{tare, 0}, {tare + 675, .5}, {tare + 1350, 1}, {tare - 30, 0}, {tare + 1400, 1}} {
		if got, err := Weighed(c, chalk, 1, x.grams, 0); err != nil || math.Abs(got-x.want) > .001 {
			t.Errorf("%v g: %v, %v; want %v", x.grams, got, err, x.want)
		}
	}
	for _, bad := range []float64{tare + 3000, -1, math.NaN()} {
		if got, err := Weighed(c, chalk, 1, bad, 0); err == nil {
			t.Errorf("%v g: %v", bad, got)
		}
	}
	milk, _ := c.Product("paint_milk")
	if got, err := Weighed(c, milk, 1, 22+350, 22); err != nil || math.Abs(got-.5) > .001 {
		t.Error(got, err)
	}
}

func TestCansAreFound(t *testing.T) {
	c := craft.Default()
	k := can(t, "paint_chalk", func(k *Can) { k.Name, k.Colour, k.Batch = "Old cream", "#e8dcc0", "B-17" })
	for words, want := range map[string]bool{"": true, "cream": true, "CHALK cream": true, "b-17": true, strings.Fields(nameOf(k.Colour))[0]: true, "cream blue": false, "x": false} {
		if got := Matches(c, &k, words); got != want {
			t.Errorf("%q: %v", words, got)
		}
	}
	all := []Can{
		can(t, "paint_chalk", func(k *Can) { k.ID, k.Left = "empty", 0 }), can(t, "paint_chalk", func(k *Can) { k.ID = "closed" }),
		can(t, "paint_chalk", func(k *Can) { k.ID, k.Opened = "open", "2026-10-01" }), can(t, "shellac_clear", func(k *Can) { k.ID, k.Opened = "old", "2026-07-01" }),
	}
	Order(c, all, today)
	var ids []string
	for _, x := range all {
		ids = append(ids, x.ID)
	}
	if got := strings.Join(ids, " "); got != "old open closed empty" {
		t.Error(got)
	}
}

func BenchmarkSearchOf1000(b *testing.B) {
	c := craft.Default()
	all := make([]Can, 1000)
	for i := range all {
		all[i] = Can{ID: fmt.Sprint(i), Name: fmt.Sprintf("Can %d", i), Kind: craft.Product(i % 40), Colour: fmt.Sprintf("#%06x", i*7919%0xffffff), Size: 1, Left: .5, Opened: "2026-03-04"}
	}
	for b.Loop() {
		Order(c, all, today)
		n := 0
		for i := range all {
			if Matches(c, &all[i], "can 99") {
				n++
			}
			Warnings(c, &all[i], today, measure.Metric)
		}
	}
}
