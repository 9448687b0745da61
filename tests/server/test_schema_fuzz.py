"""Whatever the published document lets a client send is answered by a code that it names."""

from pathlib import Path

import pytest
import schemathesis
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st

from examples import examples
from sewn_garland.demo.build import build_demo
from sewn_garland.server.app import create_app
from sewn_garland.store.database import Store

DOCUMENT = schemathesis.openapi.from_path(str(Path(__file__).parents[2] / "docs" / "openapi.json"))
OPERATIONS = [found.ok() for found in DOCUMENT.get_all_operations()]


@pytest.fixture(scope="module")
def app(tmp_path_factory):
    store = Store(tmp_path_factory.mktemp("fuzz") / "w.sqlite")
    build_demo(store)
    yield create_app(store)
    store.close()


@pytest.mark.thorough
@pytest.mark.parametrize("operation", OPERATIONS, ids=lambda operation: operation.label)
@settings(max_examples=examples(6), deadline=None, derandomize=True, database=None, phases=[Phase.generate],
          suppress_health_check=list(HealthCheck))  # fmt: skip
@given(data=st.data())
def test_every_answer_is_one_that_the_document_names(app, operation, data):
    case = data.draw(operation.as_strategy())
    if isinstance(case.path_parameters.get("id"), int):
        case.path_parameters["id"] %= 5  # mostly such as there are
    reply = case.call(app=app)
    assert str(reply.status_code) in operation.definition.raw["responses"], (reply.status_code, reply.text[:200])
    assert reply.status_code < 500
