"""The demo: the Lock Gate Workshop of the Fennimoor Navigation. Everything in it is made up."""
