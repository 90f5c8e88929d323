package parts

// Furniture is a kind of piece, for one whose parts nobody entered: how fiddly it is follows from what
// it is. Working defaults.
type Furniture struct {
	ID, Name string
	// Work is how much longer a square metre takes than on a plain panel, and Edges the metres of edges
	// that a brush cuts along on a square metre.
	Work, Edges float64
}

// Furnitures lists them, the everyday ones first.
var Furnitures = []Furniture{
	{"chest", "Chest of drawers", 1.1, 6},
	{"cabinet", "Cabinet or cupboard", 1.1, 5},
	{"wardrobe", "Wardrobe", 1.05, 3.5},
	{"bookcase", "Bookcase", 1.2, 6},
	{"shelf", "Shelf", 1.1, 5},
	{"table", "Table", 1.2, 5},
	{"side_table", "Side table", 1.3, 7},
	{"desk", "Desk", 1.15, 5},
	{"chair", "Chair with plain legs", 1.6, 12},
	{"spindle_chair", "Chair with spindles", 2.5, 18},
	{"stool", "Stool", 1.6, 12},
	{"seat", "Seat or pad", 1, 4},
	{"bench", "Bench", 1.4, 9},
	{"cot", "Cot or bed with bars", 2.2, 18},
	{"box", "Box or trunk", 1.1, 6},
	{"drawer", "Drawer", 1.2, 6},
	{"doors", "Cabinet doors", 1.15, 6},
	{"door", "Door", 1.2, 4},
	{"frame", "Mirror or picture frame", 1.7, 12},
	{"lamp", "Lamp", 1.7, 8},
	{"stand", "Stand", 1.6, 10},
	{"tray", "Tray", 1.2, 8},
	{"pot", "Pot or planter", 1.1, 3},
}

// FurnitureNamed returns the kind of piece with an id; nil if there is none.
func FurnitureNamed(id string) *Furniture {
	for i := range Furnitures {
		if Furnitures[i].ID == id {
			return &Furnitures[i]
		}
	}
	return nil
}
