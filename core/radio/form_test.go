package radio

import (
	"maps"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/freq"
)

// TestRoundTrips writes every shipped profile as a form and as YAML, and wants
// the same profile back.
func TestRoundTrips(t *testing.T) {
	for _, p := range Profiles() {
		again, errs := FromForm(Profile{
			ID: p.ID, Display: p.Display, Source: p.Source, Basis: p.Basis, AsOf: p.AsOf, Scan: Scan{Seconds: p.Scan.Seconds},
			Relay: p.Relay, APRS: p.APRS,
		}, Form(p))
		require.Empty(t, errs, p.ID)
		same(t, p, again)
		b, err := Write(p)
		require.NoError(t, err)
		again, err = Read(b)
		require.NoError(t, err, "%s:\n%s", p.ID, b)
		same(t, p, again)
	}
}

func same(t *testing.T, a, b *Profile) {
	t.Helper()
	assert.Equal(t, Form(a), Form(b), a.ID)
	for _, f := range []string{"146.94", "446.00625", "52.525", "155.3425"} {
		assert.Equal(t, a.Nearest(freq.MustParse(f)), b.Nearest(freq.MustParse(f)), a.ID)
		assert.Equal(t, a.CanTransmit(freq.MustParse(f)), b.CanTransmit(freq.MustParse(f)), a.ID)
	}
	assert.Equal(t, a.Display, b.Display, a.ID)
}

// TestFormNamesEveryFault changes one field at a time of a good form.
func TestFormNamesEveryFault(t *testing.T) {
	trail := load(t, "trail")
	for key, bad := range map[string]string{
		"name": "", "form": "toaster", "slots": "many", "special_slots": "emergency", "name_length": "six", "receive": "136", "transmit": "10-20",
		"steps": "fast", "widths": "medium", "entry": "telepathy", "offset_max": "far", "ctcss": "40", "extra_ctcss": "loud", "dcs": "12",
		"inverted_dcs": "maybe", "watts": "loud", "timeout": "-1", "receivers": "three", "scan_rate": "fast", "scan_resume": "luck", "relay": "yes",
		"automatic_region": "atlantis", "decimals": "x",
	} {
		form := Form(trail)
		form[key] = bad
		_, errs := FromForm(*trail, form)
		if assert.NotEmpty(t, errs, key) {
			assert.Equal(t, key, errs[0].Field)
			assert.NotEmpty(t, errs[0].Message)
		}
	}
	form := Form(trail)
	form["slots"], form["steps"] = "x", "y"
	_, errs := FromForm(*trail, form)
	assert.Len(t, errs, 2, "both at once")
	form = Form(trail)
	form["entry"] = "automatic"
	_, errs = FromForm(*trail, form)
	assert.Equal(t, "automatic_region", errs[0].Field, "a table of its own is needed")
}

func TestAFormChangesOnlyItsOwnCopy(t *testing.T) {
	trail := load(t, "trail")
	before := maps.Clone(trail.Display.Modes)
	form := Form(trail)
	form["shows_tone"], form["steps"], form["crib_step"] = "ENC", "5, 12.5, 25", "menu 99"
	p, errs := FromForm(*trail, form)
	require.Empty(t, errs)
	assert.Equal(t, "ENC", p.Display.Modes["tone"])
	assert.Equal(t, []freq.Hz{5_000, 12_500, 25_000}, p.Steps)
	assert.Equal(t, "menu 99", p.Crib[Step])
	assert.Equal(t, before, trail.Display.Modes, "the shipped one is shared and stays")
}

func TestReadRefuses(t *testing.T) {
	for _, bad := range []string{"", "name: 5\nwings: 2", "name: X", "[1, 2", "slots: {first: 5, last: 1}", string(make([]byte, MaxYAML+1))} {
		_, err := Read([]byte(bad))
		assert.Error(t, err, "%.20q", bad)
	}
	for _, bomb := range []string{
		"a: &a [x, x]\nb: &b [*a, *a]\nname: *b\n", "<<: *x", strings.Repeat("? ", 4_000), strings.Repeat("[", 8_000), strings.Repeat("{a: ", 3_000),
	} {
		_, err := Read([]byte(bomb))
		require.Error(t, err)
		assert.Regexp(t, "does not belong in a profile|deeper than", err.Error(), "refused before the parser sees it")
	}
}

func FuzzReadProfile(f *testing.F) {
	for _, p := range Profiles() {
		b, err := Write(p)
		require.NoError(f, err)
		f.Add(b)
	}
	f.Fuzz(func(t *testing.T, b []byte) {
		p, err := Read(b)
		if err != nil {
			return
		}
		out, err := Write(p)
		require.NoError(t, err)
		again, err := Read(out)
		require.NoError(t, err, "%s", out)
		require.Equal(t, Form(p), Form(again))
	})
}

// TestSlotsText reads what people write for the slots of a radio.
func TestSlotsText(t *testing.T) {
	p := load(t, "beck")
	for text, want := range map[string][2]int{"1-200": {1, 200}, "0 – 127": {0, 127}, "99": {1, 99}} {
		form := Form(p)
		form["slots"] = text
		q, faults := FromForm(*p, form)
		require.Empty(t, faults, text)
		assert.Equal(t, want, [2]int{q.Slots.First, q.Slots.Last}, text)
	}
	for _, text := range []string{"1-200x", "1-", "-", "1-20, 30-40", "20-10"} {
		form := Form(p)
		form["slots"] = text
		_, faults := FromForm(*p, form)
		assert.NotEmpty(t, faults, text)
	}
}

// TestOnlyPlainTextsAndNumbers has what a display cannot show and a
// calculation cannot use.
func TestOnlyPlainTextsAndNumbers(t *testing.T) {
	p := load(t, "trail")
	for key, bad := range map[string]string{
		"name": "\u202eevil", "notes": "one\ntwo", "crib_step": "\x00", "watts": "NaN, 0, NaN", "scan_rate": "NaN", "name_characters": strings.Repeat("A", 2000),
	} {
		form := Form(p)
		form[key] = bad
		_, faults := FromForm(*p, form)
		if assert.NotEmpty(t, faults, key) {
			assert.Equal(t, key, faults[0].Field)
		}
	}
	y, err := Write(p)
	require.NoError(t, err)
	_, err = Read([]byte(strings.Replace(string(y), "high: 5", "high: .nan", 1)))
	assert.ErrorContains(t, err, "watts")
}
