"""Work beside the one who waits for it: jobs on threads, child processes, and the log of what went wrong."""
