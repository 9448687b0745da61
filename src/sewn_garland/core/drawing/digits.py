"""Very many numbers as text at once: words of four letters from tables, and of every letter whether it is kept.

Formatting a number takes a quarter of a microsecond in Python, and a drawing has tens of millions of them.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from functools import cache

import numpy as np

from ..maths.ragged import in_blocks

PLACEHOLDER = re.compile(r"(%\.\df|%0\dx|%%)")
Word = tuple[np.ndarray | np.uint32, np.ndarray | np.uint32]
"""Four letters of every row (n,), or the same ones of all, and 1 in the byte of each letter that is kept."""

LETTERS = 4  # of a word
MOST_EXACT = 2.0**53  # whole numbers beyond it are not told apart
NUMBERS_AT_ONCE = 10_000  # that stay close to the processor; chosen


def _words(texts: Sequence[bytes]) -> tuple[np.ndarray, np.ndarray]:
    """Return texts (n,) as words (n, w) and what is kept of them; letters of no text are not."""
    width = LETTERS * -(-max(map(len, texts)) // LETTERS)
    letters = np.frombuffer(b"".join(text.ljust(width, b"\0") for text in texts), np.uint8).reshape(len(texts), width)
    return letters.view(np.uint32), (letters != 0).astype(np.uint8).view(np.uint32)


DIGITS = _words([b"%04d" % i for i in range(10_000)])
WITHOUT_LEADING = _words([b"%4s" % (b"%d" % i if i else b"") for i in range(10_000)])[0].view(np.uint8) != ord(" ")
SIGNIFICANT = WITHOUT_LEADING.astype(np.uint8).view(np.uint32)[:, 0]  # of four digits, those from the first that is not 0
ALL_FOUR = np.uint32(0x01010101)
MINUS, LAST_ONE = (column[0, 0] for column in _words([b"\0\0\0-"]))


def constant(text: str) -> list[Word]:
    """Return the words of a text that every row has."""
    letters, kept = _words([text.encode()])
    return list(zip(letters[0], kept[0], strict=True)) if text else []


def hexadecimal(values: np.ndarray, digits: int) -> list[Word]:
    """Return whole numbers (n,) in so many hexadecimal digits, an even count."""
    letters, kept = _words([b"%02x" % i for i in range(256)])
    return [(letters[(values >> 4 * (digits - 2 - k)) & 255, 0], kept[0, 0]) for k in range(0, digits, 2)]


def decimals(values: np.ndarray, places: int, before: tuple[np.ndarray | int, tuple[str, ...]] = (0, ("",))) -> list[Word]:
    """Return numbers (n,) rounded to up to six ``places``, without needless zeros: -12.5, .25, 0.

    ``before`` each stands one of some texts of at most three letters: which (n,), and they. What is too large to be
    rounded is written out in full.
    """
    scaled = np.rint(np.abs(values) * 10.0**places)
    if not scaled.max(initial=0.0) < MOST_EXACT:
        return _in_full(values, places, before)
    number = scaled.astype(np.int64)
    whole = number // 10**places
    fraction = number - whole * 10**places
    which, texts = before
    letters, kept = _leading(texts)
    negative = (values < 0) & (number > 0)
    sign = letters[which] | MINUS, kept[which] | negative * LAST_ONE
    return [sign, *_whole(whole, fraction), *_fraction(fraction, places)]


def filled(template: str, table: np.ndarray) -> str:
    """Fill a template once a row with the numbers of a table (n, k): ``%.3f`` stands for a number to so many places, ``%06x`` for a
    whole one in as many hexadecimal digits, ``%%`` for a per cent sign.
    """
    return b"".join([text for text, _ in _filled_blocks(template, table)]).decode()


def filled_rows(template: str, table: np.ndarray) -> list[str]:
    """Fill a template as ``filled`` does, a text a row."""
    out: list[str] = []
    for text, lengths in _filled_blocks(template, table):
        ends = np.cumsum(lengths).tolist()
        out += [text[begin:end].decode() for begin, end in zip([0, *ends], ends, strict=False)]
    return out


def about_numbers(template: str) -> tuple[str, str, str]:
    """Return what of a template stands before its first number, as it is written, from there to its last, and behind."""
    numbers = [found.span() for found in PLACEHOLDER.finditer(template) if found.group() != "%%"]
    begin, end = (numbers[0][0], numbers[-1][1]) if numbers else (len(template), len(template))
    return template[:begin].replace("%%", "%"), template[begin:end], template[end:].replace("%%", "%")


def _filled_blocks(template: str, table: np.ndarray) -> Iterator[tuple[bytes, np.ndarray]]:
    parts = [part for part in PLACEHOLDER.split(template) if part]
    for rows in in_blocks(np.full(len(table), max(1, table.shape[1])), NUMBERS_AT_ONCE):
        columns = iter(table[rows].T)
        yield text_of([word for part in parts for word in _filling(part, columns)], rows.stop - rows.start)


def _filling(part: str, columns: Iterator[np.ndarray]) -> list[Word]:
    """Return the words of a part of a template, a number's from the next of the columns."""
    if not PLACEHOLDER.fullmatch(part):
        return constant(part)
    if part == "%%":
        return constant("%")
    figures = int(part[2])
    return decimals(next(columns), figures) if part.endswith("f") else hexadecimal(next(columns).astype(np.int64), figures)


