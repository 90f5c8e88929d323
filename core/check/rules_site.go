package check

import (
	"fmt"
	"math"
	"slices"

	"rutile/core/craft"
	"rutile/core/drying"
	"rutile/core/measure"
	"rutile/core/surface"
)

// airLimit is one limit of a product's that the workshop's air may break.
type airLimit struct {
	air   func(drying.Climate) float64
	limit func(*craft.ProductRow) float64
	label craft.LabelFigure // that may give the limit
	least bool              // the limit is the least the air may be, and not the most
	// doubtful is how far beyond its limit a coat of a product may still turn out well; only what keeps
	// a coat from forming a film is expected to fail.
	doubtful func(*craft.ProductRow) float64
	// words say a figure of either with its unit, within a sentence; figure is
	// the value alone, as the units have it.
	words  func(measure.Units, float64) string
	figure func(measure.Units, float64) (float64, string)
	is     string // what the air is, before its figure
	advice string
}

// beyond is by how much the air breaks a product's limit; not above 0 inside
// it.
func (l *airLimit) beyond(air drying.Climate, p *craft.ProductRow) float64 {
	if l.least {
		return l.limit(p) - l.air(air)
	}
	return l.air(air) - l.limit(p)
}

func (l *airLimit) bound() string {
	if l.least {
		return "least"
	}
	return "most"
}

func (l airLimit) rule(code, title, why, when string) Rule {
	product := func(k *Case, h *Hit) *craft.ProductRow { return &k.Craft.Products[k.Zone.Steps[h.Step-1].Product] }
	return Rule{
		Code: code, Title: title, Why: why, When: when, Reach: SoFar | Tail,
		Inputs: "the air in the workshop, and the limits of every product that is applied in it",
		Fix:    "air that suits the products, or products that suit the air",
		Step: func(k *Case, e *surface.Event) {
			if e.Doing.Do != surface.Coat {
				return
			}
			p := &k.Craft.Products[e.Doing.Product]
			air := k.Facts.Air(e.Begun, e.Begun)
			switch n := l.beyond(air, p); {
			case n > l.doubtful(p):
				k.Add(Hit{Severity: Fail, Step: e.Step, Value: l.air(air)})
			case n > 0:
				k.Add(Hit{Severity: Watch, Step: e.Step, Value: l.air(air)})
			}
		},
		Say: func(k *Case, h *Hit) (string, string) {
			var names []string
			for i := range k.Trace.Events {
				e := &k.Trace.Events[i]
				s := e.Doing
				if s.Do != surface.Coat || l.beyond(k.Facts.Air(e.Begun, e.Begun), &k.Craft.Products[s.Product]) <= 0 {
					continue
				}
				if n := productName(k.Craft, s.Product); !slices.Contains(names, n) {
					names = append(names, n)
				}
			}
			p := product(k, h)
			u := k.Zone.Units
			return title + " for " + craft.List(names), fmt.Sprintf("%s %s, and %s needs at %s %s%s. %s",
				l.is, l.words(u, h.Value), craft.Lower(p.Name), l.bound(), l.words(u, l.limit(p)), byLabel(p, l.label), l.advice)
		},
		Figures: func(k *Case, h *Hit) []Figure {
			p := product(k, h)
			air, unit := l.figure(k.Zone.Units, h.Value)
			limit, _ := l.figure(k.Zone.Units, l.limit(p))
			return []Figure{
				{"air", air, unit + " in the workshop"},
				{"limit", limit, fmt.Sprintf("%s at %s for %s", unit, l.bound(), craft.Lower(p.Name))},
			}
		},
		Repair: func(m *Repairer, _ *Hit) { m.Measure("Enter the workshop's air once it is right", craft.FieldSite) },
	}
}

