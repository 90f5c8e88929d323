package craft

// Field is something that is entered about a zone or its piece, as answers name it: repairs,
// relaxations and sensitivities. Each has its place on the page.
type Field string

// The fields, in the order of the work. FieldIdentify is the dialogue that tells what a surface
// is, FieldEvidence one answer of it; FieldShelf is what a way of working may use, FieldCan the can that
// a coat is taken from; the others
// are fields of the piece file, or of its target.
const (
	FieldSubstrate Field = "substrate"
	FieldVeneer    Field = "veneer"
	FieldPrepared  Field = "prepared"
	FieldFinish    Field = "finish"
	FieldGloss     Field = "gloss"
	FieldArea      Field = "area_m2"
	FieldMoisture  Field = "moisture_pct"
	FieldAge       Field = "age_days"
	FieldColourNow Field = "colour"
	FieldSoils     Field = "soils"
	FieldBleeders  Field = "bleeders"
	FieldDefects   Field = "defects"
	FieldTarget    Field = "target"
	FieldLook      Field = "look"
	FieldSheen     Field = "sheen"
	FieldWear      Field = "wear"
	FieldUse       Field = "use"
	FieldSite      Field = "site"
	FieldParts     Field = "parts"
	FieldTakeApart Field = "take_apart"
	FieldIdentify  Field = "identify"
	FieldEvidence  Field = "evidence"
	FieldLeadTest  Field = "lead_test"
	FieldTest      Field = "test"
	FieldSteps     Field = "steps"
	FieldWay       Field = "way"
	FieldShelf     Field = "shelf"
	FieldKit       Field = "kit"
	FieldCan       Field = "can"
)

// Fields are all of them.
var Fields = []Field{
	FieldSubstrate, FieldVeneer, FieldPrepared, FieldFinish, FieldGloss, FieldArea, FieldMoisture, FieldAge, FieldColourNow, FieldSoils,
	FieldBleeders, FieldDefects, FieldTarget, FieldLook, FieldSheen, FieldWear, FieldUse, FieldSite, FieldParts,
	FieldTakeApart, FieldIdentify, FieldEvidence, FieldLeadTest, FieldTest, FieldSteps, FieldWay, FieldKit, FieldShelf, FieldCan,
}
