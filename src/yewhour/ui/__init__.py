"""The window: shows values and sends intentions. All Qt code lives here; no timing is computed here."""
