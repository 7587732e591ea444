package ax25_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/ax25"
)

// TestFCS against the check value of CRC-16/X.25 in the catalogue of parametrised CRC
// algorithms, and the remainder that it has over a frame with its check: 0xF0B8, inverted.
func TestFCS(t *testing.T) {
	assert.Equal(t, uint16(0x906E), ax25.FCS([]byte("123456789")))
	frame := []byte("any frame at all")
	fcs := ax25.FCS(frame)
	assert.Equal(t, ^uint16(0xF0B8), ax25.FCS(append(frame, byte(fcs), byte(fcs>>8))))
}

// TestAddresses: AX.25 2.2, section 3.12: letters one bit left, spaces behind, the number in
// bits 1 to 4 of the seventh byte, bits 5 and 6 set, the lowest bit in the last address, the
// highest in the destination of a command. Written out by hand.
func TestAddresses(t *testing.T) {
	f := ax25.Frame{To: ax25.MustAddress("APZ001"), From: ax25.MustAddress("QX2A-7"), Via: []ax25.Address{ax25.MustAddress("WIDE1-1*"), ax25.MustAddress("WIDE2-1")}, Info: []byte(">x")}
	b, err := f.Bytes()
	require.NoError(t, err)
	assert.Equal(t, []byte{
		'A' << 1, 'P' << 1, 'Z' << 1, '0' << 1, '0' << 1, '1' << 1, 0xE0,
		'Q' << 1, 'X' << 1, '2' << 1, 'A' << 1, ' ' << 1, ' ' << 1, 0x60 | 7<<1,
		'W' << 1, 'I' << 1, 'D' << 1, 'E' << 1, '1' << 1, ' ' << 1, 0xE0 | 1<<1,
		'W' << 1, 'I' << 1, 'D' << 1, 'E' << 1, '2' << 1, ' ' << 1, 0x60 | 1<<1 | 1,
		0x03, 0xF0, '>', 'x',
	}, b)
	back, err := ax25.Decode(b)
	require.NoError(t, err)
	assert.Equal(t, f, back)
	assert.Equal(t, "QX2A-7>APZ001,WIDE1-1*,WIDE2-1:>x", f.Text())
	for _, bad := range []string{"", "-1", "QX2AMLX", "QX-16", "QX-01", "QX-x", "QX 2", "QX2-1-2", "ÄX2"} {
		_, err := ax25.ParseAddress(bad)
		assert.Error(t, err, bad)
	}
	for _, bad := range []string{"", "QX2A", "QX2A>", ">APZ001:x", "QX2A>APZ001", "QX2A>AP,A,B,C,D,E,F,G,H,I:x"} {
		_, err := ax25.ParseText(bad)
		assert.Error(t, err, bad)
	}
	for i := range b {
		_, err := ax25.Decode(b[:i])
		assert.Equal(t, i < 30, err != nil, "the first %d bytes", i)
	}
}

// bitByBit counts the airtime with the bits written out as a text: a second way.
func bitByBit(frame []byte) (bits, stuffed int) {
	fcs := ax25.FCS(frame)
	var line strings.Builder
	for _, b := range append(append([]byte{}, frame...), byte(fcs&0xFF), byte(fcs>>8)) {
		for i := 0; i < 8; i++ {
			line.WriteByte('0' + b>>i&1)
		}
	}
	s := strings.ReplaceAll(line.String(), "11111", "111110")
	return len(s) + 16, strings.Count(line.String(), "11111")
}

func TestAir(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		frame := rapid.SliceOfN(rapid.Byte(), 16, 300).Draw(t, "frame")
		if rapid.Bool().Draw(t, "ones") {
			for i := range frame {
				frame[i] |= 0x7C
			}
		}
		bits, stuffed := bitByBit(frame)
		a := ax25.Air(frame, 300, 1200)
		if a.Bits != bits || a.Stuffed != stuffed {
			t.Fatalf("%d bits and %d stuffed, counted %d and %d", a.Bits, a.Stuffed, bits, stuffed)
		}
		if want := 300 + float64(bits)/1.2; a.Total < want-1e-6 || a.Total > want+1e-6 {
			t.Fatalf("%f ms, not %f", a.Total, want)
		}
	})
	a := ax25.Air(make([]byte, 10), 300, 1200)
	assert.Equal(t, 45, a.Flags, "300 ms at 1200 bit/s are 360 bits")
}

func anyFrame(t *rapid.T) ax25.Frame {
	address := rapid.Custom(func(t *rapid.T) ax25.Address {
		return ax25.Address{Call: rapid.StringMatching(`[A-Z0-9]{1,6}`).Draw(t, "call"), SSID: rapid.IntRange(0, 15).Draw(t, "ssid")}
	})
	f := ax25.Frame{To: address.Draw(t, "to"), From: address.Draw(t, "from"), Info: rapid.SliceOfN(rapid.Byte(), 0, 256).Draw(t, "info")}
	f.Via = rapid.SliceOfN(address, 0, 8).Draw(t, "via")
	used := rapid.IntRange(0, len(f.Via)).Draw(t, "used")
	for i := range used {
		f.Via[i].Used = true
	}
	return f
}

// TestThereAndBack: bytes, KISS and text come back as they were.
func TestThereAndBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f, g := anyFrame(t), anyFrame(t)
		b, err := f.Bytes()
		if err != nil {
			t.Fatal(err)
		}
		c, _ := g.Bytes()
		frames := ax25.Unwrap(ax25.KISS(b, c))
		if len(frames) != 2 || string(frames[0]) != string(b) || string(frames[1]) != string(c) {
			t.Fatalf("KISS: %x", frames)
		}
		for _, back := range []func() (ax25.Frame, error){
			func() (ax25.Frame, error) { return ax25.Decode(b) },
			func() (ax25.Frame, error) { return ax25.ParseText(f.Text()) },
		} {
			x, err := back()
			if err != nil {
				t.Fatal(err)
			}
			if x.Text() != f.Text() {
				t.Fatalf("%q came back as %q", f.Text(), x.Text())
			}
		}
	})
}

// FuzzDecode: no panic, and whatever is taken for a frame is written as it was read.
func FuzzDecode(f *testing.F) {
	b, _ := ax25.Frame{To: ax25.MustAddress("APZ001"), From: ax25.MustAddress("QX2AML-7"), Info: []byte("!")}.Bytes()
	f.Add(b)
	f.Add([]byte{0xC0, 0, 0xDB, 0xDC, 0xC0})
	f.Fuzz(func(t *testing.T, b []byte) {
		for _, x := range append(ax25.Unwrap(b), b) {
			frame, err := ax25.Decode(x)
			if err != nil {
				continue
			}
			if len(frame.Info) > 256 {
				continue
			}
			again, err := frame.Bytes()
			if err != nil {
				t.Fatal(err)
			}
			back, err := ax25.Decode(again)
			if err != nil || back.Text() != frame.Text() {
				t.Fatalf("%q, then %q: %v", frame.Text(), back.Text(), err)
			}
		}
		_, _ = ax25.ParseText(string(b))
	})
}
