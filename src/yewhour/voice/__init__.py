"""Lines into seconds, and (later) into sound. May read the data it ships with; imports no Qt."""
