"""A promise in words: its vocabulary, the reader, each wish with what became of it, and courses."""
