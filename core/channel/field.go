package channel

import "strings"

// Field names a field of a channel in findings, witnesses and differences.
type Field string

// The fields.
const (
	FieldReceive      Field = "receive"
	FieldShift        Field = "shift"
	FieldTransmit     Field = "transmit"
	FieldTransmitTone Field = "transmit_tone"
	FieldReceiveTone  Field = "receive_tone"
	FieldName         Field = "name"
	FieldSlot         Field = "slot"
	FieldWidth        Field = "bandwidth"
	FieldPower        Field = "power"
	FieldListing      Field = "listing"
)

// Words is what people call the field: "transmit tone".
func (f Field) Words() string { return strings.ReplaceAll(string(f), "_", " ") }
