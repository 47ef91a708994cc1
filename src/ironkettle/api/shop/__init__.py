"""The shop: people and how they sign in, settings, tools, stock, orders, units and what is due on them."""
