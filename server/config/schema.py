"""Adds the core's own records to the OpenAPI schema, so that the client is typed down to a finding."""

from __future__ import annotations

from typing import Any

import msgspec

from partitor.exchange.assignment import Assignment
from partitor.exchange.report import SubmissionReport

RECORDS = (SubmissionReport, Assignment)


def reference(record: type) -> dict[str, Any]:
    """The schema reference to one of the core's records."""
    return {"$ref": f"#/components/schemas/{_name(record.__name__)}"}


def add_core_records(result: dict[str, Any], generator: Any, request: Any, public: bool) -> dict[str, Any]:
    """drf-spectacular's hook: put the records' JSON schemas among the components."""
    _, components = msgspec.json.schema_components(RECORDS, ref_template="#/components/schemas/{name}")
    schemas = result.setdefault("components", {}).setdefault("schemas", {})
    for name, schema in components.items():
        schemas[_name(name)] = _renamed(_always_present(schema))
    return result


def _name(record: str) -> str:
    """The component's name: set apart from the API's own by its ending."""
    return record.removesuffix("Record") + "Record"


def _renamed(schema: Any) -> Any:
    """The schema with its references pointing at the components' names; pairs are plain lists."""
    if isinstance(schema, dict):
        if "prefixItems" in schema:
            return {"type": "array", "items": _renamed(schema["prefixItems"][0])}
        return {
            key: "#/components/schemas/" + _name(value.rpartition("/")[2]) if key == "$ref" else _renamed(value)
            for key, value in schema.items()
        }
    if isinstance(schema, list):
        return [_renamed(item) for item in schema]
    return schema


def _always_present(schema: Any) -> Any:
    """What the server sends has every key, so each property is required in the client's types."""
    if isinstance(schema, dict) and schema.get("type") == "object" and "properties" in schema:
        schema = {**schema, "required": sorted(schema["properties"])}
    return schema
