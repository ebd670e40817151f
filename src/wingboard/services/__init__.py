"""Use cases, one function each: load, command, resolve, review, keep. They own the transaction."""
