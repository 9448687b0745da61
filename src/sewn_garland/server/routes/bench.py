"""The Repeat station's bench and the shelf: brushes laid to be looked at."""

from __future__ import annotations

from ...core.values.brush import SINGLE_ROLES, Role
from ...workshop.bench import Draft, laid_bench, laid_deals, laid_shelf
from ...workshop.corner_bench import laid_corner
from ..access import overtaken, store
from ..messages.base import Sequenced
from ..messages.bench import BenchRequest, BrushDraft, CornerRequest, DealsRequest
from ..resource import Resource
from ..views.scenes import bench_reply, corner_reply, scenes_reply

api = Resource("bench", __name__)


@api.post("/bench/lay", summary="Lay draft settings on the flat run and the trial lines (binary)")
def lay_bench(body: BenchRequest):
    draft = Draft(
        ids=_ids_of(body), settings=body.settings, flat_mm=body.flat_mm, pitch_mm=body.pitch_mm,
        trial_mm=body.trial_mm, trial_step=body.trial_step, trials=body.trials, shaped=body.shaped, pinned=body.pinned,
        large=body.large, aside=body.aside,
    )  # fmt: skip
    newer = overtaken("bench", body.client, body.seq)
    return bench_reply(body.seq, laid_bench(store(), draft, cures=body.cures, overtaken=newer), large=body.large)


@api.post("/bench/deals", summary="Lay draft settings in twelve arrangements (binary)")
def lay_deals(body: DealsRequest):
    newer = overtaken("deals", body.client, body.seq)
    return scenes_reply(body.seq, laid_deals(store(), _ids_of(body), body.settings, body.first, straight=body.straight, overtaken=newer))


@api.post("/corners/lay", summary="Lay a brush's piece for a corner between two runs (binary)")
def lay_corner(body: CornerRequest):
    newer = overtaken("corner", body.client, body.seq)
    return corner_reply(body.seq, laid_corner(store(), body.brush_id, body.role, body.angle_deg, overtaken=newer))


def _ids_of(body: BrushDraft) -> dict[Role, list[int]]:
    singles: dict[Role, list[int]] = {role: [i] for role in SINGLE_ROLES if (i := getattr(body.others, role)) is not None}
    return {"repeat": [body.motif_id, *body.variants], **singles}


@api.post("/shelf/lay", summary="Lay every brush on the standard swatch (binary)")
def lay_shelf(body: Sequenced):
    newer = overtaken("shelf", body.client, body.seq)
    with store().reading() as session:
        return scenes_reply(body.seq, laid_shelf(session, overtaken=newer))
