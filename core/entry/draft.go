package entry

import (
	"fmt"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/tone"
)

// draft words what a way through the line says, and works out what it leaves
// out.
func (s *state) draft(line []rune) *Draft {
	c := channel.New(s.receive)
	c.TransmitTone, c.ReceiveTone = s.out, s.in
	if s.width != "" {
		c.Width = s.width
	}
	if s.power != "" {
		c.Power = s.power
	}
	if s.has(fBoth) && s.has(fToneOut) && !s.has(fToneIn) && !c.TransmitTone.IsOff() {
		c.ReceiveTone = c.TransmitTone
	}
	d := &Draft{Channel: c, Scan: ScanYes, From: map[channel.Field]Origin{}, Words: []Word{}, Callsign: strings.ToUpper(s.callsign), Access: s.access}
	if s.has(fSlot) {
		n := s.slot
		d.Slot = &n
	}
	if s.scan != "" {
		d.Scan = s.scan
	}
	if d.Channel.Name = s.name; s.name == "" {
		d.Channel.Name = s.callsign
	}
	s.words(d, line)
	s.resolve(d)
	s.doubts(d)
	return d
}

// words marks each stretch of the line with what it was taken for.
func (s *state) words(d *Draft, line []rune) {
	var path []*state
	for w := s; w.edge != nil; w = w.prev {
		path = append(path, w)
	}
	for i := len(path) - 1; i >= 0; i-- {
		w := path[i]
		first, last := s.r.tokens[w.at], s.r.tokens[w.at+w.edge.n-1]
		word := Word{Start: first.start, End: last.end, As: w.edge.pattern.As, Guess: w.edge.guess(), Problem: w.edge.problem, code: strings.HasPrefix(w.edge.pattern.ID, "service") && w.out != w.prev.out}
		if word.As == AsUnknown && word.Problem == "" {
			word.Problem = s.complaint(first, string(line[first.start:last.end]))
		}
		if w.edge.pattern.ID == "two-tones" && w.cost-w.prev.cost >= refused {
			word.Problem = fmt.Sprintf("two tones: which one do you send? Type the one you send, a slash and the one you listen for, such as %s/%s", w.out, w.in)
		}
		if word.Guess == "" && w.edge.pattern.ID == "second" {
			word.Guess = "transmit?"
		}
		if w.use != nil && w.prev.use == nil && word.Guess == "" {
			word.Guess = w.use.Frequency.MHz()
		}
		// Words of a name that follow each other are one name.
		if n := len(d.Words); n > 0 && word.As == AsName && d.Words[n-1].As == AsName && w.prev.naming == 1 && w.prev.edge.pattern.As == AsName {
			d.Words[n-1].End = word.End
			d.Words[n-1].Text = string(line[d.Words[n-1].Start:word.End])
			continue
		}
		word.Text = string(line[word.Start:word.End])
		d.Words = append(d.Words, word)
		if f := word.As.Field(); f != "" && word.Problem == "" {
			d.From[f] = Typed
		}
		switch word.As {
		case AsSquelch, AsTones:
			d.From[channel.FieldReceiveTone] = Typed
		case AsPair:
			d.From[channel.FieldShift] = Typed
		}
	}
}

// doubts are what can be said only of the whole line.
func (s *state) doubts(d *Draft) {
	if s.band != "" && s.receive+s.transmit != 0 && !s.inBand() {
		d.blame(AsBand, fmt.Sprintf("%s is not in %s: leave the band out, or correct the frequency", max(d.Channel.Receive, s.transmit), s.bandName()))
	}
	switch {
	case s.has(fBoth) && !s.has(fToneOut):
		d.blame(AsSquelch, "the tone is missing: mode and tone are two settings. Type it too, such as ts 103.5")
	case s.has(fBoth) && d.Channel.ReceiveTone.Kind() == tone.Burst:
		d.blame(AsSquelch, "a 1750 Hz burst opens repeaters; a receiver cannot wait for it. Type the burst alone")
	}
	if n := len([]rune(d.Channel.Name)); n > channel.MaxName {
		d.blame(AsName, fmt.Sprintf("a name has up to %d characters and this one %d: shorten it", channel.MaxName, n))
	}
	if err := d.Channel.Validate(); d.Channel.Receive != 0 && err != nil && d.Problem() == nil {
		d.blame(AsShift, fmt.Sprintf("%v. Did you mean kHz? Type a smaller shift or another transmit frequency", err))
	}
}

func (s *state) bandName() string {
	if s.band == "vhf" || s.band == "uhf" {
		return strings.ToUpper(s.band)
	}
	return "the " + s.band + " band"
}

// complaint says why a token has no reading and what to type.
func (s *state) complaint(t token, text string) string {
	switch {
	case t.number() && s.receive == 0 && s.transmit == 0:
		return fmt.Sprintf("%q is not a frequency in %s: begin with the receive frequency in MHz, such as 147.24", text, s.r.plan.Title)
	case t.whole() && t.start == 0:
		return fmt.Sprintf("%q could be a slot: type #%s, or the tone with its unit", text, text)
	case t.number():
		if f, ok := scaled(t.low, 1_000_000); ok && s.r.known(f) {
			return fmt.Sprintf("%q is a second frequency, and the band plan does not pair the two: type tx %s if you transmit there, or one channel at a time", text, text)
		}
		return fmt.Sprintf("%q is not a tone and not a shift here: type a tone such as 103.5, a shift such as -600, or put a name in quotes", text)
	case t.sign():
		return fmt.Sprintf("%q says again, or against, what another word says: type one sign and one size", text)
	case literals()[t.low]:
		return fmt.Sprintf("%q says again, or against, what another word says: leave one of them out, or put a name in quotes", text)
	case t.word() || t.quoted:
		return fmt.Sprintf("%q is a second name: put the whole name in quotes", text)
	}
	return fmt.Sprintf("%q is not understood: type a frequency, a shift, a tone or a name in quotes", text)
}

// blame marks the first word of a meaning that has no problem yet, or else
// the last word of the line.
func (d *Draft) blame(as As, problem string) {
	for i := range d.Words {
		if d.Words[i].As == as && d.Words[i].Problem == "" {
			d.Words[i].Problem = problem
			return
		}
	}
	if n := len(d.Words); n > 0 && d.Words[n-1].Problem == "" {
		d.Words[n-1].Problem = problem
	}
}
