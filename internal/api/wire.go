package api

import (
	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

// The wire types stand in openapi.yaml. What follows turns what the application
// says into them, kind by kind, so that nothing goes over the wire by chance.

// each turns every element of a list; the result is never nil, so that it is []
// and not null in JSON.
func each[A, B any](list []A, f func(A) B) []B {
	out := make([]B, len(list))
	for i, x := range list {
		out[i] = f(x)
	}
	return out
}

// texts turns a list of texts of some kind.
func texts[S ~string](list []S) []string { return each(list, func(s S) string { return string(s) }) }

// some is the value unless it is the zero one.
func some[T comparable](v T) *T {
	var none T
	if v == none {
		return nil
	}
	return &v
}

// or is the value, or the zero one for none.
func or[T any](v *T) T {
	if v == nil {
		var none T
		return none
	}
	return *v
}

// orNone is a list that is never null.
func orNone[T any](list []T) []T {
	if list == nil {
		return []T{}
	}
	return list
}

func hertz(f freq.Hz) int { return int(f) }

func someHertz(f *freq.Hz) *int {
	if f == nil {
		return nil
	}
	n := int(*f)
	return &n
}

func wireTone(t tone.Tone) *string {
	if t.IsOff() {
		return nil
	}
	s := t.String()
	return &s
}

func wireStated(s listing.Stated) *string {
	if !s.Known {
		return nil
	}
	text := s.Tone.String()
	return &text
}

func wireChannel(c channel.Channel) Channel {
	out := Channel{
		Name: c.Name, ReceiveHz: hertz(c.Receive), TransmitTone: wireTone(c.TransmitTone), ReceiveTone: wireTone(c.ReceiveTone),
		Bandwidth: ChannelBandwidth(c.Width), Power: ChannelPower(c.Power), Transmit: TransmitSide{Kind: TransmitSideKind(c.Side.Kind)},
	}
	switch c.Side.Kind {
	case channel.Shift:
		n := int(c.Side.Offset)
		out.Transmit.OffsetHz = &n
	case channel.Split:
		out.Transmit.TransmitHz = someHertz(&c.Side.Frequency)
	}
	if tx, ok := c.Transmit(); ok {
		out.TransmitHz = someHertz(&tx)
	}
	return out
}

func wireID(id listing.ID) StatementID { return StatementID{Source: id.Source, Key: id.Key} }

func coreID(id StatementID) listing.ID { return listing.ID{Source: id.Source, Key: id.Key} }

func wireFinding(f check.Finding) Finding {
	return Finding{
		Rule: f.Rule, Severity: FindingSeverity(f.Severity), Field: string(f.Field), Title: f.Title, Message: f.Message, Source: f.Source,
		Why:   each(f.Why, func(r check.Reason) Reason { return Reason{Witness: r.Witness, Text: r.Text} }),
		Fixes: each(f.Fixes, wireFix),
	}
}

func wireFix(x check.Remedy) Fix {
	return Fix{Id: x.ID, Label: x.Label, Confidence: FixConfidence(x.Confidence), Odds: x.Odds, Result: wireChannel(x.Result), Slot: x.Slot}
}

func wireLoss(l radio.Loss) Loss {
	return Loss{Kind: string(l.Kind), Field: string(l.Field), Wanted: l.Wanted, Held: l.Held, Why: l.Why}
}

func wireRadio(p *radio.Profile) Radio {
	return Radio{
		Id: p.ID, Name: p.Name, Form: p.Form, Entry: RadioEntry(p.Entry), Slots: SlotRange{First: p.Slots.First, Last: p.Slots.Last},
		Names: NameRules{Length: p.Names.Length, Characters: p.Names.Characters, Keypad: p.Names.Keypad},
		Watts: Watts{High: p.Watts.High, Mid: p.Watts.Mid, Low: p.Watts.Low},
	}
}

func wireRecord(r listing.Record) PublishedRecord {
	out := PublishedRecord{
		Key: r.Key, Kind: PublishedRecordKind(r.Kind), Callsign: r.Callsign, OutputHz: hertz(r.Output), UplinkTone: wireStated(r.UplinkTone), DownlinkTone: wireStated(r.DownlinkTone),
		Mode: string(r.Mode), Width: r.Width, Locality: r.Locality, Lat: r.Lat, Lon: r.Lon, HeightM: r.Height, Status: string(r.Status), Access: string(r.Access),
		Updated: some(r.Updated.String()), Source: r.Source, Note: r.Note,
	}
	if r.Input != 0 {
		out.InputHz = someHertz(&r.Input)
	}
	return out
}
