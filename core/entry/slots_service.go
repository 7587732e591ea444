package entry

import (
	"fmt"

	"mnemos/core/service"
	"mnemos/core/tone"
)

// setService takes a channel of a service, and the code that goes with it.
func (s *state) setService(word string, c value) bool {
	use, code, problem := s.r.serviceChannel(word, c)
	if problem != "" {
		return s.claim(fReceive)
	}
	s.use = use
	if c.n > 0 && (!s.setOut(code) || !s.setIn(code)) {
		return false
	}
	return s.setReceive(use.Frequency)
}

// serviceChannel finds a channel of a service and the tone of its code.
func (r *reading) serviceChannel(word string, c value) (use *service.Use, code tone.Tone, problem string) {
	s, known := service.Find(r.plan.Region, word)
	if !known {
		return nil, code, fmt.Sprintf("%s is not a service of %s: type the frequency", word, r.plan.Title)
	}
	ch, known := s.Channel(c.text)
	if !known {
		return nil, code, fmt.Sprintf("%s has channels %s: type one of them, such as %s %s", s.Name, s.Range(), word, s.Channels[0].Number)
	}
	if c.n > 0 {
		if code, known = service.Code(c.n); !known {
			return nil, code, "codes 1 to 38 are the classic tones, and above them makers differ: type the tone such as ts 103.5, or the DCS code such as ts D023N"
		}
	}
	return &service.Use{Service: s, Channel: ch}, code, ""
}

// coded is the channel of a form that has its code apart. A code of three
// figures is rather a DCS code, and is asked about.
func coded(v []value) value {
	c := v[1]
	if c.n = v[2].n; len(v[2].text) > 2 {
		c.n = 999
	}
	return c
}
