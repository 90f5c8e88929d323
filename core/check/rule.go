// Package check judges a plan: it walks the zone's surface through the steps and runs every rule
// over what happened. A rule is one entry of one of the rules_*.go files; the check, the planner
// and the rule book read the book and handle no single rule.
//
// One thing per file: zone.go and result.go are input and output, check.go the engine, case.go one
// walk under judgement, rule.go and book.go what a rule is, rules_*.go the rules by group;
// propose.go proposes repairs, repair.go verifies them, rank.go sorts them; model.go,
// appearance.go, known.go and lead.go work out what rules look at; words.go and scales.go put it
// into words; evaluator.go judges many plans of one zone for a search.
package check

import (
	"strings"

	"rutile/core/craft"
	"rutile/core/surface"
)

// Severity is how bad a finding is.
type Severity uint8

// The severities. A note is worth knowing, a watch can go wrong or rests on
// something unknown, a fail is expected to go wrong.
const (
	Note Severity = iota
	Watch
	Fail
)

// String returns the severity's id.
func (s Severity) String() string { return [...]string{"note", "watch", "fail"}[s] }

// Verdict sums a check up.
type Verdict uint8

// The verdicts.
const (
	Sound Verdict = iota
	Watched
	Fails
)

// String returns the verdict's id.
func (v Verdict) String() string { return [...]string{"sound", "watch", "fails"}[v] }

// Rule is one entry of the rule book.
type Rule struct {
	Code   string
	Title  string // in a painter's words
	Why    string // why it matters
	When   string // when it fires, and how severely
	Inputs string // what it looks at
	Fix    string // how to fix it
	// Each keeps a finding for every step it arises at; otherwise a subject is
	// reported once, where it is worst.
	Each bool
	// Step looks at one event of the walk, with all that came before.
	Step func(*Case, *surface.Event)
	// End looks at the whole walk.
	End func(*Case)
	// Say words a finding: what was found, with its figures. Title may stay
	// empty for the rule's own.
	Say func(*Case, *Hit) (title, why string)
	// Figures are the numbers behind a finding where its boundary, stain or soil
	// does not give them; nil for most.
	Figures func(*Case, *Hit) []Figure
	// Repair proposes repairs. What it proposes is verified before anyone sees
	// it.
	Repair func(*Repairer, *Hit)
	// Divides is what painters disagree about in a finding; nil for nothing.
	Divides func(*Case, *Hit) *craft.Divide
	// Harm is what its findings would do, where that is not what its group's do; and Patch tells that
	// a test patch would show it.
	Harm  Harm
	Patch bool

	// Reach tells how much of a plan it must see; left out, a rule that only looks
	// at events sees enough in the beginning of one, unless it is Late: what it says
	// depends on what is still to come.
	Reach Reach
	Late  bool
	// Notes tells that it never says more than a note, which decides nothing while a plan is searched for.
	Notes bool

	// Stage is the stage of the work that it belongs to; empty for that of its group.
	Stage craft.Stage
	// Unfinished tells that it is about steps still missing: an incomplete plan need not answer it
	// yet.
	Unfinished bool
	// Foreseen tells which of its verdicts is known before a plan is whole, from the film,
	// the colour or the bonds alone.
	Foreseen Foreseen

	group int  // its place among the groups of rules
	told  bool // another may tell its cause
	index int  // in its book
}

// Foreseen names a verdict that is known before a plan is whole.
type Foreseen uint8

// What is known early: nothing, whether coats close a gap, whether a seal yellows, and whether the
// bonds hold together.
const (
	NotForeseen Foreseen = iota
	ForeseenBuild
	ForeseenYellow
	ForeseenPeel
	numForeseen
)

// group is a group of rules, by what their codes begin with.
type group struct {
	prefix, name string
	// stage is the stage of the work that its rules belong to, where they do not say another.
	stage craft.Stage
	// harm is what its findings would do, and patch tells that a test patch would show them.
	harm  Harm
	patch bool
}

// groups are in the order in which the rule book has them; findings of one severity are ordered by
// their harm, and within one harm by group.
var groups = []group{
	{"walk", "The plan as a whole", craft.StageCoats, HarmLook, false}, {"adhesion", "Adhesion", craft.StageCoats, HarmPeel, true},
	{"bleed", "Bleed-through", craft.StageCoats, HarmStain, true}, {"prep", "Preparation", craft.StagePrepare, HarmLook, false},
	{"effect", "Effects", craft.StageCoats, HarmLook, true}, {"film", "Film and look", craft.StageCoats, HarmLook, true}, {"use", "Use", craft.StageCoats, HarmPeel, false},
	{"site", "Air in the workshop", craft.StageCoats, HarmPeel, false},
	{"mix", "Cans, colour and mixing", craft.StageMix, HarmLook, false}, {"safety", "Health and safety", craft.NoStage, HarmPeople, false},
}

func (r *Rule) groupOf() int {
	prefix, _, _ := strings.Cut(r.Code, ".")
	for i := range groups {
		if groups[i].prefix == prefix {
			return i
		}
	}
	panic("check: the rule " + r.Code + " is in no group")
}

// Group is the name of the rule's group.
func (r *Rule) Group() string { return groups[r.groupOf()].name }

// stage is the stage of the work that the rule belongs to.
func (r *Rule) stage() craft.Stage {
	if r.Stage != "" {
		return r.Stage
	}
	return groups[r.groupOf()].stage
}

// Hit is a finding before it is put into words.
type Hit struct {
	Rule     *Rule
	Severity Severity
	Step     int    // from 1; 0 for the zone as a whole
	Subject  string // what it is about; with the code, its identity
	Bound    *surface.Boundary
	Soil     craft.Soil
	Level    uint8
	Stain    *Stain
	// Value is what was found and Limit what it is compared with, for rules about a figure; Product
	// the product concerned.
	Value, Limit float64
	Product      craft.Product
	Case         *Case
	// Unsure tells that it is about something unknown, and not about expected harm.
	Unsure bool
	// Refuses tells that no plan with it is proposed, though a painter who wants it may do it.
	Refuses bool
	// If says what the surface is only supposed to be, where the finding does not
	// hold for everything it may be.
	If string
}

// Harm is what a finding would do. It orders findings of one severity: what hurts somebody or ruins the
// piece comes before what peels, that before a stain, and that before sheen, grain and dust. What is
// merely not known comes last.
type Harm uint8

// The harms, the least first. NoHarm stands for that of the group.
const (
	NoHarm Harm = iota
	HarmUnsure
	HarmLook
	HarmStain
	HarmPeel
	HarmRuin
	HarmPeople
)

// harm is what the finding would do. Notes on safety are routine cautions and come with the rest.
func (h *Hit) harm() Harm {
	out := h.Rule.Harm
	if out == NoHarm {
		out = groups[h.Rule.group].harm
	}
	switch {
	case h.Unsure:
		return HarmUnsure
	case h.Severity == Note && out == HarmPeople:
		return HarmUnsure
	}
	return out
}

// patches tells whether a test patch would show what the rule is about.
func (r *Rule) patches() bool { return r.Patch || groups[r.group].patch }

func (h *Hit) same(o *Hit) bool { return h.Rule == o.Rule && h.Subject == o.Subject }
