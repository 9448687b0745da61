"""Only what is not remembered is worked out, by one call, and no more is remembered than asked."""

from sewn_garland.core.maths.kept import Kept


def test_only_missing_keys_are_made_once_each_and_the_oldest_forgotten():
    calls = []

    def make(keys):
        calls.append(list(keys))
        return [key * 10 for key in keys]

    kept = Kept(make, 3)
    assert kept.of([]) == [] and calls == []
    assert kept.of([2, 1, 2]) == [20, 10, 20] and calls.pop() == [2, 1]
    assert kept.of([1, 3]) == [10, 30] and calls.pop() == [3]
    assert kept.of([4]) == [40] and calls.pop() == [4]  # 2 was asked for longest ago
    assert kept.of([1, 3, 4]) == [10, 30, 40] and calls == []
    assert kept.of([2]) == [20] and calls.pop() == [2]


def test_more_keys_than_are_kept_are_all_answered():
    kept = Kept(lambda keys: [str(key) for key in keys], 2)
    assert kept.of([1, 2, 3, 4]) == ["1", "2", "3", "4"]
