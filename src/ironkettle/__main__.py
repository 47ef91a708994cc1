"""Run the server: ``python -m ironkettle [--on-word]``.

``--on-word``: makes itself ready and serves when a line comes on standard input; without one it ends.
"""

from __future__ import annotations

import gc
import sys


def main() -> int:
    # Collecting while half a million objects are loaded that all stay costs a quarter of the start.
    gc.disable()
    from ironkettle.serving import serve

    return serve()


if __name__ == "__main__":
    sys.exit(main())
