"""Who is in the room, and what a class does without: conditions, groups of movements, one class's room."""
