"""What every command shares: only what it says is written, so that reading it again means the same."""

from __future__ import annotations

from typing import Any

from pydantic import GetJsonSchemaHandler, SerializerFunctionWrapHandler, model_serializer
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema

from wingboard.core.record.base import Record


class Saying(Record):
    """A command. A field left out stays as it is, so one that was left out is not written as “none” either."""

    @model_serializer(mode="wrap")
    def _only_what_it_says(self, write: SerializerFunctionWrapHandler) -> dict[str, Any]:
        whole: dict[str, Any] = write(self)
        return {name: value for name, value in whole.items() if name == "do" or name in self.model_fields_set}

    @classmethod
    def __get_pydantic_json_schema__(cls, schema: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        """The schema of its fields, as it is read."""
        plain: Any = {name: value for name, value in schema.items() if name != "serialization"}
        return handler(plain)
