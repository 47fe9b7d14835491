"""Two schemas of one name would overwrite each other in the API's description, unseen."""

import collections
from typing import Any

from django.test import SimpleTestCase
from pydantic import BaseModel

from kestrel.api import api


def _models(annotation: Any, found: set[type[BaseModel]]) -> None:
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        if annotation in found:
            return
        found.add(annotation)
        for field in annotation.model_fields.values():
            _models(field.annotation, found)
    for inner in getattr(annotation, "__args__", ()):
        _models(inner, found)


class SchemaNames(SimpleTestCase):
    def test_every_schema_has_a_name_of_its_own(self) -> None:
        found: set[type[BaseModel]] = set()
        for _, router in api._routers:
            for view in router.path_operations.values():
                for operation in view.operations:
                    for response in operation.response_models.values():
                        if isinstance(response, type):
                            for field in response.model_fields.values():
                                _models(field.annotation, found)
                    for model in operation.models:
                        for field in model.model_fields.values():
                            _models(field.annotation, found)
        self.assertGreater(len(found), 60)
        counted = collections.Counter(model.__name__ for model in found)
        self.assertEqual([name for name, n in counted.items() if n > 1], [])
