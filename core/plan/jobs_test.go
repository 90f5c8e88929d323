package plan

import (
	"context"
	"fmt"
	"os"
	"slices"
	"strings"
	"testing"

	"rutile/core/check"
	"rutile/core/craft"
	"rutile/core/parts"
	"rutile/core/surface"
)

// job is a piece of ordinary work with the plan that a painter of a small studio would make.
type job struct {
	name, zone         string
	steps, last        []string // each with alternatives
	coats, hours       [2]float64
	why                string
	refused            bool // no plan is expected; mayRefuse where either is right
	mayRefuse, anyLast bool
}

func jobsOf(t testing.TB, file string) []job {
	t.Helper()
	data, err := os.ReadFile("testdata/" + file)
	if err != nil {
		t.Fatal(err)
	}
	var out []job
	for line := range strings.Lines(string(data)) {
		line = strings.TrimSpace(line)
		if line == "" || line[0] == '#' {
			continue
		}
		f := strings.Split(line, " | ")
		if len(f) != 7 {
			t.Fatalf("%d fields in %q", len(f), line)
		}
		j := job{name: f[0], zone: f[1], steps: strings.Fields(f[2]), last: strings.Fields(f[3]), why: f[6]}
		for i, to := range []*[2]float64{&j.coats, &j.hours} {
			if f[4+i] != "-" {
				if _, err := fmt.Sscanf(strings.ReplaceAll(f[4+i], "-", " "), "%f %f", &to[0], &to[1]); err != nil {
					t.Fatalf("%q: %v", f[4+i], err)
				}
			}
		}
		j.refused, j.mayRefuse = j.steps[0] == "refused", j.steps[0] == "refused?"
		if j.mayRefuse {
			j.steps = j.steps[1:]
		}
		j.anyLast = j.last[0] == "any"
		out = append(out, j)
	}
	return out
}

// ask reads the zone of a job, with what only a request has: the way, the kits, and what comes off.
func (j *job) ask(t testing.TB) Request {
	t.Helper()
	var facts []string
	ask := Request{Way: Ways[0], Kit: DefaultKit()}
	work := 0.
	edges := 0.
	for _, clause := range strings.Split(j.zone, ";") {
		w := strings.Fields(clause)
		switch w[0] {
		case "kind":
			f := parts.FurnitureNamed(w[1])
			if f == nil {
				t.Fatalf("%s: no kind of furniture %q", j.name, w[1])
			}
			work, edges = f.Work, f.Edges
		case "off":
			ask.PutBack = true
		case "way":
			ask.Way = wayOf(t, w[1])
		case "kit":
			for _, id := range w[1:] {
				k, ok := KitNamed(id, nil)
				if !ok {
					t.Fatalf("no kit %q", id)
				}
				ask.Kit = ask.Kit.With(&k)
			}
		default:
			facts = append(facts, clause)
		}
	}
	ask.Zone = zoneOf(t, strings.Join(facts, ";"))
	ask.Zone.Work, ask.Zone.EdgesM = work, edges*ask.Zone.Area
	return ask
}

// kindOf is what a step is called in a job, with all names it goes by.
func kindOf(c *craft.Craft, s *surface.Step) []string {
	switch s.Do {
	case surface.Clean:
		row := &c.Cleaners[s.Cleaner]
		switch {
		case row.Key > 0:
			return []string{"scuff", "degloss"}
		case row.Carrier == craft.Water:
			return []string{"wash"}
		case row.Carrier == craft.Dry:
			return []string{"brush"}
		case row.Carrier == craft.Alcohol:
			return []string{"spirit", "solv"}
		}
		return []string{"solv"}
	case surface.Abrade:
		switch s.How {
		case craft.Pad:
			return []string{"scuff", "pad"}
		case craft.Wet:
			return []string{"scuff", "sand", "wet"}
		}
		return []string{"scuff", "sand"}
	case surface.Dust:
		return []string{"dust"}
	case surface.Reassemble:
		return []string{"refit"}
	case surface.Coat:
		row := &c.Products[s.Product]
		out := []string{row.ID}
		switch row.Role {
		case craft.RolePrimer:
			out = append(out, "prime")
		case craft.RolePaint:
			out = append(out, "paint")
		case craft.RoleClear:
			out = append(out, "clear")
		case craft.RoleWax:
			out = append(out, "wax")
		}
		also := map[string][]string{
			"shellac_clear": {"seal", "block"}, "shellac_pigmented": {"block", "seal"}, "primer_stainblock_oil": {"block"}, "primer_stainblock_wb": {"block"}, "primer_bond_wb": {"bond"},
			"primer_metal": {"metal"}, "primer_galv": {"galv"}, "primer_glass": {"glass"}, "sealer_masonry": {"masonry"}, "paint_masonry": {"masonry"},
			"paint_enamel_wb": {"enamel"}, "paint_trim": {"enamel"}, "paint_enamel_oil": {"enamel_oil"}, "paint_milk": {"milk"}, "paint_chalk": {"matt"}, "paint_clay": {"matt"}, "paint_diy_chalk": {"matt"},
			"clear_wb_hard": {"hard"}, "clear_oil": {"hard"}, "glaze_wb": {"glaze"}, "glaze_stain": {"glaze"}, "paint_flexible": {"flexible"}, "fabric_wash": {"fabric"},
		}
		return append(out, also[row.ID]...)
	case surface.Effect:
		return []string{"effect"}
	case surface.Repair:
		return []string{"repair"}
	}
	return []string{surface.Kinds[s.Do].ID}
}

