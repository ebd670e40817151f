"""What a design holds: models that cannot be spoiled, how they are written, read and brought up to date."""
