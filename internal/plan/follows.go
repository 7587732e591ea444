package plan

import (
	"context"
	"slices"

	"mnemos/core/channel"
	"mnemos/core/find"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/internal/store"
)

// Follows is what follows from the answers of the first run, on one scale of
// bands: what is published near, what the licence permits, what the radio in the
// hand can do, and what is left of it.
type Follows struct {
	Radio          string
	Placed         bool // somebody has said where they are
	Within         float64
	Bands          []BandFollows
	Near           int // repeaters within the distance
	Talk, Ask, Out int
	Tones          []ToneFollows
}

// BandFollows is one band of the scale.
type BandFollows struct {
	Name                string
	Lower, Upper        freq.Hz
	Outputs             []freq.Hz // that are published near, at most as many as can be drawn
	Near                int
	Licensed            bool
	Receives, Transmits bool
	Talk, Ask, Out      int
}

// ToneFollows is a channel of the plan under each tone policy.
type ToneFollows struct {
	Slot        int
	Name        string
	Sends, Sent string // what is sent, and what the repeater sends; as channels write tones
}

const (
	ticks    = 160 // outputs that are drawn in a band
	examples = 3
)

// Follows says what follows from the settings of a plan for a radio of it; with 0
// it is the first plan, and its first radio.
func (p *Plans) Follows(ctx context.Context, planID, loadID int64) (*Follows, error) {
	s, err := p.Scene(ctx, planID, loadID)
	if err != nil {
		return nil, err
	}
	out := &Follows{Radio: s.Radio, Placed: s.Place != nil, Within: s.Radius}
	me, err := p.fleet.Me(ctx)
	if err != nil {
		return nil, err
	}
	var d *desk
	if s.Load != 0 {
		if d, err = p.desk(ctx, s.Load); err != nil {
			return nil, err
		}
	}
	near := s.Book.Nearby(&s.Scene, s.Radius)
	for _, b := range s.Band.Bands {
		if !b.Transmit {
			continue
		}
		f := BandFollows{Name: b.Name, Lower: b.Lower, Upper: b.Upper, Licensed: permits(me, b.Name)}
		if d != nil {
			for _, x := range d.radio.Receive {
				f.Receives = f.Receives || x.Lower <= b.Upper && b.Lower <= x.Upper
			}
			for _, x := range d.radio.Transmit {
				f.Transmits = f.Transmits || x.Lower <= b.Upper && b.Lower <= x.Upper
			}
		}
		for i := range near {
			r := &near[i]
			if !b.Holds(r.Best.Output) || !r.Best.IsRepeater() {
				continue
			}
			f.Near++
			if len(f.Outputs) < ticks {
				f.Outputs = append(f.Outputs, r.Best.Output)
			}
			switch {
			case !f.Licensed || d == nil || !usable(r, d):
				f.Out++
			case r.Best.Access == listing.Closed:
				f.Ask++
			default:
				f.Talk++
			}
		}
		out.Near, out.Talk, out.Ask, out.Out = out.Near+f.Near, out.Talk+f.Talk, out.Ask+f.Ask, out.Out+f.Out
		out.Bands = append(out.Bands, f)
	}
	out.Tones = tones(s)
	return out, nil
}

func permits(me store.Person, band string) bool {
	return !me.Unlicensed && (len(me.Bands) == 0 || slices.Contains(me.Bands, band))
}

// usable reports whether a radio can talk through a repeater: it works with FM, it
// is no private one, and the radio reaches both of its frequencies.
func usable(r *find.Row, d *desk) bool {
	b := &r.Best
	if b.Mode == listing.Digital || b.Access == listing.Private || b.Status == listing.OffAir || !d.radio.CanReceive(b.Output) {
		return false
	}
	c, err := b.Channel(d.band)
	if err != nil {
		return false
	}
	tx, sends := c.Transmit()
	return sends && d.radio.CanTransmit(tx)
}

// tones are channels of the radio whose repeater sends a tone, as examples of the
// two policies.
func tones(s *Scene) []ToneFollows {
	out := []ToneFollows{}
	for _, slot := range s.Slots {
		e := s.Book.Entry(slot.Of)
		if !slot.Mine || e == nil || len(out) == examples {
			continue
		}
		best := &e.Best
		if !best.UplinkTone.Known || best.UplinkTone.Tone.IsOff() || !best.DownlinkTone.Known || best.DownlinkTone.Tone.IsOff() {
			continue
		}
		wait := best.Squelched(channel.Channel{}).ReceiveTone
		if wait.IsOff() {
			continue
		}
		out = append(out, ToneFollows{Slot: slot.Number, Name: slot.Channel.Name, Sends: best.UplinkTone.Tone.String(), Sent: wait.String()})
	}
	return out
}
