"""Face: where everything goes, whether a hand can use it, and the words beside it."""
