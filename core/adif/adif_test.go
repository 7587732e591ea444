package adif_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/adif"
)

// TestExamples are files like those of the published specification, from memory, with
// other callsigns.
func TestExamples(t *testing.T) {
	header, records, losses := adif.Read(`Generated on 2011-11-22 at 02:15:23Z for QX4AZY

<adif_ver:5>3.0.5
<programid:7>monolog
<USERDEF1:8:N>QRP_ARCI
<EOH>

<qso_date:8>19900620
<time_on:4>1523
<call:5>QX9GA
<band:3>20M
<mode:4>RTTY
<sig:8>SIG_info
<eor>

<qso_date:8>20101022<time_on:4>0111<call:5>QX9ZB<band:3>40M<mode:2>CW<comment:12>a <b> in text<EOR>`)
	assert.Empty(t, losses)
	assert.Equal(t, "3.0.5", header.Get("ADIF_VER"))
	require.Len(t, records, 2)
	assert.Equal(t, "QX9GA", records[0].Get("CALL"))
	assert.Equal(t, "1523", records[0].Get("TIME_ON"))
	assert.Equal(t, "a <b> in text"[:12], records[1].Get("COMMENT"), "data are as long as they say, whatever is in them")
	_, records, losses = adif.Read(`<CALL:6>QX1ABC<BAND:2>2m<EOR>`)
	assert.Empty(t, losses)
	assert.Len(t, records, 1, "a file that begins with a field has no header")
}

func TestDamage(t *testing.T) {
	for text, says := range map[string]string{
		"no header end <call:3>QXA <eor>": "never ends",
		"<call:99>QX1":                    "longer than the file",
		"<call>QX1<eor>":                  "no length",
		"<call:3>QX1<call:3>QX2<eor>":     "twice",
		"<call:3>QX1":                     "does not end",
	} {
		_, _, losses := adif.Read(text)
		require.NotEmpty(t, losses, text)
		assert.Contains(t, losses[0].String(), says, text)
	}
	_, records, _ := adif.Read("<call:99999999999999999999>QX1<eor>")
	assert.Empty(t, records)
	// Written in bytes of UTF-8, and in characters.
	for _, text := range []string{"<name:6>Jürg <qth:1>B<eor>", "<name:4>Jürg<qth:1>B<eor>"} {
		_, records, _ := adif.Read(text)
		require.Len(t, records, 1)
		assert.Equal(t, "Jürg", strings.TrimSpace(records[0].Get("NAME")), text)
		assert.Equal(t, "B", records[0].Get("QTH"), text)
	}
}

// TestRoundTrip: what is written reads back, and what was lost is said.
func TestRoundTrip(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var records []adif.Record
		for range rapid.IntRange(0, 4).Draw(t, "records") {
			var r adif.Record
			for _, name := range []string{"CALL", "COMMENT", adif.Own("TONE")} {
				r.Set(name, rapid.String().Draw(t, name))
			}
			if len(r) > 0 {
				records = append(records, r)
			}
		}
		text, losses := adif.Write(adif.Record{{Name: "ADIF_VER", Data: "3.1.4"}}, records)
		for _, r := range text {
			assert.Less(t, r, rune(0x80), "ADI is ASCII")
		}
		_, back, trouble := adif.Read(text)
		assert.Empty(t, trouble)
		require.Len(t, back, len(records))
		lost := map[[2]any]bool{}
		for _, l := range losses {
			lost[[2]any{l.Record, l.Field}] = true
		}
		for i, r := range records {
			for _, f := range r {
				if !lost[[2]any{i + 1, f.Name}] {
					assert.Equal(t, f.Data, back[i].Get(f.Name), "unlisted")
				}
			}
		}
	})
	text, losses := adif.Write(nil, []adif.Record{{{Name: "NAME", Data: "Jürg – “so”"}}})
	assert.Contains(t, text, "<NAME:11>Jurg - 'so'")
	assert.Len(t, losses, 1)
}

func FuzzRead(f *testing.F) {
	f.Add("x <eoh><call:3>QX1<eor>")
	f.Add("<a:2:é>xx<eor>")
	f.Fuzz(func(_ *testing.T, text string) { adif.Read(text) })
}

func TestBand(t *testing.T) {
	assert.Equal(t, "2m", adif.Band(146.52))
	assert.Equal(t, "70cm", adif.Band(446.00625))
	assert.Equal(t, "", adif.Band(162.475))
}
