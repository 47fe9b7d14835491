"""The API: one router for each app, the shared ways of reading and of saying no."""

from typing import Any

from django.conf import settings
from django.http import HttpRequest
from ninja import NinjaAPI
from ninja.openapi.docs import Swagger
from ninja.openapi.schema import OpenAPISchema
from ninja.parser import Parser

from kestrel import problems
from kestrel.accounts.api import router as accounts
from kestrel.accounts.auth import only_signed_in, signed_in
from kestrel.accounts.people_api import router as people
from kestrel.journal.api import router as journal
from kestrel.keeping.api import router as keeping
from kestrel.larder.api import router as larder
from kestrel.once import once
from kestrel.practice.api import router as practice
from kestrel.run_up.api import router as run_up
from kestrel.sauces.api import router as sauces
from kestrel.sauces.work_api import router as work
from kestrel.service.api import dishes, services
from kestrel.stove.api import photos
from kestrel.stove.api import router as stove
from kestrel.stove.devices_api import devices, labels, readings
from kestrel.whole.api import router as whole
from saucier.sheet import parse_json
from saucier.version import VERSION


class StrictParser(Parser):
    """JSON as the core reads it: no NaN, not larger than what a cook pastes (settings)."""

    def parse_body(self, request: HttpRequest) -> Any:
        return parse_json(request.body, settings.DATA_UPLOAD_MAX_MEMORY_SIZE)


class Api(NinjaAPI):
    """An API whose routes all tell how they say no."""

    _described: OpenAPISchema | None = None

    def get_openapi_schema(self, **options: Any) -> OpenAPISchema:
        """Made once: it takes seconds, and routes do not change while the server runs."""
        if self._described is None:
            self._described = problems.told_everywhere(super().get_openapi_schema(**options))
        return self._described


api = Api(
    title="Kestrel Fog",
    version=VERSION,
    description="Sauces, computed. Predictions are estimates and say how sure they are.",
    auth=signed_in,
    parser=StrictParser(),
    # Hundreds of routes drawn at once take a slow machine many seconds.
    docs=Swagger(settings={"docExpansion": "none", "filter": True}),
    docs_decorator=only_signed_in,
)
problems.install(api)
api.add_decorator(once, mode="view")
api.add_router("/accounts", accounts)
api.add_router("/people", people)
api.add_router("/larder", larder)
api.add_router("/sauces", sauces)
api.add_router("/work", work)
api.add_router("/dishes", dishes)
api.add_router("/services", services)
api.add_router("/stove", stove)
api.add_router("/photos", photos)
api.add_router("/devices", devices)
api.add_router("/labels", labels)
api.add_router("/readings", readings)
api.add_router("/run-ups", run_up)
api.add_router("/keeping", keeping)
api.add_router("/journal", journal)
api.add_router("/practice", practice)
api.add_router("/whole", whole)
