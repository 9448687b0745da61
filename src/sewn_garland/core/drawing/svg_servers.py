"""What an SVG document refers to by name, and how groups cover what lies below them."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from ..values.blend import Blend
from ..values.drawing import Group
from ..values.motif import Gradient

EVERYWHERE = 'x="-100%" y="-100%" width="300%" height="300%"'  # of the page: what hangs over its edge is masked and filtered too


@dataclass
class Servers:
    """The gradients, clips, masks and filters that a document refers to, each once."""

    prefix: str = "g"
    ids: dict[Gradient, str] = field(default_factory=dict)
    clips: dict[str, str] = field(default_factory=dict)
    others: dict[str, str] = field(default_factory=dict)

    def id_of(self, gradient: Gradient) -> str:
        return self.ids.setdefault(gradient, f"{self.prefix}{len(self.ids)}")

    def clip(self, path: str) -> str:
        """Return the name of a clip to path data in mm."""
        return self.clips.setdefault(path, f"{self.prefix}c{len(self.clips)}")

    def mask(self, content: str) -> str:
        """Return the name of a mask by the alpha of some markup."""
        return self._whole("mask", f'mask-type="alpha" maskUnits="userSpaceOnUse" {EVERYWHERE}', content)

    def filter(self, primitives: str) -> str:
        """Return the name of a filter out of primitives, lengths in mm."""
        return self._whole("filter", f'filterUnits="userSpaceOnUse" {EVERYWHERE}', primitives)

    def _whole(self, kind: str, attributes: str, content: str) -> str:
        name = f"{self.prefix}m{len(self.others)}"
        return self.others.setdefault(f"<{kind} %s {attributes}>{content}</{kind}>\n", name)

    def markup(self) -> str:
        clips = "".join(f'<clipPath id="{name}"><path d="{path}"/></clipPath>\n' for path, name in self.clips.items())
        others = "".join(markup.replace("%s", f'id="{name}"', 1) for markup, name in self.others.items())
        return "".join(f"{_gradient_markup(name, gradient)}\n" for gradient, name in self.ids.items()) + clips + others


def cover(opacity: float, blend: Blend) -> str:
    """Write how much a group covers, and how it is laid on, as attributes; nothing for one that covers as it is."""
    return (f' opacity="{short(opacity)}"' if opacity < 1 else "") + blending(blend)


def blending(blend: Blend) -> str:
    """Write how something is laid on as an attribute; nothing for what is laid on normally."""
    return "" if blend == "normal" else f' style="mix-blend-mode:{blend}"'


def group_markup(group: Group, servers: Servers, items: Callable[[Group], tuple[str, str]]) -> str:
    """Write a group; ``items`` writes its items and its mask's."""
    inside, mask = items(group)
    filtered = f' filter="url(#{servers.filter(group.filter)})"' if group.filter else ""
    clipped = f' clip-path="url(#{servers.clip(group.clip)})"' if group.clip else ""
    masked = f' mask="url(#{servers.mask(mask)})"' if group.mask else ""
    own = "" if group.blend != "normal" or group.opacity < 1 else ' style="isolation:isolate"'
    return f"<g{filtered}{clipped}{masked}{cover(group.opacity, group.blend)}{own}>\n{inside}</g>\n"


def literal(text: str) -> str:
    """Return a text as it stands in a template."""
    return text.replace("%", "%%")


def short(value: float) -> str:
    """Write a number to six decimals, without needless zeros."""
    return f"{value:.6f}".rstrip("0").rstrip(".")


def _gradient_markup(name: str, gradient: Gradient) -> str:
    stops = "".join(f'<stop offset="{short(s.offset)}"{_stop(s.colour, s.opacity)}/>' for s in gradient.stops)
    place = 'x1="0" y1="0" x2="1" y2="0"' if gradient.kind == "linear" else f'cx="0" cy="0" r="1" fx="{short(gradient.focus)}" fy="0"'
    spread = f' spreadMethod="{gradient.spread}"' if gradient.spread != "pad" else ""
    matrix = " ".join(f"{v:.8g}" for v in gradient.matrix)
    return (f'<{gradient.kind}Gradient id="{name}" gradientUnits="userSpaceOnUse" {place}{spread} '
            f'gradientTransform="matrix({matrix})">{stops}</{gradient.kind}Gradient>')  # fmt: skip


def _stop(colour: str, opacity: float) -> str:
    return f' stop-color="{colour}"' + (f' stop-opacity="{short(opacity)}"' if opacity < 1 else "")
