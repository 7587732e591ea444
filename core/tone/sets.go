package tone

import "slices"

// CTCSS50 holds the fifty CTCSS tones that radios offer, in tenths of a
// hertz. Source: TIA-603 lists most of them; the rest is common practice.
var CTCSS50 = []int{
	670, 693, 719, 744, 770, 797, 825, 854, 885, 915, 948, 974, 1000, 1035, 1072, 1109, 1148, 1188,
	1230, 1273, 1318, 1365, 1413, 1462, 1514, 1567, 1598, 1622, 1655, 1679, 1713, 1738, 1773, 1799,
	1835, 1862, 1899, 1928, 1966, 1995, 2035, 2065, 2107, 2181, 2257, 2291, 2336, 2418, 2503, 2541,
}

var notClassic = []int{693, 1598, 1655, 1713, 1773, 1835, 1899, 1966, 1995, 2065, 2291, 2541}

// CTCSS38 holds the classic 38 tones of older and simpler radios: the fifty
// without twelve later additions. Source: common practice.
var CTCSS38 = without(CTCSS50, notClassic)

// DCS83 holds the 83 codes of TIA-603, as nine-bit numbers.
var DCS83 = []int{
	0o023, 0o025, 0o026, 0o031, 0o032, 0o043, 0o047, 0o051, 0o054, 0o065, 0o071, 0o072, 0o073, 0o074, 0o114, 0o115, 0o116,
	0o125, 0o131, 0o132, 0o134, 0o143, 0o152, 0o155, 0o156, 0o162, 0o165, 0o172, 0o174, 0o205, 0o223, 0o226, 0o243, 0o244,
	0o245, 0o251, 0o261, 0o263, 0o265, 0o271, 0o306, 0o311, 0o315, 0o331, 0o343, 0o346, 0o351, 0o364, 0o365, 0o371, 0o411,
	0o412, 0o413, 0o423, 0o431, 0o432, 0o445, 0o464, 0o465, 0o466, 0o503, 0o506, 0o516, 0o532, 0o546, 0o565, 0o606, 0o612,
	0o624, 0o627, 0o631, 0o632, 0o654, 0o662, 0o664, 0o703, 0o712, 0o723, 0o731, 0o732, 0o734, 0o743, 0o754,
}

var dcsMore = []int{
	0o036, 0o053, 0o122, 0o145, 0o212, 0o225, 0o246, 0o252, 0o255, 0o266, 0o274, 0o325, 0o332, 0o356, 0o446, 0o452, 0o454,
	0o455, 0o462, 0o523, 0o526,
}

// DCS104 holds the 104 codes of newer radios. Source: common practice.
var DCS104 = merge(DCS83, dcsMore)

func without(all, drop []int) []int {
	return slices.DeleteFunc(slices.Clone(all), func(v int) bool { return slices.Contains(drop, v) })
}

func merge(a, b []int) []int {
	out := append(slices.Clone(a), b...)
	slices.Sort(out)
	return out
}

// Standard reports whether t is in the fifty-tone table or the 104-code set,
// or is the burst or no tone.
func (t Tone) Standard() bool {
	switch t.kind {
	case CTCSS:
		_, ok := slices.BinarySearch(CTCSS50, int(t.value))
		return ok
	case DCS:
		_, ok := slices.BinarySearch(DCS104, int(t.value))
		return ok
	}
	return true
}

// Nearest returns the CTCSS tone of the fifty-tone table closest to the given
// frequency in tenths of a hertz; halfway it is the lower.
func Nearest(deciHertz int) Tone {
	best := CTCSS50[0]
	for _, v := range CTCSS50 {
		if abs(v-deciHertz) < abs(best-deciHertz) {
			best = v
		}
	}
	return Tone{kind: CTCSS, value: uint16(best)}
}

// Index returns the place of a CTCSS tone in the fifty-tone table, counted
// from 0, or -1.
func (t Tone) Index() int {
	if t.kind != CTCSS {
		return -1
	}
	if i, ok := slices.BinarySearch(CTCSS50, int(t.value)); ok {
		return i
	}
	return -1
}

func abs(n int) int {
	if n < 0 {
		return -n
	}
	return n
}
