package find

import (
	"strings"

	"mnemos/core/listing"
)

// Remark says why an entry is not simply for everybody with an FM radio; "" if it
// is.
func (e *Entry) Remark() string {
	r := &e.Best
	var parts []string
	switch r.Kind {
	case listing.SimplexChannel:
		parts = append(parts, "a simplex channel, not a repeater")
	case listing.ListenChannel:
		parts = append(parts, "a channel to listen to, not a repeater")
	}
	if r.Mode == listing.Digital {
		parts = append(parts, "digital only: an FM radio hears noise, so it is left out of plans")
	}
	if dtmf(e) {
		parts = append(parts, "opened by DTMF, which no memory holds: key it by hand, with the sequence from the owner")
	}
	if r.Status == listing.OffAir {
		parts = append(parts, "said to be off the air")
	}
	switch r.Access {
	case listing.Closed:
		parts = append(parts, "for members: ask the owner before you use it")
	case listing.Private:
		parts = append(parts, "private: leave it alone unless the owner invites you")
	}
	return strings.Join(parts, "; ")
}
