package craft

// Saying is a wait that painters name by a word and not by a figure.
type Saying uint8

// The sayings.
const (
	NoSaying Saying = iota
	Overnight
	ADay
)

// SayingRow is what a saying means: hours from the least to the most. It does not stretch in a heated
// room. Working default.
type SayingRow struct {
	Words    string // within a sentence
	From, To float64
}

// Sayings is indexed by Saying.
var Sayings = [...]SayingRow{NoSaying: {}, Overnight: {"overnight", 12, 16}, ADay: {"a day", 16, 24}}
