package aprs

import (
	"errors"
	"fmt"
	"math"
	"strconv"
	"strings"
	"time"

	"mnemos/core/ax25"
)

// Parsed is a packet as it was read. A time has no month and no year in it: it is given as
// it stands.
type Parsed struct {
	Packet
	At string // the time as it stands: 092345z
}

var errKind = errors.New("no kind of packet that is read here")

// Parse reads the packet in a frame.
func Parse(f ax25.Frame) (Parsed, error) { return ParseInfo(f.To.Call, string(f.Info)) }

// ParseInfo reads the text of a packet; to is the destination it went to.
func ParseInfo(to, info string) (p Parsed, err error) {
	if info == "" {
		return p, errors.New("it is empty")
	}
	rest := info[1:]
	switch info[0] {
	case '!', '=':
		p.Kind, p.Talks = Position, info[0] == '='
		return p, p.position(rest)
	case '/', '@':
		p.Kind, p.Talks = Position, info[0] == '@'
		if rest, err = p.time(rest); err != nil {
			return p, err
		}
		return p, p.position(rest)
	case '`', '\'':
		p.Kind, p.Format, p.Old = Position, MicE, info[0] == '\''
		return p, p.micE(to, rest)
	case ';':
		p.Kind = Object
		if len(rest) < 10 || rest[9] != '*' && rest[9] != '_' {
			return p, errors.New("an object has a name in nine places, and * or _")
		}
		p.Name, p.Killed = strings.TrimRight(rest[:9], " "), rest[9] == '_'
		if rest, err = p.time(rest[10:]); err != nil {
			return p, err
		}
		return p, p.position(rest)
	case ')':
		p.Kind = Item
		i := strings.IndexAny(rest, "!_")
		if i < 3 || i > 9 {
			return p, errors.New("an item has a name of three to nine letters, and ! or _")
		}
		p.Name, p.Killed = rest[:i], rest[i] == '_'
		return p, p.position(rest[i+1:])
	case '>':
		p.Kind = Status
		if len(rest) >= 7 && rest[6] == 'z' && figures(rest[:6]) {
			p.At, rest = rest[:7], rest[7:]
		}
		p.Comment = rest
		return p, p.text(mostStatus)
	case ':':
		p.Kind = Message
		if len(rest) < 10 || rest[9] != ':' {
			return p, errors.New("a message has nine places for whom it is, and a colon")
		}
		p.To = strings.TrimRight(rest[:9], " ")
		text, number, _ := strings.Cut(rest[10:], "{")
		p.Comment, p.Number = text, number
		if p.To == "" || len(number) > 5 {
			return p, errors.New("a message is for somebody, and numbered with up to five")
		}
		return p, p.text(mostText)
	}
	return p, errKind
}

func (p *Parsed) text(most int) error {
	if len(p.Comment) > most {
		return fmt.Errorf("its text is longer than %d", most)
	}
	return nil
}

func figures(s string) bool {
	return s != "" && !strings.ContainsFunc(s, func(r rune) bool { return r < '0' || r > '9' })
}

// time takes the time off.
func (p *Parsed) time(s string) (rest string, err error) {
	if len(s) < 7 || !figures(s[:6]) || !strings.ContainsRune("z/h", rune(s[6])) {
		return "", errors.New("its time is six figures and z, / or h")
	}
	layout := map[byte]string{'z': "021504", '/': "021504", 'h': "150405"}[s[6]]
	if _, err := time.Parse(layout, s[:6]); err != nil && s[:7] != "111111z" {
		return "", fmt.Errorf("%q is not a time", s[:7])
	}
	p.At, p.Zone = s[:7], Zone(s[6])
	return s[7:], nil
}

// position reads where it is, plain or compressed.
func (p *Parsed) position(s string) error {
	if len(s) == 0 {
		return errors.New("it has no position")
	}
	if s[0] >= '0' && s[0] <= '9' || s[0] == ' ' {
		return p.plain(s)
	}
	return p.compact(s)
}

