package photo

import "syscall"

// limitMemory limits the memory for unpacking, whatever a picture claims.
func limitMemory() {
	const most = 4 << 30
	_ = syscall.Setrlimit(syscall.RLIMIT_AS, &syscall.Rlimit{Cur: most, Max: most})
}
