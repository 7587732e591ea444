package check

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

var (
	here  = geo.Point{Lat: 41, Lon: -55}
	today = time.Date(2026, 11, 25, 12, 0, 0, 0, time.UTC)
)

// published is a record km to the north of here, confirmed some days ago.
func published(name, output, input, up, down string, km float64, days int, change ...func(*listing.Record)) listing.Record {
	lat, lon, height := here.Lat+km/111.06, here.Lon, 150.0
	r := listing.Record{
		Key: name, Callsign: "Q" + name, Locality: name, Output: freq.MustParse(output), Input: freq.MustParse(input), Mode: listing.FM,
		Lat: &lat, Lon: &lon, Height: &height, Status: listing.OnAir, Access: listing.Open,
		Updated: listing.Date{Time: today.AddDate(0, 0, -days)}, Source: "a list",
	}
	if up != "" {
		r.UplinkTone = listing.Says(tone.MustParse(up))
	}
	if down != "" {
		r.DownlinkTone = listing.Says(tone.MustParse(down))
	}
	for _, f := range change {
		f(&r)
	}
	return r
}

// records is an invented district.
func records() listing.Memory {
	return listing.Memory{
		published("Beacon", "147.240", "147.840", "103.5", "103.5", 12, 20),
		published("Sarn", "147.240", "147.840", "100.0", "", 70, 400),
		published("Marran", "146.940", "146.340", "88.5", "127.3", 18, 20),
		published("Gannet", "145.310", "144.710", "114.8", "none", 9, 20),
		published("Ridge", "146.760", "146.160", "123.0", "", 22, 20),
		published("Twin", "146.640", "146.040", "100.0", "100.0", 10, 20),
		published("Rival", "146.640", "146.040", "77.0", "77.0", 25, 20),
		published("Carrier", "146.700", "146.100", "none", "none", 15, 20),
		published("Digital", "145.270", "144.670", "", "", 12, 20, func(r *listing.Record) { r.Mode = listing.Digital }),
		published("Silent", "147.120", "147.720", "136.5", "", 12, 20, func(r *listing.Record) { r.Status = listing.OffAir }),
		published("Club", "444.100", "449.100", "100.0", "100.0", 12, 20, func(r *listing.Record) { r.Access = listing.Closed }),
		published("Owner", "443.900", "448.900", "100.0", "100.0", 12, 20, func(r *listing.Record) { r.Access = listing.Private }),
		published("Old", "145.230", "144.630", "162.2", "", 12, 1000),
		published("Holm", "146.880", "146.280", "110.9", "156.7", 12, 20),
		published("HolmB", "146.880", "146.280", "156.7", "110.9", 12, 40, func(r *listing.Record) { r.Callsign, r.Source = "QHolm", "b list" }),
		published("Odd", "146.820", "145.220", "77.0", "77.0", 12, 20),
		published("Code", "442.650", "447.650", "D023N", "D023N", 12, 20),
		published("Narrow", "443.500", "448.500", "77.0", "", 12, 20, func(r *listing.Record) { r.Width = "narrow" }),
		published("Minus", "444.900", "439.900", "77.0", "77.0", 12, 20),
	}
}

// toned is a district in which every repeater needs a tone.
func toned() listing.Memory {
	return listing.Memory{
		published("One", "146.940", "146.340", "88.5", "", 12, 20), published("Two", "146.760", "146.160", "123.0", "", 20, 20),
		published("Three", "145.310", "144.710", "114.8", "", 9, 20),
	}
}

type circumstances struct {
	region string
	radio  string
	others []string // "slot line"
	src    listing.Source

	tones           TonePolicy
	services, bands []string
	unlicensed      bool
	heard           string // the tone and shift that something came back to, such as 88.5 -600
}

