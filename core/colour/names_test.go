package colour

import "testing"

// What people call these was written down before the table was.
func TestColoursHavePlainNames(t *testing.T) {
	for hex, want := range map[string]string{
		"#ffffff": "white", "#000000": "black", "#f5f5f3": "off-white", "#808080": "grey", "#c8c8c8": "pale grey", "#404040": "dark grey",
		"#2a2a2a": "charcoal", "#f3ead2": "cream", "#d8c3a0": "beige", "#6b4a2b": "brown", "#3b2a1c": "very dark brown",
		"#8b0000": "dark red", "#c0392b": "bright red", "#f2c4c4": "pale pink", "#6b1f33": "dark wine red",
		"#1f2f5a": "dark blue", "#a8c4dc": "pale blue", "#2f6fb0": "blue", "#b9c8bd": "pale greenish grey", "#9db8a4": "pale grey-green",
		"#2f6b3a": "dark green", "#0f6b6b": "dark blue-green", "#f0c020": "bright yellow", "#e08030": "bright orange",
		"#6a4a8a": "purple", "#c9b4dc": "pale lilac", "#6b6b2b": "olive", "#e4e8df": "greenish white",
	} {
		if got := NameHex(hex); got != want {
			t.Errorf("%s is called %q, not %q", hex, got, want)
		}
	}
	if got := NameHex("red"); got != "red" {
		t.Errorf("what is no colour came out as %q", got)
	}
}

func TestANameIsReadAsAColourOfThatName(t *testing.T) {
	names := Names()
	if len(names) < 60 || len(names) > 200 {
		t.Errorf("%d names", len(names))
	}
	for _, n := range names {
		c, ok := Named(n)
		if !ok || NameHex(c.Hex()) != n {
			t.Errorf("%q is read as %s, which is called %q", n, c.Hex(), NameHex(c.Hex()))
		}
	}
	for typed, want := range map[string]string{
		"Pale Grey Green": "pale grey-green", "light gray": "pale grey", " navy ": "dark blue", "Ivory": "cream", "light blue": "pale blue",
	} {
		if c, ok := Named(typed); !ok || Name(c) != want {
			t.Errorf("%q is read as %s (%v), not %q", typed, Name(c), ok, want)
		}
	}
	for _, no := range []string{"", "blurple", "grey grey", "#12", "pale"} {
		if c, ok := Named(no); ok {
			t.Errorf("%q is read as %s", no, c.Hex())
		}
	}
}

func BenchmarkName(b *testing.B) {
	c, _ := Parse("#9db8a4")
	for b.Loop() {
		Name(c)
	}
}
