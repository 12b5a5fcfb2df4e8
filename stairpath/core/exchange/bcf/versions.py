"""The versions of the format, and how its XML is read and written."""

from __future__ import annotations

import re
from typing import Literal, TypeVar, get_args
from xml.etree import ElementTree

from xsdata.exceptions import ConverterError, ParserError
from xsdata.formats.dataclass.context import XmlContext
from xsdata.formats.dataclass.parsers import XmlParser
from xsdata.formats.dataclass.parsers.config import ParserConfig
from xsdata.formats.dataclass.parsers.handlers import XmlEventHandler
from xsdata.formats.dataclass.serializers import XmlSerializer
from xsdata.formats.dataclass.serializers.config import SerializerConfig

from stairpath.core.exchange.package import NotReadableError

Version = Literal["2.1", "3.0"]
VERSIONS: tuple[Version, ...] = get_args(Version)

T = TypeVar("T")

GUID = re.compile(r"[a-f0-9]{8}-[a-f0-9]{4}-[a-f0-9]{4}-[a-f0-9]{4}-[a-f0-9]{12}")
GLOBAL_ID = re.compile(r"[0-9A-Za-z_$]{22}")

_context = XmlContext()
# What a newer program adds is no reason to refuse all that is known.
_parser = XmlParser(
    context=_context,
    config=ParserConfig(fail_on_unknown_properties=False, fail_on_unknown_attributes=False),
    handler=XmlEventHandler,
)
_serializer = XmlSerializer(context=_context, config=SerializerConfig(indent=" "))


def parsed(name: str, xml: bytes, kind: type[T]) -> T:
    """A part of a file as one of bcf-client's classes; NotReadableError with a sentence where it is none."""
    try:
        return _parser.from_bytes(xml, kind)
    except (ParserError, ConverterError, ElementTree.ParseError, TypeError, ValueError, LookupError) as error:
        raise NotReadableError(f"{name} is not what the format asks for and was left out; export it again.") from error


def written(obj: object) -> str:
    """One of bcf-client's classes as XML."""
    return _serializer.render(obj)
