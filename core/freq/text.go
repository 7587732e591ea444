package freq

import (
	"encoding/json"
	"fmt"
)

// In text (YAML data files) a frequency carries its unit; in JSON it is a
// whole number of hertz, so that no reader has to know about decimals.

// MarshalText writes f as String does.
func (f Hz) MarshalText() ([]byte, error) { return []byte(f.String()), nil }

// UnmarshalText reads f as Parse does.
func (f *Hz) UnmarshalText(b []byte) (err error) {
	*f, err = Parse(string(b))
	return err
}

// MarshalJSON writes f as whole hertz.
func (f Hz) MarshalJSON() ([]byte, error) { return json.Marshal(int64(f)) }

// UnmarshalJSON reads whole hertz.
func (f *Hz) UnmarshalJSON(b []byte) error {
	var n int64
	if err := json.Unmarshal(b, &n); err != nil {
		return fmt.Errorf("frequency %s: write whole hertz, such as 147240000", b)
	}
	if n < 0 || Hz(n) > Max {
		return fmt.Errorf("frequency %d Hz is outside 0 to %v", n, Max)
	}
	*f = Hz(n)
	return nil
}

// MarshalText writes o as String does.
func (o Offset) MarshalText() ([]byte, error) { return []byte(o.String()), nil }

// UnmarshalText reads o as ParseOffset does.
func (o *Offset) UnmarshalText(b []byte) (err error) {
	*o, err = ParseOffset(string(b))
	return err
}

// MarshalJSON writes o as whole hertz.
func (o Offset) MarshalJSON() ([]byte, error) { return json.Marshal(int64(o)) }

// UnmarshalJSON reads whole hertz, signed.
func (o *Offset) UnmarshalJSON(b []byte) error {
	var n int64
	if err := json.Unmarshal(b, &n); err != nil {
		return fmt.Errorf("offset %s: write whole hertz, such as -600000", b)
	}
	if Offset(n).Abs() > 1_000*MHz {
		return fmt.Errorf("offset %d Hz is more than 1 GHz", n)
	}
	*o = Offset(n)
	return nil
}
