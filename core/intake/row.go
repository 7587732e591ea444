package intake

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/listing"
)

// Fault is a cell that cannot be read, and what to write instead.
type Fault struct {
	Column  int    `json:"column"` // from 0; -1 for the row as a whole
	Role    Role   `json:"role"`
	Text    string `json:"text"`
	Message string `json:"message"`
}

// Reader makes records of rows by a mapping. Records get a key of their own
// where the table has none.
type Reader struct {
	Mapping Mapping
	Plan    *band.Plan
	Source  string
	keys    map[string]int
	// repeated are the keys that came more than once, as often as they came again.
	repeated []string
}

// Repeated returns the keys that several rows had: which of them has the plain
// key and which a number hangs on their order, unless it is settled afterwards.
func (r *Reader) Repeated() []string {
	slices.Sort(r.repeated)
	return slices.Compact(r.repeated)
}

// row is one under way.
type row struct {
	r      *Reader
	rec    listing.Record
	shift  offset
	size   offset
	kind   listing.Kind // what words of the row say that it is
	faults []Fault
}

// Row reads one row. With a fault the record is not to be used: a tone or a
// frequency that was misread is worse than one that is missing. What is only
// about the record (its mode, status, access, date, height) is left unknown
// instead where it cannot be read.
func (r *Reader) Row(cells []string) (listing.Record, []Fault) {
	w := row{r: r, rec: listing.Record{Source: r.Source}}
	for _, first := range []bool{true, false} { // a shift is read beside its output
		for i, text := range cells {
			if i >= len(r.Mapping) || strings.TrimSpace(text) == "" || (r.Mapping[i].Role == Output) != first {
				continue
			}
			if err := w.take(r.Mapping[i], text); err != nil {
				w.fault(i, r.Mapping[i].Role, text, err)
			}
		}
	}
	slices.SortFunc(w.faults, func(a, b Fault) int { return cmp.Compare(a.Column, b.Column) })
	w.finish()
	return w.rec, w.faults
}

func (w *row) fault(column int, role Role, text string, err error) {
	w.faults = append(w.faults, Fault{Column: column, Role: role, Text: Clean(text), Message: err.Error()})
}

func (w *row) take(c Column, text string) (err error) {
	rec := &w.rec
	switch c.Role {
	case Key:
		rec.Key = Clean(text)
	case Callsign:
		rec.Callsign = strings.ToUpper(Clean(text))
	case Locality:
		rec.Locality = Clean(text)
	case Note:
		rec.Note = strings.TrimSpace(rec.Note + " " + Clean(text))
	case Output:
		rec.Output, w.shift, err = w.r.output(text, c.Unit)
	case Input:
		switch {
		case is("simplex_row", text):
			w.kind = listing.SimplexChannel
		case is("listen_row", text):
			w.kind = listing.ListenChannel
		case !is("unknown", text) && strings.Trim(text, "0., ") != "":
			rec.Input, _, err = w.r.output(text, c.Unit)
		}
	case Shift:
		w.shift, err = w.r.shiftCell(text, c.Unit, rec.Output)
	case Size:
		w.size, err = shift(text, c.Unit)
	case UplinkTone:
		w.dtmf(text)
		var down listing.Stated
		if rec.UplinkTone, down, err = w.r.toneCell(text); down.Known {
			rec.DownlinkTone = down
		}
	case DownlinkTone:
		rec.DownlinkTone, _, err = w.r.toneCell(text)
	case Latitude:
		rec.Lat, err = pointer(latitude(text))
	case Longitude:
		rec.Lon, err = pointer(longitude(text))
	case Position:
		p, perr := position(text)
		if err = perr; err == nil {
			rec.Lat, rec.Lon = &p.Lat, &p.Lon
		}
	case Height, Updated, Mode, Width, Status, Access:
		w.about(c, text)
	}
	return err
}

func pointer(v float64, err error) (*float64, error) {
	if err != nil {
		return nil, err
	}
	return &v, nil
}

// dtmf notes that a sequence of keys opens the repeater, and which: no memory
// holds that as a tone, and the tone stays unknown.
func (w *row) dtmf(text string) {
	if strings.Contains(plain(text), "dtmf") {
		w.rec.Note = strings.TrimSpace("opened by " + Clean(text) + "; " + w.rec.Note)
	}
}

// about takes what may be left unknown.
func (w *row) about(c Column, text string) {
	rec := &w.rec
	switch c.Role {
	case Height:
		if v, err := height(text); err == nil {
			rec.Height = &v
		}
	case Updated:
		if v, err := date(text, c.Order); err == nil {
			rec.Updated = v
		}
	case Mode:
		rec.Mode = mode(text)
		switch {
		case is("simplex_row", text):
			w.kind = listing.SimplexChannel
		case is("listen_row", text):
			w.kind = listing.ListenChannel
		}
	case Width:
		switch {
		case is("narrow", text):
			rec.Width = string(channel.Narrow)
		case is("wide", text):
			rec.Width = string(channel.Wide)
		}
	case Status:
		switch {
		case is("on_air", text):
			rec.Status = listing.OnAir
		case is("off_air", text):
			rec.Status = listing.OffAir
		}
	case Access:
		switch {
		case is("open", text):
			rec.Access = listing.Open
		case is("closed", text):
			rec.Access = listing.Closed
		case is("private", text):
			rec.Access = listing.Private
		}
	}
}

