package format

import (
	"fmt"
	"io"
	"strings"
)

// Text writes a result for reading in a terminal.
func (r *CheckResult) Text(w io.Writer, name string) error {
	var b strings.Builder
	fmt.Fprintf(&b, "%s: %s\n", name, verdictWords[r.Verdict])
	for i := range r.Zones {
		z := &r.Zones[i]
		title := z.ID
		if z.Name != "" {
			title = z.Name + " (" + z.ID + ")"
		}
		fmt.Fprintf(&b, "\n%s: %s\n  %s\n", title, verdictWords[z.Verdict], z.Says)
		if a := z.Adhesion; a != nil {
			fmt.Fprintf(&b, "  Adhesion: risk of peeling %s; weakest is step %d, %s on %s, at %.2f (%s) where %.2f is asked.\n",
				a.Words, a.Weakest.Step, a.Weakest.Coat, a.Weakest.On, a.Strength, a.Class, a.Demand)
		}
		for _, s := range z.Bleed {
			fmt.Fprintf(&b, "  Bleed: %s %.1f.\n", s.Name, s.DeltaE)
		}
		hands := "not known without an area"
		if z.Hours.HandsOn != nil {
			hands = fmt.Sprintf("%.1f h", *z.Hours.HandsOn)
		}
		fmt.Fprintf(&b, "  Time: hands-on %s, from first step to last wait %.0f h.\n", hands, z.Hours.Elapsed)
		for _, f := range z.Findings {
			at := ""
			if f.Step > 0 {
				at = fmt.Sprintf(", step %d", f.Step)
			}
			fmt.Fprintf(&b, "  [%s] %s (%s%s)\n      %s\n", f.Severity, f.Title, f.Code, at, f.Why)
			for _, rp := range f.Repairs {
				if rp.Kind == "acknowledge" {
					continue
				}
				leads := ""
				if rp.Verdict != "" {
					leads = " -> " + verdictWords[rp.Verdict]
				}
				fmt.Fprintf(&b, "      repair: %s%s\n", rp.Title, leads)
			}
		}
	}
	b.WriteString("\nThese are estimates. Labels, safety data sheets, local codes and licensed people decide.\n")
	_, err := io.WriteString(w, b.String())
	return err
}

var verdictWords = map[string]string{"sound": "sound", "watch": "watch", "fails": "fails"}
