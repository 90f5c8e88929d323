package drying

import (
	"math"
	"testing"

	"rutile/core/craft"
)

func near(t *testing.T, what string, got, want, tol float64) {
	t.Helper()
	if math.IsNaN(got) || math.Abs(got-want) > tol {
		t.Errorf("%s is %v, want %v", what, got, want)
	}
}

func TestFactor(t *testing.T) {
	for _, x := range []struct {
		name string
		car  craft.Carrier
		cl   Climate
		want float64
	}{
		{"water at standard", craft.Water, Standard, 1},
		{"alcohol at standard", craft.Alcohol, Standard, 1},
		{"solvent at standard", craft.Solvent, Standard, 1},
		{"water, 12 C colder", craft.Water, Climate{11, 50}, 2},
		{"water, 12 C warmer", craft.Water, Climate{35, 50}, .5},
		{"water at 75 %", craft.Water, Climate{23, 75}, math.Sqrt2}, // sqrt(.5/.25)
		{"water at 99 % counts as 90 %", craft.Water, Climate{23, 99}, math.Sqrt(5)},
		{"water at 100 % counts as 90 %", craft.Water, Climate{23, 100}, math.Sqrt(5)},
		{"solvent at 80 %", craft.Solvent, Climate{23, 80}, 1.09},
		{"strong solvent at 80 %", craft.StrongSolvent, Climate{23, 80}, 1.09},
		{"oil at 30 %", craft.OilCarrier, Climate{23, 30}, .94},
		{"alcohol at 80 %", craft.Alcohol, Climate{23, 80}, 1.18},
	} {
		near(t, x.name, Factor(x.car, x.cl), x.want, 1e-9)
	}
}

func TestHoursNeverShorterWhenColderOrDamper(t *testing.T) {
	for _, car := range []craft.Carrier{craft.Water, craft.Alcohol, craft.Solvent, craft.StrongSolvent, craft.Paste, craft.OilCarrier} {
		for temp := 0.; temp < 40; temp++ {
			for rh := 5.; rh < 95; rh += 5 {
				if Factor(car, Climate{temp, rh}) < Factor(car, Climate{temp + 1, rh}) {
					t.Fatalf("%s dries faster at %v C than a degree warmer", car, temp)
				}
				if Factor(car, Climate{temp, rh + 5}) < Factor(car, Climate{temp, rh}) {
					t.Fatalf("%s dries faster at %v %% than in drier air", car, rh+5)
				}
			}
		}
	}
}

func TestCureFraction(t *testing.T) {
	near(t, "nothing yet", CureFraction(0, 30, Standard), 0, 1e-9)
	near(t, "a third of the cure time", CureFraction(10, 30, Standard), 1-math.Exp(-1), 1e-9)
	near(t, "the label's time", CureFraction(30, 30, Standard), .950213, 1e-6)
	near(t, "in the cold", CureFraction(30, 30, Climate{11, 50}), 1-math.Exp(-1.5), 1e-9)
	near(t, "humidity does not matter", CureFraction(30, 30, Climate{23, 90}), CureFraction(30, 30, Standard), 1e-12)
	near(t, "nothing to cure", CureFraction(0, 0, Standard), 1, 0)
}

// Figures of the Magnus formula, as printed in tables of the dew point.
func TestDewPoint(t *testing.T) {
	for _, x := range []struct{ temp, rh, want float64 }{
		{20, 50, 9.3}, {25, 60, 16.7}, {10, 80, 6.7}, {20, 100, 20}, {30, 30, 10.5}, {5, 90, 3.5},
	} {
		near(t, "dew point", DewPoint(Climate{x.temp, x.rh}), x.want, .1)
	}
	if d := DewPoint(Climate{20, 0}); math.IsInf(d, 0) || math.IsNaN(d) {
		t.Errorf("in bone-dry air the dew point is %v", d)
	}
}

func TestHumidityUndoesTheDewPoint(t *testing.T) {
	for _, cl := range []Climate{{5, 90}, {17, 64}, {30, 20}} {
		if got := Humidity(cl.TempC, DewPoint(cl)); math.Abs(got-cl.RH) > 1e-9 {
			t.Errorf("%v comes back as %v %%", cl, got)
		}
	}
}

// Against the table of equilibrium moisture content of the US Forest Products
// Laboratory.
func TestWoodMoisture(t *testing.T) {
	for _, x := range []struct{ c, rh, emc float64 }{{21.1, 30, 6.2}, {21.1, 50, 9.2}, {21.1, 65, 12.0}, {21.1, 80, 16.0}, {10, 70, 13.4}} {
		if got := WoodMoisture(Climate{x.c, x.rh}); math.Abs(got-x.emc) > .15 {
			t.Errorf("%v C and %v %%: %.2f %%, want %v", x.c, x.rh, got, x.emc)
		}
	}
}
