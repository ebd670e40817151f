"""Parts: what goes in, and how big it really is."""
