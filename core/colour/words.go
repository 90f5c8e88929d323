package colour

// Differ says how different two colours look that are de CIEDE2000 units apart.
// One unit is about the smallest difference that the eye sees side by side; from
// about ten two colours have different names. Working default.
func Differ(de float64) string {
	switch {
	case de < 1:
		return "the same colour"
	case de < 3:
		return "almost the same colour"
	case de < 10:
		return "a similar colour"
	}
	return "a clearly different colour"
}

// Off says how far a colour that misses its aim by de CIEDE2000 units looks off.
// Working default.
func Off(de float64) string {
	switch {
	case de < 1:
		return "right"
	case de < 3:
		return "slightly off"
	case de < 6:
		return "clearly off"
	}
	return "far off"
}
