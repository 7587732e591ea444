package exchange

import (
	"bytes"
	"io"
	"unicode/utf8"

	"golang.org/x/text/encoding"
	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"
	"golang.org/x/text/transform"
)

// decoded turns a text into UTF-8: by its byte order mark, or else by what
// its beginning can be. What is no UTF-8 is taken for Windows-1252, of which
// Latin-1 is a part.
func decoded(r io.Reader, head []byte) (name string, out io.Reader) {
	var e encoding.Encoding
	switch {
	case bytes.HasPrefix(head, []byte{0xEF, 0xBB, 0xBF}):
		name, e = "UTF-8", unicode.UTF8BOM
	case bytes.HasPrefix(head, []byte{0xFF, 0xFE}), zeros(head, 1):
		name, e = "UTF-16, little end first", unicode.UTF16(unicode.LittleEndian, unicode.UseBOM)
	case bytes.HasPrefix(head, []byte{0xFE, 0xFF}), zeros(head, 0):
		name, e = "UTF-16, big end first", unicode.UTF16(unicode.BigEndian, unicode.UseBOM)
	case validUTF8(head):
		return "UTF-8", r
	default:
		name, e = "Windows-1252", charmap.Windows1252
	}
	return name, transform.NewReader(r, e.NewDecoder())
}

// zeros reports whether most of every second byte is zero, as in UTF-16 that
// is mostly ASCII.
func zeros(head []byte, from int) bool {
	if len(head) < 4 {
		return false
	}
	n := 0
	for i := from; i < len(head); i += 2 {
		if head[i] == 0 {
			n++
		}
	}
	return n > len(head)/4
}

// validUTF8 reports whether the head is UTF-8; its last character may be cut.
func validUTF8(head []byte) bool {
	for cut := 0; cut < utf8.UTFMax && cut < len(head); cut++ {
		if utf8.Valid(head[:len(head)-cut]) {
			return true
		}
	}
	return false
}
