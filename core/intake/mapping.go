package intake

import "mnemos/core/freq"

// Role is what a column holds.
type Role string

// The roles. Ignore is a column that says nothing that is needed.
const (
	Ignore       Role = ""
	Key          Role = "key"
	Callsign     Role = "callsign"
	Output       Role = "output"
	Input        Role = "input"
	Shift        Role = "shift" // sign, signed size or plain size
	Size         Role = "size"  // beside a column with the sign
	UplinkTone   Role = "uplink_tone"
	DownlinkTone Role = "downlink_tone"
	Mode         Role = "mode"
	Width        Role = "width"
	Locality     Role = "locality"
	Latitude     Role = "latitude"
	Longitude    Role = "longitude"
	Position     Role = "position" // latitude and longitude, or a locator
	Height       Role = "height"
	Status       Role = "status"
	Access       Role = "access"
	Updated      Role = "updated"
	Note         Role = "note"
)

// Roles lists all of them in the order in which they are offered.
var Roles = []Role{
	Ignore, Output, Input, Shift, Size, UplinkTone, DownlinkTone, Callsign, Locality, Latitude, Longitude, Position, Height, Mode, Width,
	Status, Access, Updated, Note, Key,
}

// Unit is the unit of the bare numbers of a column.
type Unit string

// The units.
const (
	MHz Unit = "MHz"
	KHz Unit = "kHz"
	Hz  Unit = "Hz"
)

func (u Unit) of() freq.Unit {
	switch u {
	case KHz:
		return freq.KHz
	case Hz:
		return 1
	}
	return freq.MHz
}

// Order is the order of the parts of a date.
type Order string

// The orders. A year of four figures in front is understood in any of them.
const (
	YMD Order = "ymd"
	DMY Order = "dmy"
	MDY Order = "mdy"
)

// Column says what a column holds, and how to read it.
type Column struct {
	Role  Role  `json:"role"`
	Unit  Unit  `json:"unit,omitempty"`
	Order Order `json:"order,omitempty"`
	Side  Side  `json:"side,omitempty"` // sent or heard: the role follows from the viewpoint of the table
}

// Mapping says what each column of a table holds.
type Mapping []Column

// measured reports whether the numbers of a role have a unit.
func measured(r Role) bool { return r == Output || r == Input || r == Shift || r == Size }
