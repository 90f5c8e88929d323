package check

import (
	"fmt"
	"slices"

	"rutile/core/craft"
	"rutile/core/measure"
	"rutile/core/surface"
)

// airLimit is one limit of a product's that the workshop's air may break.
type airLimit struct {
	air   func(*surface.Facts) float64
	limit func(*craft.ProductRow) float64
	least bool // the limit is the least the air may be, and not the most
	// doubtful is how far beyond its limit a coat may still turn out well.
	doubtful float64
	// words say a figure of either with its unit, within a sentence; figure is
	// the value alone, as the units have it.
	words  func(measure.Units, float64) string
	figure func(measure.Units, float64) (float64, string)
	is     string // what the air is, before its figure
	advice string
}

// beyond is by how much the air breaks a product's limit; not above 0 inside
// it.
func (l *airLimit) beyond(f *surface.Facts, p *craft.ProductRow) float64 {
	if l.least {
		return l.limit(p) - l.air(f)
	}
	return l.air(f) - l.limit(p)
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
		Code: code, Title: title, Why: why, When: when,
		Step: func(k *Case, e *surface.Event) {
			if e.Doing.Do != surface.Coat {
				return
			}
			switch n := l.beyond(k.Facts, &k.Craft.Products[e.Doing.Product]); {
			case n > l.doubtful:
				k.add(Hit{Severity: Fail, Step: e.Step})
			case n > 0:
				k.add(Hit{Severity: Watch, Step: e.Step})
			}
		},
		Say: func(k *Case, h *Hit) (string, string) {
			var names []string
			for i := range k.Zone.Steps {
				s := &k.Zone.Steps[i]
				if s.Do != surface.Coat || l.beyond(k.Facts, &k.Craft.Products[s.Product]) <= 0 {
					continue
				}
				if n := productName(k.Craft, s.Product); !slices.Contains(names, n) {
					names = append(names, n)
				}
			}
			p := product(k, h)
			u := k.Zone.Units
			return title + " for " + craft.List(names), fmt.Sprintf("%s %s, and %s wants at %s %s. %s",
				l.is, l.words(u, l.air(k.Facts)), craft.Lower(p.Name), l.bound(), l.words(u, l.limit(p)), l.advice)
		},
		Figures: func(k *Case, h *Hit) []Figure {
			p := product(k, h)
			air, unit := l.figure(k.Zone.Units, l.air(k.Facts))
			limit, _ := l.figure(k.Zone.Units, l.limit(p))
			return []Figure{
				{"air", air, unit + " in the workshop"},
				{"limit", limit, fmt.Sprintf("%s at %s for %s", unit, l.bound(), craft.Lower(p.Name))},
			}
		},
		Mend: func(m *Mender, _ *Hit) { m.Measure("Enter the workshop's air once it is right", "site") },
	}
}

var siteRules = []Rule{
	airLimit{
		air:   func(f *surface.Facts) float64 { return f.Climate.TempC },
		limit: func(p *craft.ProductRow) float64 { return p.MinC },
		least: true, doubtful: 3, is: "The workshop is at",
		words: measure.Units.Temp,
		figure: func(u measure.Units, c float64) (float64, string) {
			if u == measure.US {
				return measure.Fahrenheit(c), "°F"
			}
			return c, "°C"
		},
		advice: "Warm the room and the piece, and keep both warm while the coats dry.",
	}.rule("site.cold", "Too cold",
		"Below its limit a coat dries without becoming a film: it powders, cracks or stays soft.",
		"The workshop is colder than a product's limit. Watch; fail from more than 3 °C below it."),
	airLimit{
		air:      func(f *surface.Facts) float64 { return f.Climate.RH },
		limit:    func(p *craft.ProductRow) float64 { return p.MaxRH },
		doubtful: 10, is: "The air holds",
		words:  func(_ measure.Units, rh float64) string { return number(rh) + " % humidity" },
		figure: func(_ measure.Units, rh float64) (float64, string) { return rh, "% humidity" },
		advice: "Heat and air the room, or wait for a drier day.",
	}.rule("site.humid", "Too damp an air",
		"In damp air water and solvent leave too slowly: coats bloom, run and hold less.",
		"The workshop's air is damper than a product's limit. Watch; fail from more than 10 % over it."),
}
