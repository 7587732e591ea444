package document

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/radio"
	"mnemos/core/table"
)

// Load is what one radio will hold of a plan, after everything that it cannot hold
// is rounded or left out.
type Load struct {
	Plan, Radio, Profile string
	Rows                 []table.Line
	Lost                 []Loss
}

// Loss is something that is not in a file as it is in the plan.
type Loss struct {
	What string // the channel, with its slot; "" for all of them
	Why  string
}

// String is the loss in a sentence.
func (l Loss) String() string {
	if l.What == "" {
		return l.Why
	}
	return l.What + ": " + l.Why
}

// Held is a load as a radio will hold it.
func Held(plan, unit string, p *radio.Profile, lines []table.Line) Load {
	out := Load{Plan: plan, Radio: unit, Profile: p.ID, Rows: []table.Line{}, Lost: []Loss{}}
	for _, l := range lines {
		what := fmt.Sprintf("slot %d, %s", l.Slot, title(l.Channel))
		held, losses := radio.Fit(l.Channel, p)
		for _, x := range losses {
			out.Lost = append(out.Lost, Loss{what, fmt.Sprintf("%s %s becomes %s: %s", x.Field, x.Wanted, x.Held, x.Why)})
		}
		if !p.CanReceive(l.Channel.Receive) || !p.Slots.Holds(l.Slot) {
			continue // what it cannot hold at all is not in it
		}
		l.Channel = held
		out.Rows = append(out.Rows, l)
	}
	return out
}

func title(c channel.Channel) string {
	if c.Name != "" {
		return c.Name
	}
	return c.Receive.String()
}

// ImageFormat stands in every memory image.
const ImageFormat = "mnemos memory image"

// Image is what a radio holds, in few letters, with a checksum over the slots. The
// long names are not in it: a radio has none.
type Image struct {
	Format  string     `json:"format"`
	Version int        `json:"version"`
	Radio   string     `json:"radio"`
	Profile string     `json:"profile"`
	Slots   []ImageRow `json:"slots"`
	SHA256  string     `json:"sha256"` // of the slots as they stand in the file, without spaces
}

// ImageRow is one slot: receive and transmit in hertz, null for a transmitter that
// is blocked.
type ImageRow struct {
	Slot     int           `json:"slot"`
	Name     string        `json:"name"`
	Receive  int64         `json:"rx_hz"`
	Transmit *int64        `json:"tx_hz"`
	Out      string        `json:"tone_sent"`
	In       string        `json:"tone_received"`
	Width    channel.Width `json:"width"`
	Power    channel.Power `json:"power"`
	Scan     entry.Scan    `json:"scan"`
}

// NewImage is the memory image of a load.
func NewImage(l Load) (Image, error) {
	out := Image{Format: ImageFormat, Version: Version, Radio: l.Radio, Profile: l.Profile, Slots: []ImageRow{}}
	for _, r := range l.Rows {
		row := ImageRow{Slot: r.Slot, Name: r.Short, Receive: int64(r.Channel.Receive), Out: r.Channel.TransmitTone.String(), In: r.Channel.ReceiveTone.String(), Width: r.Channel.Width, Power: r.Channel.Power, Scan: r.Scan}
		if tx, sends := r.Channel.Transmit(); sends {
			row.Transmit = new(int64(tx))
		} else {
			row.Out = "none"
		}
		out.Slots = append(out.Slots, row)
	}
	var err error
	out.SHA256, err = sum(out.Slots)
	return out, err
}

func sum(rows []ImageRow) (string, error) {
	b, err := json.Marshal(rows)
	h := sha256.Sum256(b)
	return hex.EncodeToString(h[:]), err
}

// ReadImage reads a memory image and checks its sum.
func ReadImage(text []byte) (Image, error) {
	var i Image
	if err := json.Unmarshal(text, &i); err != nil || i.Format != ImageFormat {
		return i, fmt.Errorf("this is not a memory image")
	}
	if i.Version < 1 {
		return i, fmt.Errorf("this is not a memory image: its version is %d, and the first one was 1", i.Version)
	}
	if i.Version > Version {
		return i, fmt.Errorf("a newer Mnemos made this image (version %d): use that one", i.Version)
	}
	s, err := sum(i.Slots)
	if err == nil && s != i.SHA256 {
		err = fmt.Errorf("the image was changed after it was made: its checksum is %.8s… and its slots give %.8s…", i.SHA256, s)
	}
	return i, err
}
