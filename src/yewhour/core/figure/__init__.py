"""Figures: a posture as a small drawn body, from joint angles and what rests on the floor."""
