package entry

import (
	"fmt"

	"mnemos/core/channel"
	"mnemos/core/tone"
)

// The groups of patterns, in the order of the docs.
const (
	gFrequency = "Frequencies"
	gShift     = "Shift and transmit side"
	gTone      = "Tones and codes"
	gSquelch   = "The receiver's squelch"
	gSetting   = "Power, bandwidth, scanning, slot"
	gService   = "Channels by number"
	gName      = "Names and what stands around them"
	gAsked     = "What is asked about"
)

// Patterns is the grammar of the entry line. Spellings: common practice, no
// source. The order settles nothing; costs do.
var Patterns = []Pattern{
	// Frequencies.
	{
		ID: "receive", Group: gFrequency, As: AsReceive, Forms: []string{"<freq>"}, Example: "147.24",
		Meaning: "the receive frequency: the repeater's output. Without a point, in kilohertz, or short of its last figures (`145.662`) it is marked as a guess",
		take:    func(s *state, v []value) bool { return s.setReceive(v[0].hz) },
	},
	{
		ID: "receive-labelled", Group: gFrequency, As: AsReceive, Example: "output 147.24",
		Forms:   []string{"output|out|downlink|receives|qrg|{freq} {freq}? <frequency>", "receive frequency? <frequency>", "{freq} <frequency> receive", "listen on <frequency>"},
		Meaning: "the receive frequency",
		take:    func(s *state, v []value) bool { return s.setReceive(v[0].hz) },
	},
	{
		ID: "rx", Group: gFrequency, As: AsReceive, Forms: []string{"rx|rxf|receive {freq}? <frequency>"}, Example: "rx 147.24",
		Meaning: "the receive frequency. `rx` and `tx` on one line against the band plan are asked about: some lists mean the repeater's",
		take:    func(s *state, v []value) bool { s.taken |= fRx; return s.setReceive(v[0].hz) },
	},
	{
		ID: "second", Group: gFrequency, As: AsTransmit, Forms: []string{"<freq>"}, Example: "147.24 147.84",
		Meaning: "a second frequency is the transmit side, if the band plan has that pair; otherwise the line asks",
		take:    func(s *state, v []value) bool { return s.second(v[0].hz) },
	},
	{
		ID: "swapped", Group: gFrequency, As: AsReceive, Forms: []string{"<freq>"}, Example: "146.34 146.94",
		Meaning: "two frequencies that the band plan has the other way round can be read both ways: the line asks",
		take:    func(s *state, v []value) bool { return s.swap(v[0].hz) },
	},
	{
		ID: "joined", Group: gFrequency, As: AsPair, Forms: []string{"<freq> / <freq>", "<freq> - <freq>"}, Example: "146.94/146.34",
		Meaning: "output and input in one word, if the band plan has that pair",
		take:    func(s *state, v []value) bool { return s.setReceive(v[0].hz) && s.second(v[1].hz) },
	},
	{
		ID: "joined-swapped", Group: gFrequency, As: AsPair, Forms: []string{"<freq> / <freq>", "<freq> - <freq>"}, Example: "146.34/146.94",
		Meaning: "the same the other way round: the line asks which is the output",
		take:    func(s *state, v []value) bool { return s.setReceive(v[0].hz) && s.swap(v[1].hz) },
	},
	{
		ID: "band", Group: gFrequency, As: AsBand, Forms: []string{"<band>", "<band> band"}, Example: "70cm 443.275",
		Meaning: "the band, in metres, by `vhf` and `uhf`, or by the figures it is called by (`220`, `440`); it must agree with the frequency",
		take:    func(s *state, v []value) bool { s.band = v[0].text; return s.claim(fBand) },
	},

	// Shift and transmit side.
	{
		ID: "sign", Group: gShift, As: AsShift, Forms: []string{"<lone-sign>", "<sign> {shift}", "{shift} <sign>", "{dup} <sign>"}, Example: "147.24 +",
		Meaning: "the direction of the shift: `+` `-` `plus` `minus` `positive` `neg` `up` `down` `dup+`. The size comes from the band plan, and the sentence says from which rule",
		take:    func(s *state, v []value) bool { return s.setSign(v[0].sign) },
	},
	{
		ID: "shift", Group: gShift, As: AsShift, Example: "146.94 -600",
		Forms:   []string{"<signed>", "{shift}|{dup} <signed>", "<signed> {shift}", "{shift} band plan <signed>", "{shift} size? band plan <signed>"},
		Meaning: "direction and size: kilohertz from three figures on, else megahertz",
		take: func(s *state, v []value) bool {
			if s.unusual = v[0].n; s.unusual != 0 {
				s.n += 2 // of two readings alike the tone comes first: the size says nothing new
			}
			return s.setSign(v[0].sign) && s.setSize(v[0].size)
		},
	},
	{
		ID: "shift-turned", Group: gShift, As: AsShift, Forms: []string{"<size> <sign>", "<sign> {shift} <size>"}, Cost: likely, Example: "146.82 1.6 negative",
		Meaning: "the same the other way round",
		take: func(s *state, v []value) bool {
			s.unusual = v[0].n + v[1].n
			return (s.has(fReceive|fTransmit) || v[0].size == 0) && s.setSign(v[0].sign+v[1].sign) && s.setSize(v[0].size+v[1].size)
		},
	},
	{
		ID: "size", Group: gShift, As: AsShift, Forms: []string{"<known-size>"}, Cost: possible, Example: "442.1 5",
		Meaning: "a size that the band uses; its direction comes from the band plan",
		take:    func(s *state, v []value) bool { return s.bareSize(v[0].size) },
	},
	{
		ID: "size-labelled", Group: gShift, As: AsShift, Forms: []string{"{shift} of? <size>"}, Example: "147.24 offset 600",
		Meaning: "the size of the shift; `offset 0` is simplex",
		take: func(s *state, v []value) bool {
			if v[0].size == 0 {
				return s.setHow(channel.Simplex)
			}
			return s.setSize(v[0].size)
		},
	},
	{
		ID: "usual-shift", Group: gShift, As: AsShift, Forms: []string{"standard|normal|default|usual {shift}", "{shift}? calculated from the input", "output calculated from the input", "{shift} band plan", "{shift} size band plan"}, Example: "147.24 standard offset",
		Meaning: "the shift of the band plan, as if nothing were written",
		take:    func(*state, []value) bool { return true },
	},
	{
		ID: "simplex", Group: gShift, As: AsSimplex, Example: "146.94 no shift",
		Forms: []string{
			"simplex|simp|sx|spx|direct|talkaround|talk-around|s", "talk around", "{no} {shift}|{dup}|repeater", "{shift}|{dup} {off}", "make it simplex",
			"and? transmits there simplex?", "dont use a? {shift}",
		},
		Meaning: "no shift: `simplex` `simp` `S` `direct`, on a repeater's output `talkaround`",
		take:    func(s *state, _ []value) bool { return s.setHow(channel.Simplex) },
	},
	{
		ID: "blocked", Group: gShift, As: AsReceiveOnly, Example: "162.475 rx only",
		Forms: []string{
			"rx|receive|receiver|listen|listening|monitor|monitoring|hear only", "only rx|receive|listen|monitor", "rxonly|rx-only|receive-only|listen-only|monitor-only|no-tx|tx-off",
			"{no} {tx}|transmits", "do|can|must|may not|never {tx}", "cannot|cant|mustnt {tx}", "never to? {tx}", "not for {tx}|transmission", "and? never transmits",
			"{tx} {off}|inhibit|inhibited|blocked|lock|locked|block|barred|forbidden", "block|inhibit|disable|lock|bar {tx}",
			"{tx} is? {off}|inhibited|blocked|locked band? plan?",
			"monitor|monitoring|listen|listening", "just listen|listening|monitor|monitoring",
		},
		Meaning: "receive only: `rx only` `no tx` `tx off` `never transmit` `listen only` `monitor`",
		take:    func(s *state, _ []value) bool { return s.setHow(channel.Blocked) },
	},
	{
		ID: "tx", Group: gShift, As: AsTransmit, Forms: []string{"tx|txf|transmit {freq}? <frequency>"}, Example: "147.24 tx 147.5",
		Meaning: "a transmit frequency of its own (split)",
		take:    func(s *state, v []value) bool { s.taken |= fTx; return s.setTransmit(v[0].hz) },
	},
	{
		ID: "input", Group: gShift, As: AsTransmit, Forms: []string{"in|input|uplink|transmits {freq}? <frequency>"}, Example: "in 147.84 +600",
		Meaning: "the repeater's input. Of output, input and shift any two give the third",
		take:    func(s *state, v []value) bool { return s.setTransmit(v[0].hz) },
	},

	// Tones and codes.
	{
		ID: "tone", Group: gTone, As: AsTone, Forms: []string{"<bare-tone>"}, Example: "147.24 103.5",
		Meaning: "the tone that is sent; a whole number is one only behind the receive frequency. `141` is 141.3, the one tone that begins so; `+ 754` and `023` are DCS codes",
		take:    func(s *state, v []value) bool { return s.setCode(v[0]) },
	},
	{
		ID: "tone-labelled", Group: gTone, As: AsTone, Example: "146.94 tone 88.5",
		Forms: []string{
			"{tone} <tone>", "{tone} of|is <tone>", "{up} {tone} <tone>", "{tone} {tone} <tone>", "{tone} {sent} <tone>", "sub audible|tone <tone>", "with a tone of <tone>", "with <tone>",
			"enc|encode|t|sends|send|sent <tone>", "<tone> {tone}", "<tone> {tone}? sent",
		},
		Meaning: "the tone that is sent, with a word for it: `tone` `PL` `CTCSS` `CG` `enc`, `uplink tone`. Figures without their point are read (`885`)",
		take:    func(s *state, v []value) bool { return s.setCode(v[0]) },
	},
	{
		ID: "tones", Group: gTone, As: AsTones, Forms: []string{"<pair-tone> / <pair-tone>", "{tone}|{dcs} <pair-tone> / <pair-tone>", "tx <tone> rx <tone>", "t <tone> r <tone>"}, Example: "146.94 100/77",
		Meaning: "the tone sent and the tone waited for; `-` is none",
		take:    func(s *state, v []value) bool { return s.setOut(v[0].tone) && s.setIn(v[1].tone) },
	},
	{
		ID: "dcs", Group: gTone, As: AsTone, Example: "442.65 dcs 023",
		Forms:   []string{"{dcs} {tone}|code? <code>", "digital code <code>", "{dcs} {sent} <code>"},
		Meaning: "a DCS code, normal unless it says `i`, `inverted` or `-023`; `dcs 023 RN` gives the polarity of both sides, the sent one first",
		take:    func(s *state, v []value) bool { return s.setCode(v[0]) },
	},
	{
		ID: "burst", Group: gTone, As: AsTone, Forms: []string{"send|sends|with 1750 hz? burst", "1750 hz? burst?", "tone? burst", "toneburst", "call tone", "1750 hz? tone"}, Example: "145.725 tone burst",
		Meaning: "the 1750 Hz tone burst",
		take:    func(s *state, _ []value) bool { return s.setOut(tone.Burst1750) },
	},
	{
		ID: "no-tone", Group: gTone, As: AsTone, Example: "146.94 no tone",
		Forms:   []string{"{no} a? {tone}|{dcs}|burst", "{tone}|{dcs} {off}", "{up} {tone} {off}", "{tone} {sent} {off}", "carrier access?", "notone|no-tone", "dont use a? {tone}|{dcs}", "send no {tone}"},
		Meaning: "no tone is sent, on purpose",
		take:    func(s *state, _ []value) bool { return s.setOut(tone.Off) },
	},

	// The receiver's squelch.
	{
		ID: "squelch", Group: gSquelch, As: AsSquelch, Example: "146.94 ts 103.5",
		Forms: []string{
			"{squelch} <tone>", "{tone}|t squelch|sq <tone>", "squelch|sq <tone>", "enc/dec|encode/decode <tone>", "encode and decode <tone>", "tx/rx {tone} <tone>", "tx / rx {tone} <tone>",
			"enc / dec <tone>", "{squelch} {dcs} <code>",
		},
		Meaning: "tone squelch: the tone is sent and waited for",
		take: func(s *state, v []value) bool {
			return v[0].tone.Kind() != tone.Burst && s.setOut(v[0].tone) && s.setIn(v[0].tone)
		},
	},
	{
		ID: "both", Group: gSquelch, As: AsSquelch, Example: "146.94 100 tsql",
		Forms: []string{
			"{squelch}", "{tone}|t squelch|sq", "{both}", "both ways|sides", "both-ways", "tx and rx", "encode and decode", "enc and dec", "enc / dec", "tx / rx", "encode / decode", "sent and heard",
		},
		Meaning: "the same behind or before the tone: `tsql` `both ways` `enc/dec`",
		take:    func(s *state, _ []value) bool { return s.setBoth() },
	},
	{
		ID: "heard", Group: gSquelch, As: AsReceiveTone, Example: "146.94 dec 77",
		Forms: []string{
			"dec|decode <tone>", "{down} {tone} <tone>", "{tone} {heard} <tone>", "listen|listens|wait|waits|opens for|to <tone>", "the? receiver opens to <tone>", "<tone> heard",
		},
		Meaning: "the tone that opens the receiver, alone",
		take:    func(s *state, v []value) bool { return s.setIn(v[0].tone) },
	},
	{
		ID: "open", Group: gSquelch, As: AsReceiveTone, Example: "146.94 100 encode only",
		Forms: []string{
			"{no} {squelch}|decode|dec", "{squelch}|decode|dec {off}", "{tone} squelch {off}", "encode|enc only", "open squelch", "squelch open", "leave the receiver open", "the? receiver stays open",
			"{down} {tone} {off}", "{tone} {heard} {off}", "everything heard", "hears everything",
		},
		Meaning: "the receiver stays open",
		take:    func(s *state, _ []value) bool { return s.setIn(tone.Off) },
	},
	{
		ID: "carrier-squelch", Group: gSquelch, As: AsTones, Forms: []string{"carrier squelch", "csq"}, Example: "146.94 carrier squelch",
		Meaning: "no tone either way",
		take:    func(s *state, _ []value) bool { return s.setOut(tone.Off) && s.setIn(tone.Off) },
	},

	// Power, bandwidth, scanning, slot.
	power(channel.High, "high|hi|full|max", "146.52 high power"),
	power(channel.Mid, "mid|med|medium|middle", "146.52 mid"),
	power(channel.Low, "low|lo|min|minimum", "146.52 lo power"),
	{
		ID: "watts", Group: gSetting, As: AsPower, Forms: []string{"<watts>", "{power} <watts>", "<watts> {power}"}, Example: "146.52 5W",
		Meaning: "a power in watts: the nearest step of the radio, which is shown",
		take:    func(s *state, v []value) bool { return s.setPower(channel.Power(v[0].text)) },
	},
	{
		ID: "narrow", Group: gSetting, As: AsWidth, Example: "146.52 nfm",
		Forms: []string{
			"narrow|nfm|nbfm|fmn|fm-n|narrowband|narrow-band", "narrow|n fm|band", "fm narrow", "narrow|nfm 12.5", "{width} narrow|nfm|12.5", "{width} 12.5 khz?|k?", "{no} wide", "2.5 khz|k deviation", "make it narrow", "12.5 khz {width}|channel|spacing",
		},
		Meaning: "narrow: 2.5 kHz deviation, channels of 12.5 kHz",
		take:    func(s *state, _ []value) bool { return s.setWidth(channel.Narrow) },
	},
	{
		ID: "wide", Group: gSetting, As: AsWidth, Example: "146.52 wide",
		Forms: []string{
			"wide|fm|wideband|wide-band|fmw", "wide fm|band", "fm wide", "wide|fm 25|20", "{width} wide|25|20", "{width} 25|20 khz?|k?", "{no} narrow", "5 khz|k deviation", "make it wide", "25|20 khz {width}|channel|spacing",
		},
		Meaning: "wide: 5 kHz deviation, channels of 20 or 25 kHz",
		take:    func(s *state, _ []value) bool { return s.setWidth(channel.Wide) },
	},
	{
		ID: "spacing", Group: gSetting, As: AsWidth, Forms: []string{"<width>"}, Example: "146.52 12.5 kHz",
		Meaning: "the channel spacing: 12.5 is narrow, 20 and 25 are wide. Never a shift",
		take:    func(s *state, v []value) bool { return s.setWidth(channel.Width(v[0].text)) },
	},
	{
		ID: "skip", Group: gSetting, As: AsScan, Example: "146.52 don't scan",
		Forms: []string{
			"skip|lockout|lock-out", "skip {scan}", "{scan} skip", "{no} in? {scan}", "do not {scan}", "{scan} {off}", "leave? out of {scan}", "dont|never include in {scan}", "locked out",
		},
		Meaning: "scanning passes it by",
		take:    func(s *state, _ []value) bool { return s.setScan(ScanSkip) },
	},
	{
		ID: "scan", Group: gSetting, As: AsScan, Forms: []string{"{scan}", "{scan} on|yes", "{no} skip|priority|prio|lockout", "include|in in? {scan}"}, Example: "146.52 scan on",
		Meaning: "scanning stops at it, as it does unless it says otherwise",
		take:    func(s *state, _ []value) bool { return s.setScan(ScanYes) },
	},
	{
		ID: "priority", Group: gSetting, As: AsScan, Forms: []string{"priority|prio", "priority|prio channel|scan"}, Example: "146.52 priority",
		Meaning: "scanning looks at it more often",
		take:    func(s *state, _ []value) bool { return s.setScan(ScanPriority) },
	},
	{
		ID: "slot", Group: gSetting, As: AsSlot, Forms: []string{"in|into? #|slot|ch|chan|channel|memory|mem #? <int>"}, Example: "146.52 #14",
		Meaning: "the slot of the radio",
		take:    func(s *state, v []value) bool { return s.setSlot(v[0].n) },
	},
	{
		ID: "slot-first", Group: gSetting, As: AsSlot, Forms: []string{"<slot>"}, Example: "12: 147.24",
		Meaning: "the number of a list, in front of everything else",
		take:    func(s *state, v []value) bool { return s.setSlot(v[0].n) },
	},

	// Channels by number.
	{
		ID: "service", Group: gService, As: AsReceive, Forms: []string{"<service> {channel}? #? <channel>"}, Example: "frs 15",
		Meaning: "the channel of another service: `frs` `gmrs` `murs` `pmr` `wx` …; its frequency, and its bandwidth where the service sets one. A code may stand behind it: `frs 7.12`, `pmr 5-12`",
		take:    func(s *state, v []value) bool { return s.setService(v[0].text, v[1]) },
		problem: func(r *reading, v []value) string { _, _, p := r.serviceChannel(v[0].text, v[1]); return p },
	},
	{
		ID: "service-code", Group: gService, As: AsReceive, Forms: []string{"<service> {channel}? <channel> {code} {code}? <int>"}, Example: "frs ch 3 code 9",
		Meaning: "a channel and its \"privacy code\" 1 to 38: tone squelch with one of the 38 classic tones. Above 38 makers differ, and the line asks",
		take:    func(s *state, v []value) bool { return s.setService(v[0].text, coded(v)) },
		problem: func(r *reading, v []value) string { _, _, p := r.serviceChannel(v[0].text, coded(v)); return p },
	},
	{
		ID: "service-repeater", Group: gService, As: AsShift, Forms: []string{"repeater|rpt|rptr"}, Example: "gmrs 17 repeater",
		Meaning: "behind a channel that has repeaters: with their shift",
		take: func(s *state, _ []value) bool {
			return s.use != nil && s.use.Offset != 0 && s.setSign(s.use.Offset.Sign()) && s.setSize(s.use.Offset.Abs())
		},
	},
	{
		ID: "designator", Group: gService, As: AsReceive, Forms: []string{"<designator>"}, Example: "RV60",
		Meaning: "a channel by the name that the region's band plan gives it (Region 1: `V40` `RV58` `U280` `RU240`, and the older `S20` `R5`)",
		take: func(s *state, v []value) bool {
			if !s.setReceive(v[0].hz) {
				return false
			}
			if v[0].n == 0 || v[0].problem != "" {
				return true // not an output, or not a channel at all
			}
			rule, ok := s.r.plan.Shift(v[0].hz)
			return ok && s.setSign(rule.Offset.Sign()) && s.setSize(rule.Offset.Abs())
		},
	},

	// Names.
	{
		ID: "name", Group: gName, As: AsName, Forms: []string{"<name>"}, Example: "146.94 Marran Light",
		Meaning: "the name; a number behind a word belongs to it (`Camp 9`), unless it could be a tone: then the line asks",
		take:    func(s *state, v []value) bool { return s.addName(v[0].text) },
	},
	{
		ID: "quoted", Group: gName, As: AsName, Forms: []string{"<text>"}, Example: `147.24 "2m calling"`,
		Meaning: "in quotes anything is a name (`\"\"` inside stands for one)",
		take: func(s *state, v []value) bool {
			if v[0].text == "" {
				return true
			}
			if s.naming != 0 {
				return false
			}
			s.name, s.naming = v[0].text, 2
			return true
		},
	},
	{
		ID: "callsign", Group: gName, As: AsCallsign, Forms: []string{"<call>"}, Example: "147.24 QX1BHL",
		Meaning: "the repeater's callsign: it finds the record, and is the name where no other is written",
		take:    func(s *state, v []value) bool { s.callsign = v[0].text; return s.claim(fCallsign) },
	},
	access("open", "open", "access|use|usage open", "open access|repeater"),
	access("closed", "closed", "members only?", "access|use|usage closed", "closed repeater"),
	access("private", "private", "access|use|usage private", "private repeater"),
	{
		ID: "label", Group: gName, As: AsJoins, Forms: []string{"<label>"}, Example: "147.24 name: Beacon",
		Meaning: "says what comes: `name` `call` `location` `mode` `use`",
		take:    func(*state, []value) bool { return true },
	},
	{
		ID: "joins", Group: gName, As: AsJoins, Forms: []string{"<joins>", "power", "frequency", "mhz"}, Example: "repeater on 146.94",
		Meaning: "joining words say nothing",
		take:    func(*state, []value) bool { return true },
	},

	// What is asked about.
	{
		ID: "joined-numbers", Group: gAsked, As: AsUnknown, Forms: []string{"<hyphened>", "<slashed>"}, Cost: remote, Example: "147-09",
		Meaning: "two numbers joined by a hyphen or slash, unless they are a pair of the band plan or two tones",
		take:    func(*state, []value) bool { return true },
		problem: func(_ *reading, v []value) string {
			return fmt.Sprintf("%s can be read in several ways: type output and input in full, such as 146.94 tx 146.34, or two tones such as 100.0/77.0", v[0].text)
		},
	},
	{
		ID: "two-tones", Group: gAsked, As: AsTones, Forms: []string{"<bare-tone>"}, Example: "146.94 88.5 127.3",
		Meaning: "two tones side by side: which one is sent? The same tone twice is tone squelch",
		take: func(s *state, v []value) bool {
			if v[0].text == "both" || !s.has(fToneOut) || s.has(fToneIn|fBoth) {
				return false
			}
			if s.out != v[0].tone {
				s.cost += refused + 1
			}
			return s.setIn(v[0].tone)
		},
	},
	{
		ID: "short-code", Group: gAsked, As: AsTone, Forms: []string{"{dcs} code? <short-code>", "<marked-short-code>"}, Cost: possible, Example: "442.65 dcs 23",
		Meaning: "a DCS code short of its leading zero, or that is none",
		take:    func(*state, []value) bool { return true },
	},
	{
		ID: "needs-tone", Group: gAsked, As: AsSquelch, Forms: []string{"{tone}", "{dcs}", "enc|encode|dec|decode", "squelch"}, Cost: likely, Example: "146.94 tone",
		Meaning: "a word for a tone without the tone",
		take:    func(*state, []value) bool { return true },
		problem: func(*reading, []value) string {
			return "the tone is missing: mode and tone are two settings. Type it too, such as ts 103.5"
		},
	},
	{
		ID: "not-squelch", Group: gAsked, As: AsSquelch, Forms: []string{"{squelch} <not-tone>", "{tone} squelch|sq <not-tone>"}, Example: "146.94 ts 300",
		Meaning: "a number that is not a tone, behind a word for tone squelch",
		take:    func(*state, []value) bool { return true },
	},
	{
		ID: "not-tone", Group: gAsked, As: AsTone, Forms: []string{"{tone}|enc|dec|encode|decode <not-tone>"}, Example: "146.94 tone 300",
		Meaning: "a number that is not a tone",
		take:    func(*state, []value) bool { return true },
	},
	{
		ID: "not-shift", Group: gAsked, As: AsShift, Forms: []string{"<not-shift>"}, Example: "146.94 -5000 MHz",
		Meaning: "a size that no shift has",
		take:    func(*state, []value) bool { return true },
	},
	{
		ID: "alike", Group: gAsked, As: AsUnknown, Forms: []string{"<alike>"}, Example: "146.94 simplx",
		Meaning: "a setting that is misspelt",
		take:    func(*state, []value) bool { return true },
	},
	{
		ID: "foreign", Group: gAsked, As: AsUnknown, Forms: []string{"<foreign>"}, Example: "146.94 vox",
		Meaning: "a setting that no channel here has",
		take:    func(*state, []value) bool { return true },
	},
	{
		ID: "alone", Group: gAsked, As: AsUnknown, Cost: doubted, Example: "146.94 no",
		Forms:   []string{"{no}|{off}|on|only", "rx|tx|transmit|receive|input|output|uplink|downlink", "{shift}|{dup}", "slot|#|ch|channel|memory", "do", "not"},
		Meaning: "half of a setting",
		take:    func(*state, []value) bool { return true },
		problem: func(*reading, []value) string {
			return "something is missing beside this: type the whole setting, such as no tone, tx 147.84 or #14, or put a name in quotes"
		},
	},
}

func power(p channel.Power, wordsFor, example string) Pattern {
	return Pattern{
		ID: string(p), Group: gSetting, As: AsPower, Forms: []string{wordsFor, wordsFor + " {power}", "{power} " + wordsFor}, Example: example,
		Meaning: string(p) + " power",
		take:    func(s *state, _ []value) bool { return s.setPower(p) },
	}
}

func access(a string, forms ...string) Pattern {
	return Pattern{
		ID: "access-" + a, Group: gName, As: AsAccess, Forms: forms, Example: "147.24 103.5 " + a,
		Meaning: "the listing says that it is " + a + "; sets nothing in the radio",
		take:    func(s *state, _ []value) bool { return s.setAccess(a) },
	}
}
