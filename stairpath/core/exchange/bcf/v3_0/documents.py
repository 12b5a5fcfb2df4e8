from __future__ import annotations

from dataclasses import dataclass, field


@dataclass(kw_only=True)
class Document:
    filename: str = field(
        metadata={
            "name": "Filename",
            "type": "Element",
            "namespace": "",
            "min_length": 1,
            "white_space": "collapse",
        }
    )
    description: str | None = field(
        default=None,
        metadata={
            "name": "Description",
            "type": "Element",
            "namespace": "",
            "min_length": 1,
            "white_space": "collapse",
        },
    )
    guid: str = field(
        metadata={
            "name": "Guid",
            "type": "Attribute",
            "pattern": r"[a-f0-9]{8}-[a-f0-9]{4}-[a-f0-9]{4}-[a-f0-9]{4}-[a-f0-9]{12}",
        }
    )


@dataclass(kw_only=True)
class DocumentInfoDocuments:
    class Meta:
        global_type = False

    document: list[Document] = field(
        default_factory=list,
        metadata={
            "name": "Document",
            "type": "Element",
            "namespace": "",
        },
    )


@dataclass(kw_only=True)
class DocumentInfo:
    documents: DocumentInfoDocuments | None = field(
        default=None,
        metadata={
            "name": "Documents",
            "type": "Element",
            "namespace": "",
        },
    )
