package instruments

import (
	"hash/fnv"
	"math"
	"math/rand/v2"
	"time"

	"rutile/core/drying"
)

// Room is a stand-in for a sensor in a workshop without climate control over a
// wet autumn: cold at night, a heater in working hours, showers that bring the
// humidity up, and surfaces that lag behind the air.
type Room struct{ Seed uint64 }

// Info describes the sensor.
func (r *Room) About() Info {
	return Info{ID: "room", Name: "Room sensor", Measures: []Quantity{TempC, RHPct, SurfaceC}, Simulated: true}
}

// Read gives the air at a moment.
func (r *Room) Read(_ Spot, at time.Time) (Reading, error) {
	t := r.temp(at)
	return Reading{at, r.About().Name, true, map[Quantity]float64{
		TempC: round(t, 1), RHPct: round(drying.Humidity(t, min(r.dew(at), t-.3)), 0), SurfaceC: round(r.surface(at), 1),
	}}, nil
}

// Course is the air from one moment to another, a reading every so often.
func (r *Room) Course(from, to time.Time, every time.Duration) []Reading {
	var out []Reading
	for at := from; !at.After(to); at = at.Add(every) {
		x, _ := r.Read(Spot{}, at)
		out = append(out, x)
	}
	return out
}

// rng gives the chances of one day, always the same for the same seed.
func (r *Room) rng(day int64, salt uint64) *rand.Rand {
	return rand.New(rand.NewPCG(r.Seed^salt, uint64(day)))
}

// dayOf numbers days by the clock on the wall, and tells the hour.
func dayOf(at time.Time) (int64, float64) {
	_, offset := at.Zone()
	s := at.Unix() + int64(offset)
	day := int64(math.Floor(float64(s) / 86400))
	return day, float64(s-day*86400) / 3600
}

// between blends a day's figure into the next one's, so that nothing jumps at midnight.
func (r *Room) between(at time.Time, salt uint64, mean, spread float64) float64 {
	day, hour := dayOf(at)
	a, b := mean+spread*r.rng(day, salt).NormFloat64(), mean+spread*r.rng(day+1, salt).NormFloat64()
	return a + (b-a)*hour/24
}

// The workshop's heater: when it runs, by how much it warms, and how slowly.
const (
	heaterOn, heaterOff = 8., 18.
	heaterWarms         = 4.2
	heaterSlow          = 1.6 // hours
)

func (r *Room) temp(at time.Time) float64 {
	_, hour := dayOf(at)
	t := r.between(at, 1, 12.6, .9) + 1.5*math.Cos((hour-15)/24*2*math.Pi)
	// What the heater has brought in and what has leaked out again since.
	warm := func(h float64) float64 {
		switch {
		case h < heaterOn:
			return 0
		case h < heaterOff:
			return 1 - math.Exp(-(h-heaterOn)/heaterSlow)
		}
		return (1 - math.Exp(-(heaterOff-heaterOn)/heaterSlow)) * math.Exp(-(h-heaterOff)/(2*heaterSlow))
	}
	return t + heaterWarms*(warm(hour)+warm(hour+24))
}

// dew is the dew point of the air: the season's, more while it rains.
func (r *Room) dew(at time.Time) float64 {
	d := r.between(at, 2, 8.4, 1)
	day, hour := dayOf(at)
	for back := range int64(2) { // a shower may outlast midnight
		rng := r.rng(day-back, 3)
		for range 1 + rng.IntN(3) {
			begins, lasts := rng.Float64()*24, 1+2.5*rng.Float64()
			since := hour + 24*float64(back) - begins
			if since > 0 {
				d += 2.2 * (1 - math.Exp(-min(since, lasts)/.6)) * math.Exp(-max(0, since-lasts)/1.5)
			}
		}
	}
	return d
}

// surface is the temperature of what stands in the room: it follows the air
// with a lag, and near the floor it is a little colder.
func (r *Room) surface(at time.Time) float64 {
	sum, weight := 0., 0.
	for h := 0.; h <= 6; h += .5 {
		w := math.Exp(-h / 2)
		sum += w * r.temp(at.Add(-time.Duration(h*float64(time.Hour))))
		weight += w
	}
	return sum/weight - .5
}

// glossMeter is a stand-in for a gloss meter at 60 degrees.
type glossMeter struct{ seed uint64 }

func (*glossMeter) About() Info {
	return Info{ID: "gloss", Name: "Gloss meter", Measures: []Quantity{GlossUnits}, OnSpot: true, Simulated: true}
}

// usualGloss is the gloss of finishes where it was not recorded, in gloss units at 60 degrees.
// Working default.
var usualGloss = map[string]float64{
	"wax": 18, "oil": 14, "shellac": 62, "lacquer": 48, "varnish_oil": 55, "polyurethane": 60, "finish_wb": 30, "catalysed": 38,
	"paint_alkyd_old": 52, "paint_acrylic_old": 22, "paint_porous_old": 4, "paint_porous_waxed": 12, "paint_factory": 65, "factory_film": 30,
	"foil": 34, "powder": 58, "plating": 96, "none": 7, "stain_only": 6,
}

func (m *glossMeter) Read(on Spot, at time.Time) (Reading, error) {
	if on.Group == "cloth and leather" || on.Group == "cane" {
		return Reading{}, errorf("A gloss meter needs a flat, hard spot; it does not work on this surface.")
	}
	g := on.Gloss
	if g < 0 {
		g = 30
		if u, ok := usualGloss[on.Finish]; ok {
			g = u
		}
		if on.Finish == "none" && (on.Group == "glass" || on.Group == "metal" || on.Group == "laminate and vinyl" || on.Group == "plastic") {
			g = 45
		}
	}
	g *= math.Exp(.06 * noise(m.seed, "gloss", on.Key))
	return Reading{at, m.About().Name, true, map[Quantity]float64{GlossUnits: round(min(max(g, .5), 140), 0)}}, nil
}

// moistureMeter is a stand-in for a pin meter.
type moistureMeter struct {
	seed uint64
	room *Room
}

func (*moistureMeter) About() Info {
	return Info{ID: "moisture", Name: "Moisture meter", Measures: []Quantity{MoisturePct}, OnSpot: true, Simulated: true}
}

func (m *moistureMeter) Read(on Spot, at time.Time) (Reading, error) {
	// Wood answers to the air of the days before and not to that of the hour.
	var air drying.Climate
	const days, aDay = 10, 4
	for n := range days * aDay {
		x, _ := m.room.Read(Spot{}, at.Add(-time.Duration(n)*24*time.Hour/aDay))
		air.TempC += x.Values[TempC] / (days * aDay)
		air.RH += x.Values[RHPct] / (days * aDay)
	}
	w := drying.WoodMoisture(air)
	switch on.Group {
	case "wood", "cane":
	case "board":
		w *= .85 // boards hold less than wood in the same air
	case "mineral":
		w *= .45
	default:
		return Reading{}, errorf("A moisture meter works on wood, board, clay and plaster, not on this.")
	}
	if on.Damp {
		w += 4
	}
	w += .5 * noise(m.seed, "moisture", on.Key)
	return Reading{at, m.About().Name, true, map[Quantity]float64{MoisturePct: round(max(w, 2), 1)}}, nil
}

// noise is a standard normal deviate that belongs to a spot.
func noise(seed uint64, what, key string) float64 {
	h := fnv.New64a()
	h.Write([]byte(what + "/" + key))
	return rand.New(rand.NewPCG(seed, h.Sum64())).NormFloat64()
}

func round(x float64, digits int) float64 {
	k := math.Pow(10, float64(digits))
	return math.Round(x*k) / k
}
