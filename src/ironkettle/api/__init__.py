"""The web API: one module a noun, handlers of four steps: who may, load, call the core, answer."""
