"""Reading and writing: the data that ships, the teacher's own movements, and class files."""
