"""Writers of open formats: scenes in, bytes out."""
