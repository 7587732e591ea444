package tone

// A DCS code is sent as a 23-bit Golay word without end and without a mark at
// its start, so a receiver sees all 23 rotations of it as the same signal.
// That is why one code upside down can be another code.

const (
	wordBits  = 23
	wordMask  = 1<<wordBits - 1
	generator = 0xC75 // x¹¹+x¹⁰+x⁶+x⁵+x⁴+x²+1
	dataFlag  = 0x800 // the three bits 100 that stand above the code
)

// Word returns the 23-bit word of a DCS code in the order of the air: the
// twelve data bits in the low places, the eleven parity bits above them. Code
// 023 (octal) is 0x763813. Source: TIA-603, generator polynomial as above.
func Word(code int) uint32 {
	data := uint32(code&0x1FF | dataFlag)
	// The check bits are those of the data read as a polynomial with the
	// most significant bit first.
	remainder := data << 11
	for bit := wordBits - 1; bit >= 11; bit-- {
		if remainder>>bit&1 == 1 {
			remainder ^= generator << (bit - 11)
		}
	}
	return remainder<<12 | data
}

// Equivalent returns the code of the 104-code set that is the same signal as
// t in the other polarity: 023 inverted is 047 normal. The second result is
// false for anything but a DCS code of the set.
func Equivalent(t Tone) (Tone, bool) {
	if t.kind != DCS {
		return Off, false
	}
	target := signal(Word(int(t.value)) ^ wordMask)
	for _, code := range DCS104 {
		if signal(Word(code)) == target {
			return Tone{kind: DCS, value: uint16(code), inverted: !t.inverted}, true
		}
	}
	return Off, false
}

// Same reports whether a receiver set for b opens on a transmitter sending a.
func Same(a, b Tone) bool {
	if a == b {
		return true
	}
	e, ok := Equivalent(a)
	return ok && e == b
}

// signal returns the smallest rotation of a word, the same for all words that
// are one signal on the air.
func signal(w uint32) uint32 {
	low := w
	for range wordBits {
		w = (w<<1 | w>>(wordBits-1)) & wordMask
		low = min(low, w)
	}
	return low
}