func look(t *testing.T, line string, c circumstances) Result {
	t.Helper()
	if c.region == "" {
		c.region = "us"
	}
	plan := band.MustLoad(c.region)
	d := entry.Read(line, plan)
	s := Subject{Draft: d, Channel: d.Channel, Slot: d.Slot, Plan: plan, Settings: Defaults(today)}
	s.Place = &here
	if c.tones != "" {
		s.TonePolicy = c.tones
	}
	s.Services, s.Bands, s.Unlicensed = c.services, c.bands, c.unlicensed
	if c.heard != "" {
		found, searched := strings.CutPrefix(c.heard, "searched ")
		sent, shift, _ := strings.Cut(found, " ")
		khz, err := strconv.Atoi(shift)
		require.NoError(t, err)
		s.Heard = evidence.Heard{Known: true, Searched: searched, Tone: tone.MustParse(sent), Offset: freq.Offset(khz * freq.KHz), Day: "2026-11-20"}
	}
	if c.radio != "" {
		var err error
		s.Radio, err = radio.Load(c.radio)
		require.NoError(t, err)
	}
	var others []Other
	for _, o := range c.others {
		var slot int
		_, err := fmt.Sscanf(o, "%d", &slot)
		require.NoError(t, err)
		others = append(others, Other{Slot: slot, Channel: entry.Read(o[2:], plan).Channel})
	}
	s.Occupancy = NewOccupancy(others)
	if c.src == nil {
		c.src = records()
	}
	r, err := Judge(t.Context(), c.src, s)
	require.NoError(t, err)
	return r
}

func of(r Result, rule string) *Finding {
	for i := range r.Findings {
		if r.Findings[i].Rule == rule {
			return &r.Findings[i]
		}
	}
	return nil
}

