"""What ./kettle does before the environment exists: only the standard library is used here."""
