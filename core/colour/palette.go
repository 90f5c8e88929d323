package colour

// Swatch is a named colour of a palette.
type Swatch struct{ Name, Hex string }

// PaletteName is the name of the palette that comes with the program.
const PaletteName = "Foyer"

// Palette is a palette of colours with made-up names, to start from: whites, the earths, and colours to mix
// with. Working default.
var Palette = []Swatch{
	{"Ticket white", "#f4f1e8"}, {"Plaster bag", "#ece4d6"}, {"Candle end", "#efe3c4"}, {"Oat sack", "#ddd0b6"},
	{"String", "#c9b892"}, {"Wet sand", "#b39b74"}, {"Glue pot", "#8f7449"}, {"Cord brown", "#6b5237"},
	{"Stage floor", "#3f3128"}, {"Soot", "#26231f"}, {"Pewter mug", "#8d9190"}, {"Rain gutter", "#6c7274"},
	{"Slate step", "#4a5154"}, {"Zinc pail", "#b4babb"}, {"Fog", "#d3d8d8"}, {"Duck egg shell", "#c5d4cb"},
	{"Sage jar", "#a3b09a"}, {"Garden gate", "#5f7a63"}, {"Bottle end", "#2f4a3c"}, {"Moss rope", "#6d7444"},
	{"Mustard tin", "#c79a3a"}, {"Lemon rind", "#e3c65b"}, {"Straw hat", "#e7d49a"}, {"Brick dust", "#a4583f"},
	{"Rust nail", "#7f3d28"}, {"Curtain red", "#8e2b2d"}, {"Plum jam", "#5b2c3b"}, {"Rose soap", "#d9aaa3"},
	{"Shell", "#ecd3c8"}, {"Lavender bag", "#a79bb4"}, {"Ink", "#27324a"}, {"Delft tile", "#3f5f8a"},
	{"Sky light", "#a9c2d3"}, {"Harbour", "#4f7480"}, {"Teal trunk", "#2f6266"}, {"Copper green", "#7fa795"},
}
