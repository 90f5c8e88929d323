package format

import (
	"bytes"
	"encoding/json"
	"maps"
	"slices"
	"sync"

	"github.com/santhosh-tekuri/jsonschema/v6"

	"rutile/core/apart"
	"rutile/core/craft"
	"rutile/core/identify"
	"rutile/core/parts"
	"rutile/core/surface"
)

// SchemaID names the schema; nothing is ever fetched from it.
const SchemaID = "urn:rutile:piece:1"

// momentPattern is what the moment of a reading looks like.
const momentPattern = "^[0-9]{4}-[0-9]{2}-[0-9]{2}T[0-9]{2}:[0-9]{2}"

type object = map[string]any

// stepFields are, for each kind of step, the fields it takes beside do, and
// those of them that it needs.
var stepFields = map[string]struct {
	fields, needs []string
}{
	"clean":       {[]string{"with", "rinse", "passes"}, []string{"with"}},
	"abrade":      {[]string{"grit", "how", "through"}, nil},
	"dust":        {},
	"strip":       {[]string{"how"}, []string{"how"}},
	"fill":        {[]string{"with"}, []string{"with"}},
	"repair":      {[]string{"what"}, nil},
	"mask":        {[]string{"what"}, nil},
	"remove":      {[]string{"what"}, []string{"what"}},
	"raise_grain": {},
	"reassemble":  {},
	"coat":        {[]string{"product", "coats", "wait_h", "method", "additive", "water_ratio", "thin_pct", "sheen", "colour", "scope"}, []string{"product"}},
	"effect":      {[]string{"effect", "heat", "wetted", "resist", "grit", "share"}, []string{"effect"}},
	"wait":        {[]string{"hours"}, []string{"hours"}},
	"test":        {[]string{"rating"}, []string{"rating"}},
}

