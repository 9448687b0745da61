"""Pictures on their way to a motif: originals, the scan tray, previews, and the work of tracing; a page's region picked up."""

from __future__ import annotations

import io
import threading
from hashlib import sha256

from flask import Response, current_app, request
from flask_openapi import APIBlueprint
from PIL import Image
from pydantic import BaseModel, ConfigDict, Field
from sqlmodel import Session

from ..core.errors import LimitError
from ..core.picking import picked_up
from ..core.picture_pipeline import Preparation, motif_from_picture
from ..core.reading.pictures import MOST_BYTES, MOST_SIDE, read_picture
from ..jobs import Job
from ..store import tables
from ..store.history import NotFound
from .messages import IdPath, MotifMessage
from .motif_messages import (
    JobMessage,
    JobPath,
    NewFromPicture,
    OriginalMessage,
    PickUp,
    PreparationMessage,
    PreviewMessage,
    PreviewRequest,
    ScanMessage,
    Scans,
    ShaPath,
)  # fmt: skip
from .motif_views import motif_message
from .routes_motif import keep_motif
from .routes_page import laid_page
from .scenes import Overtaken
from .workshop import sent, store

api = APIBlueprint("picture", __name__, url_prefix="/api")
PREVIEW_PIXELS = 350_000
SHOWN_PIXELS = 1_200_000
one_at_a_time = threading.Lock()  # large pictures are unpacked one after the other, so that memory stays bounded


class ScanPath(BaseModel):
    model_config = ConfigDict(extra="forbid")

    name: str = Field(max_length=255)


class OriginalQuery(BaseModel):
    model_config = ConfigDict(extra="forbid")

    name: str = Field("Picture", min_length=1, max_length=200)


@api.post("/originals", responses={201: OriginalMessage}, summary="Bring in a picture: its bytes are the body")
def bring_in_picture(query: OriginalQuery):
    request.max_content_length = MOST_BYTES
    length = request.content_length
    if length is None or length > MOST_BYTES:
        raise LimitError(f"a picture may have at most {MOST_BYTES // 1048576} MB; scale it down first", where=query.name)
    return sent(_kept_original(query.name, request.get_data(cache=False)), 201)


def _kept_original(name: str, data: bytes) -> OriginalMessage:
    """Keep a picture's bytes once, after reading it through."""
    sha = sha256(data).hexdigest()
    with one_at_a_time:
        read = read_picture(data, where=name, most_pixels=SHOWN_PIXELS)
    told = [sentence for sentence in read.told if "scaled down" not in sentence]  # that was for the look at it here
    if max(read.size) > MOST_SIDE:
        told.append(f"It is worked on at {MOST_SIDE} pixels a side at most.")
    values = {"sha": sha, "name": name, "width_px": read.size[0], "height_px": read.size[1], "dpi": read.dpi, "told": told}
    with store().writing() as session:
        if session.get(tables.Original, sha) is None:
            session.add(tables.Original(**values, data=data))
    return OriginalMessage(**values)


@api.get("/originals/<string:sha>", responses={200: OriginalMessage}, summary="What is known of a picture")
def get_original(path: ShaPath):
    with store().reading() as session:
        row = _original(session, path.sha)
        return sent(OriginalMessage(**{k: getattr(row, k) for k in OriginalMessage.model_fields}))


def _original(session: Session, sha: str) -> tables.Original:
    row = session.get(tables.Original, sha)
    if row is None:
        raise NotFound("picture")
    return row


@api.get("/originals/<string:sha>/shown.png", summary="A picture at the size of the screen (PNG)")
def shown_original(path: ShaPath):
    with store().reading() as session:
        row = _original(session, path.sha)
    with one_at_a_time:
        read = read_picture(row.data, where=row.name, most_pixels=SHOWN_PIXELS)
    out = io.BytesIO()
    Image.fromarray(read.rgba, "RGBA").save(out, "PNG", compress_level=1)
    return Response(out.getvalue(), mimetype="image/png", headers={"Cache-Control": "private, max-age=31536000, immutable"})


