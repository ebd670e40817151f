"""What looks across stations: the review, how far each function has got, readiness."""
