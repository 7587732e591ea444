package check

import (
	"fmt"
	"slices"
	"strings"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/listing"
)

// meant returns the record that the channel is judged by: the likeliest one,
// in its newest statement, provided that it may be heard here or that the
// channel names it.
func meant(s Subject) *listing.Match {
	if s.Channel.Receive == 0 || len(s.Outputs) == 0 { // without a frequency Outputs are what a name found
		return nil
	}
	m := &s.Outputs[0]
	if !m.Audible && !m.Named {
		return nil
	}
	// Of several statements about one repeater the newest counts, not the one
	// that happens to agree with what was typed.
	for i := range s.Outputs {
		if o := &s.Outputs[i]; sameRepeater(*o, *m) && o.Updated.After(m.Updated.Time) {
			m = o
		}
	}
	return m
}

// Age returns the whole months since the record was updated; ok is false if
// it has no date, or one to come.
func Age(m listing.Match, s Settings) (months int, ok bool) {
	t := s.Today
	if m.Updated.IsZero() || m.Updated.After(t.AddDate(0, 0, 1)) { // a date to come says nothing; one of tomorrow is of another time zone
		return 0, false
	}
	months = (t.Year()-m.Updated.Year())*12 + int(t.Month()) - int(m.Updated.Month())
	if t.Day() < m.Updated.Day() {
		months--
	}
	return months, true
}

// AgeWords words how long ago a record was confirmed.
func AgeWords(m listing.Match, s Settings) string {
	months, ok := Age(m, s)
	switch {
	case !ok:
		return "undated"
	case months >= 24:
		return fmt.Sprintf("%d years", months/12)
	case months >= 2:
		return fmt.Sprintf("%d months", months)
	}
	days := int(s.Today.Sub(m.Updated.Time).Hours() / 24)
	if days == 1 {
		return "1 day"
	}
	return fmt.Sprintf("%d days", max(days, 0))
}

func (p *Pass) fresh(m listing.Match) bool {
	months, ok := Age(m, p.Settings)
	return ok && months < p.Stale && m.Status != listing.OffAir
}

// expected returns the shift that the channel ought to have and who says so:
// the record that is meant, or else the band plan. firm is false where the
// plan itself says that practice varies.
func (p *Pass) expected() (o freq.Offset, witness string, firm, ok bool) {
	if p.Meant != nil {
		if o, ok := p.Meant.Offset(); ok {
			return o, "published", true, true
		}
	}
	if rule, ok := p.Plan.Shift(p.Channel.Receive); ok && rule.Certainty != band.Confirm {
		return rule.Offset, "band plan", rule.Certainty == band.Fixed, true
	}
	return 0, "", false, false
}

// because words the witnesses for the shift here.
func (p *Pass) becauseShift() []Reason {
	why := []Reason{{"entered", fmt.Sprintf("%s, which transmits %s", listing.ShiftWords(p.Channel.Offset()), p.transmitWords())}}
	if p.Meant != nil && p.Meant.Input != 0 {
		o, _ := p.Meant.Offset()
		why = append(why, Reason{"published", fmt.Sprintf("%s: %s, input %s", p.cite(*p.Meant), listing.ShiftWords(o), p.Meant.Input)})
	}
	if rule, ok := p.Plan.Shift(p.Channel.Receive); ok {
		text := fmt.Sprintf("outputs %s to %s: %s (%s)", rule.Lower.MHz(), rule.Upper, rule.Offset, rule.Certainty)
		why = append(why, Reason{"band plan", text})
	}
	return why
}

func (p *Pass) becauseTone() []Reason {
	why := []Reason{{"entered", p.Channel.TransmitTone.Words() + " sent, " + openWords(p.Channel) + " heard"}}
	if p.Meant == nil {
		return why
	}
	for _, m := range p.statements() {
		why = append(why, Reason{"published", fmt.Sprintf("%s: uplink %s, downlink %s", p.cite(m), m.UplinkTone, m.DownlinkTone)})
	}
	return why
}

// statements returns every record about the repeater that is meant: same
// callsign on the same output, the one that is meant first.
func (p *Pass) statements() []listing.Match {
	out := []listing.Match{*p.Meant}
	for _, m := range p.Outputs {
		if m.ID() != p.Meant.ID() && sameRepeater(m, *p.Meant) {
			out = append(out, m)
		}
	}
	return out
}

// sameRepeater reports whether two matches on one output speak of one
// repeater: package listing joins them, by what people decided too.
func sameRepeater(a, b listing.Match) bool {
	return a.ID() == b.ID() || a.Repeater != 0 && a.Repeater == b.Repeater
}

// speaksOfMeant reports whether a record found elsewhere is a statement about
// the repeater that is meant.
func (p *Pass) speaksOfMeant(id listing.ID) bool {
	return slices.ContainsFunc(p.Outputs, func(m listing.Match) bool { return m.ID() == id && sameRepeater(m, *p.Meant) })
}

// cite names a record with its source and date.
func (p *Pass) cite(m listing.Match) string {
	date := m.Updated.String()
	if date == "" {
		date = "undated"
	}
	text := fmt.Sprintf("%s, %s of %s", m.Title(), m.Source, date)
	if date == "undated" {
		text = fmt.Sprintf("%s, %s, undated", m.Title(), m.Source)
	}
	if len(m.Corrected) > 0 {
		text += ", corrected by you in " + listing.FieldWords(strings.Join(m.Corrected, ", "))
	}
	return text
}

// away words the distance of a record.
func away(m listing.Match) string {
	if m.Distance == nil {
		return "at an unknown distance"
	}
	return fmt.Sprintf("%.0f km away", *m.Distance)
}

func openWords(c channel.Channel) string {
	if c.ReceiveTone.IsOff() {
		return "everything"
	}
	return c.ReceiveTone.Words()
}

func (p *Pass) transmitWords() string {
	tx, ok := p.Channel.Transmit()
	if !ok {
		return "nothing"
	}
	return tx.String()
}

// transmits reports whether the channel transmits at all.
func (p *Pass) transmits() bool {
	_, ok := p.Channel.Transmit()
	return ok && p.Channel.Receive != 0
}
