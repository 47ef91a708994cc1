"""The rules of the job: pure functions of their arguments, no clock, file, database or network."""
