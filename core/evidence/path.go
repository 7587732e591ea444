package evidence

import (
	"slices"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

// LockKind is what a receiver asks for before it opens.
type LockKind string

// The kinds of lock.
const (
	LockOpen    LockKind = "open"    // nothing
	LockTone    LockKind = "tone"    // a CTCSS tone or DCS code
	LockBurst   LockKind = "burst"   // a 1750 Hz burst
	LockUnknown LockKind = "unknown" // nobody says
)

// Passes says whether a signal opens the receiver at its end.
type Passes string

// The answers. There is no "will": only a test on the air shows that.
const (
	Would    Passes = "yes"
	WouldNot Passes = "no"
	Unknown  Passes = "unknown"
)

// Key is a tone as it is drawn: its name and its place in the table, from
// which the cuts of the drawing follow.
type Key struct {
	Text  string `json:"text"`
	Index int    `json:"index"`
}

// Leg is one way of the signal: a frequency, the tone that goes with it, and
// what the receiver at its end asks for.
type Leg struct {
	Hz     freq.Hz  `json:"hz"`
	Key    *Key     `json:"key"`
	Lock   LockKind `json:"lock"`
	Wants  *Key     `json:"wants"`
	Passes Passes   `json:"passes"`
	// Elsewhere is set where the receiver at the end is on another frequency,
	// so that the tones do not come into it.
	Elsewhere bool `json:"elsewhere"`
	// Either are what the receiver asks for by different witnesses, where they differ.
	Either []string `json:"either"`
	Says   string   `json:"says"`
}

// Path is the way of a signal through the channel, from the operator and
// back. Up is nil for a channel that does not transmit; Through names what is
// in the middle, "" for simplex.
type Path struct {
	Through string `json:"through"`
	Up      *Leg   `json:"up"`
	Down    Leg    `json:"down"`
}

// Path follows the signal.
func (c Case) Path() Path {
	ch := c.Channel
	p := Path{Down: Leg{Hz: ch.Receive}}
	p.Down.lock(ch.ReceiveTone, true)
	tx, sends := ch.Transmit()
	if sends {
		p.Up = &Leg{Hz: tx, Key: KeyOf(ch.TransmitTone)}
	}
	if ch.Offset() == 0 {
		p.simplex()
		return p
	}
	p.Through = "repeater"
	p.up(c.Meant)
	p.dispute(c)
	p.heard(c.Heard, ch)
	p.down(c.Meant, ch)
	return p
}

func (p *Path) simplex() {
	if p.Up == nil {
		p.Down.Passes, p.Down.Says = Unknown, "You would hear whatever is sent here"
		if p.Down.Lock != LockOpen {
			p.Down.Says = "You would hear only what carries the tone"
		}
		return
	}
	p.Up.Lock, p.Up.Passes, p.Up.Says = LockUnknown, Unknown, "Stations set alike would hear you"
	p.Down.Key = p.Up.Key
	p.Down.Passes, p.Down.Says = Would, "You would hear stations set alike"
	if p.Down.Wants != nil && (p.Up.Key == nil || p.Up.Key.Text != p.Down.Wants.Text) {
		p.Down.Passes, p.Down.Says = WouldNot, "You would not hear stations set alike"
	}
}

func (p *Path) up(m *listing.Match) {
	switch {
	case m == nil || m.Input == 0:
		p.Up.Lock, p.Up.Passes, p.Up.Says = LockUnknown, Unknown, "Nobody says whether it would hear you"
		return
	case m.Input != p.Up.Hz:
		p.Up.lockStated(m.UplinkTone)
		p.Up.Elsewhere, p.Up.Passes, p.Up.Says = true, WouldNot, "It listens on "+m.Input.MHz()
		return
	}
	p.Up.lockStated(m.UplinkTone)
	switch {
	case p.Up.Lock == LockUnknown:
		p.Up.Passes, p.Up.Says = Unknown, "Its access is not published"
	case p.Up.Wants == nil && p.Up.Lock == LockOpen || opens(p.Up.Key, m.UplinkTone.Tone):
		p.Up.Passes, p.Up.Says = Would, "It would hear you"
	default:
		p.Up.Passes, p.Up.Says = WouldNot, "It would not hear you"
	}
}

// dispute leaves open what opens the repeater where the witnesses differ about it.
func (p *Path) dispute(c Case) {
	if c.Meant == nil || p.Up.Elsewhere || !c.Meant.UplinkTone.Known {
		return
	}
	said := []tone.Tone{c.Meant.UplinkTone.Tone}
	for _, o := range c.Others {
		if t := o.UplinkTone; t.Known && !slices.ContainsFunc(said, func(s tone.Tone) bool { return tone.Same(s, t.Tone) }) {
			said = append(said, t.Tone)
		}
	}
	if len(said) == 1 {
		return
	}
	for _, t := range said {
		p.Up.Either = append(p.Up.Either, t.String())
	}
	p.Up.Lock, p.Up.Wants, p.Up.Passes, p.Up.Says = LockUnknown, nil, Unknown, "It may not hear you"
	if !slices.ContainsFunc(said, func(t tone.Tone) bool { return opens(p.Up.Key, t) }) {
		p.Up.Passes, p.Up.Says = WouldNot, "It would not hear you"
	}
}

// heard decides, where something was heard on the air: the repeater itself said what
// opens it.
func (p *Path) heard(h Heard, ch channel.Channel) {
	if !h.Known || p.Up == nil {
		return
	}
	listens := ch.Receive + freq.Hz(h.Offset)
	p.Up.Either, p.Up.Elsewhere, p.Up.Wants = nil, listens != p.Up.Hz, nil
	p.Up.lock(h.Tone, true)
	switch {
	case p.Up.Elsewhere:
		p.Up.Passes, p.Up.Says = WouldNot, "It answered on "+listens.MHz()
	case !h.Opens(ch.TransmitTone):
		p.Up.Passes, p.Up.Says = WouldNot, "It would not hear you"
	case h.Searched:
		p.Up.Passes, p.Up.Says = Would, "It would hear you"
	default:
		p.Up.Passes, p.Up.Says = Would, "It heard you"
	}
}

func (p *Path) down(m *listing.Match, ch channel.Channel) {
	if m != nil && m.DownlinkTone.Known {
		p.Down.Key = KeyOf(m.DownlinkTone.Tone)
	}
	switch {
	case p.Down.Lock == LockOpen:
		p.Down.Passes, p.Down.Says = Would, "You would hear it"
	case m == nil || !m.DownlinkTone.Known:
		p.Down.Passes, p.Down.Says = Unknown, "Its tone is not published"
	case tone.Same(m.DownlinkTone.Tone, ch.ReceiveTone):
		p.Down.Passes, p.Down.Says = Would, "You would hear it"
	default:
		p.Down.Passes, p.Down.Says = WouldNot, "You would hear nothing"
	}
}

func (l *Leg) lockStated(s listing.Stated) { l.lock(s.Tone, s.Known) }

func (l *Leg) lock(t tone.Tone, known bool) {
	l.Wants = KeyOf(t)
	switch {
	case !known:
		l.Lock, l.Wants = LockUnknown, nil
	case t.Kind() == tone.Burst:
		l.Lock = LockBurst
	case t.IsOff():
		l.Lock = LockOpen
	default:
		l.Lock = LockTone
	}
}

func opens(k *Key, t tone.Tone) bool {
	if k == nil {
		return t.IsOff()
	}
	have, err := tone.Parse(k.Text)
	return err == nil && tone.Same(have, t)
}

// KeyOf is the drawing of a tone; nil for none. A DCS code and a tone outside
// the table take their own number instead of a place in it.
func KeyOf(t tone.Tone) *Key {
	if t.IsOff() {
		return nil
	}
	index := t.Index()
	if index < 0 {
		if code, _ := t.Code(); code > 0 {
			index = len(tone.CTCSS50) + code
		} else {
			index = t.DeciHertz()
		}
	}
	return &Key{Text: t.String(), Index: index}
}
