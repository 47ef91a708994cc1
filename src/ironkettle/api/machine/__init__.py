"""Machines: adjusters, fasteners, cylinders, tests, the test stand."""
