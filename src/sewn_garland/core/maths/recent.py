"""Remember what was worked out last."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable, Sequence
from typing import Generic, TypeVar

Value = TypeVar("Value")


class Recent(Generic[Value]):
    """The last values, by their keys, that together weigh at most ``most``; each weighs 1 unless ``weigh`` says otherwise.

    Safe to ask from several threads, which may then work out the same twice.
    """

    def __init__(self, most: int, *, weigh: Callable[[Value], int] = lambda value: 1) -> None:
        self._most, self._weigh, self._weight = most, weigh, 0
        self._kept, self._lock = OrderedDict[Hashable, Value](), threading.Lock()

    def get(self, key: Hashable, work_out: Callable[[], Value]) -> Value:
        """Return the value of a key, worked out where it is not known."""
        known = self.known(key)
        if known is None:
            known = work_out()
            self.keep(key, known)
        return known

    def all_of(self, keys: Sequence[Hashable], work_out: Callable[[list], list[Value]]) -> list[Value]:
        """Return the values of keys, which may be none; those that are not known are worked out together, by one call."""
        known = {key: self.known(key) for key in keys}
        missing = [key for key, value in known.items() if value is None]
        made = dict(zip(missing, work_out(missing), strict=True)) if missing else {}
        for key, value in made.items():
            self.keep(key, value)
        return [made[key] if value is None else value for key, value in ((key, known[key]) for key in keys)]

    def known(self, key: Hashable) -> Value | None:
        """Return the value of a key, or None where it is not known."""
        with self._lock:
            if key not in self._kept:
                return None
            self._kept.move_to_end(key)
            return self._kept[key]

    def keep(self, key: Hashable, value: Value) -> None:
        """Remember a value, and forget what was not asked for longest."""
        with self._lock:
            if key in self._kept:
                self._weight -= self._weigh(self._kept.pop(key))
            self._kept[key] = value
            self._weight += self._weigh(value)
            while self._weight > self._most:
                self._weight -= self._weigh(self._kept.popitem(last=False)[1])
