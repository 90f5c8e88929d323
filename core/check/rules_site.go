package check

import (
	"fmt"
	"slices"

	"rutile/core/craft"
	"rutile/core/surface"
)

// airLimit is one limit of a product's that the workshop's air may break.
type airLimit struct {
	beyond   func(*surface.Facts, *craft.ProductRow) float64 // by how much; not above 0 inside it
	doubtful float64                                         // up to so much may still turn out well
	air      func(*surface.Facts) string
	wants    func(*craft.ProductRow) string
	advice   string
}

func (l airLimit) rule(code, title, why, when string) Rule {
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
			p := &k.Craft.Products[k.Zone.Steps[h.Step-1].Product]
			return title + " for " + list(names),
				fmt.Sprintf("%s, and %s wants %s. %s", l.air(k.Facts), lower(p.Name), l.wants(p), l.advice)
		},
		Mend: func(m *Mender, _ *Hit) { m.Measure("Enter the workshop's air once it is right", "site") },
	}
}

var siteRules = []Rule{
	airLimit{
		func(f *surface.Facts, p *craft.ProductRow) float64 { return p.MinC - f.Climate.TempC }, 3,
		func(f *surface.Facts) string {
			return fmt.Sprintf("The workshop is at %s °C", number(f.Climate.TempC))
		},
		func(p *craft.ProductRow) string { return fmt.Sprintf("at least %s °C", number(p.MinC)) },
		"Warm the room and the piece, and keep both warm while the coats dry.",
	}.rule("site.cold", "Too cold",
		"Below its limit a coat dries without becoming a film: it powders, cracks or stays soft.",
		"The workshop is colder than a product's limit. Watch; fail from more than 3 °C below it."),
	airLimit{
		func(f *surface.Facts, p *craft.ProductRow) float64 { return f.Climate.RH - p.MaxRH }, 10,
		func(f *surface.Facts) string {
			return fmt.Sprintf("The air holds %s %% humidity", number(f.Climate.RH))
		},
		func(p *craft.ProductRow) string { return fmt.Sprintf("at most %s %%", number(p.MaxRH)) },
		"Heat and air the room, or wait for a drier day.",
	}.rule("site.humid", "Too damp an air",
		"In damp air water and solvent leave too slowly: coats bloom, run and hold less.",
		"The workshop's air is damper than a product's limit. Watch; fail from more than 10 % over it."),
}
