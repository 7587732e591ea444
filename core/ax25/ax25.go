// Package ax25 is the frame that carries a packet on the air: the UI frame of AX.25 2.2,
// with its addresses, its check sequence, the bits that go on the air, and how long that
// takes; beside it the two forms in which programs hand frames on, TNC2 text and KISS.
//
//	f := ax25.Frame{To: ax25.MustAddress("APZ001"), From: ax25.MustAddress("QX2AML-7"), Info: []byte(">hello")}
//	b, err := f.Bytes()          // without the check sequence, as KISS has it
//	a := ax25.Air(b, 300, 1200)  // with the check, stuffed: bits and milliseconds
//
// Source: AX.25 Link Access Protocol, version 2.2 (1998), sections 3.2 to 3.12: letters of
// addresses shifted one bit left and padded with spaces, control 0x03, protocol 0xF0,
// check sequence CRC-16/X.25, least significant bit first, a zero after five ones.
package ax25

import (
	"bytes"
	"errors"
	"fmt"
	"strconv"
	"strings"
)

// Address is a callsign with its number (SSID), 0 to 15, which says which station of
// somebody it is.
type Address struct {
	Call string
	SSID int
	// Used is set on a repeater that has sent the frame on.
	Used bool
}

// ParseAddress reads QX2AML, QX2AML-7 or WIDE2-1*.
func ParseAddress(s string) (a Address, err error) {
	s, a.Used = strings.CutSuffix(strings.ToUpper(strings.TrimSpace(s)), "*")
	call, number, has := strings.Cut(s, "-")
	if len(call) < 1 || len(call) > 6 || strings.ContainsFunc(call, func(r rune) bool { return (r < 'A' || r > 'Z') && (r < '0' || r > '9') }) {
		return a, fmt.Errorf("%q: one to six letters and figures, and a number behind a hyphen, such as QX2AML-7", s)
	}
	if a.Call = call; !has {
		return a, nil
	}
	if len(number) > 2 || len(number) == 2 && number[0] == '0' {
		return a, fmt.Errorf("%q: the number behind the hyphen is 0 to 15", s)
	}
	if a.SSID, err = strconv.Atoi(number); err != nil || a.SSID < 0 || a.SSID > 15 {
		return a, fmt.Errorf("%q: the number behind the hyphen is 0 to 15", s)
	}
	return a, nil
}

// MustAddress is ParseAddress for addresses that are known to be good.
func MustAddress(s string) Address {
	a, err := ParseAddress(s)
	if err != nil {
		panic(err)
	}
	return a
}

// String writes an address as ParseAddress reads it.
func (a Address) String() string {
	s := a.Call
	if a.SSID != 0 {
		s += "-" + strconv.Itoa(a.SSID)
	}
	if a.Used {
		s += "*"
	}
	return s
}

// Frame is a UI frame without layer 3.
type Frame struct {
	To, From Address
	Via      []Address
	Info     []byte
}

// The constant parts of a UI frame without layer 3.
const (
	Control  = 0x03
	Protocol = 0xF0
	Flag     = 0x7E
	mostVia  = 8
	mostInfo = 256
)

// address writes seven bytes. high is the bit that tells a command, or that it was repeated.
func (a Address) bytes(high, last bool) []byte {
	out := make([]byte, 7)
	for i, c := range []byte(fmt.Sprintf("%-6s", a.Call)) {
		out[i] = c << 1
	}
	out[6] = 0x60 | byte(a.SSID)<<1
	if high {
		out[6] |= 0x80
	}
	if last {
		out[6] |= 1
	}
	return out
}

// Bytes returns the frame as it goes on the air, without flags and check sequence. It is a
// command: the high bit of the destination is set, that of the source is not.
func (f Frame) Bytes() ([]byte, error) {
	if len(f.Via) > mostVia {
		return nil, fmt.Errorf("a path of %d: up to %d", len(f.Via), mostVia)
	}
	if len(f.Info) > mostInfo {
		return nil, fmt.Errorf("%d bytes of text: up to %d", len(f.Info), mostInfo)
	}
	out := f.To.bytes(true, false)
	out = append(out, f.From.bytes(false, len(f.Via) == 0)...)
	for i, v := range f.Via {
		out = append(out, v.bytes(v.Used, i == len(f.Via)-1)...)
	}
	return append(append(out, Control, Protocol), f.Info...), nil
}

var errShort = errors.New("it is too short for a frame")

