package entry

import (
	"fmt"
	"strings"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
)

// Format writes a channel as a line that Read reads back to the same channel.
// It leans on no guess: every figure has its unit.
func Format(c channel.Channel, slot *int, scan Scan) string {
	parts := []string{c.Receive.String(), howWords(c)}
	if t := toneWords(c); t != "" {
		parts = append(parts, t)
	}
	if c.Name != "" {
		parts = append(parts, quoted(c.Name))
	}
	if c.Width == channel.Narrow {
		parts = append(parts, "nfm")
	}
	if c.Power != channel.High {
		parts = append(parts, string(c.Power))
	}
	if scan == ScanSkip || scan == ScanPriority {
		parts = append(parts, string(scan))
	}
	if slot != nil {
		parts = append(parts, fmt.Sprintf("#%d", *slot))
	}
	return strings.Join(parts, " ")
}

func howWords(c channel.Channel) string {
	switch c.Side.Kind {
	case channel.Shift:
		return ShiftWord(c.Side.Offset)
	case channel.Split:
		return "tx " + c.Side.Frequency.String()
	case channel.Blocked:
		return "rx only"
	}
	return "simplex"
}

// ShiftWord writes a shift as one word of the line, with the minus sign of a
// keyboard: "-600kHz", "+7.600MHz".
func ShiftWord(o freq.Offset) string {
	return strings.NewReplacer(" ", "", "−", "-").Replace(o.String())
}

func toneWords(c channel.Channel) string {
	switch c.Mode() {
	case channel.Encode:
		return "tone " + c.TransmitTone.String()
	case channel.Decode:
		return "dec " + c.ReceiveTone.String()
	case channel.ToneSquelch:
		return "ts " + c.TransmitTone.String()
	case channel.Separate:
		return c.TransmitTone.String() + "/" + c.ReceiveTone.String()
	}
	return ""
}

func quoted(name string) string { return `"` + strings.ReplaceAll(name, `"`, `""`) + `"` }

// Rewrite returns the line changed so that it reads as the channel to, in the
// person's own words where those still stand. It falls back to Format.
func Rewrite(line string, d *Draft, to channel.Channel, plan *band.Plan) string {
	for _, o := range d.Offers {
		if o.Channel == to {
			return o.Line
		}
	}
	if d.Query() != "" {
		return Format(to, d.Slot, d.Scan)
	}
	r := rewriting{runes: []rune(line), words: d.Words}
	from := d.Channel
	if from.Receive != to.Receive {
		r.replace(to.Receive.MHz(), AsReceive)
	}
	if from.Side != to.Side {
		r.replace(r.shortHow(to), AsShift, AsSimplex, AsReceiveOnly, AsTransmit)
	}
	if from.TransmitTone != to.TransmitTone || from.ReceiveTone != to.ReceiveTone {
		r.replace(shortTones(to), AsTone, AsSquelch, AsTones, AsReceiveTone)
	}
	if from.Name != to.Name {
		r.replace(quoted(to.Name), AsName, AsCallsign)
	}
	if got := Read(r.String(), plan); got.Complete() && got.Channel == to {
		return r.String()
	}
	return Format(to, d.Slot, d.Scan)
}

// RewriteSlot returns the line changed so that it names the slot n.
func RewriteSlot(line string, d *Draft, n int) string {
	r := rewriting{runes: []rune(line), words: d.Words}
	text := fmt.Sprintf("#%d", n)
	if d.From[channel.FieldSlot] != Typed {
		return strings.TrimSpace(line) + " " + text
	}
	r.replace(text, AsSlot)
	return r.String()
}

// rewriting collects edits of a line, word by word.
type rewriting struct {
	runes []rune
	words []Word
	edits map[int]string // by the index of a word; "" drops it
	after map[int]string // text that follows a word
}

func (r *rewriting) shortHow(to channel.Channel) string {
	if to.Side.Kind == channel.Shift {
		return strings.TrimSuffix(ShiftWord(to.Side.Offset), "kHz")
	}
	return howWords(to)
}

func shortTones(to channel.Channel) string {
	if to.Mode() == channel.Encode {
		return to.TransmitTone.String()
	}
	return toneWords(to)
}

// replace puts text in place of the first word of the given meanings and
// drops the others; if there is none, text follows the receive frequency and
// whatever was put there before it.
func (r *rewriting) replace(text string, as ...As) {
	if r.edits == nil {
		r.edits, r.after = map[int]string{}, map[int]string{}
	}
	done := false
	for i, w := range r.words {
		for _, a := range as {
			if w.As != a {
				continue
			}
			r.edits[i] = text
			if done {
				r.edits[i] = ""
			}
			done = true
		}
	}
	if done {
		return
	}
	at := 0
	for i, w := range r.words {
		if f := w.As.Field(); f == channel.FieldReceive || f == channel.FieldShift || f == channel.FieldTransmit {
			at = i
		}
	}
	r.after[at] += " " + text
}

func (r *rewriting) String() string {
	var parts []string
	for i, w := range r.words {
		text, edited := r.edits[i]
		if !edited {
			text = string(r.runes[w.Start:w.End])
		}
		if text += r.after[i]; text != "" {
			parts = append(parts, strings.TrimSpace(text))
		}
	}
	return strings.Join(parts, " ")
}
