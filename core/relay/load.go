package relay

// Load is what a relay asks of the vehicle unit.
type Load struct {
	A, B      float64 // share of the time on the air
	WattsA    float64
	WattsB    float64
	Mean      float64 // W, over the time
	Rated     float64 // W that may be sent without a pause
	Fits      bool
	Level     float64 // the highest level of the radio that fits, in W; 0 for none
	Amps      float64 // in the mean
	Guessed   bool    // the currents are reckoned from the power, nobody measured
	Hours     float64 // that the battery lasts; 0 where nobody said which
	Overtime  bool    // the traffic does not fit into ten minutes
	InMinutes float64 // what it takes
}

// load adds up what the sides send, and what it takes.
func load(s Setup) (l Load) {
	if s.Vehicle.Radio == nil {
		return l
	}
	if runs(s) {
		w := newWorld(s)
		if linkSide(s) == "B" {
			l.B, l.A = w.turned().shares(s.Talk)
		} else {
			l.A, l.B = w.shares(s.Talk)
		}
	}
	overs := float64(s.Talk.Mine + s.Talk.Theirs)
	l.InMinutes = overs * (s.Talk.Seconds + 2) / 60
	l.Overtime = l.InMinutes > 10
	l.WattsA, l.WattsB = s.watts(s.A), s.watts(s.B)
	l.Mean = l.A*l.WattsA + l.B*l.WattsB
	l.Rated = s.Vehicle.Radio.Watts.High * data.RatedDuty
	// Only one side sends at a time: what is sent never exceeds the larger of both.
	l.Fits = l.Mean <= l.Rated
	for _, x := range s.Vehicle.Radio.Watts.Levels() {
		if x <= l.Rated {
			l.Level = x
			break
		}
	}
	standby := s.Supply.StandbyAmps
	if standby == 0 {
		standby, l.Guessed = data.StandbyAmps, true
	}
	drawn := func(measured, watts float64) float64 {
		if measured > 0 {
			return measured
		}
		l.Guessed = true
		return standby + watts/(data.Efficiency*data.Volts)
	}
	l.Amps = l.A*drawn(s.Supply.AmpsA, l.WattsA) + l.B*drawn(s.Supply.AmpsB, l.WattsB) + max(0, 1-l.A-l.B)*standby
	if s.Supply.AmpHours > 0 {
		l.Hours = s.Supply.AmpHours * s.Supply.Usable / l.Amps
	}
	return l
}
