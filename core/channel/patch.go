package channel

import "mnemos/core/freq"

// Op is one operation of a JSON Patch (RFC 6902) on the public form of a
// channel.
type Op struct {
	Op    string `json:"op"`
	Path  string `json:"path"`
	Value any    `json:"value"`
}

// Diff returns the patch that leads from a to b. Each change is guarded by a
// test of the old value, so that it cannot be applied to a channel that has
// moved on meanwhile. The patch is empty if the two are equal.
func Diff(a, b Channel) []Op {
	ops := []Op{}
	change := func(path string, from, to any) {
		ops = append(ops, Op{"test", path, from}, Op{"replace", path, to})
	}
	if a.Name != b.Name {
		change("/name", a.Name, b.Name)
	}
	if a.Receive != b.Receive {
		change("/receive_hz", a.Receive, b.Receive)
	}
	if a.Side != b.Side {
		change("/transmit", a.Side.wire(), b.Side.wire())
	}
	// The transmit frequency is derived; it is replaced too so that the
	// patched document is right for readers that do not compute it.
	if x, y := a.transmitOrNil(), b.transmitOrNil(); !same(x, y) {
		change("/transmit_hz", x, y)
	}
	if a.TransmitTone != b.TransmitTone {
		change("/transmit_tone", a.TransmitTone, b.TransmitTone)
	}
	if a.ReceiveTone != b.ReceiveTone {
		change("/receive_tone", a.ReceiveTone, b.ReceiveTone)
	}
	if a.Width != b.Width {
		change("/bandwidth", a.Width, b.Width)
	}
	if a.Power != b.Power {
		change("/power", a.Power, b.Power)
	}
	return ops
}

func (h TransmitSide) wire() wireSide {
	w := wireSide{Kind: h.Kind}
	switch h.Kind {
	case Shift:
		w.Offset = &h.Offset
	case Split:
		w.Frequency = &h.Frequency
	}
	return w
}

func (c Channel) transmitOrNil() *freq.Hz {
	if tx, ok := c.Transmit(); ok && tx > 0 {
		return &tx
	}
	return nil
}

func same(a, b *freq.Hz) bool {
	if a == nil || b == nil {
		return a == b
	}
	return *a == *b
}
