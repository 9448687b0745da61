"""Laid scenes as binary replies."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict

from flask import Response

from ...core.drawing.buffers import pack
from ...core.drawing.columns import Columns
from ...workshop.bench import LaidBench
from ...workshop.corner_bench import CornerJoin, LaidCorner
from ...workshop.scenes import LaidScene
from ...workshop.trial_lines import TRIAL_BOX
from ..messages.scenes import BenchHeader, CornerHeader, CornerJoinMessage, SceneHeader, ScenesHeader


def scenes_reply(seq: int, scenes: Sequence[LaidScene], *, strip: str | None = None) -> Response:
    """Reply with laid scenes; the one whose key is ``strip`` brings its bend strip."""
    header = ScenesHeader(seq=seq, scenes=_headers(scenes), arrays=[])
    return _packed(header, [scene.tables(strip=scene.scene.key == strip) for scene in scenes])


def bench_reply(seq: int, bench: LaidBench, *, large: str | None) -> Response:
    """Reply with a laid bench; of trial lines only the ``large`` one and the flat run bring their joins, the others are only painted."""
    header = BenchHeader(
        seq=seq, scenes=_headers(bench.scenes), arrays=[], trial_mm=bench.trial_mm,
        trial_box=(bench.trial_mm, bench.trial_mm * TRIAL_BOX[1] / TRIAL_BOX[0]), piece_mm=bench.piece_mm, gap_mm=bench.gap_mm,
        pitch_mm=bench.pitch_mm, height_mm=bench.height_mm, above_mm=bench.above_mm, spread_mm=bench.spread_mm,
    )  # fmt: skip
    return _packed(header, [scene.tables(joins=scene.scene.key in ("flat", large)) for scene in bench.scenes])


def corner_reply(seq: int, corner: LaidCorner) -> Response:
    """Reply with a laid corner."""
    enters, leaves = (_corner_join(join) for join in (corner.enters, corner.leaves))
    header = CornerHeader(seq=seq, scenes=_headers([corner.scene]), arrays=[], reach_mm=corner.reach_mm, enters=enters, leaves=leaves)
    return _packed(header, [corner.scene.tables(joins=False)])


def _corner_join(join: CornerJoin | None) -> CornerJoinMessage | None:
    return join and CornerJoinMessage(**asdict(join))


def _headers(scenes: Sequence[LaidScene]) -> list[SceneHeader]:
    return [SceneHeader.model_validate(scene.figures()) for scene in scenes]


def _packed(header: ScenesHeader, tables: Sequence[Sequence[Columns]]) -> Response:
    told = header.model_dump(exclude={"arrays"}, exclude_unset=True)
    return Response(pack(told, tables), mimetype="application/octet-stream")