// remarks are what a painter would say of a plan who had another in mind: odd is what they would shake
// their head at, and a remark what they would do a little otherwise.
func (j *job) remarks(c *craft.Craft, ask *Request, a *Answer) (remark, odd []string, wrong bool) {
	if a.Best == nil {
		if !j.refused && !j.mayRefuse {
			return nil, []string{"refused"}, true
		}
		opens := false
		for _, o := range a.Infeasible.Relaxations {
			opens = opens || slices.Contains(j.last, o.ID)
		}
		if j.refused && !opens {
			odd = append(odd, "not opened by "+strings.Join(j.last, " or "))
		}
		return remark, odd, false
	}
	if j.refused {
		return nil, []string{"planned"}, true
	}
	// Align what is expected with what is planned.
	at, coats := 0, 0
	last := craft.NoProduct
	var extra []string
	fits := func(k int, s *surface.Step) bool {
		for _, n := range strings.Split(strings.TrimSuffix(j.steps[k], "?"), "/") {
			if slices.Contains(kindOf(c, s), n) {
				return true
			}
		}
		return false
	}
	for i := range a.Best.Steps {
		s := &a.Best.Steps[i]
		if s.Do == surface.Coat && s.Scope == surface.All {
			coats += s.NumCoats()
			last = s.Product
		}
		k := at
		for k < len(j.steps) && !fits(k, s) && strings.HasSuffix(j.steps[k], "?") {
			k++
		}
		// A step may stand for the one before as well: two coats, two washes.
		switch {
		case k < len(j.steps) && fits(k, s):
			at = k + 1
		case at > 0 && fits(at-1, s):
		default:
			k := at
			for k < len(j.steps) && !fits(k, s) {
				k++
			}
			quiet := s.Do == surface.Wait || s.Do == surface.Dust || s.Do == surface.Mask || s.Do == surface.Remove
			switch {
			case k < len(j.steps) && !quiet:
				for _, x := range j.steps[at:k] {
					if !strings.HasSuffix(x, "?") {
						odd = append(odd, "no "+x)
					}
				}
				at = k + 1
			case !quiet:
				extra = append(extra, check.StepWords(c, s))
			}
		}
	}
	for _, x := range j.steps[min(at, len(j.steps)):] {
		if !strings.HasSuffix(x, "?") {
			odd = append(odd, "no "+x)
		}
	}
	for _, x := range extra {
		remark = append(remark, "also "+x)
	}
	if last != craft.NoProduct && !j.anyLast {
		s := surface.Step{Do: surface.Coat, Product: last}
		if !slices.ContainsFunc(j.last, func(x string) bool { return slices.Contains(kindOf(c, &s), x) }) {
			odd = append(odd, "ends in "+c.Products[last].ID)
		}
	}
	if float64(coats) < j.coats[0] || float64(coats) > j.coats[1] {
		remark = append(remark, fmt.Sprintf("%d coats, not %v to %v", coats, j.coats[0], j.coats[1]))
	}
	if least, most := surface.HoursRange(a.Best.Judged.Minutes / 60); most < j.hours[0] || least > j.hours[1] {
		remark = append(remark, fmt.Sprintf("%.1f to %.1f h, not %v to %v", least, most, j.hours[0], j.hours[1]))
	}
	return remark, odd, len(odd) > 2
}

// told counts how the plans of jobs compare with those of their painter, and logs each that differs.
func told(t *testing.T, file string) (same, remarked, odds, wrongs int) {
	t.Helper()
	c := craft.Default()
	for _, j := range jobsOf(t, file) {
		ask := j.ask(t)
		a, err := Find(context.Background(), c, ask)
		if err != nil {
			t.Fatal(err)
		}
		remark, odd, wrong := j.remarks(c, &ask, &a)
		word := "exactly so"
		switch {
		case wrong:
			word = "WRONG"
			wrongs++
		case len(odd) > 0:
			word = "ODD"
			odds++
		case len(remark) > 0:
			word = "remark"
			remarked++
		default:
			same++
		}
		plan := ""
		if a.Best != nil {
			plan = words(c, a.Best)
		} else {
			for _, o := range a.Infeasible.Why {
				plan += "  why: " + o.Title + "\n"
			}
			for _, o := range a.Infeasible.Relaxations {
				plan += "  opens: " + o.Says + "\n"
			}
		}
		t.Logf("%s: %s %v %v\n  wanted: %v\n%s", j.name, word, odd, remark, j.steps, plan)
	}
	t.Logf("%s: %d exactly so, %d with a remark, %d odd, %d wrong", file, same, remarked, odds, wrongs)
	return same, remarked, odds, wrongs
}

// The jobs that the planner was tuned on: no plan is odd or wrong.
func TestJobsSeen(t *testing.T) {
	if same, remarked, odds, wrongs := told(t, "jobs_seen.txt"); odds+wrongs > 0 || remarked > 4 {
		t.Errorf("%d exactly so, %d with a remark, %d odd, %d wrong", same, remarked, odds, wrongs)
	}
}

// The jobs that were kept away while the planner was tuned. When they were first looked at, 30 plans were
// those of their painter, 5 had a remark, 4 were odd and one wrong.
func TestJobsKept(t *testing.T) {
	if same, remarked, odds, wrongs := told(t, "jobs_kept.txt"); same < 30 || wrongs > 0 {
		t.Errorf("%d exactly so, %d with a remark, %d odd, %d wrong", same, remarked, odds, wrongs)
	}
}
