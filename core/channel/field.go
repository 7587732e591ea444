package channel

// Field names a field of a channel in findings, witnesses and differences.
type Field string

// The fields.
const (
	FieldReceive  Field = "receive"
	FieldShift    Field = "shift"
	FieldTransmit Field = "transmit"
	FieldToneOut  Field = "tone_out"
	FieldToneIn   Field = "tone_in"
	FieldName     Field = "name"
	FieldSlot     Field = "slot"
	FieldWidth    Field = "bandwidth"
	FieldPower    Field = "power"
	FieldListing  Field = "listing"
)
