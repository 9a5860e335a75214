// Package core holds what Verjuice computes: everything that can be known about
// a piece of meat, its salt and its times from what a cook has typed.
//
// The packages below it are pure. They import the standard library, gonum and
// one another; they do not read files, clocks or networks, keep no state, and
// hold no sentences for the reader. There is one way through:
//
//	order.Parse(page, kitchen)            // what was typed, understood
//	cooking.Work(order, facts, clock)    // every number of it
//	sheet.WriteAfter(before, result, reader) // outside the core: the words
//
// A newcomer starts at package cooking and follows a figure down from there:
//
//	cooking → plan, shop, caution → dose, method → salt, formula, cut, larder → quantity, trace, field
package core
