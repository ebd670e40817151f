"""How a design changes: commands, the named handlers that carry them out, and what those compute."""
