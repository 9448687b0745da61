"""Random valid settings on nasty lines, each case known by its seed and number; `python tests/fuzzing.py MINUTES [SEED]` tries many."""

from __future__ import annotations

import re
import sys
import time
import traceback
import warnings
from collections import Counter
from dataclasses import dataclass
from unittest.mock import patch

import numpy as np
from pydantic import ValidationError

from making import measured, svg
from sewn_garland.core import lay as story
from sewn_garland.core.assemble import drawing_of, on_page, painted
from sewn_garland.core.drawing.columns import join_columns, piece_columns
from sewn_garland.core.drawing.svg import compact_svg, plain_svg
from sewn_garland.core.errors import CoreError
from sewn_garland.core.inspecting.findings import deviations
from sewn_garland.core.lay import lay
from sewn_garland.core.reading.brush_document import brush_of
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.spacing.extents import repeat_extents
from sewn_garland.core.values.brush import Brush, Pieces, Settings
from sewn_garland.core.values.motif import Motif
from sewn_garland.core.values.variations import PROPERTIES

ARTWORK = (
    '<rect width="10" height="2" fill="#a33a2f"/>',
    '<path d="M0 1C3 -2 7 4 10 1" fill="none" stroke="#123456" stroke-width=".6" stroke-dasharray="1 .5"/>',
    '<circle cx="5" cy="1" r="1"/><path d="M0 0L10 2" stroke="#000"/>',
    "",
    '<path d="M0 0H10V2H0Z M2 .5H8V1.5H2Z" fill-rule="evenodd"/>',
    '<path d="M-3 -1L13 3" stroke="#fff" stroke-width="2" stroke-linecap="round"/>',
)
MOST_PLAIN = 3_000  # pieces; plain SVG writes each out
NO_NUMBER = re.compile(r'(?<!id=")(?<![#a-z])(nan|inf)')  # but as the name of something, which are letters
SOON_S, SOON_PIECES = 2.0, 100_000  # what takes longer with fewer pieces is told
TRIES = 3


@dataclass(frozen=True)
class Case:
    """A brush and lines; None where the settings that came up do not go together."""

    seed: int
    number: int
    brush: Brush | None
    paths: tuple[str, ...]
    patch: dict


@dataclass(frozen=True)
class Came:
    """What came of a case: ``how`` it ended, how many pieces were dealt, or about would have been, and the seconds that its longest step took, laying or writing."""

    how: str
    pieces: int
    seconds: float


def case_of(seed: int, number: int) -> Case:
    """Return a case, the same for the same seed and number."""
    rng = np.random.default_rng([seed, number])
    repeat = tuple(random_motif(rng) for _ in range(rng.integers(1, 4)))
    others = {role: random_motif(rng) for role in ("start", "end", "outside_corner", "inside_corner") if rng.random() < 0.3}
    patch, paths = _patch(rng), tuple(_path(rng) for _ in range(rng.integers(1, 3)))
    plain, loose = Settings(), _loosely(np.random.default_rng([seed, number, 1]))
    sections = {k: getattr(plain, k).model_dump() | v for k, v in patch.items()}
    try:
        settings = Settings.model_validate(plain.model_dump() | sections | {"variations": loose})
        return Case(seed, number, brush_of("fuzz", Pieces(repeat, **others), settings), paths, {**patch, "variations": loose})
    except (ValidationError, CoreError):
        return Case(seed, number, None, paths, patch)


def tried(case: Case) -> Came:
    """Lay and draw a case; return what came of it. Raises whatever is not our own, and AssertionError for nonsense."""
    if case.brush is None:
        return Came("refused", 0, 0.0)
    steps, counts = _Steps(), [0]
    with warnings.catch_warnings(), patch.object(story, "dealt", lambda *a, deal=story.dealt: _counted(deal(*a), counts)):
        warnings.simplefilter("error")
        try:
            laid = steps.done(lambda: lay(case.brush, [measured(path) for path in case.paths]))
        except CoreError:
            return Came("refused", max(counts) or _about(case), steps.longest)
        pieces, motifs = sum(len(line.pieces.s) for line in laid), case.brush.pieces.motifs
        drawing = steps.done(lambda: drawing_of(100, 100, [item for line in laid for item in on_page(motifs, line, case.brush.ink)]))
        writers = (compact_svg, plain_svg)[: 2 if pieces < MOST_PLAIN else 1]
        texts = [steps.done(lambda write=write: write(drawing)).lower() for write in writers]
        assert not any(NO_NUMBER.search(text) for text in texts), "not a number in SVG"
        for line in laid:
            assert all(np.isfinite(a).all() for a in (line.pieces.matrices, line.joins.gap, line.joins.step, line.joins.kink))
            assert all(np.isfinite(a).all() for a in vars(line.pieces).values() if a is not None and a.dtype.kind == "f")
            told = Counter(finding.kind for finding in line.findings)
            untold = [kind for kind, off in deviations(line.joins, case.brush).items() if off.faulty.any() and not told[kind]]
            assert not untold, f"joins are off and nothing says so: {untold}"
            piece_columns(painted(motifs, line), line.cuts), join_columns(line)
    dealt = pieces + sum(finding.count for line in laid for finding in line.findings if finding.kind == "crowded")
    return Came("laid", dealt, steps.longest)