func (p *Parsed) plain(s string) error {
	if len(s) < 19 {
		return errors.New("a plain position has nineteen letters")
	}
	lat, blurred, err := sexagesimal(s[:8], 2, "NS", 90)
	if err != nil {
		return err
	}
	lon, also, err := sexagesimal(s[9:18], 3, "EW", 180)
	if err != nil {
		return err
	}
	p.Format, p.Place.Lat, p.Place.Lon, p.Ambiguity = Plain, lat, lon, max(blurred, also)
	p.Symbol = Symbol{s[8], s[18]}
	if p.Symbol.Table != '/' && p.Symbol.Table != '\\' && !overlay(p.Symbol.Table) || p.Symbol.Code < '!' || p.Symbol.Code > '~' {
		return fmt.Errorf("%q is not a symbol", p.Symbol.String())
	}
	rest := s[19:]
	switch {
	case len(rest) >= 7 && rest[3] == '/' && figures(rest[:3]) && figures(rest[4:7]):
		course, _ := strconv.Atoi(rest[:3])
		knots, _ := strconv.Atoi(rest[4:7])
		if course <= 360 {
			p.Motion, rest = &Motion{course, float64(knots)}, rest[7:]
		}
	case len(rest) >= 7 && (strings.HasPrefix(rest, "PHG") || strings.HasPrefix(rest, "RNG") || strings.HasPrefix(rest, "DFS")) && figures(rest[3:7]):
		p.Extension, rest = rest[:7], rest[7:]
	}
	p.comment(rest)
	return nil
}

// sexagesimal reads degrees and minutes with spaces for what is left out; then it is the
// middle of what is left.
func sexagesimal(s string, places int, sides string, most float64) (v float64, blurred int, err error) {
	bad := fmt.Errorf("%q is not a position", s)
	side := s[len(s)-1]
	body := s[:len(s)-1]
	if body[places+2] != '.' || !strings.ContainsRune(sides, rune(side)) {
		return 0, 0, bad
	}
	digits := strings.Replace(body, ".", "", 1)
	n := strings.TrimRight(digits, " ")
	blurred = len(digits) - len(n)
	if !figures(n) || blurred > 4 {
		return 0, 0, bad
	}
	whole, _ := strconv.Atoi(n[:places])
	minutes := 0.0
	for i, unit := range []float64{10, 1, 0.1, 0.01} {
		if at := places + i; at < len(n) {
			minutes += unit * float64(n[at]-'0')
		}
	}
	if minutes >= 60 {
		return 0, 0, bad
	}
	minutes += []float64{0, 0.05, 0.5, 5, 30}[blurred]
	if v = float64(whole) + minutes/60; v > most {
		return 0, 0, bad
	}
	if side == sides[1] && sides == "NS" || side == 'W' {
		v = -v
	}
	return v, blurred, nil
}

func (p *Parsed) compact(s string) error {
	if len(s) < 13 {
		return errors.New("a compressed position has thirteen letters")
	}
	table := s[0]
	if table >= 'a' && table <= 'j' {
		table = '0' + table - 'a'
	}
	if table != '/' && table != '\\' && !overlay(table) || s[9] < '!' || s[9] > '~' {
		return fmt.Errorf("%q is not a position", s[:min(13, len(s))])
	}
	y, ok := fromBase91(s[1:5])
	x, ok2 := fromBase91(s[5:9])
	if !ok || !ok2 {
		return errors.New("a compressed position is in base 91")
	}
	p.Format, p.Symbol = Compressed, Symbol{table, s[9]}
	p.Place.Lat, p.Place.Lon = 90-float64(y)/380926, float64(x)/190463-180
	if !p.Place.Valid() {
		return errors.New("its position is nowhere")
	}
	c, v, kind := s[10], s[11], s[12]
	switch {
	case c == ' ':
	case kind < 33 || kind > 33+63 || c < 33 || v < 33 || v > 33+90:
		return errors.New("its course and speed are none")
	case (kind-33)&0x18 == 0x10:
		n, ok := fromBase91(s[10:12])
		if !ok {
			return errors.New("its altitude is none")
		}
		feet := int(math.Pow(1.002, float64(n))) // cut, as the specification does it
		p.Feet = &feet
	case c == '{':
		p.Extension = fmt.Sprintf("RNG%04.0f", 2*math.Pow(1.08, float64(v-33)))
	case c <= 'z':
		p.Motion = &Motion{int(c-33) * 4, math.Pow(1.08, float64(v-33)) - 1}
	}
	p.comment(s[13:])
	return nil
}

