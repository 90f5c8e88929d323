package wire

import (
	"encoding/json"
	"slices"
)

// SchemaID names the schema; nothing is ever fetched from it.
const SchemaID = "urn:rutile:piece:1"

type object = map[string]any

// Schema returns the JSON Schema (draft 2020-12) of the piece file, indented. It is made from
// the table of fields.
func Schema() []byte {
	defs := object{}
	doc := define(PieceObject, defs)
	doc["$schema"] = "https://json-schema.org/draft/2020-12/schema"
	doc["$id"] = SchemaID
	doc["title"] = "Rutile piece file, version 1"
	doc["$defs"] = defs
	out, err := json.MarshalIndent(doc, "", "  ")
	if err != nil {
		panic(err) // the table is fixed
	}
	return append(out, '\n')
}

// define returns the schema of an object, and puts those that it refers to into defs.
func define(name string, defs object) object {
	o := ObjectNamed(name)
	doc := closed(o.Fields, defs)
	if o.Says != "" {
		doc["description"] = o.Says
	}
	if o.By == "" {
		return doc
	}
	// One variant is tried after the other, so that an error is about that one alone.
	var chain object
	for _, v := range slices.Backward(o.Variants) {
		fields := append(slices.Clone(o.Fields), v.Fields...)
		shape := closed(fields, defs)
		is := object{"const": v.ID}
		shape["properties"].(object)[o.By] = is
		defs[name+"_"+v.ID] = shape
		next := object{
			"if":   object{"properties": object{o.By: is}, "required": []string{o.By}},
			"then": object{"$ref": "#/$defs/" + name + "_" + v.ID},
		}
		if chain != nil {
			next["else"] = chain
		}
		chain = next
	}
	delete(doc, "additionalProperties")
	for k, x := range chain {
		doc[k] = x
	}
	return doc
}

func closed(fields []Field, defs object) object {
	props := object{}
	var must []string
	for i := range fields {
		f := &fields[i]
		props[f.Name] = f.schema(defs)
		if f.Must {
			must = append(must, f.Name)
		}
	}
	o := object{"type": "object", "properties": props, "additionalProperties": false}
	if len(must) > 0 {
		o["required"] = must
	}
	return o
}

// schema is what a field may hold.
func (f *Field) schema(defs object) object {
	o := object{}
	if says := f.Meaning(); says != "" {
		o["description"] = says
	}
	switch f.Kind {
	case Number, Whole:
		o["type"] = "number"
		if f.Kind == Whole {
			o["type"] = "integer"
		}
		if f.Open {
			o["exclusiveMinimum"], o["maximum"] = f.Least, f.Most
		} else if f.Most > 0 {
			o["minimum"], o["maximum"] = f.Least, f.Most
		}
	case Truth:
		o["type"] = "boolean"
	case Ref:
		o["$ref"] = "#/$defs/" + f.Object
		if _, known := defs[f.Object]; !known {
			defs[f.Object] = nil // an object may come to itself
			defs[f.Object] = define(f.Object, defs)
		}
	case List:
		o["type"], o["items"], o["maxItems"] = "array", f.Of.schema(defs), f.MaxLen
	default:
		if one := f.ids(); len(one) > 0 {
			o["enum"] = one
			break
		}
		o["type"] = "string"
		if f.Form != nil {
			o["pattern"] = f.Form.Pattern
		}
		if f.MinLen > 0 {
			o["minLength"] = f.MinLen
		}
		if f.MaxLen > 0 {
			o["maxLength"] = f.MaxLen
		}
	}
	if f.Fixed != nil {
		delete(o, "type")
		delete(o, "minimum")
		delete(o, "maximum")
		o["const"] = f.Fixed
	}
	return o
}

// Meaning is what the field means, and what it means that it is left out.
func (f *Field) Meaning() string {
	if f.Absent == "" {
		return f.Says
	}
	return f.Says + "; absent: " + f.Absent
}
