"""The judgement: findings, the limits they rest on, and the registry of checks."""
