"""The link to a controller: a real one at a port, or a simulated chip that runs its very program."""
