"""Pictures on their way to a motif, the scan tray, and jobs."""

from __future__ import annotations

from flask import Response, request

from ...core.errors import LimitError
from ...core.reading.pictures import MOST_BYTES
from ...jobs import Job
from ...store.history import NotFound
from ...workshop import grounds, originals
from ...workshop.pictures import Preparation
from ..access import access, overtaken, sent, store
from ..messages.originals import (
    JobMessage,
    JobPath,
    NewFromPicture,
    OriginalMessage,
    OriginalQuery,
    PreviewMessage,
    PreviewRequest,
    ScanMessage,
    ScanPath,
    Scans,
    ShaPath,
)  # fmt: skip
from ..messages.preparing import PreparationMessage
from ..resource import Resource
from ..views.motifs import fresh_message, png_url

api = Resource("originals", __name__)
KEPT_AS_IT_IS = {"Cache-Control": "private, max-age=31536000, immutable"}  # a picture is named by what it holds


@api.post("/originals", responses={201: OriginalMessage}, summary="Bring in a picture: its bytes are the body")
def bring_in_picture(query: OriginalQuery):
    request.max_content_length = MOST_BYTES
    length = request.content_length
    if length is None or length > MOST_BYTES:
        raise LimitError(f"a picture may have at most {MOST_BYTES // 1048576} MB; scale it down first", where=query.name)
    return sent(_message(originals.keep_original(store(), query.name, request.get_data(cache=False))), 201)


def _message(row) -> OriginalMessage:
    return OriginalMessage(**{key: getattr(row, key) for key in OriginalMessage.model_fields})


@api.get("/originals/<string:sha>", responses={200: OriginalMessage}, summary="What is known of a picture")
def get_original(path: ShaPath):
    with store().reading() as session:
        return sent(_message(originals.original_of(session, path.sha)))


@api.get("/originals/<string:sha>/shown.png", summary="A picture at the size of the screen (PNG)")
def shown_original(path: ShaPath):
    with store().reading() as session:
        row = originals.original_of(session, path.sha)
    return Response(originals.shown(row), mimetype="image/png", headers=KEPT_AS_IT_IS)


@api.get("/originals/<string:sha>/ground.png", summary="A picture as it lies under a page (PNG)")
def ground_of_original(path: ShaPath):
    with store().reading() as session:
        row = originals.original_of(session, path.sha)
    return Response(grounds.picture_of(row), mimetype="image/png", headers=KEPT_AS_IT_IS)


@api.post("/originals/<string:sha>/preview", responses={200: PreviewMessage}, summary="The motif that a preparation would give")
def preview_picture(path: ShaPath, body: PreviewRequest):
    newer = overtaken("picture", body.client, body.seq)
    with store().reading() as session:
        row = originals.original_of(session, path.sha)
    how = preparation_of(body.preparation)
    made = originals.preview(row, how, overtaken=newer)
    deviation = None if made.deviation_px is None else made.deviation_px * made.prepared.mm_per_px
    points = sum(len(s.commands) - s.commands.count("Z") for s in made.motif.shapes if s.picture is None)
    return sent(PreviewMessage(
        motif=fresh_message(row.name, made.motif), points=points, deviation_mm=deviation, frame_px=list(made.frame_px),
        cleared=png_url(originals.quick_png(made.prepared.rgba)) if how.clears else None, cleared_px=list(made.prepared.frame_px),
    ))  # fmt: skip


def preparation_of(message: PreparationMessage) -> Preparation:
    """Turn the message into the workshop's value."""
    values = message.model_dump()
    values["belongs"], values["belongs_not"] = (tuple(tuple(p) for p in values[k]) for k in ("belongs", "belongs_not"))
    values["region"] = values["region"] and tuple(values["region"])
    return Preparation(**values)


@api.post("/originals/<string:sha>/motif", responses={202: JobMessage}, summary="Make a motif of a picture, as a job")
def make_motif_of_picture(path: ShaPath, body: NewFromPicture):
    kept, how = store(), preparation_of(body.preparation)
    with kept.reading() as session:
        row = originals.original_of(session, path.sha)

    def work(job: Job) -> int:
        anew = body.anew and (body.anew.id, body.anew.version)
        return originals.make_motif(kept, row, body.name, how, anew=anew, report=job.report)

    return sent(_job_message(access().jobs.start(work)), 202)


def _job(job_id: str) -> Job:
    job = access().jobs.find(job_id)
    if job is None:
        raise NotFound("job")
    return job


def _job_message(job: Job) -> JobMessage:
    done = job.result if job.state == "done" else None
    return JobMessage(id=job.id, state=job.state, share=job.share, message=job.message, motif_id=done)


@api.get("/jobs/<string:id>", responses={200: JobMessage}, summary="How far a job is")
def get_job(path: JobPath):
    return sent(_job_message(_job(path.id)))


@api.delete("/jobs/<string:id>", responses={200: JobMessage}, summary="Stop a job")
def stop_job(path: JobPath):
    job = _job(path.id)
    access().jobs.stop(job)
    return sent(_job_message(job))


@api.get("/scans", responses={200: Scans}, summary="What lies in the scan tray, the newest first")
def scans():
    tray = access().tray
    return sent(Scans(folder=str(tray.folder.resolve()), scans=[ScanMessage(**s.__dict__) for s in tray.scans()]))


@api.post("/scans/<string:name>", responses={201: OriginalMessage}, summary="Take a scan out of the tray as a picture")
def take_scan(path: ScanPath):
    name = path.name.rsplit(".", 1)[0].replace("-", " ").capitalize()
    return sent(_message(originals.keep_original(store(), name, access().tray.read(path.name))), 201)