// TestRules has a line that each rule speaks about and one that it must leave
// alone. Where fix is given it is the line that the first fix must mean. The
// verdicts are worked out by hand from the district above; the band plan's
// figures have their sources in core/band.
func TestRules(t *testing.T) {
	trail, ferry, lantern := circumstances{radio: "trail"}, circumstances{radio: "ferry"}, circumstances{radio: "lantern"}
	gmrs := circumstances{radio: "trail", services: []string{"gmrs", "frs"}}
	with := circumstances{radio: "trail", others: []string{`1 146.52 "Calling"`}}
	seen := map[string]bool{}
	for _, c := range []struct {
		rule, yes, no string
		severity      Severity
		fix           string
		in            circumstances
	}{
		{"entry-word", "146.94 -600 -600", "146.94 -600", Stop, "", trail},
		{"entry-ambiguous", "29.64 - 100", "29.64 - 100 Hz", Check, "29.64 - 100 Hz", trail},
		{"shift-unit", "1292.2 -2", "1292.2 -20", Fix, "1292.2 -", trail},
		{"shift-unit", "147.39 +6", "147.39 +600", Stop, "147.39 +", trail},
		{"shift-unit", "147.24 +600 MHz 103.5", "147.24 + 103.5", Stop, "147.24 + 103.5", trail},
		{"shift-sign", "146.94 + 88.5", "146.94 - 88.5", Fix, "146.94 - 88.5", trail},
		{"shift-sign", "147.345 -", "147.345 +", Fix, "147.345 +", trail},
		{"shift-sign", "444.9 + 77", "444.9 -5 77", Fix, "444.9 -5 77", trail},
		{"shift-size", "146.82 - 77", "146.82 -1.6 77", Fix, "146.82 -1.6 77", trail},
		{"shift-size", "146.61 -1.6", "146.61 -", Check, "146.61 -", trail},
		{"shift-missing", "146.94 simplex 88.5", "146.94 88.5", Check, "146.94 - 88.5", trail},
		{"reversed-pair", "146.34 tx 146.94 88.5", "146.94 88.5", Fix, "146.94 - 88.5", trail},
		{"reversed-pair", "147.99 tx 147.39", "147.39", Check, "", trail},
		{"receive-near", "146.943 - 88.5", "146.94 - 88.5", Fix, "146.94 - 88.5", trail},
		{"shift-local", "52.81", "147.39", Note, "", trail},
		{"tone-missing", "147.24", "147.24 103.5", Fix, "147.24 103.5", trail},
		{"heard-otherwise", "146.94 127.3", "146.94 88.5", Fix, "146.94 88.5", circumstances{radio: "trail", heard: "88.5 -600"}},
		{"heard-otherwise", "146.94 127.3", "146.94 88.5", Fix, "146.94 88.5", circumstances{radio: "trail", heard: "searched 88.5 -600"}},
		{"heard-otherwise", "146.94 + 88.5", "146.94 88.5", Fix, "146.94 - 88.5", circumstances{radio: "trail", heard: "88.5 -600"}},
		{"tone-downlink", "146.94 127.3", "146.94 88.5", Fix, "146.94 88.5", trail},
		{"tone-differs", "147.24 100", "147.24 103.5", Fix, "147.24 103.5", trail},
		{"tone-differs", "146.70 100", "146.70", Check, "146.70", trail},
		{"tone-differs", "147.24 ts 100", "147.24 ts 103.5", Fix, "147.24 ts 103.5", trail},
		{"tone-standard", "147.345 141.0", "147.345 141.3", Fix, "147.345 141.3", trail},
		{"tone-standard", "147.345 ts 97.5", "147.345 ts 97.4", Fix, "147.345 ts 97.4", trail},
		{"tone-standard", "147.345 150.0", "147.345 151.4", Check, "147.345 151.4", trail},
		{"tone-standard", "147.345 d111", "147.345 d023", Check, "", trail},
		{"squelch-silent", "145.31 ts 114.8", "145.31 114.8", Fix, "145.31 114.8", trail},
		{"squelch-differs", "147.24 103.5/100", "147.24 ts 103.5", Fix, "147.24 ts 103.5", trail},
		{"squelch-unknown", "146.76 ts 123", "146.76 123", Check, "146.76 123", trail},
		{"co-channel", "146.64 100", "146.76 123", Note, "146.64 ts 100", trail},
		{"listing-digital", "145.27", "145.31 114.8", Stop, "145.27 rx only", trail},
		{"listing-off-air", "147.12 136.5", "147.24 103.5", Check, "", trail},
		{"listing-closed", "444.1 100", "146.76 123", Check, "", trail},
		{"listing-closed", "443.9 100", "443.9 rx only", Stop, "", trail},
		{"listing-stale", "145.23 162.2", "146.76 123", Check, "", trail},
		{"listing-disagree", "146.88 110.9", "146.76 123", Check, "", trail},
		{"tone-downlink", "146.88 156.7", "146.88 110.9", Fix, "146.88 110.9", trail}, // the newer of two lists counts
		{"unlisted", "147.345 100", "146.52", Note, "", trail},
		{"receive-only", "162.475 simplex", "146.52", Stop, "162.475 rx only", trail},
		{"entry-name", "Ridge", "146.76 123 Ridge", Check, `146.76 - 123 "Ridge"`, trail},
		{"entry-name", "QMarran", "146.94 88.5 QMarran", Check, `146.94 - 88.5 "Marran"`, trail},
		{"entry-name", "Nowhere at all", "146.52 Nowhere", Check, "", trail},
		{"entry-lines", "147.24 + 103.5\n146.94 - 88.5", "147.24 + 103.5", Check, "147.24 + 103.5", trail},
		{"space-station", "437.8 tx 145.99 67", "436.5 tx 145.9", Note, "", ferry},
		{"space-station", "437.8", "446", Stop, "437.8 tx 145.99 67", trail},
		{"space-station", "437.805 tx 145.99", "446", Check, "437.805 tx 145.99 67", ferry},
		{"cross-band", "146.52 tx 446", "146.52 tx 146.55", Check, "", trail},
		{"harmonic-own", "439.5 tx 146.5", "439.4 tx 146.5", Check, "", trail},
		{"evidence-differs", "147.51 -600", "147.51", Check, "", trail},
		{"transmit-band", "147.995 simplex", "147.985 simplex", Stop, "", trail},
		{"transmit-band", "224.34", "145.5", Check, "", circumstances{region: "uk"}},
		{"transmit-band", "147.6 +600", "147.39 +", Stop, "147.6 rx only", trail},
		{"segment-voice", "145.9", "146.52", Stop, "145.9 rx only", trail},
		{"segment-simplex", "146.31 simplex", "146.55", Check, "", trail},
		{"slip", "147.21 + 103.5", "147.24 + 103.5", Check, "147.24 + 103.5", trail},
		{"slip", "147.42 + 103.5", "147.24 + 103.5", Stop, "147.24 + 103.5", trail},
		{"slip", "1477.24 + 103.5", "147.24 103.5", Stop, "147.24 + 103.5", trail},
		{"service-other", "frs 15", "146.52", Stop, "", trail},
		{"service-limits", "gmrs 15 wide", "146.52", Note, "", gmrs},
		{"service-limits", "gmrs 8 wide", "146.52", Fix, "gmrs 8", gmrs},
		{"service-limits", "gmrs 3 + 5 MHz", "146.52", Stop, "", gmrs},
		{"service-privacy", "frs 15 code 12", "frs 15 ts 100", Note, "", trail},
		{"monitoring", "155.34 rx only", "162.475 rx only", Note, "", trail},
		{"licence-band", "52.525", "146.52", Stop, "", circumstances{bands: []string{"2 m"}}},
		{"licence-none", "146.94 - 88.5", "162.475 rx only", Note, "", circumstances{unlicensed: true}},
		{"calling-channel", "146.52", "146.55", Note, "", trail},
		{"calling-channel", "146.52 ts 100", "146.55 ts 100", Check, "", trail},
		{"aprs-voice", "144.39 simplex", "146.52", Check, "144.39 rx only", trail},
		{"off-raster", "146.523", "146.55", Note, "", trail},
		{"width", "145.6", "146.52", Note, "", circumstances{region: "uk"}},
		{"tone-default", "147.345 88.5", "146.94 88.5", Note, "", trail},
		{"tone-neighbours", "147.345", "147.345 100", Check, "", circumstances{radio: "trail", src: toned()}},
		{"tone-mode", "147.24 ts 103.5", "147.24 103.5", Note, "147.24 103.5", trail},
		{"tone-mode", "147.24 103.5", "147.24 ts 103.5", Note, "147.24 ts 103.5", circumstances{tones: SquelchFirst}},
		{"dcs-equivalent", "442.65 d047i", "442.65 d023n", Note, "", trail},
		{"harmonic", "146.5", "146.55", Check, "", circumstances{radio: "ferry", others: []string{"1 439.5 simplex"}}},
		{"radio-range", "52.525", "146.52", Stop, "", trail},
		{"radio-step", "146.5213", "146.52", Check, "", ferry},
		{"radio-shift", "146.82 -612", "146.82 -1.6 77", Stop, "", trail},
		{"radio-tone", "146.94 88.5/127.3", "146.94 88.5", Check, "", ferry},
		{"radio-tone", "147.345 254.1", "147.345 100", Check, "", lantern},
		{"radio-setting", "146.52 mid", "146.52 low", Note, "", lantern},
		{"radio-auto-shift", "146.94 simplex", "146.94", Note, "", ferry},
		{"name-length", `146.52 "Calling channel"`, `146.52 "CALL"`, Note, "", trail},
		{"name-characters", `146.52 "Caf*"`, `146.52 "Caf"`, Note, "", trail},
		{"name-duplicate", `146.55 "Calling"`, `146.55 "Control"`, Check, "", with},
		{"slot-range", "146.55 #999", "146.55 #9", Stop, "", trail},
		{"slot-occupied", "146.55 #1", "146.55 #2", Check, "", with},
		{"channel-duplicate", "146.52", "146.55", Check, "", with},
	} {
		seen[c.rule] = true
		f := of(look(t, c.yes, c.in), c.rule)
		if assert.NotNil(t, f, "%s must speak about %q", c.rule, c.yes) {
			assert.Equal(t, c.severity, f.Severity, "%s: %s", c.rule, c.yes)
			assert.NotEmpty(t, f.Title)
			assert.NotEmpty(t, f.Message)
			assert.NotEmpty(t, f.Source)
			if c.fix != "" && assert.NotEmpty(t, f.Fixes, "%s: %s", c.rule, c.yes) {
				want := entry.Read(c.fix, band.MustLoad("us")).Channel
				assert.Equal(t, want, f.Fixes[0].Result, "%s: %s", c.rule, c.yes)
			}
		}
		assert.Nil(t, of(look(t, c.no, c.in), c.rule), "%s must not speak about %q", c.rule, c.no)
	}
	for _, r := range Rules {
		assert.True(t, seen[r.ID], "rule %s has no case", r.ID)
	}
}