@api.post("/originals/<string:sha>/preview", responses={200: PreviewMessage}, summary="The motif that a preparation would give")
def preview_picture(path: ShaPath, body: PreviewRequest):
    question = current_app.extensions["sewn_garland_latest"].question(f"picture {body.client}", body.seq)
    with store().reading() as session:
        row = _original(session, path.sha)
    with one_at_a_time:
        if question():
            raise Overtaken
        made = motif_from_picture(row.data, preparation_of(body.preparation), where=row.name, most_pixels=PREVIEW_PIXELS)
    shown = tables.Motif(id=0, name=row.name, svg="", base_line_mm=0.0, version=0)
    deviation = None if made.deviation_px is None else made.deviation_px * made.prepared.mm_per_px
    points = sum(len(s.commands) - s.commands.count("Z") for s in made.motif.shapes if s.picture is None)
    return sent(
        PreviewMessage(
            motif=motif_message(shown, as_drawn=made.motif), points=points, deviation_mm=deviation, frame_px=list(made.prepared.frame_px)
        )
    )


def preparation_of(message: PreparationMessage) -> Preparation:
    """Turn the message into the core's value."""
    values = message.model_dump()
    values["belongs"], values["belongs_not"] = (tuple(tuple(p) for p in values[k]) for k in ("belongs", "belongs_not"))
    values["region"] = values["region"] and tuple(values["region"])
    return Preparation(**values)


@api.post("/originals/<string:sha>/motif", responses={202: JobMessage}, summary="Make a motif of a picture, as a job")
def make_motif_of_picture(path: ShaPath, body: NewFromPicture):
    kept = store()
    with kept.reading() as session:
        row = _original(session, path.sha)
    how = preparation_of(body.preparation)

    def work(job: Job) -> int:
        with one_at_a_time:
            made = motif_from_picture(row.data, how, where=row.name, report=lambda share: job.report(0.95 * share))
        job.report(0.96)
        with kept.writing() as session:
            return keep_motif(session, body.name, made.motif, f"bring in {body.name}").id

    return sent(_job_message(current_app.extensions["sewn_garland_jobs"].start(work)), 202)


def _job(job_id: str) -> Job:
    job = current_app.extensions["sewn_garland_jobs"].find(job_id)
    if job is None:
        raise NotFound("job")
    return job


def _job_message(job: Job) -> JobMessage:
    return JobMessage(
        id=job.id, state=job.state, share=job.share, message=job.message, motif_id=job.result if job.state == "done" else None
    )


@api.get("/jobs/<string:id>", responses={200: JobMessage}, summary="How far a job is")
def get_job(path: JobPath):
    return sent(_job_message(_job(path.id)))


@api.delete("/jobs/<string:id>", responses={200: JobMessage}, summary="Stop a job")
def stop_job(path: JobPath):
    job = _job(path.id)
    current_app.extensions["sewn_garland_jobs"].stop(job)
    return sent(_job_message(job))


@api.get("/scans", responses={200: Scans}, summary="What lies in the scan tray, the newest first")
def scans():
    tray = current_app.extensions["sewn_garland_tray"]
    return sent(Scans(folder=str(tray.folder.resolve()), scans=[ScanMessage(**s.__dict__) for s in tray.scans()]))


@api.post("/scans/<string:name>", responses={201: OriginalMessage}, summary="Take a scan out of the tray as a picture")
def take_scan(path: ScanPath):
    data = current_app.extensions["sewn_garland_tray"].read(path.name)
    return sent(_kept_original(path.name.rsplit(".", 1)[0].replace("-", " ").capitalize(), data), 201)


@api.post("/pages/<int:id>/pick-up", responses={201: MotifMessage}, summary="Pick up a region of a page, as it is laid, as a motif")
def pick_up(path: IdPath, body: PickUp):
    with store().reading() as session:
        _, layers = laid_page(session, path.id)
    motif = picked_up(layers, (body.left_mm, body.top_mm, body.right_mm, body.bottom_mm))
    with store().writing() as session:
        kept = keep_motif(session, body.name, motif, f"pick up {body.name}")
    return sent(motif_message(kept), 201)
