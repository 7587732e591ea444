// Package find looks among all that is published for what a line of words asks
// for: parts of a name, the first figures of an output, a band, a distance, what a
// radio lacks. The line is read as it is typed, word by word, and each word
// says what it was taken as and how many it leaves out.
//
// Distances are those of geodesics on WGS-84. Where many are compared at once
// they are first measured on a sphere, which is nowhere more than 0.6 % off, and
// again on the ellipsoid wherever that could matter.
package find