def tried_again(case: Case) -> Came:
    """Return what comes of a case, tried up to three times where it takes long: what else a machine does only makes it take longer."""
    came = tried(case)
    for _ in range(TRIES - 1):
        if came.seconds > SOON_S and came.pieces < SOON_PIECES:
            came = min(came, tried(case), key=lambda each: each.seconds)
    return came


def _counted(pieces, counts: list[int]):
    counts.append(len(pieces.s))
    return pieces


def _about(case: Case) -> int:
    """Return about how many pieces a case would have that is refused before these are dealt."""
    if case.brush is None or not case.brush.pieces.repeat:
        return 0
    length = sum(measured(path).length for path in case.paths) * (1 + len(case.brush.rows.beside_mm)) * case.brush.crowding
    return int(min(length / max(repeat_extents(case.brush).mean_pitch, 1e-9), 1e12))


class _Steps:
    """How long somebody waits for steps, each by itself: as long as they take, or as processors are busy with them, whichever is less.

    So what else a machine does counts for nothing, and what several processors do at once counts once.
    """

    def __init__(self) -> None:
        self.longest = 0.0

    def done(self, step):
        began = np.array([time.perf_counter(), time.process_time()])
        try:
            return step()
        finally:
            self.longest = max(self.longest, float(min((time.perf_counter(), time.process_time()) - began)))


def random_motif(rng: np.random.Generator) -> Motif:
    width, height, body = float(rng.choice([10, 1, 3, 200])), float(rng.choice([2, 0.1, 50])), ARTWORK[rng.integers(len(ARTWORK))]
    if not body:
        return Motif((), width, height, height / 2)
    return motif_from_svg(svg(f'<g transform="scale({width / 10} {height / 2})">{body}</g>', width, height))


def _path(rng: np.random.Generator) -> str:
    """Return a line of one of many kinds: zigzags, loops, cusps, hairpins, points, thousands of corners, spirals, crumbs."""
    n = int(rng.integers(1, 9))
    points = rng.uniform(-100, 100, (n + 1, 2)) * 10 ** float(rng.integers(-3, 3))
    zigzag = "M" + "L".join(f"{x:.4g} {y:.4g}" for x, y in points)
    curves = "".join("C" + " ".join(f"{v:.4g}" for v in rng.uniform(-100, 100, 6)) for _ in range(n))
    radii = " ".join(f"{r:.3g}" for r in rng.uniform(0.01, 60, 2))
    spiral = np.linspace(0, 40, 300)
    wound = np.stack([spiral * np.cos(spiral), spiral * np.sin(spiral)], axis=1) * rng.uniform(0.05, 3)
    steps = rng.uniform(-1, 1, (int(rng.choice([200, 2000, 10_000])), 2)) * (1, 4) * 10 ** float(rng.integers(-4, 1))
    kinds = (
        zigzag, zigzag + "Z", f"M{points[0, 0]:.4g} {points[0, 1]:.4g}" + curves,
        f"M0 0A{radii} {rng.uniform(0, 180):.3g} {rng.integers(2)} {rng.integers(2)} {points[1, 0]:.4g} {points[1, 1]:.4g}",
        "M3 3L3 3", "M0 0H50H0", "M0 0C60 40 -20 40 40 0" + "Z" * int(rng.integers(2)), "M0 0C90 60 -50 60 40 0",
        "M0 0" + "".join(f"l{abs(x) * 4:.3g} {y:.3g}" for x, y in steps[:200]), "M0 0" + "".join(f"l{x:.3g} {y:.3g}" for x, y in steps),
        "M" + "L".join(f"{x:.4g} {y:.4g}" for x, y in wound), "M0 0C0 0 40 0 40 0C40 0 40 30 40 30", "M0 0h1e-6v1e-6h30v1e-6h-1e-6V20",
    )  # fmt: skip
    return kinds[rng.integers(len(kinds))]


