"""What was worked out for many keys at once, remembered key by key."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Generic, TypeVar

Key = TypeVar("Key", bound=Hashable)
Made = TypeVar("Made")


class Kept(Generic[Key, Made]):
    """Answers for many keys together, of which only those not remembered are worked out, by one call of ``make``.

    The ``most`` keys asked for last are remembered. ``make`` takes keys, at least one, and returns as many values; it must give
    every key the same value whatever it is asked with.
    """

    def __init__(self, make: Callable[[list[Key]], list[Made]], most: int) -> None:
        self._make, self._most = make, most
        self._made: OrderedDict[Key, Made] = OrderedDict()
        self._lock = Lock()

    def of(self, keys: list[Key]) -> list[Made]:
        """Return the values of keys, which may be none, in their order."""
        with self._lock:
            known = {key: self._made[key] for key in keys if key in self._made}
        missing = list(dict.fromkeys(key for key in keys if key not in known))
        if missing:
            known.update(zip(missing, self._make(missing), strict=True))
        with self._lock:
            for key in keys:
                self._made[key] = known[key]
                self._made.move_to_end(key)
            while len(self._made) > self._most:
                self._made.popitem(last=False)
        return [known[key] for key in keys]
