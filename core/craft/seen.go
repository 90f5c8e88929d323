package craft

// SeenRow is something that is looked for on a coat while the work goes on, on a scale of pictures.
type SeenRow struct {
	ID, Name string
	// Levels are the steps of the scale, from none: what they are called, and the share of the face that is chipped,
	// cracked or worn there. The pictures are drawn from the share.
	Levels []SeenLevel
}

// SeenLevel is one step of such a scale.
type SeenLevel struct {
	Says  string
	Share float64
}

// SeenRows are what is looked for. The shares follow the usual scales of degree of defects, which double or treble
// from step to step. Working defaults.
var SeenRows = []SeenRow{
	{"chips", "Chips", []SeenLevel{{"none", 0}, {"a few specks", .01}, {"here and there", .05}, {"a lot", .15}, {"about a third", .35}, {"most of it", .65}}},
	{"cracks", "Cracks", []SeenLevel{{"none", 0}, {"hair-fine", .01}, {"fine, all over", .05}, {"clear lines", .12}, {"wide", .25}, {"wide, with lifted edges", .4}}},
	{"wear", "Wear", []SeenLevel{{"none", 0}, {"edges only", .03}, {"edges and corners", .08}, {"edges and raised parts", .18}, {"large patches", .35}, {"more bare than painted", .6}}},
	{"runs", "Runs and drips", []SeenLevel{{"none", 0}, {"one", .01}, {"several", .05}, {"many", .15}}},
}

// LaidRow is how thick a coat was laid, as a painter would say it.
type LaidRow struct {
	ID, Name string
	Times    float64 // the usual film
}

// LaidRows lists them. Working defaults.
var LaidRows = []LaidRow{{"usual", "As usual", 1}, {"thick", "Thick", 1.5}, {"thin", "Thin", .7}}

// SeenNamed returns the row with an id; nil for none.
func SeenNamed(id string) *SeenRow {
	for i := range SeenRows {
		if SeenRows[i].ID == id {
			return &SeenRows[i]
		}
	}
	return nil
}
