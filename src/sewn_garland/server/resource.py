"""The routes of one resource, described for the published document only when that is asked for."""

from __future__ import annotations

import threading
from collections.abc import Callable
from functools import partial
from typing import Any

from flask_openapi.blueprint import APIBlueprint
from flask_openapi.utils import parse_parameters


class Resource(APIBlueprint):
    """A blueprint of the API. Writing its schemas takes longer than all else at the start of the server, so it is put off."""

    def __init__(self, name: str, import_name: str):
        super().__init__(name, import_name, url_prefix="/api")
        self._undescribed: list[Callable[[], Any]] = []
        self._describing = threading.Lock()

    def _collect_openapi_info(self, rule: str, func: Any, **told: Any) -> Any:
        self._undescribed.append(partial(super()._collect_openapi_info, rule, func, **told))
        return parse_parameters(func, doc_ui=False)

    def describe(self) -> None:
        """Describe the routes that are not yet: ``paths`` and ``components_schemas`` are whole afterwards, whoever else asks."""
        with self._describing:
            while self._undescribed:
                self._undescribed.pop(0)()
