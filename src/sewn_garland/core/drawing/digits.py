"""Very many numbers as text at once, without needless zeros: -12.5, .25, 0.

Formatting a number takes a quarter of a microsecond in Python, and a drawing has tens of millions of them.
"""

from __future__ import annotations

import re
from collections.abc import Iterator

import numpy as np

from ..maths.compiled import compiled, for_compiled
from ..maths.ragged import in_blocks

PLACEHOLDER = re.compile(r"%(\.\df|0\dx|%)")
MOST_EXACT = 2.0**53  # whole numbers beyond it are not told apart
ROOM = 20  # letters that a number takes at most: a sign, a point and sixteen figures, or nine of the places behind a point
NUMBERS_AT_ONCE = 10_000  # that stay close to the processor; chosen


def filled(template: str, table: np.ndarray) -> str:
    """Fill a template once a row with the numbers of a table (n, k): ``%.3f`` stands for a number rounded to so many places, ``%06x``
    for a whole one in as many hexadecimal digits, ``%%`` for a per cent sign.

    A number too large to be rounded is written out in full.
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


def in_full(value: float, places: int) -> str:
    """Return a number however large it is, to so many places."""
    return f"{value:.{places}f}"


def _filled_blocks(template: str, table: np.ndarray) -> Iterator[tuple[bytes, np.ndarray]]:
    """Yield what is written of some rows at a time, and how long each of them is."""
    between, figures, units = _parts_of(template)
    bounds = np.cumsum([0, *map(len, between)])
    text, numbers = for_compiled(np.frombuffer(b"".join(between), np.uint8), np.uint8), len(figures)
    forms = for_compiled(bounds, int), for_compiled(figures, int), for_compiled(units, int)
    for rows in in_blocks(np.full(len(table), max(1, numbers)), NUMBERS_AT_ONCE):
        block = for_compiled(table[rows, :numbers], float)
        if (np.abs(block) * np.maximum(units, 1)).max(initial=0.0) < MOST_EXACT:
            letters, lengths = _rows_written(text, *forms, block)
            yield letters.tobytes(), lengths
        else:
            written = [_row_in_full(between, figures, units, row) for row in block.tolist()]
            yield b"".join(written), np.array(list(map(len, written)))


def _parts_of(template: str) -> tuple[list[bytes], list[int], list[int]]:
    """Return what stands before, between and behind the numbers of a template, of each how many figures it has, and what a 1 is counted
    in: 10 to the power of its places, 0 where it is hexadecimal.
    """
    between, figures, units, begin = [""], [], [], 0
    for found in PLACEHOLDER.finditer(template):
        between[-1] += template[begin : found.start()] + ("%" if found.group() == "%%" else "")
        begin = found.end()
        if found.group() != "%%":
            figures.append(int(found.group()[2]))
            units.append(10 ** figures[-1] if found.group().endswith("f") else 0)
            between.append("")
    between[-1] += template[begin:]
    return [text.encode() for text in between], figures, units


def _row_in_full(between: list[bytes], figures: list[int], units: list[int], row: list[float]) -> bytes:
    numbers = [in_full(v, n) if unit else f"{int(v):0{n}x}" for v, n, unit in zip(row, figures, units, strict=True)]
    return b"".join([part for text, number in zip(between, numbers, strict=False) for part in (text, number.encode())]) + between[-1]


@compiled
def _rows_written(text, bounds, figures, units, table):
    out = np.empty(len(table) * (len(text) + ROOM * len(figures)), np.uint8)
    lengths, n = np.empty(len(table), np.int64), 0
    for i in range(len(table)):
        before = n
        for j in range(len(figures) + 1):
            for k in range(bounds[j], bounds[j + 1]):
                out[n] = text[k]
                n += 1
            if j == len(figures):
                break
            if units[j] == 0:
                n = _put_hexadecimal(np.int64(table[i, j]), figures[j], out, n)
            else:
                n = put_number(table[i, j], units[j], out, n)
        lengths[i] = n - before
    return out[:n], lengths


@compiled
def put_number(value, unit, out, n):
    """Put a number's letters from place ``n`` on, rounded to whole parts of which ``unit`` make 1; return the place behind them."""
    scaled = np.int64(np.rint(abs(value) * unit))
    if value < 0 and scaled > 0:
        out[n] = 45  # a minus
        n += 1
    whole = scaled // unit
    rest = scaled - whole * unit
    if whole > 0 or rest == 0:
        tens = 1
        while tens * 10 <= whole:
            tens *= 10
        while tens > 0:
            out[n] = 48 + whole // tens % 10
            n, tens = n + 1, tens // 10
    if rest > 0:
        out[n] = 46  # a point
        n, tens = n + 1, unit // 10
        while rest > 0:
            out[n] = 48 + rest // tens
            n, rest, tens = n + 1, rest % tens, tens // 10
    return n


@compiled
def _put_hexadecimal(value, figures, out, n):
    for place in range(figures - 1, -1, -1):
        figure = value >> 4 * place & 15
        out[n] = 48 + figure if figure < 10 else 87 + figure  # 0 to 9, a to f
        n += 1
    return n
