// Package drying says how long coats take in the air of a workshop.
package drying

import (
	"math"

	"rutile/core/craft"
)

// Climate is the air of a workshop: degrees Celsius and per cent relative
// humidity.
type Climate struct{ TempC, RH float64 }

// Standard is the climate that product figures are given for.
var Standard = Climate{23, 50}

// Usual is taken where neither a piece nor a studio gives a climate.
var Usual = Climate{20, 50}

// maxRH caps the humidity that the water-based formula is used at: beyond it
// the figure would run away, and no product may be applied there anyhow.
const maxRH = .9

// Factor is how many times longer than at [Standard] a coat of the given
// carrier takes to dry: twice for every 12 degrees below 23 C, and longer in
// damp air, most of all for water. It is for drying and for windows, not for
// cure. Working default.
func Factor(car craft.Carrier, cl Climate) float64 {
	rh := min(max(cl.RH/100, 0), maxRH)
	t := math.Exp2((Standard.TempC - cl.TempC) / 12)
	switch car {
	case craft.Water:
		return t * math.Sqrt((1-Standard.RH/100)/(1-rh))
	case craft.Alcohol:
		return t * (1 + .6*(rh-.5))
	case craft.Dry:
		return t
	default:
		return t * (1 + .3*(rh-.5))
	}
}

// CureFraction is how far a coat has hardened after some days, 0 to 1, when
// its label gives cure days at 23 C. Warmth counts, humidity does not.
// Working default.
func CureFraction(days, cure float64, cl Climate) float64 {
	if cure <= 0 {
		return 1
	}
	return 1 - math.Exp(-3*days/(cure*math.Exp2((Standard.TempC-cl.TempC)/12)))
}

// CureDays is after how many days a coat has hardened to a share, 0 to below 1:
// the reverse of [CureFraction].
func CureDays(share, cure float64, cl Climate) float64 {
	return -math.Log(1-share) / 3 * cure * math.Exp2((Standard.TempC-cl.TempC)/12)
}

// DewPoint is the temperature in Celsius at which the air would begin to
// leave water on a surface, by the Magnus formula (coefficients 17.62 and
// 243.12 C, good from -45 to 60 C).
func DewPoint(cl Climate) float64 {
	g := math.Log(max(cl.RH, 1)/100) + magnusA*cl.TempC/(magnusB+cl.TempC)
	return magnusB * g / (magnusA - g)
}

// The Magnus formula's coefficients over water.
const magnusA, magnusB = 17.62, 243.12

// Humidity is the relative humidity in per cent of air of a temperature whose
// dew point is known, both in Celsius, by the same formula.
func Humidity(tempC, dewC float64) float64 {
	return 100 * math.Exp(magnusA*dewC/(magnusB+dewC)-magnusA*tempC/(magnusB+tempC))
}

// AboveDew is how many degrees a surface must be warmer than the dew point for
// a coat to go on it, by the usual practice of coating inspection.
const AboveDew = 3.

// WoodMoisture is the moisture content in per cent that wood comes to in air
// that stays as it is, by the Hailwood-Horrobin equation with the coefficients of
// the US Forest Products Laboratory.
func WoodMoisture(cl Climate) float64 {
	t, h := cl.TempC, min(max(cl.RH, 0), 99)/100
	w := 349 + 1.29*t + .0135*t*t
	k := .805 + .000736*t - .00000273*t*t
	k1 := 6.27 - .00938*t - .000303*t*t
	k2 := 1.91 + .0407*t - .000293*t*t
	return 1800 / w * (k*h/(1-k*h) + (k1*k*h+2*k1*k2*k*k*h*h)/(1+k1*k*h+k1*k2*k*k*h*h))
}
