package card

import (
	"slices"

	"rutile/core/craft"
	"rutile/core/surface"
)

// effectCards are what the look changes on the card of this coat.
func (k *Coat) effectCards() []craft.EffectCard {
	if k.Look == nil || len(k.Look.Cards) == 0 {
		return nil
	}
	at := k.places()
	var out []craft.EffectCard
	for _, x := range k.Look.Cards {
		if slices.Contains(at, x.On) {
			out = append(out, x)
		}
	}
	return out
}

// places are the places of the coat in its look.
func (k *Coat) places() []craft.EffectCoat {
	row := k.row()
	medium := k.mediumAt()
	worked := k.workedAt()
	last := k.lastPaintBefore(worked)
	paint := row.Role == craft.RolePaint
	seal := row.Role == craft.RoleClear || row.Role == craft.RoleWax
	var out []craft.EffectCoat
	switch {
	case k.At == medium || k.isMedium(k.At):
		out = append(out, craft.EffectMedium)
	case medium >= 0 && k.At == k.paintAfter(medium):
		out = append(out, craft.EffectOver)
	case paint && (medium >= 0 && k.At < medium || medium < 0 && k.At < last):
		out = append(out, craft.EffectUnder)
	case paint && k.At == last:
		out = append(out, craft.EffectLast)
	case seal && k.At > max(medium, worked, last):
		out = append(out, craft.EffectSeal)
	}
	if paint && (!k.Look.Flakes() || row.Powder()) {
		out = append(out, craft.EffectPaint)
	}
	return out
}

// isMedium tells whether an event lays what makes the look by itself, such as glaze or crackle medium. Paint that
// flakes is paint.
func (k *Coat) isMedium(i int) bool {
	e := &k.Trace.Events[i]
	if e.Doing.Do != surface.Coat {
		return false
	}
	row := &k.Craft.Products[e.Doing.Product]
	return !row.Powder() && slices.Contains(k.Look.By, row.ID)
}

// mediumAt is the index of the first event that lays the medium of the look: what makes it by itself, or for one
// that cracks, what is still tacky under powder paint; -1 for none.
func (k *Coat) mediumAt() int {
	for i := range k.Trace.Events {
		if k.isMedium(i) {
			return i
		}
	}
	if !k.Look.Cracks {
		return -1
	}
	for i := range k.Trace.Events {
		e := &k.Trace.Events[i]
		if e.Doing.Do != surface.Coat {
			continue
		}
		if row := &k.Craft.Products[e.Doing.Product]; row.Tacky.To > 0 || row.Coat == craft.CM {
			if n := k.paintAfter(i); n >= 0 {
				return i
			}
		}
	}
	return -1
}

func (k *Coat) paintAfter(i int) int {
	for n := i + 1; n < len(k.Trace.Events); n++ {
		if e := &k.Trace.Events[n]; e.Doing.Do == surface.Coat && k.Craft.Products[e.Doing.Product].Role == craft.RolePaint {
			return n
		}
	}
	return -1
}

// workedAt is the index of the event that works the look; -1 where none does.
func (k *Coat) workedAt() int {
	for i := range k.Trace.Events {
		if k.Trace.Events[i].Effect != nil {
			return i
		}
	}
	return -1
}

// lastPaintBefore is the last paint before an event, or of the whole plan where that is -1.
func (k *Coat) lastPaintBefore(i int) int {
	if i < 0 {
		i = len(k.Trace.Events)
	}
	for n := i - 1; n >= 0; n-- {
		if e := &k.Trace.Events[n]; e.Doing.Do == surface.Coat && k.Craft.Products[e.Doing.Product].Role == craft.RolePaint {
			return n
		}
	}
	return -1
}
