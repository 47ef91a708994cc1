"""Settings: the next turn towards a target, from the readings taken so far."""

from ironkettle.core.settings.advise import Advice, Reading, Sense, Target, advise

__all__ = ["Advice", "Reading", "Sense", "Target", "advise"]
