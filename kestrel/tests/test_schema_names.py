"""Two shapes of one name would overwrite each other in the API's description, unseen."""

import collections
from dataclasses import is_dataclass
from typing import Any, get_type_hints

from django.test import SimpleTestCase
from pydantic import BaseModel
from pydantic.fields import FieldInfo

from kestrel.api import api
from saucier.check import Figures, State


def _shapes(annotation: Any, found: set[type]) -> None:
    if annotation is State:  # told as its figures
        annotation = Figures
    if isinstance(annotation, type) and annotation not in found:
        if issubclass(annotation, BaseModel):
            found.add(annotation)
            for field in annotation.model_fields.values():
                _shapes(field.annotation, found)
        elif is_dataclass(annotation):
            found.add(annotation)
            for hint in get_type_hints(annotation, include_extras=True).values():
                marks = getattr(hint, "__metadata__", ())
                if not any(isinstance(mark, FieldInfo) and mark.exclude for mark in marks):
                    _shapes(hint, found)
    for inner in getattr(annotation, "__args__", ()):
        _shapes(inner, found)
    if hasattr(annotation, "__origin__"):
        _shapes(annotation.__origin__, found)


class SchemaNames(SimpleTestCase):
    def test_every_shape_has_a_name_of_its_own(self) -> None:
        found: set[type] = set()
        for _, router in api._routers:
            for view in router.path_operations.values():
                for operation in view.operations:
                    for response in operation.response_models.values():
                        if isinstance(response, type):
                            for field in response.model_fields.values():
                                _shapes(field.annotation, found)
                    for model in operation.models:
                        for field in model.model_fields.values():
                            _shapes(field.annotation, found)
        self.assertGreater(len(found), 100)
        counted = collections.Counter(shape.__name__ for shape in found)
        self.assertEqual([name for name, n in counted.items() if n > 1], [])
