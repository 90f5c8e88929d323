// Package core gathers the craft: its packages compute, and know nothing of
// files, clocks, databases or pages.
package core
