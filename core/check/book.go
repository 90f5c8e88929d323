package check

import (
	"slices"
	"sync"
)

// Book is a set of rules that zones are judged by. It never changes once it is made.
type Book struct {
	// Rules are in the order in which findings of one severity are shown.
	Rules []*Rule

	soFar, end []*Rule // what a search asks of beginnings and endings
	surveys    []*Rule // and of the survey alone
	survey     RuleSet // those about the survey alone
	foreseen   [numForeseen]int
}

// NewBook makes a book of rules, ordered by their groups. It copies the rules, as the same entry may
// stand in several books. It panics where there are more than a [RuleSet] holds, or a rule is in
// no group.
func NewBook(rules ...Rule) *Book {
	b := &Book{}
	if len(rules) > len(RuleSet{})*64 {
		panic("check: more rules than a set of them holds")
	}
	for i := range rules {
		r := rules[i]
		r.group = r.groupOf()
		r.told = slices.Contains(mayBeTold, r.Code)
		b.Rules = append(b.Rules, &r)
	}
	slices.SortStableFunc(b.Rules, func(x, y *Rule) int { return x.group - y.group })
	for f := range b.foreseen {
		b.foreseen[f] = -1
	}
	for i, r := range b.Rules {
		r.index = i
		if r.Foreseen != NotForeseen {
			b.foreseen[r.Foreseen] = i
		}
		if r.reach()&SoFar != 0 {
			b.soFar = append(b.soFar, r)
		}
		if r.reach()&(Tail|Later) != 0 {
			b.end = append(b.end, r)
		}
		if r.reach()&Survey != 0 {
			b.survey.Put(i)
			b.surveys = append(b.surveys, r)
		}
	}
	return b
}

// Foresee puts the rule whose verdict is known early into a set; a book may have none.
func (b *Book) Foresee(f Foreseen, into *RuleSet) {
	if i := b.foreseen[f]; i >= 0 {
		into.Put(i)
	}
}

var standard struct {
	once sync.Once
	book *Book
}

// Standard is the rule book.
func Standard() *Book {
	standard.once.Do(func() {
		standard.book = NewBook(slices.Concat(walkRules(), adhesionRules(), bleedRules(), prepRules(), effectRules(), demandRules(), filmRules(), useRules(), siteRules(), mixRules(), potRules(), safetyRules())...)
	})
	return standard.book
}
