"""Check: what a class is noticed for. `every` has the list; a check and its rule are added together."""
