package check

import "slices"

const practice = "common practice, no source"

// Rules holds every rule in the order in which they run. Findings of equal
// severity keep this order.
var Rules = slices.Concat(entryRules, crossBandRules, shiftRules, toneRules, heardRules, listingRules, serviceRules, planRules, operatorRules, radioRules, slotRules, slipRules, evidenceRules)
