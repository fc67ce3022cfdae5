"""A class as sound. Brings in NumPy and the codecs: imported when sound is asked for, and not before."""
