package beacon

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"mnemos/core/aprs"
	"mnemos/core/ax25"
	"mnemos/core/check"
	"mnemos/core/tone"
)

const (
	practice  = "common practice, no source"
	published = "APRS Protocol Reference 1.0.1, from memory, confirm"
)

// said are all texts that go out.
func (p *pass) said() string { return strings.Join([]string{p.Words, p.Status, p.Text}, " ") }

var emergencyWord = regexp.MustCompile(`(?i)\b(emergency|mayday|pan-?pan|sos)\b`)

// frequencies that stand in free text.
var frequencyWord = regexp.MustCompile(`\b(\d{3}[.,]\d{1,4})\s*(?:MHz)?\b`)

// Rules are all rules, in the order in which they run.
var Rules = []Rule{
	{
		ID: "beacon-emergency", Title: "An emergency", Source: published,
		Doc: "Emergency is a signal that others act on at once, and is kept for when life is at stake. It is in no preset here and in no drill; a text that says it is refused. In distress any means may be used: your radio has its own way.",
		Run: func(p *pass) {
			if m := emergencyWord.FindString(p.said()); m != "" || p.Symbol == "\\!" || p.Station.Says > 6 {
				p.say(check.Stop, "It would call an emergency", "Others act on that at once. Take it out; in distress use your radio’s own way.", set("Take it out", "words", cut(p.Words), "status", cut(p.Status), "text", cut(p.Text), "symbol", symbolOr(p.Symbol, p.r.Profile.Symbol), "says", 0))
			}
		},
	},
	{
		ID: "beacon-callsign", Title: "The callsign", Source: "47 CFR 97.119 in the United States; elsewhere your authority",
		Doc: "Every frame says who sends it. A beacon goes out with one’s own callsign and no other.",
		Run: func(p *pass) {
			_, err := ax25.ParseAddress(p.From)
			call, _, _ := strings.Cut(p.From, "-")
			mine, _, _ := strings.Cut(strings.ToUpper(p.Callsign), "-")
			switch {
			case p.From == "":
				p.say(check.Stop, "It has no callsign", "Type yours, such as QX9ABC-7.")
			case err != nil:
				p.say(check.Stop, "That is not a callsign", err.Error()+".")
			case mine != "" && call != mine:
				p.say(check.Fix, fmt.Sprintf("It says %s, and you are %s", call, mine), "A beacon goes out with your own callsign.", set("Say "+numbered(mine, p.r.Profile.SSID), "from", numbered(mine, p.r.Profile.SSID)))
			}
		},
	},
	{
		ID: "beacon-ssid", Title: "The number behind the callsign", Source: "published recommendation on SSIDs, from memory, confirm",
		Doc: "The number says which station of yours it is, by published advice: 7 a handheld, 9 a car, 8 a boat, none a fixed station.",
		Run: func(p *pass) {
			a, err := ax25.ParseAddress(p.From)
			if err == nil && a.SSID != p.r.Profile.SSID && !(p.r.Profile.SSID == 0 && a.SSID <= 4) {
				p.say(check.Check, fmt.Sprintf("-%d says: %s", a.SSID, aprs.SSIDs()[a.SSID].Says), fmt.Sprintf("For %s -%d is usual.", p.r.Profile.Says, p.r.Profile.SSID), set("Say "+numbered(a.Call, p.r.Profile.SSID), "from", numbered(a.Call, p.r.Profile.SSID)))
			}
		},
	},
	{
		ID: "beacon-frame", Title: "A frame that cannot be", Source: published,
		Doc: "Texts have a longest, names too, and letters beyond plain ASCII are not sent.",
		Run: func(p *pass) {
			for _, s := range p.r.Shown {
				if s.Error != "" && p.From != "" {
					p.say(check.Stop, "The "+string(s.Kind)+" cannot be sent", upper(s.Error)+".")
				}
			}
		},
	},
	{
		ID: "beacon-long", Title: "A long comment", Source: published + "; the radio’s profile",
		Doc: "A comment behind a position has up to 43 letters; many radios hold fewer, and cut the rest without a word.",
		Run: func(p *pass) {
			n, most := len(comment(p.Station, p.Around)), 43
			who := "a position"
			if p.Radio != nil && p.Radio.APRS.Length > 0 && p.Radio.APRS.Length < most {
				most, who = p.Radio.APRS.Length, p.Unit
			}
			if n > most {
				words := p.Words[:max(0, len(p.Words)-(n-most))]
				p.say(check.Fix, fmt.Sprintf("%d letters, and %s holds %d", n, who, most), "The rest would be cut.", set("Cut the words", "words", strings.TrimSpace(words)))
			}
		},
	},
	{
		ID: "beacon-path-old", Title: "A path of yesterday", Source: "the published WIDEn-N paradigm, from memory, confirm",
		Doc: "RELAY, WIDE and TRACE without a number are answered by few repeaters now, and by some more than once. WIDE1-1 and WIDE2-1 took their place.",
		Run: func(p *pass) {
			for _, a := range p.path() {
				if slices.Contains(obsolete, a.Call) {
					p.say(check.Fix, a.Call+" is a path of yesterday", "Few repeaters answer it, some more than once.", set("Use "+p.r.Profile.Path, "path", p.r.Profile.Path))
					return
				}
			}
		},
	},
	{
		ID: "beacon-path-long", Title: "A long path", Source: practice,
		Doc: "Each step of a path sends the whole frame again, over a wide area. Two are enough nearly everywhere; many repeaters refuse more than three.",
		Run: func(p *pass) {
			if n := aprs.Hops(p.path()); n > 2 {
				severity := check.Check
				if n > 3 {
					severity = check.Fix
				}
				p.say(severity, fmt.Sprintf("%d repeats", n), "Each sends the whole frame again, over a wide area.", set("Use "+p.r.Profile.Path, "path", p.r.Profile.Path))
			}
		},
	},
	{
		ID: "beacon-path-fixed", Title: "A fixed station through small repeaters", Source: practice,
		Doc: "WIDE1-1 asks small fill-in repeaters, which are for stations that move and are low. A fixed station reaches a wide one by itself.",
		Run: func(p *pass) {
			path := p.path()
			if (p.r.Profile.ID == "fixed" || p.r.Profile.ID == "event") && len(path) > 0 && path[0].Call == "WIDE1" {
				p.say(check.Fix, "A fixed station asks small repeaters", "They are for stations that move.", set("Use WIDE2-1", "path", "WIDE2-1"))
			}
		},
	},
	{
		ID: "beacon-path-air", Title: "From the air through small repeaters", Source: practice,
		Doc: "From high up every small repeater for hundreds of kilometres hears a frame, and all send it at once.",
		Run: func(p *pass) {
			if p.r.Profile.ID == "air" && slices.ContainsFunc(p.path(), func(a ax25.Address) bool { return a.Call == "WIDE1" }) {
				p.say(check.Stop, "From the air WIDE1-1 keys every small repeater around", "Send it direct, or with one wide step.", set("Use WIDE2-1", "path", "WIDE2-1"), set("Send it direct", "path", ""))
			}
		},
	},
	{
		ID: "beacon-path-space", Title: "The path through space", Source: practice,
		Doc: "The station in space answers to its own names, and to none of the ground; on the ground these names lead nowhere.",
		Run: func(p *pass) {
			up := slices.ContainsFunc(p.path(), func(a ax25.Address) bool { return slices.Contains(spaceNames, a.Call) })
			switch {
			case p.r.Profile.Space && !up:
				p.say(check.Fix, "The path is one of the ground", "The station in space answers to ARISS.", set("Use ARISS", "path", "ARISS"))
			case !p.r.Profile.Space && up:
				p.say(check.Fix, "The path is one of space", "Nobody on the ground answers to it: it was left over.", set("Use "+p.r.Profile.Path, "path", p.r.Profile.Path))
			}
		},
	},
	{
		ID: "beacon-space-long", Title: "A long frame through space", Source: practice,
		Doc: "A pass takes minutes and is shared by a continent: short frames get through. Height, speed, a long text and a status with each packet are left at home.",
		Run: func(p *pass) {
			if p.r.Profile.Space && (p.Height || p.Speed || len(p.Words) > 20 || p.Status != "") {
				words := p.Words[:min(len(p.Words), 20)]
				p.say(check.Fix, "It is long for a pass", "A continent shares the minutes of a pass.", set("Shorten it", "height", false, "speed", false, "status", "", "words", strings.TrimSpace(words)))
			}
		},
	},
	{
		ID: "beacon-interval", Title: "Too often", Source: practice,
		Doc: "Thirty seconds flood a channel. A car that moves says where it is every one or two minutes, a fixed station every ten to thirty.",
		Run: func(p *pass) {
			every := p.Every
			if p.Smart {
				every = p.Steer.FastEvery
			}
			least := float64(p.r.Profile.Least)
			if every <= 0 || every >= least {
				return
			}
			fix := set("Every "+seconds(float64(p.r.Profile.Every)), "every", p.r.Profile.Every)
			if p.Smart {
				u := Usual(p.r.Profile.ID, "")
				fix = set("The usual steps for "+p.r.Profile.Says, "steer", u.Steer)
			}
			severity := check.Check
			if every < least/2 || every < 30 {
				severity = check.Fix
			}
			p.say(severity, fmt.Sprintf("Every %s is often for %s", seconds(every), p.r.Profile.Says), fmt.Sprintf("%s or more is usual.", upper(seconds(least))), fix)
		},
	},
	{
		ID: "beacon-floods", Title: "Stations set like this flood the channel", Source: "S = G e^(−2G), Abramson 1970: more load than a half carries less",
		Doc: "So many stations set like this one, with their repeats, fill half of the time or more: from there on more load carries less. Beacon more seldom, by speed and turn, over fewer repeats, or shorter.",
		Run: func(p *pass) {
			t := p.r.Traffic
			if p.r.Shown[0].Error != "" || t.Busy() < aprs.Floods {
				return
			}
			var fixes []Fix
			if !p.Smart && p.r.Profile.Smart {
				u := Usual(p.r.Profile.ID, "")
				fixes = append(fixes, set("Beacon by speed and turn", "smart", true, "steer", u.Steer, "every", u.Every))
			} else {
				fixes = append(fixes, set("Every "+seconds(p.Every*3), "every", p.Every*3, "smart", false))
			}
			p.say(check.Fix, fmt.Sprintf("%d stations set like this flood the channel", t.Stations), fmt.Sprintf("Busy %.0f %% of the time; %.0f of 100 collide.", 100*t.Busy(), 100*t.Collides()), fixes...)
		},
	},
	{
		ID: "beacon-symbol", Title: "The symbol", Source: published,
		Doc: "The symbol is what others see at a glance. One that is reserved shows as nothing; one of another use misleads.",
		Run: func(p *pass) {
			s, err := aprs.ParseSymbol(p.Symbol)
			switch {
			case err != nil:
				p.say(check.Stop, "That is not a symbol", err.Error()+".", set("Use "+p.r.Profile.Symbol, "symbol", p.r.Profile.Symbol))
			case strings.HasPrefix(aprs.Words(s), "reserved") || strings.Contains(aprs.Words(s), "not for use"):
				p.say(check.Fix, p.Symbol+" is "+aprs.Words(s), "It shows as nothing.", set("Use "+p.r.Profile.Symbol, "symbol", p.r.Profile.Symbol))
			}
		},
	},
	{
		ID: "beacon-call-back", Title: "A frequency in the text", Source: "addendum 1.2, frequency specification, from memory, confirm",
		Doc: "Others call back on what the text says, so it has to be a channel that you have stored. The channel is right; only the text is mended.",
		Run: callBack,
	},
	{
		ID: "beacon-slot", Title: "The channel for packets", Source: "the region’s band plan",
		Doc: "The radio wants a channel on the frequency of packets, without a tone, and not among those that are scanned: every packet would stop the scan, and a tone would keep the modem shut.",
		Run: func(p *pass) {
			if p.r.Channel == 0 {
				p.say(check.Check, "No frequency for packets is known here", "Ask locally: "+p.Plan.Title+" has none in its plan here.")
				return
			}
			if p.r.Slot < 0 {
				p.say(check.Check, fmt.Sprintf("%s has no channel on %s", p.Unit, p.r.Channel), "Store it in Plan, without a tone, and not scanned.")
				return
			}
			for _, x := range p.Slots {
				if x.Number != p.r.Slot {
					continue
				}
				if x.Channel.ReceiveTone != tone.Off {
					p.say(check.Fix, fmt.Sprintf("Slot %d waits for a tone", x.Number), "Packets carry none: open it in Plan.")
				}
				if x.Scanned {
					p.say(check.Fix, fmt.Sprintf("Slot %d is scanned", x.Number), "Every packet would stop the scan: take it out in Plan.")
				}
			}
		},
	},
	{
		ID: "beacon-modem", Title: "The modem", Source: "the radio’s profile",
		Doc: "Packets are made by a modem: in the radio, or beside it with a cable.",
		Run: func(p *pass) {
			if p.Radio != nil && !p.Radio.APRS.Modem {
				p.say(check.Check, p.Unit+" has no modem", "It needs one beside it, with a cable; the frames are the same.")
			}
		},
	},
	{
		ID: "beacon-status", Title: "A status with every packet", Source: practice,
		Doc: "A status is a frame of its own. Where a radio sends it with every position it doubles what you send, and undoes a short position.",
		Run: func(p *pass) {
			if len(p.Status) > 20 && !p.r.Profile.Space && len(p.r.Shown) > 1 && p.r.Shown[1].Error == "" {
				p.say(check.Note, fmt.Sprintf("The status takes %.0f ms more", p.r.Shown[1].Air.Total), "Send it every tenth time or less, or leave it out.", set("No status", "status", ""))
			}
		},
	},
	{
		ID: "beacon-home", Title: "It marks your house", Source: practice,
		Doc: "Packets are kept on the internet for years. A beacon at home, to 18 m, marks the house. Circles where nothing is sent lie off its centre, so that they do not mark it either.",
		Run: func(p *pass) {
			if p.r.Hidden {
				p.say(check.Note, "Nothing is sent from here", "It lies in one of your circles.")
				return
			}
			if p.Source == "fixed" && p.Ambiguity == 0 && p.r.Profile.ID == "fixed" {
				p.say(check.Check, "It marks your house to 18 m", "Anybody can read it for years. Leave figures out, or mean it.", set("Leave out one figure", "ambiguity", 1, "format", "plain"))
			}
		},
	},
	{
		ID: "beacon-clock", Title: "A time in a frame", Source: published,
		Doc: "A radio’s clock runs in local time on many radios and is written as UTC: then every packet is hours old. A position without a time is of now.",
		Run: func(p *pass) {
			if p.Time {
				p.say(check.Check, "It sends a time", "See that the radio’s clock and its zone are right: it is written in UTC.", set("Without a time", "time", false))
			}
		},
	},
	{
		ID: "beacon-key-up", Title: "The key-up delay", Source: practice,
		Doc: "The delay lets the transmitter and the receivers settle. Long ones waste the channel; one that is too short loses the beginning of the frame.",
		Run: func(p *pass) {
			switch {
			case p.KeyUp > 500:
				p.say(check.Fix, fmt.Sprintf("%.0f ms of key-up delay", p.KeyUp), "That is longer than most frames.", set("300 ms", "key_up", 300))
			case p.KeyUp < 100:
				p.say(check.Check, fmt.Sprintf("%.0f ms of key-up delay", p.KeyUp), "Many receivers are not open by then.", set("200 ms", "key_up", 200))
			}
		},
	},
}

