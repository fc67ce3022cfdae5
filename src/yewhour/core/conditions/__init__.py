"""Who is in the room, and what a class does without: conditions as rules, groups of movements, one class's room."""