func TestVerdicts(t *testing.T) {
	for line, want := range map[string]evidence.Verdict{
		"146.94 88.5":       evidence.Agrees,
		"147.24 ts 103.5":   evidence.Agrees,
		"146.52":            evidence.Agrees, // the calling channel of the band plan
		"162.475":           evidence.Agrees,
		"146.94 127.3":      evidence.Conflict,
		"147.345 100":       evidence.Unverified, // nothing published
		"145.23 162.2":      evidence.Unverified, // published, but three years ago
		"145.55":            evidence.Unverified, // a mixed segment says nothing
		"147.39 +6":         evidence.Stop,
		"146.94 -600 -600":  evidence.Stop,
		"145.27 simplex":    evidence.Stop,
		"147.12 136.5":      evidence.Unverified, // off the air
		"444.9 +5 77":       evidence.Conflict,
		"146.94 88.5/127.3": evidence.Agrees,
		"443.5 77":          evidence.Conflict, // published narrow, entered wide
		"443.9 100":         evidence.Stop,     // private
		"147.51 -600":       evidence.Conflict, // simplex in the band plan
	} {
		assert.Equal(t, want, look(t, line, circumstances{radio: "trail"}).Verdict, line)
	}
}

func TestFarRepeatersAreNotMeant(t *testing.T) {
	src := listing.Memory{published("Far", "147.240", "147.840", "103.5", "", 140, 20)}
	r := look(t, "147.24 100", circumstances{src: src})
	assert.Nil(t, r.Meant)
	assert.Nil(t, of(r, "tone-differs"), "a repeater past the horizon says nothing about this one")
	assert.NotNil(t, of(r, "unlisted"))
	r = look(t, `147.24 100 "Far"`, circumstances{src: src})
	assert.NotNil(t, of(r, "tone-differs"), "but a name makes it the one that is meant")
}

