"""Looking back: what was really said and done, from marks, captions or sound."""
