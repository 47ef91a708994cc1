"""The database: models, queries and migrations, one module a noun."""
