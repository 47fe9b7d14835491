"""What of a result is told: results of the core are what the API returns, less what only code
works on."""

from typing import Annotated, Any, TypeVar

from pydantic import Field, GetCoreSchemaHandler
from pydantic_core import CoreSchema, core_schema

T = TypeVar("T")


class _NotLookedAt:
    """Marks a field whose type is no business of JSON."""

    def __get_pydantic_core_schema__(
        self, source: Any, handler: GetCoreSchemaHandler
    ) -> CoreSchema:
        return core_schema.any_schema()


Inside = Annotated[T, _NotLookedAt(), Field(exclude=True)]
"""A field of a result that code works on and nobody is told."""