def _patch(rng: np.random.Generator) -> dict:
    def pick(*values):
        return values[rng.integers(len(values))]

    def some(low: float, high: float) -> float:
        return float(rng.uniform(low, high))

    every = {
        "travel": {
            "kind": pick("repeated", "repeated", "once_length", "once_proportion", "scattered"), "round_bends": pick("rigid", "bent", "jointed", "bent"),
            "facing": pick("line", "page", "start"), "turn_deg": some(-360, 360), "mirror": pick("off", "up_down", "left_right", "every_second"),
            "side_shift_mm": some(-20, 20), "turn_about": True, "starts_at_mm": some(0, 500),
        },
        "spacing": {
            "size_pct": 10 ** some(0, 3), "gap_pct": some(-95, 300), "ease": pick("leave", "gaps", "size", "length"),
            "ease_limit_pct": some(0, 99), "rest": pick("end", "both", "start"),
        },
        "ends": {
            **{corner: pick("through", "round", "mitre", "lap", "butt", "piece") for corner in ("outside_corner", "inside_corner")},
            "corner_from_deg": some(1, 180), "round_radius_mm": some(0, 50),
        },
        "variants": {"order": pick("in_turn", "shuffled", "chance", "no_twin"), "arrangement": int(rng.integers(0, 1000))},
        "rows": {"beside_mm": [some(-20, 20) for _ in range(rng.integers(1, 4))], "ease": pick("own", "in_step"), "brick": True},
        "hand": {"taper_start_mm": some(0, 60), "taper_end_mm": some(0, 60), "taper_to_pct": some(1, 100)},
        "joins": {"measured_by": pick("frames", "outlines")},
        "looseness": {"keep_apart_mm": some(0, 20)},
        "ink": {"gives": pick("everything", "hue", "hue_strength", "nothing"), "ink": pick("#2c4a84", "#ffffff", "#000000", None),
                "second_ink": pick("#c9971c", None), "coverage": pick("as_drawn", "as_drawn", "light_shows", "dark_shows"),
                "darkest": pick("black", "ink"), "per_piece_pct": some(0, 100), "ceiling_pct": some(0, 100), "laid_on_as": pick("multiply", "screen", "hue", "normal"),
                "blends": pick("line", "each_piece")},
    }  # fmt: skip
    kept = {section: {key: value for key, value in values.items() if rng.random() < 0.35} for section, values in every.items()}
    return {section: values for section, values in kept.items() if values}


def _loosely(rng: np.random.Generator) -> list[dict]:
    """Return what varies, mostly nothing; values, sources and curves anywhere within their limits."""
    if rng.random() < 0.5:
        return []
    out = []
    for _ in range(int(rng.integers(1, 7))):
        of, follows = str(rng.choice(list(PROPERTIES))), str(rng.choice(["chance", "pieces", "distance", "length", "turns", "direction"]))
        about = PROPERTIES[of]
        near = np.clip(about.neutral + rng.uniform(-100, 100, 2) * 10 ** rng.uniform(-1, 1), about.least, about.most)
        far = rng.uniform(about.least, about.most, 2) if of != "count" else rng.uniform(0, 5, 2)
        over = {"pieces": float(rng.integers(1, 300)), "turns": float(rng.integers(2, 9)), "distance": float(rng.uniform(1, 400))}
        x = np.sort(rng.random(int(rng.integers(2, 6))))
        x[0], x[-1] = 0, 1
        response = [[float(a), float(b)] for a, b in zip(x, rng.random(len(x)), strict=True)]
        out.append({
            "of": of, "follows": follows, "between": [float(v) for v in (near if rng.random() < 0.7 else far)],
            "response": response if rng.random() < 0.3 else None, "over": over.get(follows),
            "gather_pct": float(rng.uniform(0, 100)) if follows == "chance" else 0.0,
        })  # fmt: skip
    return out


def main(minutes: float, seed: int) -> int:
    """Try cases until time is up; print what failed or took long, and the counts. Return how many failed."""
    until, number, counts, bad = time.monotonic() + 60 * minutes, 0, Counter(), 0
    while time.monotonic() < until:
        case = case_of(seed, number)
        try:
            came = tried_again(case)
            counts[came.how] += 1
            if came.seconds > SOON_S and came.pieces < SOON_PIECES:
                counts["slow"] += 1
                print(f"case {number}: {came.seconds:.1f} s for {came.pieces} pieces {case.patch} {case.paths[0][:80]}", flush=True)
        except Exception as error:
            at = traceback.extract_tb(error.__traceback__)[-1]
            bad += 1
            print(
                f"case {number}: {type(error).__name__} {str(error)[:160]} ({at.filename.rsplit('/')[-1]}:{at.lineno}) {case.patch}",
                flush=True,
            )
        number += 1
    print(f"seed {seed}: {number} cases, {bad} failed, {dict(counts)}")
    return bad


if __name__ == "__main__":
    sys.exit(main(float(sys.argv[1]), int(sys.argv[2]) if len(sys.argv) > 2 else int(time.time())) > 0)
