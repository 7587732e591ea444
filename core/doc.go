// Package core holds nothing itself. The packages below it are the trade:
// pure computation without a screen, a database or a network, which other
// programs can import. What they may import is checked by a test here.
package core
