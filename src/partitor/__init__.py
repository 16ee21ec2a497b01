"""Partitor's core: reads programs, finds repetition, proves refactorings, scores decomposition.

Everything here takes values and returns values. Nothing opens a socket, reads a database or
runs a student's code, so it works the same in a worker, a test or on the command line.
"""

__version__ = "0.1.0"
