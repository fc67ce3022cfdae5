"""A take: a class under way, from its marks and a moment; no clock in it."""
