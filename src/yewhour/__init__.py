"""Yew Hour fits a guided yoga or Pilates class to its promised length and writes its script."""

__version__ = "0.2.0"
