package ax25

// Airtime is a frame on the air, in bits and milliseconds.
type Airtime struct {
	KeyUp   float64   // ms, filled with flags: the transmitter comes up meanwhile
	Flags   int       // whole ones in the key-up delay
	Bits    int       // of the frame with its check and its two flags, stuffed
	Stuffed int       // zeros after five ones
	Total   float64   // ms
	Ends    []float64 // ms at which each byte of the frame, and the two of the check, ends
	Extra   []int     // stuffed bits in each of them
}

// Air works out how long a frame is on the air: key-up delay, one flag, the frame and its
// check sequence with the stuffed bits, and one flag. Bytes go out least significant bit
// first; after five ones comes a zero, which is not counted as one of the next five.
func Air(frame []byte, keyUp float64, baud int) Airtime {
	fcs := FCS(frame)
	all := append(append([]byte{}, frame...), byte(fcs), byte(fcs>>8))
	bit := 1000 / float64(baud)
	a := Airtime{KeyUp: keyUp, Flags: int(keyUp / (8 * bit)), Bits: 16}
	ones := 0
	at := keyUp + 8*bit
	for _, b := range all {
		extra := 0
		for i := range 8 {
			if b>>i&1 == 0 {
				ones = 0
				continue
			}
			if ones++; ones == 5 {
				extra, ones = extra+1, 0
			}
		}
		a.Bits += 8 + extra
		a.Stuffed += extra
		at += float64(8+extra) * bit
		a.Ends, a.Extra = append(a.Ends, at), append(a.Extra, extra)
	}
	a.Total = at + 8*bit
	return a
}
