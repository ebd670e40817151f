"""Where current goes: supplies, buses, what protects them, what every branch draws, and what is lost on the way."""
