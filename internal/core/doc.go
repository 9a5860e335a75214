// Package core is the thinking of Verjuice: everything that can be known about
// a piece of meat, its salt and its clock from what a cook has typed.
//
// The packages below it are pure. They import the standard library, gonum and
// one another; they do not read files, clocks or networks, and they keep no
// state. A newcomer starts at package sheet, which turns a cook's typed page
// into every figure shown, and follows a figure down from there:
//
//	sheet → plan, salt, formula, cut, larder → quantity, trace, field
package core