func TestPatchesAreGuarded(t *testing.T) {
	f := of(look(t, "147.24 100", circumstances{}), "tone-differs")
	require.NotNil(t, f)
	assert.Equal(t, []channel.Op{
		{Op: "test", Path: "/transmit_tone", Value: tone.MustParse("100")},
		{Op: "replace", Path: "/transmit_tone", Value: tone.MustParse("103.5")},
	}, f.Fixes[0].Patch)
}

func TestOrderAndIDs(t *testing.T) {
	var ids []string
	for _, r := range Rules {
		assert.NotEmpty(t, r.Title, r.ID)
		assert.NotEmpty(t, r.Doc, r.ID)
		assert.NotEmpty(t, r.Source, r.ID)
		assert.NotEmpty(t, r.Example, r.ID)
		for _, s := range r.Supersedes {
			assert.Contains(t, byID, s, r.ID)
		}
		ids = append(ids, r.ID)
	}
	slices.Sort(ids)
	assert.Len(t, slices.Compact(ids), len(Rules), "IDs are unique")
	findings := look(t, `147.39 +6 100 "A long name"`, circumstances{radio: "trail"}).Findings
	assert.True(t, slices.IsSortedFunc(findings, func(a, b Finding) int { return grave[a.Severity] - grave[b.Severity] }), "gravest first")
}

func TestAge(t *testing.T) {
	at := func(days int) listing.Match {
		return listing.Match{Record: published("x", "146.94", "146.34", "", "", 1, days)}
	}
	s := Defaults(today)
	for days, months := range map[int]int{0: 0, 24: 0, 31: 1, 366: 12, 800: 26} {
		got, ok := Age(at(days), s)
		assert.True(t, ok)
		assert.Equal(t, months, got, "%d days", days)
	}
	_, ok := Age(listing.Match{}, s)
	assert.False(t, ok)
	_, ok = Age(at(-1), s)
	assert.True(t, ok, "it is tomorrow elsewhere")
	_, ok = Age(at(-400), s)
	assert.False(t, ok, "a date to come is a slip, and makes no record the newest")
}

