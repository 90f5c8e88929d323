package craft

// Met is what is met on a material: the ids of finishes, soils and bleeders, the usual ones
// first. What is not among them can hardly be there.
type Met struct{ Finishes, Soils, Bleeders []string }

// metOn is by groups of materials. Working defaults.
var metOn = map[Group]Met{
	GroupWood: {
		Finishes: []string{"varnish_oil", "lacquer", "wax", "none", "shellac", "oil", "polyurethane", "paint_alkyd_old", "paint_acrylic_old", "paint_porous_old", "finish_wb", "stain_only", "catalysed", "paint_porous_waxed", "paint_factory", "unknown"},
		Soils:    []string{"grime", "grease", "wax_polish", "dust", "silicone", "nicotine", "mould", "cleaner_residue"},
		Bleeders: []string{"tannin", "resin", "dye", "nicotine", "watermark", "grease_spot"},
	},
	GroupBoard: {
		Finishes: []string{"none", "lacquer", "paint_factory", "paint_acrylic_old", "paint_alkyd_old", "factory_film", "foil", "catalysed", "finish_wb", "polyurethane", "unknown"},
		Soils:    []string{"grime", "grease", "dust", "silicone", "adhesive", "nicotine", "mould"},
		Bleeders: []string{"tannin", "nicotine", "watermark", "ink", "grease_spot", "dye"},
	},
	GroupCane: {
		Finishes: []string{"none", "lacquer", "varnish_oil", "shellac", "polyurethane", "finish_wb", "paint_acrylic_old", "paint_alkyd_old", "oil", "wax", "stain_only", "unknown"},
		Soils:    []string{"dust", "grime", "grease", "mould", "nicotine", "wax_polish"},
		Bleeders: []string{"tannin", "dye", "nicotine", "watermark"},
	},
	GroupFilm: {
		Finishes: []string{"none", "factory_film", "foil", "paint_acrylic_old", "paint_alkyd_old", "paint_porous_old", "paint_porous_waxed", "unknown"},
		Soils:    []string{"grease", "grime", "silicone", "dust", "nicotine", "adhesive", "limescale", "cleaner_residue"},
		Bleeders: []string{"nicotine", "ink", "grease_spot", "dye", "plasticiser"},
	},
	GroupCloth: {
		Finishes: []string{"none", "paint_porous_old", "paint_porous_waxed", "paint_acrylic_old", "wax", "unknown"},
		Soils:    []string{"dust", "grime", "grease", "softener", "mould", "nicotine", "silicone"},
		Bleeders: []string{"dye", "plasticiser", "ink", "grease_spot", "watermark", "nicotine"},
	},
	GroupMetal: {
		Finishes: []string{"none", "powder", "paint_factory", "lacquer", "plating", "paint_alkyd_old", "paint_acrylic_old", "paint_porous_old", "wax", "unknown"},
		Soils:    []string{"grease", "grime", "dust", "rust_loose", "oxide", "oil_cutting", "silicone", "adhesive"},
		Bleeders: []string{"rust", "nicotine", "bitumen", "ink", "red_paint"},
	},
	GroupGlass: {
		Finishes: []string{"none", "paint_acrylic_old", "paint_alkyd_old", "paint_porous_old", "unknown"},
		Soils:    []string{"grease", "grime", "limescale", "dust", "silicone", "adhesive", "nicotine"},
		Bleeders: []string{"nicotine", "ink", "rust"},
	},
	GroupMineral: {
		Finishes: []string{"none", "paint_porous_old", "paint_acrylic_old", "paint_alkyd_old", "wax", "oil", "paint_porous_waxed", "unknown"},
		Soils:    []string{"dust", "grime", "salts", "mould", "grease", "limescale", "release_agent"},
		Bleeders: []string{"salts", "nicotine", "watermark", "grease_spot", "rust", "ink"},
	},
	GroupPlastic: {
		Finishes: []string{"none", "paint_factory", "paint_acrylic_old", "paint_alkyd_old", "paint_porous_old", "plating", "unknown"},
		Soils:    []string{"grime", "grease", "dust", "silicone", "release_agent", "adhesive", "nicotine"},
		Bleeders: []string{"plasticiser", "dye", "ink", "nicotine"},
	},
}

// Met returns what is met on the material.
func (r *SubstrateRow) Met() Met { return metOn[r.Group] }
