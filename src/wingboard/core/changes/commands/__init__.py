"""The words in which a design is changed, one module a subject. Each is data; a handler carries it out."""
