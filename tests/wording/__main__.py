"""``python -m tests.wording [--list]``: how many texts there are, and which hold a phrase that is not used."""

from __future__ import annotations

import sys

from tests.wording.texts import banned, texts

if "--list" in sys.argv:
    for one in texts():
        print(one)
found = list(banned())
for text, instead in found:
    print(f"{text}\n    say: {instead}")
print(f"{sum(1 for _ in texts())} texts, {len(found)} with a phrase that is not used")
sys.exit(bool(found))