var (
	obsolete   = []string{"RELAY", "WIDE", "TRACE", "GATE", "ECHO"}
	spaceNames = []string{"ARISS", "RS0ISS"}
)

// cut takes the word out of a text.
func cut(s string) string { return strings.TrimSpace(emergencyWord.ReplaceAllString(s, "")) }

func symbolOr(s, usual string) string {
	if s == "\\!" {
		return usual
	}
	return s
}

func upper(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

// callBack holds frequencies in the texts against the stored channels.
func callBack(p *pass) {
	if b, ok := aprs.ReadBack(p.Words); ok {
		for _, x := range p.Slots {
			if b.Matches(x.Channel) {
				return
			}
		}
		for _, x := range p.Slots {
			if x.Channel.Receive == b.Freq {
				text, ok := aprs.BackText(x.Channel)
				if !ok {
					continue
				}
				_, rest := aprs.SplitFrequency(p.Words)
				p.say(check.Fix, fmt.Sprintf("The text says otherwise than slot %d", x.Number), fmt.Sprintf("That holds %s. The channel stays; the text is mended.", text), set("Say "+text, "words", strings.TrimSpace(text+" "+rest)))
				return
			}
		}
		p.say(check.Fix, fmt.Sprintf("%s is stored nowhere", b.Freq), "Others would call back where you do not listen. Choose a slot to call back on.", set("Take it out of the text", "words", rest(p.Words)))
		return
	}
	if m := frequencyWord.FindStringSubmatch(p.said()); m != nil {
		text := strings.Replace(m[1], ",", ".", 1)
		if !slices.ContainsFunc(p.Slots, func(x Slot) bool { return strings.HasPrefix(x.Channel.Receive.MHz(), text) }) {
			p.say(check.Check, text+" is stored nowhere", "Others would call back where you do not listen.")
		}
		return
	}
	for _, x := range p.Slots {
		if x.Number != p.Back {
			continue
		}
		if _, ok := aprs.BackText(x.Channel); !ok {
			p.say(check.Fix, fmt.Sprintf("Slot %d cannot be told", x.Number), fmt.Sprintf("%s lies between two kilohertz, or has a shift that the text cannot say.", x.Channel.Receive), set("Call back on no slot", "back", -1))
		}
		return
	}
	if p.Back >= 0 {
		p.say(check.Fix, fmt.Sprintf("Slot %d is empty", p.Back), "Others would call back on nothing.", set("Call back on no slot", "back", -1))
	}
}

func rest(words string) string {
	_, r := aprs.SplitFrequency(words)
	return r
}
