"""One router a station, and one for the designs themselves."""
