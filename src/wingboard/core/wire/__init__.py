"""Wire: which pin, which wire."""