// mode reads one mode or several: FM among others makes it mixed.
func mode(text string) listing.Mode {
	if is("mixed", text) {
		return listing.MixedFM
	}
	fm, digital := false, false
	for _, part := range strings.FieldsFunc(text, func(r rune) bool { return strings.ContainsRune("/,;+&|", r) }) {
		fm = fm || is("fm", part)
		digital = digital || is("digital", part)
	}
	switch {
	case fm && digital:
		return listing.MixedFM
	case fm:
		return listing.FM
	case digital:
		return listing.Digital
	}
	return ""
}

// finish works out the input, gives the record a key and checks the whole.
func (w *row) finish() {
	rec := &w.rec
	if rec.Output == 0 && len(w.faults) == 0 {
		w.fault(-1, Output, "", fmt.Errorf("the output frequency is missing"))
	}
	if len(w.faults) > 0 {
		return
	}
	if err := w.input(); err != nil {
		w.fault(-1, Shift, "", err)
		return
	}
	w.channel()
	if (rec.Lat == nil) != (rec.Lon == nil) {
		rec.Lat, rec.Lon = nil, nil // half a position is none
	}
	w.key()
	if err := rec.Validate(); err != nil {
		w.fault(-1, Ignore, "", err)
	}
}

// channel tells rows that are no repeaters: simplex and calling channels, and
// what is only listened to.
func (w *row) channel() {
	rec := &w.rec
	switch {
	case w.shift.blocked || w.kind == listing.ListenChannel:
		rec.Kind, rec.Input = listing.ListenChannel, 0
	case rec.Input == rec.Output, w.kind == listing.SimplexChannel && rec.Input == 0:
		rec.Kind, rec.Input = listing.SimplexChannel, rec.Output
	}
}

// input works the input out of output and shift. A size without a sign gets
// the sign that the plan gives to that size; a sign without a size gets the
// plan's size. What the plan does not know is asked for.
func (w *row) input() error {
	o := w.shift
	if o.size == 0 && !o.zero && w.size.size != 0 {
		o.size, o.stated = w.size.size, true
		if o.sign == 0 {
			o.sign = w.size.sign
		}
	}
	if !o.stated || o.blocked {
		return nil
	}
	rule, ruled := w.r.Plan.Shift(w.rec.Output)
	var shift freq.Offset
	switch {
	case o.zero:
	case o.size != 0 && o.sign != 0:
		shift = o.size * freq.Offset(o.sign)
	case o.size != 0 && ruled && rule.Offset.Abs() == o.size:
		shift = rule.Offset
	case o.size != 0:
		return fmt.Errorf("the shift of %s has no direction, and the band plan has another one: write + or - before it", freq.Hz(o.size))
	case ruled:
		shift = rule.Offset.Abs() * freq.Offset(o.sign)
	default:
		return fmt.Errorf("the shift has no size, and the band plan has none for %s: write one such as -0.6", w.rec.Output)
	}
	worked := w.rec.Output.Add(shift)
	if w.rec.Input != 0 && w.rec.Input != worked {
		return fmt.Errorf("the input %s and the shift %s do not belong together", w.rec.Input, listing.ShiftWords(shift))
	}
	if worked <= 0 {
		return fmt.Errorf("the shift is larger than the frequency: did you mean kHz?")
	}
	w.rec.Input = worked
	return nil
}

// key names the record within its source: by the table's own key, or by what
// the record is about. What is twice the same gets a number.
func (w *row) key() {
	key := w.rec.Key
	if key == "" {
		key = strings.Join(strings.Fields(w.rec.Callsign+" "+w.rec.Output.MHz()+" "+w.rec.Locality), " ")
	}
	if w.r.keys == nil {
		w.r.keys = map[string]int{}
	}
	base := key
	if w.r.keys[base] > 0 {
		w.r.repeated = append(w.r.repeated, base)
	}
	for n := 2; w.r.keys[key] > 0; n++ { // "A #2" may be the name of another row
		key = fmt.Sprintf("%s #%d", base, n)
	}
	w.r.keys[key]++
	w.rec.Key = key
}

// Prose reads a line of a listing in words, such as "147.240+ PL 100 Beacon
// Hill", by the grammar of the entry line.
func (r *Reader) Prose(line string) (listing.Record, []Fault) {
	w := row{r: r, rec: listing.Record{Source: r.Source}}
	d := entry.Read(line, r.Plan)
	if p := d.Problem(); p != nil {
		w.fault(-1, Ignore, line, fmt.Errorf("%s", p.Problem))
		return w.rec, w.faults
	}
	if d.Other != nil {
		w.fault(-1, Ignore, line, fmt.Errorf("this can be read in two ways: write the units"))
		return w.rec, w.faults
	}
	c := d.Channel
	w.rec.Output, w.rec.Locality, w.rec.Callsign, w.rec.Access = c.Receive, Clean(c.Name), d.Callsign, listing.Access(d.Access)
	if strings.EqualFold(w.rec.Locality, d.Callsign) {
		w.rec.Locality = ""
	}
	if _, sends := c.Transmit(); !sends {
		w.shift.blocked = true
	}
	if tx, sends := c.Transmit(); sends && (d.Typed(channel.FieldShift) || d.Typed(channel.FieldTransmit)) {
		w.rec.Input = tx
	}
	if d.Typed(channel.FieldTransmitTone) {
		w.rec.UplinkTone = listing.Says(c.TransmitTone)
	}
	if d.Typed(channel.FieldReceiveTone) && !c.ReceiveTone.IsOff() {
		w.rec.DownlinkTone = listing.Says(c.ReceiveTone)
	}
	w.finish()
	return w.rec, w.faults
}