// Schema returns the JSON Schema (draft 2020-12) of the piece file, indented.
// Its lists of ids come from the craft's tables.
func Schema() []byte {
	c := craft.Default()
	enum := func(ids []string) object { return object{"enum": ids} }
	text := object{"type": "string", "maxLength": MaxName}
	note := object{"type": "string", "maxLength": MaxText}
	label := object{"type": "string", "minLength": 1, "maxLength": 8}
	zoneID := object{"type": "string", "pattern": idPattern}
	colour := object{"type": "string", "pattern": "^#[0-9a-fA-F]{6}$"}
	date := object{"type": "string", "pattern": "^[0-9]{4}-[0-9]{2}-[0-9]{2}$"}
	moment := object{"type": "string", "pattern": momentPattern}
	num := func(lo, hi float64) object { return object{"type": "number", "minimum": lo, "maximum": hi} }
	count := func(lo, hi int) object { return object{"type": "integer", "minimum": lo, "maximum": hi} }
	list := func(of object, most int) object { return object{"type": "array", "items": of, "maxItems": most} }
	closed := func(props object, required ...string) object {
		o := object{"type": "object", "properties": props, "additionalProperties": false}
		if len(required) > 0 {
			o["required"] = required
		}
		return o
	}
	level := func(ids []string) object {
		return closed(object{"id": enum(ids), "level": count(0, craft.MaxLevel)}, "id", "level")
	}
	soils, bleeders := ids(craft.Soils[:], func(r craft.SoilRow) string { return r.ID }), ids(craft.Bleeders[:], func(r craft.BleederRow) string { return r.ID })
	sheens := ids(craft.Sheens[1:], func(r craft.SheenRow) string { return r.ID })
	effects := ids(c.Effects, func(r craft.EffectRow) string { return r.ID })
	products := ids(c.Products, func(r craft.ProductRow) string { return r.ID })

	field := object{
		"rinse": object{"type": "boolean"}, "through": object{"type": "boolean"},
		"heat": object{"type": "boolean"}, "wetted": object{"type": "boolean"},
		"passes": count(1, 20), "coats": count(1, 20), "rating": count(0, 5),
		"grit": count(craft.MinGrit, craft.MaxGrit), "what": text,
		"product": enum(products), "wait_h": num(0, 8760), "hours": num(0, 87600),
		"method": enum(ids(craft.Methods, func(r craft.MethodRow) string { return r.ID })),
		"additive": closed(object{
			"product": object{"const": craft.AdditiveID}, "ratio": num(0, 2),
			"coats": enum([]string{"all", "first"}),
		}, "product", "ratio"),
		"water_ratio": num(.2, 5), "thin_pct": num(0, 300), "sheen": enum(sheens), "colour": colour,
		"scope": enum(craft.Scopes), "effect": enum(effects), "resist": enum(craft.Resists), "share": num(0, 1),
	}
	kinds := ids(surface.Kinds[:], func(r surface.KindRow) string { return r.ID })
	defs := object{}
	// One kind is asked for after the other, the frequent ones first: that is
	// several times quicker than asking for every kind at every step.
	chain := object{}
	for _, kind := range slices.Backward(often(kinds)) {
		sf := stepFields[kind]
		props := object{"do": object{"const": kind}}
		for _, f := range sf.fields {
			props[f] = field[f]
		}
		switch kind {
		case "clean":
			props["with"] = enum(ids(c.Cleaners, func(r craft.CleanerRow) string { return r.ID }))
		case "fill":
			props["with"] = enum(craft.Fillers)
		case "abrade":
			var hows []string
			for _, h := range craft.Hows {
				hows = append(hows, string(h.ID))
			}
			props["how"] = enum(hows)
		case "strip":
			props["how"] = enum(craft.Strips)
		}
		defs["step_"+kind] = closed(props, append([]string{"do"}, sf.needs...)...)
		chain = object{
			"if":   object{"properties": object{"do": object{"const": kind}}, "required": []string{"do"}},
			"then": object{"$ref": "#/$defs/step_" + kind},
			"else": chain,
		}
	}
	defs["step"] = object{
		"type": "object", "required": []string{"do"},
		"properties": object{"do": enum(kinds)},
	}
	maps.Copy(defs["step"].(object), chain)
	defs["zone"] = closed(object{
		"id":        zoneID,
		"name":      text,
		"substrate": enum(ids(c.Substrates, func(r craft.SubstrateRow) string { return r.ID })),
		"veneer":    object{"type": "boolean"},
		"finish":    enum(ids(c.Finishes, func(r craft.FinishRow) string { return r.ID })),
		"gloss":     enum(sheens), "gloss_gu": num(0, 150), "colour": colour,
		"moisture_pct": num(0, 100), "age_days": num(0, 100000),
		"soils":    list(level(soils), int(craft.NumSoils)),
		"bleeders": list(level(bleeders), int(craft.NumBleeders)),
		"defects": list(closed(object{
			"id":    enum(ids(craft.Defects, func(r craft.DefectRow) string { return r.ID })),
			"count": count(0, 1000), "length_cm": num(0, 10000), "size_mm": num(0, 10000),
			"place": text, "label": label,
		}, "id"), MaxDefects),
		"area_m2": object{"type": "number", "exclusiveMinimum": 0, "maximum": 500},
		"way":     object{"type": "string", "pattern": idPattern},
		"wear":    enum(ids(craft.Wears[:], func(r craft.WearRow) string { return r.ID })),
		"evidence": list(closed(object{
			"test": enum(testIDs()), "outcome": enum(outcomeIDs()), "date": date, "note": note,
		}, "test", "outcome"), len(identify.Tests)),
		"patches": list(closed(object{
			"id": zoneID, "product": enum(products), "over": enum(ids(craft.Families[:], func(r craft.FamilyRow) string { return r.ID })),
			"bare": object{"type": "boolean"}, "additive": num(0, 2), "on": enum([]string{"hidden", "board"}), "place": text,
			"made": date, "look": date, "rated": date, "class": count(0, 5), "note": note,
			"under": closed(object{"key": num(0, 1), "cleanness": num(0, 1), "window": num(0, 1), "site": num(0, 1), "cap": num(0, 1)}, "key", "cleanness", "window", "site", "cap"),
		}, "id", "product", "over", "on"), MaxPatches),
		"readings": list(closed(object{
			"field": enum([]string{"gloss_gu", "moisture_pct"}), "value": num(-100, 10000), "at": moment, "by": text, "simulated": object{"type": "boolean"},
		}, "field", "value", "at", "by"), MaxReadings),
		"lead_test": closed(object{
			"result": enum([]string{"negative", "positive"}),
			"by":     enum([]string{"laboratory", "assessor", "swab"}), "date": date, "report": text,
		}, "result", "by", "date"),
		"target": closed(object{
			"colour": colour, "sheen": enum(sheens), "look": enum(append([]string{craft.LookSolid}, effects...)),
		}),
		"steps":        list(object{"$ref": "#/$defs/step"}, MaxSteps),
		"acknowledged": list(closed(object{"code": text, "date": date}, "code", "date"), 200),
	}, "id", "substrate")

	part := object{
		"kind": enum(ids(parts.Kinds[:], func(r parts.KindRow) string { return r.ID })), "name": text,
		"count":  count(1, parts.MaxCount),
		"faces":  list(enum(faceIDs()), 16),
		"relief": enum(ids(parts.Reliefs[:], func(r parts.ReliefRow) string { return r.ID })),
		"zone":   zoneID, "seen": count(0, parts.MaxCount), "place": enum(placeIDs()), "gap_mm": num(0, 100),
	}
	for _, d := range parts.DimIDs {
		part[d+"_cm"] = object{"type": "number", "exclusiveMinimum": 0, "maximum": parts.MaxSide}
	}
	defs["part"] = closed(part, "kind")
	defs["fitting"] = closed(object{
		"kind": enum(ids(apart.Rows, func(r apart.Row) string { return r.ID })), "name": text,
		"count": count(1, 200), "where": text, "note": note, "zone": zoneID,
		"do":       enum(ids(apart.Doings, func(d struct{ ID, Name string }) string { return d.ID })),
		"holes_mm": num(0, 2000), "new_holes_mm": num(0, 2000),
		"off": object{"type": "boolean"}, "back": object{"type": "boolean"},
	}, "kind")
	defs["photo"] = closed(object{
		"file": object{"type": "string", "pattern": PhotoPattern}, "caption": text, "zone": zoneID,
		"width": count(1, 20000), "height": count(1, 20000), "taken": date,
		"markers": list(closed(object{"x": num(0, 1), "y": num(0, 1), "defect": label, "note": text}, "x", "y"), MaxMarkers),
	}, "file")
	defs["history"] = closed(object{
		"found": note, "note": note, "paid_minor": count(0, 1_000_000_000),
		"earlier": list(closed(object{"year": count(1000, 2200), "what": note}, "what"), MaxEarlier),
	})

	root := closed(object{
		"format": object{"const": PieceFormat}, "version": object{"const": Version},
		"name": text, "made": count(1000, 2200),
		"use": list(enum(ids(craft.UseRows, func(r craft.UseRow) string { return r.ID })), len(craft.UseRows)),
		"site": closed(object{
			"temp_c": num(-20, 50), "rh_pct": num(0, 100), "surface_c": num(-20, 60), "at": moment, "by": text, "simulated": object{"type": "boolean"},
		}, "temp_c", "rh_pct"),
		"zones": list(object{"$ref": "#/$defs/zone"}, MaxZones),
		"parts": list(object{"$ref": "#/$defs/part"}, parts.MaxParts),

		"take_apart": list(object{"$ref": "#/$defs/fitting"}, MaxFittings),
		"photos":     list(object{"$ref": "#/$defs/photo"}, MaxPhotos),
		"history":    object{"$ref": "#/$defs/history"},
	}, "format", "version")
	root["$schema"] = "https://json-schema.org/draft/2020-12/schema"
	root["$id"] = SchemaID
	root["title"] = "Rutile piece file, version 1"
	root["$defs"] = defs
	out, err := json.MarshalIndent(root, "", "  ")
	if err != nil {
		panic(err) // the value above is fixed
	}
	return append(out, '\n')
}

// faceIDs are the faces that any part may have.
func faceIDs() []string {
	var out []string
	for k := range parts.Kinds {
		for _, f := range parts.Kinds[k].Faces {
			if !slices.Contains(out, f.ID) {
				out = append(out, f.ID)
			}
		}
	}
	return out
}

func placeIDs() []string {
	var out []string
	for _, p := range parts.Places[1:] {
		out = append(out, p.ID)
	}
	return out
}

// often puts the kinds of step that most plans are made of first.
func often(kinds []string) []string {
	first := []string{"coat", "clean", "dust", "abrade", "wait"}
	return append(first, slices.DeleteFunc(slices.Clone(kinds), func(k string) bool { return slices.Contains(first, k) })...)
}

func ids[R any](rows []R, id func(R) string) []string {
	out := make([]string, len(rows))
	for i, r := range rows {
		out[i] = id(r)
	}
	return out
}

var compiled = sync.OnceValue(func() *jsonschema.Schema {
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(Schema()))
	if err != nil {
		panic(err)
	}
	cp := jsonschema.NewCompiler()
	if err := cp.AddResource(SchemaID, doc); err != nil {
		panic(err)
	}
	return cp.MustCompile(SchemaID)
})
