package find

import (
	"slices"
	"strings"

	"mnemos/core/evidence"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

// Choice is a word that stands for a choice.
type Choice struct {
	Word  string
	Also  []string // other spellings
	As    string   // %s is the radio
	Rest  string
	Group string // for the menu: one of a group, or any
	keep  func(*seen) bool
	turn  func(*Query)
}

// Choices are all of them, in the order of the menu.
var Choices = []Choice{
	{Word: "missing", Also: []string{"new", "lack"}, As: "not in %s", Rest: "in %s, or not for it", Group: "plan", keep: func(x *seen) bool { return !x.mine && x.cannot == "" }},
	{Word: "held", Also: []string{"mine", "have"}, As: "in %s", Rest: "not in %s", Group: "plan", keep: func(x *seen) bool { return x.mine }},
	{Word: "cannot", As: "not for %s", Rest: "%s can use", Group: "plan", keep: func(x *seen) bool { return !x.mine && x.cannot != "" }},
	{Word: "agreed", Also: []string{"agree", "agrees"}, As: "two lists agree", Rest: "that no two lists agree on", Group: "listings", keep: func(x *seen) bool { return x.trust().Verdict == evidence.Agrees }},
	{Word: "differ", Also: []string{"differs", "differing", "doubt"}, As: "lists differ", Rest: "that no lists differ about", Group: "listings", keep: func(x *seen) bool { return len(x.Conflicts) > 0 }},
	{Word: "only-one", Also: []string{"one-list"}, As: "in one list", Rest: "in several lists", Group: "listings", keep: func(x *seen) bool { return x.lists == 1 }},
	{Word: "open", As: "open to all", Rest: "not open", Group: "access", keep: func(x *seen) bool { return x.Best.Access != listing.Closed && x.Best.Access != listing.Private }},
	{Word: "closed", Also: []string{"private", "members"}, As: "for members", Rest: "not closed", Group: "access", keep: func(x *seen) bool { return x.Best.Access == listing.Closed || x.Best.Access == listing.Private }},
	{Word: "on-air", Also: []string{"on-the-air", "working"}, As: "on the air", Rest: "off the air", Group: "status", keep: func(x *seen) bool { return x.Best.Status != listing.OffAir }},
	{Word: "off-air", Also: []string{"off-the-air"}, As: "off the air", Rest: "on the air", Group: "status", keep: func(x *seen) bool { return x.Best.Status == listing.OffAir }},
	{Word: "this-year", Also: []string{"fresh"}, As: "confirmed within 12 months", Rest: "not confirmed this year", Group: "confirmed", keep: confirmed(12, 0)},
	{Word: "this-month", As: "confirmed within a month", Rest: "not confirmed this month", Group: "confirmed", keep: confirmed(1, 0)},
	{Word: "stale", Also: []string{"undated"}, As: "old or undated", Rest: "confirmed lately", Group: "confirmed", keep: func(x *seen) bool { return !x.since(x.stale) }},
	{Word: "carrier", Also: []string{"no-tone"}, As: "opened by carrier", Rest: "opened otherwise", Group: "opened by", keep: opensTo(tone.None)},
	{Word: "ctcss", As: "opened by a tone", Rest: "opened otherwise", Group: "opened by", keep: opensTo(tone.CTCSS)},
	{Word: "dcs", As: "opened by a code", Rest: "opened otherwise", Group: "opened by", keep: opensTo(tone.DCS)},
	{Word: "burst", Also: []string{"1750"}, As: "opened by 1750 Hz", Rest: "opened otherwise", Group: "opened by", keep: opensTo(tone.Burst)},
	{Word: "dtmf", As: "opened by DTMF", Rest: "opened otherwise", Group: "opened by", keep: func(x *seen) bool { return dtmf(x.Entry) }},
	{Word: "tone-known", As: "tone is published", Rest: "without a published tone", Group: "opened by", keep: func(x *seen) bool { return x.Best.UplinkTone.Known }},
	{Word: "fm", As: "usable with FM", Rest: "digital only", Group: "mode", keep: func(x *seen) bool { return x.Best.Mode != listing.Digital }},
	{Word: "digital", As: "digital only", Rest: "usable with FM", Group: "mode", keep: func(x *seen) bool { return x.Best.Mode == listing.Digital }},
	{Word: "narrow", As: "narrow", Rest: "not narrow", Group: "width", keep: func(x *seen) bool { return x.Best.Width == "narrow" }},
	{Word: "wide", As: "wide", Rest: "not wide", Group: "width", keep: func(x *seen) bool { return x.Best.Width == "wide" }},
	{Word: "repeaters", Also: []string{"repeater"}, As: "repeaters only", Rest: "channels", Group: "sort", keep: func(x *seen) bool { return x.Best.IsRepeater() }},
	{Word: "channels", Also: []string{"simplex", "channel"}, As: "channels only", Rest: "repeaters", Group: "sort", keep: func(x *seen) bool { return !x.Best.IsRepeater() }},
	{Word: "horizon", Also: []string{"in-reach"}, As: "you are in its reach", Rest: "out of reach", Group: "reach", keep: func(x *seen) bool { return x.audible() }},
	{Word: "no-place", Also: []string{"nowhere"}, As: "no position", Rest: "with a position", Group: "reach", keep: func(x *seen) bool { return !x.Placed() }},
	{Word: "corrected", As: "corrected by you", Rest: "as published", Group: "listings", keep: func(x *seen) bool { return len(x.Best.Corrected) > 0 }},
	{Word: "by-distance", Also: []string{"nearest"}, As: "nearest first", Group: "order", turn: func(q *Query) { q.Order = ByDistance }},
	{Word: "by-reach", Also: []string{"best"}, As: "best in reach first", Group: "order", turn: func(q *Query) { q.Order = ByReach }},
	{Word: "by-frequency", As: "lowest output first", Group: "order", turn: func(q *Query) { q.Order = ByFrequency }},
}

func chosen(ts []token, _ *Book, s *Scene) (int, Word) {
	var c *Choice
	n := longest(ts, 3, func(text string) bool {
		text = strings.ReplaceAll(text, " ", "-")
		i := slices.IndexFunc(Choices, func(c Choice) bool { return c.Word == text || slices.Contains(c.Also, text) })
		if i >= 0 {
			c = &Choices[i]
		}
		return i >= 0
	})
	if n == 0 {
		return 0, Word{}
	}
	return n, c.word(s)
}

func (c *Choice) word(s *Scene) Word {
	return Word{As: s.radioIn(c.As), Rest: s.radioIn(c.Rest), Menu: c.Group, keep: c.keep, turn: c.turn}
}

func (s *Scene) radioIn(text string) string { return strings.ReplaceAll(text, "%s", s.radio()) }

func opensTo(k tone.Kind) func(*seen) bool {
	return func(x *seen) bool {
		return x.Best.UplinkTone.Known && x.Best.UplinkTone.Tone.Kind() == k && !dtmf(x.Entry)
	}
}

func confirmed(months, days int) func(*seen) bool {
	return func(x *seen) bool { return x.since(day(x.scene).AddDate(0, -months, -days)) }
}
