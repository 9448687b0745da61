"""Blocks that are worked on at once."""

import threading

import pytest

from sewn_garland.core.maths import at_once
from sewn_garland.core.maths.at_once import each_at_once


@pytest.mark.parametrize("processors", [1, 2, 8])
def test_what_is_made_of_blocks_comes_in_their_order(monkeypatch, processors):
    monkeypatch.setattr(at_once, "processors", lambda: processors)

    second_has_begun = threading.Event()

    def first_waits_for_the_second(n):
        if n == 1:
            second_has_begun.set()
        return n, n > 0 or second_has_begun.wait(0.2)

    made = list(each_at_once(first_waits_for_the_second, iter(range(12))))
    assert made == [(0, processors > 1), *((n, True) for n in range(1, 12))]
    assert list(each_at_once(first_waits_for_the_second, [])) == []


def test_what_goes_wrong_is_raised_and_none_is_begun_behind(monkeypatch):
    monkeypatch.setattr(at_once, "processors", lambda: 2)
    begun, wait = [], threading.Event()

    def third_fails(n):
        begun.append(n)
        if n == 2:
            raise ValueError("the third")
        if n > 2:
            wait.wait(0.05)
        return n

    with pytest.raises(ValueError, match="the third"):
        list(each_at_once(third_fails, range(1_000)))
    assert len(begun) < 50


def test_whoever_has_had_enough_stops_the_rest(monkeypatch):
    monkeypatch.setattr(at_once, "processors", lambda: 2)
    begun, wait = [], threading.Event()

    def slow(n):
        begun.append(n)
        wait.wait(0.01)
        return n

    for n in each_at_once(slow, range(1_000)):
        if n == 3:
            break
    assert len(begun) < 50
