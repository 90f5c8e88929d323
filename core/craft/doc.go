// Package craft holds the vocabulary of decorative furniture painting and the
// default figures that go with it: substrates, finishes, soils, cleaners,
// bleeders, abrasives, products, effects, wear and use.
//
// Everything here is data. A new product is one row of [Default]'s product
// table, a new substrate one row of its substrate table. The figures are
// working defaults drawn from general coatings practice; they belong to no
// maker, and a product's own label and safety data sheet always win.
//
// Units, unless a comment says otherwise: hours, degrees Celsius, per cent
// relative humidity, square metres per litre, micrometres, CIEDE2000 units.
package craft
