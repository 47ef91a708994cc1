"""The test stand: its driver, and the simulated stand that ships with the application."""
