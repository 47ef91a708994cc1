"""What machines do: cylinders, fasteners, adjusters, parts, pressure, kinds of test, the test stand."""
