package plan

import "time"

// Hurry lets a plan wait no longer than that for what is published.
func (p *Plans) Hurry(patience time.Duration) { p.patience = patience }