// Decode reads a frame without flags and check sequence.
func Decode(b []byte) (f Frame, err error) {
	var all []Address
	high := []bool{}
	for {
		if len(b) < 7 {
			return f, errShort
		}
		a, up, last, err := address(b[:7])
		if err != nil {
			return f, err
		}
		all, high, b = append(all, a), append(high, up), b[7:]
		if last {
			break
		}
		if len(all) == 2+mostVia {
			return f, errors.New("its addresses do not end")
		}
	}
	if len(all) < 2 || len(b) < 2 {
		return f, errShort
	}
	if b[0]&^0x10 != Control || b[1] != Protocol {
		return f, fmt.Errorf("control %#02x and protocol %#02x are not those of a UI frame", b[0], b[1])
	}
	f.To, f.From, f.Via, f.Info = all[0], all[1], all[2:], b[2:]
	for i := range f.Via {
		f.Via[i].Used = high[i+2]
	}
	return f, nil
}

func address(b []byte) (a Address, high, last bool, err error) {
	call := make([]byte, 6)
	for i, c := range b[:6] {
		if c&1 != 0 {
			return a, false, false, errors.New("an address ends before its time")
		}
		call[i] = c >> 1
	}
	a.Call = strings.TrimRight(string(call), " ")
	if strings.ContainsFunc(a.Call, func(r rune) bool { return (r < 'A' || r > 'Z') && (r < '0' || r > '9') }) || a.Call == "" {
		return a, false, false, fmt.Errorf("%q is not a callsign", call)
	}
	a.SSID = int(b[6] >> 1 & 0xF)
	return a, b[6]&0x80 != 0, b[6]&1 != 0, nil
}

// FCS is the check sequence: CRC-16/X.25, of which the check value is 0x906E. It is sent
// with its low byte first.
func FCS(b []byte) uint16 {
	crc := uint16(0xFFFF)
	for _, x := range b {
		crc ^= uint16(x)
		for range 8 {
			if crc&1 == 1 {
				crc = crc>>1 ^ 0x8408
			} else {
				crc >>= 1
			}
		}
	}
	return ^crc
}

// Text is the frame in TNC2 form: FROM>TO,VIA*:text.
func (f Frame) Text() string {
	var b strings.Builder
	b.WriteString(f.From.String() + ">" + f.To.String())
	last := -1
	for i, v := range f.Via {
		if v.Used {
			last = i
		}
	}
	for i, v := range f.Via {
		v.Used = i == last // the star stands at the last one that sent it on
		b.WriteString("," + v.String())
	}
	b.WriteByte(':')
	b.Write(f.Info)
	return b.String()
}

// ParseText reads TNC2 form.
func ParseText(s string) (f Frame, err error) {
	head, info, ok := strings.Cut(s, ":")
	from, rest, ok2 := strings.Cut(head, ">")
	if !ok || !ok2 {
		return f, errors.New("it wants to look like QX2AML-7>APZ001,WIDE1-1:text")
	}
	if f.From, err = ParseAddress(from); err != nil {
		return f, err
	}
	parts := strings.Split(rest, ",")
	if len(parts) > 1+mostVia {
		return f, fmt.Errorf("a path of %d: up to %d", len(parts)-1, mostVia)
	}
	if f.To, err = ParseAddress(parts[0]); err != nil {
		return f, err
	}
	last := -1
	for i, p := range parts[1:] {
		a, err := ParseAddress(p)
		if err != nil {
			return f, err
		}
		if a.Used {
			last = i
		}
		f.Via = append(f.Via, a)
	}
	for i := range f.Via {
		f.Via[i].Used = i <= last
	}
	if len(info) > mostInfo {
		return f, fmt.Errorf("%d bytes of text: up to %d", len(info), mostInfo)
	}
	f.Info = []byte(info)
	return f, nil
}

// The bytes of KISS. Source: the KISS TNC, published 1987.
const (
	fend, fesc, tfend, tfesc = 0xC0, 0xDB, 0xDC, 0xDD
)

// KISS wraps frames for a modem, port 0.
func KISS(frames ...[]byte) []byte {
	var out []byte
	for _, f := range frames {
		out = append(out, fend, 0)
		for _, b := range f {
			switch b {
			case fend:
				out = append(out, fesc, tfend)
			case fesc:
				out = append(out, fesc, tfesc)
			default:
				out = append(out, b)
			}
		}
		out = append(out, fend)
	}
	return out
}

// Unwrap takes frames out of KISS. Other commands than data are left out.
func Unwrap(b []byte) (frames [][]byte) {
	for _, part := range bytes.Split(b, []byte{fend}) {
		if len(part) < 2 || part[0]&0xF != 0 {
			continue
		}
		var f []byte
		for i := 1; i < len(part); i++ {
			if part[i] == fesc && i+1 < len(part) {
				if i++; part[i] == tfend {
					f = append(f, fend)
				} else {
					f = append(f, fesc)
				}
				continue
			}
			f = append(f, part[i])
		}
		frames = append(frames, f)
	}
	return frames
}
