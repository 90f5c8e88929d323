//go:build !linux

package app

func lowPriority() {}