func siteRules() []Rule {
	return []Rule{
		airLimit{
			air:   func(air drying.Climate) float64 { return air.TempC },
			limit: func(p *craft.ProductRow) float64 { return p.MinC }, label: craft.LabelMinC,
			least: true, is: "The workshop is at",
			words: measure.Units.Temp, figure: degrees,
			doubtful: func(p *craft.ProductRow) float64 {
				if p.TwoPart {
					return 0 // it never hardens
				}
				return 3
			},
			advice: "Warm the room and the piece, and keep both warm while the coats dry.",
		}.rule("site.cold", "Too cold",
			"Below its limit a coat dries without forming a film: it turns to powder, cracks or stays soft.",
			"The workshop is colder than a product's limit. Watch; fail from more than 3 °C below it, and for two-part products at once."),
		airLimit{
			air:   func(air drying.Climate) float64 { return air.TempC },
			limit: func(p *craft.ProductRow) float64 { return p.MaxC }, label: craft.LabelMaxC,
			is:    "The workshop is at",
			words: measure.Units.Temp, figure: degrees,
			doubtful: func(*craft.ProductRow) float64 { return math.Inf(1) }, // it makes a film all the same
			advice:   "Work in the morning, in the shade, in smaller sections, or add the retarder that its label allows.",
		}.rule("site.hot", "Too hot",
			"In heat a coat dries on the brush: brush marks stay, edges show, and powder paint streaks.",
			"The workshop is warmer than a product allows. Watch."),
		airLimit{
			air:   func(air drying.Climate) float64 { return air.RH },
			limit: func(p *craft.ProductRow) float64 { return p.MaxRH }, label: craft.LabelMaxRH,
			is: "The air has",
			doubtful: func(p *craft.ProductRow) float64 {
				if p.Coat == craft.SH && !p.Opaque() {
					return 15 // clear shellac blooms, and above that it stays white
				}
				return 10
			},
			words:  func(_ measure.Units, rh float64) string { return measure.Number(rh) + " % humidity" },
			figure: func(_ measure.Units, rh float64) (float64, string) { return rh, "% humidity" },
			advice: "Heat and air the room, or wait for a drier day.",
		}.rule("site.humid", "Too humid",
			"In humid air water and solvent leave too slowly: coats bloom, run and hold less.",
			"The workshop's air is more humid than a product's limit. Watch; fail from more than 10 % over it, clear shellac from more than 15 %."),
		{
			Code:   "site.dew",
			Reach:  SoFar | Survey,
			Title:  "Water will condense on the surface",
			Why:    "Close to the dew point invisible water condenses on a surface, and a coat on it blisters or blooms.",
			When:   "The surface is less than 3 °C above the dew point of the air when a coat goes on. Watch; fail below the dew point.",
			Inputs: "the temperature of the surface, or of the air if it was not measured, and the dew point (Magnus formula)",
			Fix:    "warming the piece and drying the air; measuring the surface itself",
			Step: func(k *Case, e *surface.Event) {
				if e.NBounds == 0 {
					return
				}
				switch m := k.Facts.AboveDew(k.Facts.Air(e.Begun, e.Begun)); {
				case m <= 0:
					k.Add(Hit{Severity: Fail, Step: e.Step, Value: m, Limit: drying.AboveDew})
				case m < drying.AboveDew:
					k.Add(Hit{Severity: Watch, Step: e.Step, Value: m, Limit: drying.AboveDew})
				}
			},
			Say: func(k *Case, h *Hit) (string, string) {
				u := k.Zone.Units
				air := k.airAt(h.Step)
				what, at := "The air", air.TempC
				if k.Facts.SurfaceRead && air == k.Facts.Climate {
					what, at = "The surface", k.Facts.SurfaceC
				}
				return "", fmt.Sprintf("%s is at %s and water condenses below %s; inspectors ask for %s between them. Metal, stone and glass are colder than the air: measure them.",
					what, u.Temp(at), u.Temp(drying.DewPoint(air)), u.Difference(h.Limit))
			},
			Figures: func(k *Case, h *Hit) []Figure {
				dew, unit := degrees(k.Zone.Units, drying.DewPoint(k.airAt(h.Step)))
				return []Figure{{"dew_point", dew, unit + " at which water condenses (dew point, Magnus formula)"}, {"margin_c", h.Value, "between it and the surface"}, {"needed_c", h.Limit, "needed"}}
			},
			Repair: func(m *Repairer, _ *Hit) {
				m.Measure("Enter the workshop's air, and the surface temperature, once they are right", craft.FieldSite)
			},
		},
	}
}

// degrees is a temperature as the units have it.
func degrees(u measure.Units, c float64) (float64, string) {
	if u == measure.US {
		return measure.Fahrenheit(c), "°F"
	}
	return c, "°C"
}