def text_of(words: Sequence[Word], count: int) -> tuple[bytes, np.ndarray]:
    """Return the texts of ``count`` rows behind one another, and how long (n,) each is."""
    letters, kept = np.empty((2, count, len(words)), np.uint32)
    for column, (letter, is_kept) in enumerate(words):
        letters[:, column], kept[:, column] = letter, is_kept
    text = letters.view(np.uint8).ravel()[kept.view(bool).ravel()]
    return text.tobytes(), sum((np.bitwise_count(column).astype(np.int64) for column in kept.T), np.zeros(count, np.int64))


@cache
def _leading(texts: tuple[str, ...]) -> tuple[np.ndarray, np.ndarray]:
    letters, kept = _words([text.encode().ljust(3, b"\0") for text in texts])
    return letters[:, 0], kept[:, 0]


def _whole(whole: np.ndarray, fraction: np.ndarray) -> list[Word]:
    """Return whole parts (n,), from the largest four digits on; nothing for 0 with a fraction behind."""
    words: list[Word] = []
    rest, most = whole, int(whole.max(initial=0))
    while True:
        above = rest // 10_000
        digits = rest - above * 10_000
        kept = SIGNIFICANT[digits]
        if most >= 10_000:
            kept = np.where(above > 0, ALL_FOUR, kept)
        words.append((DIGITS[0][digits, 0], kept))
        rest, most = above, most // 10_000
        if not most:
            break
    letters, kept = words[0]
    words[0] = letters, kept | ((whole == 0) & (fraction == 0)) * LAST_ONE
    return words[::-1]


def _fraction(fraction: np.ndarray, places: int) -> list[Word]:
    """Return the point and what follows it (n,), in one word or two; nothing where it is 0."""
    first, rest = min(places, 3), max(places - 3, 0)
    letters, kept = _places(first, ".")
    if not rest:
        return [(letters[fraction], kept[fraction])]
    head = fraction // 10**rest
    tail = fraction - head * 10**rest
    behind, kept_behind = _places(rest, "")
    return [(letters[head], np.where(tail > 0, ALL_FOUR, kept[head])), (behind[tail], kept_behind[tail])]


@cache
def _places(digits: int, point: str) -> tuple[np.ndarray, np.ndarray]:
    """Return the words of decimal places from 0 to 10 ** digits, behind a point, and of each what is kept: no trailing zeros."""
    written = [f"{point}{i:0{digits}d}" if digits else "" for i in range(10**digits)]
    trimmed = [text.rstrip("0") if i else "" for i, text in enumerate(written)]
    letters, kept = _words([text.encode().ljust(LETTERS, b"\0") for text in trimmed])
    whole, _ = _words([text.encode().ljust(LETTERS, b"\0") for text in written])
    return whole[:, 0], kept[:, 0] if letters.any() else np.zeros(len(written), np.uint32)


def _in_full(values: np.ndarray, places: int, before: tuple[np.ndarray | int, tuple[str, ...]]) -> list[Word]:
    which, texts = np.broadcast_to(before[0], len(values)).tolist(), before[1]
    written = [f"{texts[k]}{value:.{places}f}" for k, value in zip(which, values.tolist(), strict=True)]
    letters, kept = _words([text.encode() for text in written])
    return list(zip(letters.T, kept.T, strict=True))