// TestUnitedKingdom runs the rules on another band plan. basis: from memory;
// source: UK national band plan.
func TestUnitedKingdom(t *testing.T) {
	src := listing.Memory{
		published("Wold", "433.350", "434.950", "77.0", "77.0", 12, 20),
		published("Fen", "145.725", "145.125", "110.9", "", 12, 20),
		published("Tarn", "430.900", "438.500", "D023N", "", 12, 20),
		published("Pike", "50.770", "51.270", "88.5", "", 12, 20),
	}
	for _, c := range []struct {
		line    string
		verdict evidence.Verdict
		rule    string // a finding that must be there, or ""
		fix     string
	}{
		{"433.35 +1.6 77", evidence.Agrees, "", ""},
		{"433.35 77", evidence.Agrees, "", ""},
		{"433.35 -1.6 77", evidence.Conflict, "shift-sign", "433.35 + 77"},
		{"433.35 +16 77", evidence.Stop, "shift-unit", "433.35 + 77"},
		{"433.35 +160 77", evidence.Conflict, "shift-unit", "433.35 + 77"},
		{"434.95 tx 433.35 77", evidence.Conflict, "reversed-pair", "433.35 + 77"},
		{"145.725 110.9", evidence.Agrees, "", ""},
		{"145.725 - 110.9", evidence.Agrees, "", ""},
		{"145.725 + 110.9", evidence.Stop, "shift-sign", "145.725 110.9"},
		{"145.725", evidence.Conflict, "tone-missing", "145.725 110.9"},
		{"145.125 tx 145.725 110.9", evidence.Conflict, "reversed-pair", "145.725 110.9"},
		{"430.9 +7.6 d023n", evidence.Agrees, "", ""},
		{"430.9 d047i", evidence.Agrees, "", ""}, // the same signal by another name
		{"430.9 d023i", evidence.Conflict, "tone-differs", "430.9 d023n"},
		{"430.9 -7.6 d023n", evidence.Stop, "shift-sign", "430.9 + d023n"},
		{"50.77 88.5", evidence.Agrees, "", ""},
		{"50.77 - 88.5", evidence.Stop, "shift-sign", "50.77 88.5"},
		{"145.5", evidence.Agrees, "", ""},
		{"433.5", evidence.Agrees, "", ""},
		{"70.45", evidence.Agrees, "", ""},
		{"145.8 simplex", evidence.Stop, "segment-voice", "145.8 rx only"},
		{"144.3", evidence.Stop, "segment-voice", "144.3 rx only"},
		{"144.8", evidence.Unverified, "aprs-voice", ""},
		{"147.24 simplex", evidence.Stop, "transmit-band", "147.24 rx only"},
		{"439.7", evidence.Unverified, "shift-local", ""},
	} {
		r := look(t, c.line, circumstances{region: "uk", src: src})
		assert.Equal(t, c.verdict, r.Verdict, "%s: %+v", c.line, r.Findings)
		if c.rule == "" {
			for _, f := range r.Findings {
				assert.NotContains(t, []Severity{Stop, Fix}, f.Severity, "%s: %s", c.line, f.Title)
			}
			continue
		}
		f := of(r, c.rule)
		if !assert.NotNil(t, f, "%s: %s", c.line, c.rule) || c.fix == "" {
			continue
		}
		want := entry.Read(c.fix, band.MustLoad("uk")).Channel
		assert.Equal(t, want, f.Fixes[0].Result, c.line)
	}
}

// TestCleanEntriesAreQuiet types every record that may be heard here as it is
// published, in every form that people use, and wants nobody stopped or
// corrected.
func TestCleanEntriesAreQuiet(t *testing.T) {
	us := band.MustLoad("us")
	for _, r := range records() {
		if r.Mode == listing.Digital || r.Access == listing.Private || r.Locality == "Sarn" || r.Callsign == "QHolm" && r.Source == "b list" {
			continue
		}
		rule, _ := us.Shift(r.Output)
		o, _ := r.Offset()
		lines := []string{fmt.Sprintf("%s %s", r.Output.MHz(), entry.ShiftWord(o)), fmt.Sprintf("%s tx %s", r.Output.MHz(), r.Input.MHz())}
		if rule.Offset == o {
			lines = append(lines, r.Output.MHz())
		}
		for _, line := range lines {
			if r.UplinkTone.Known && !r.UplinkTone.Tone.IsOff() {
				line += " " + r.UplinkTone.Tone.String()
			}
			for _, name := range []string{"", ` "` + r.Locality + `"`} {
				for _, f := range look(t, line+name, circumstances{radio: "ferry"}).Findings {
					assert.NotContains(t, []Severity{Stop, Fix}, f.Severity, "%s%s: %s", line, name, f.Title)
				}
			}
		}
	}
}
