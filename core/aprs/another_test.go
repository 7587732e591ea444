package aprs_test

import (
	"bytes"
	"encoding/binary"
	"math"
	"os"
	"os/exec"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/ax25"
)

// sound is frames as a receiver hears them: flags, bits with a zero after five ones, each
// zero a change of tone (NRZI), 1200 Hz and 2200 Hz at 1200 bit/s (Bell 202), as 16-bit
// samples at 22,050 Hz.
func sound(frames [][]byte) []byte {
	const rate = 22_050
	var out bytes.Buffer
	phase, high, debt := 0.0, false, 0.0
	tone := func(samples float64) {
		f := 1200.0
		if high {
			f = 2200
		}
		debt += samples
		for ; debt >= 1; debt-- {
			phase += 2 * math.Pi * f / rate
			_ = binary.Write(&out, binary.LittleEndian, int16(16_000*math.Sin(phase)))
		}
	}
	bit := func(one bool) {
		if !one {
			high = !high
		}
		tone(rate / 1200.0)
	}
	flag := func(n int) {
		for range n {
			for i := range 8 {
				bit(ax25.Flag>>i&1 == 1)
			}
		}
	}
	for _, f := range frames {
		out.Write(make([]byte, 2*rate/10))
		flag(45)
		fcs := ax25.FCS(f)
		ones := 0
		for _, b := range append(append([]byte{}, f...), byte(fcs), byte(fcs>>8)) {
			for i := range 8 {
				one := b>>i&1 == 1
				if bit(one); !one {
					ones = 0
				} else if ones++; ones == 5 {
					bit(false)
					ones = 0
				}
			}
		}
		flag(3)
	}
	out.Write(make([]byte, 2*rate/5))
	return out.Bytes()
}

// TestAnotherDecoder lets a decoder of another house hear every example of the specification
// and the frames of this package: it has to print the addresses and the text of each.
// MNEMOS_DECODER=1 asks for it; then it has to be there.
func TestAnotherDecoder(t *testing.T) {
	if os.Getenv("MNEMOS_DECODER") == "" {
		t.Skip("set MNEMOS_DECODER=1, or run make proof")
	}
	var raw [][]byte
	var list []ax25.Frame
	via := []ax25.Address{ax25.MustAddress("WIDE1-1"), ax25.MustAddress("WIDE2-1")}
	for _, x := range examples {
		f, _, err := x.packet.Frame(ax25.MustAddress("QX2AML-7"), via)
		require.NoError(t, err)
		b, err := f.Bytes()
		require.NoError(t, err)
		raw, list = append(raw, b), append(list, f)
	}
	cmd := exec.CommandContext(t.Context(), "multimon-ng", "-q", "-t", "raw", "-a", "AFSK1200", "-")
	cmd.Stdin = bytes.NewReader(sound(raw))
	out, err := cmd.Output()
	require.NoError(t, err)
	heard := strings.ReplaceAll(string(out), "\r", "")
	assert.Equal(t, len(list), strings.Count(heard, "AFSK1200: fm QX2AML-7 to "), heard)
	for _, f := range list {
		head := "fm QX2AML-7 to " + f.To.Call + "-0 via WIDE1-1,WIDE2-1 UI"
		assert.Contains(t, heard, head)
		if text := string(f.Info); strings.IndexFunc(text, func(r rune) bool { return r < ' ' || r > '~' }) < 0 {
			assert.Contains(t, heard, "\n"+text, "%s", text)
		}
	}
}