// comment takes the altitude out of the text.
func (p *Parsed) comment(s string) {
	if i := strings.Index(s, "/A="); i >= 0 && len(s) >= i+9 && figures(s[i+3:i+9]) {
		feet, _ := strconv.Atoi(s[i+3 : i+9])
		p.Feet, s = &feet, s[:i]+s[i+9:]
	}
	p.Comment = s
}

func (p *Parsed) micE(to, s string) error {
	bad := errors.New("it is not a position in an address")
	if len(to) != 6 || len(s) < 8 {
		return bad
	}
	digits, flags := make([]byte, 6), make([]bool, 6)
	for i, c := range []byte(to) {
		switch {
		case c >= '0' && c <= '9':
			digits[i] = c
		case c >= 'A' && c <= 'J' && i < 3:
			digits[i], flags[i] = c-'A'+'0', true
		case c >= 'P' && c <= 'Y':
			digits[i], flags[i] = c-'P'+'0', true
		case c == 'L':
			digits[i] = ' '
		case c == 'Z' || c == 'K' && i < 3:
			digits[i], flags[i] = ' ', true
		default:
			return bad
		}
	}
	side := map[bool]string{true: "N", false: "S"}[flags[3]]
	lat, blurred, err := sexagesimal(string(digits[:4])+"."+string(digits[4:])+side, 2, "NS", 90)
	if err != nil {
		return err
	}
	d := int(s[0]) - 28
	if flags[4] {
		d += 100
	}
	switch {
	case d >= 180 && d <= 189:
		d -= 80
	case d >= 190 && d <= 199:
		d -= 190
	}
	m := int(s[1]) - 28
	if m >= 60 {
		m -= 60
	}
	h := int(s[2]) - 28
	if d < 0 || d > 179 || m < 0 || m > 59 || h < 0 || h > 99 {
		return bad
	}
	lon := float64(d) + (float64(m)+float64(h)/100)/60
	if flags[5] {
		lon = -lon
	}
	sp, dc, se := int(s[3])-28, int(s[4])-28, int(s[5])-28
	if sp < 0 || dc < 0 || se < 0 {
		return bad
	}
	knots, course := sp*10+dc/10, dc%10*100+se
	if knots >= 800 {
		knots -= 800
	}
	if course >= 400 {
		course -= 400
	}
	if course > 360 {
		return bad
	}
	p.Place.Lat, p.Place.Lon, p.Ambiguity, p.Symbol = lat, lon, blurred, Symbol{s[7], s[6]}
	if p.Symbol.Table != '/' && p.Symbol.Table != '\\' && !overlay(p.Symbol.Table) || p.Symbol.Code < '!' || p.Symbol.Code > '~' {
		return bad
	}
	p.Motion = &Motion{course, float64(knots)}
	said := 0
	for i := range 3 {
		if flags[i] {
			said |= 4 >> i
		}
	}
	p.Says = 7 - said
	rest := s[8:]
	if len(rest) >= 4 && rest[3] == '}' {
		if n, ok := fromBase91(rest[:3]); ok {
			feet := int(math.Round(float64(n-10_000) / 0.3048))
			p.Feet, rest = &feet, rest[4:]
		}
	}
	p.Comment = rest
	return nil
}
