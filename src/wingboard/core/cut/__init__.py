"""Cut: what each machine makes, in which order."""
