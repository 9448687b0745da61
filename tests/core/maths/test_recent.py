"""What is remembered, and what is forgotten first."""

from sewn_garland.core.maths.recent import Recent


def test_a_value_is_worked_out_once_and_again_once_forgotten():
    asked = []
    kept = Recent(2)

    def get(key):
        return kept.get(key, lambda: asked.append(key) or key * 2)

    assert [get(key) for key in (1, 2, 1, 3, 1, 2)] == [2, 4, 2, 6, 2, 4]
    assert asked == [1, 2, 3, 2]  # 2 was asked for longest ago when 3 came


def test_what_weighs_much_leaves_room_for_less():
    kept = Recent(10, weigh=len)
    for word in ("aaaa", "bbb", "cc"):
        kept.keep(word, word)
    assert [kept.known(word) for word in ("aaaa", "bbb", "cc")] == ["aaaa", "bbb", "cc"]
    kept.keep("dddd", "dddd")
    assert kept.known("aaaa") is None
    assert [kept.known(word) for word in ("bbb", "cc", "dddd")] == ["bbb", "cc", "dddd"]


def test_what_is_kept_again_weighs_once():
    kept = Recent(6, weigh=len)
    kept.keep("one", "aaa")
    for _ in range(5):
        kept.keep("two", "bbb")
    assert (kept.known("one"), kept.known("two")) == ("aaa", "bbb")
    kept.keep("two", "b")
    kept.keep("three", "cc")
    assert kept.known("one") == "aaa"


def test_what_is_too_heavy_by_itself_is_not_kept_and_nothing_else_stays_wrongly_counted():
    kept = Recent(3, weigh=len)
    kept.keep("large", "aaaaa")
    assert kept.known("large") is None
    kept.keep("small", "bbb")
    assert kept.known("small") == "bbb"


def test_only_what_is_not_known_is_worked_out_all_at_once_and_each_once():
    calls = []

    def work_out(keys):
        calls.append(list(keys))
        return [key * 10 for key in keys]

    recent = Recent(3)
    assert recent.all_of([], work_out) == [] and calls == []
    assert recent.all_of([2, 1, 2], work_out) == [20, 10, 20] and calls.pop() == [2, 1]
    assert recent.all_of([1, 3], work_out) == [10, 30] and calls.pop() == [3]
    assert recent.all_of([4, 5, 6, 7], work_out) == [40, 50, 60, 70] and calls.pop() == [4, 5, 6, 7]  # more than are kept
