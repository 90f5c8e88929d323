package app

import "syscall"

// lowPriority has the system prefer other threads to this one.
func lowPriority() {
	const nice = 10
	_ = syscall.Setpriority(syscall.PRIO_PROCESS, syscall.Gettid(), nice)
}
