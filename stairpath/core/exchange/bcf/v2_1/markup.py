from __future__ import annotations

from dataclasses import dataclass, field

from xsdata.models.datatype import XmlDateTime


@dataclass(kw_only=True)
class BimSnippet:
    reference: str = field(
        metadata={
            "name": "Reference",
            "type": "Element",
            "namespace": "",
        }
    )
    reference_schema: str = field(
        metadata={
            "name": "ReferenceSchema",
            "type": "Element",
            "namespace": "",
        }
    )
    snippet_type: str = field(
        metadata={
            "name": "SnippetType",
            "type": "Attribute",
        }
    )
    is_external: bool = field(
        default=False,
        metadata={
            "name": "isExternal",
            "type": "Attribute",
        },
    )


@dataclass(kw_only=True)
class CommentViewpoint:
    class Meta:
        global_type = False

    guid: str = field(
        metadata={
            "name": "Guid",
            "type": "Attribute",
            "pattern": r"[a-fA-F0-9]{8}-[a-fA-F0-9]{4}-[a-fA-F0-9]{4}-[a-fA-F0-9]{4}-[a-fA-F0-9]{12}",
        }
    )


@dataclass(kw_only=True)
class HeaderFile:
    class Meta:
        global_type = False

    filename: None | str = field(
        default=None,
        metadata={
            "name": "Filename",
            "type": "Element",
            "namespace": "",
        },
    )
    date: None | XmlDateTime = field(
        default=None,
        metadata={
            "name": "Date",
            "type": "Element",
            "namespace": "",
        },
    )
    reference: None | str = field(
        default=None,
        metadata={
            "name": "Reference",
            "type": "Element",
            "namespace": "",
        },
    )
    ifc_project: None | str = field(
        default=None,
        metadata={
            "name": "IfcProject",
            "type": "Attribute",
            "length": 22,
            "pattern": r"[0-9,A-Z,a-z,_$]*",
        },
    )
    ifc_spatial_structure_element: None | str = field(
        default=None,
        metadata={
            "name": "IfcSpatialStructureElement",
            "type": "Attribute",
            "length": 22,
            "pattern": r"[0-9,A-Z,a-z,_$]*",
        },
    )
    is_external: bool = field(
        default=True,
        metadata={
            "name": "isExternal",
            "type": "Attribute",
        },
    )


@dataclass(kw_only=True)
class TopicDocumentReference:
    class Meta:
        global_type = False

    referenced_document: None | str = field(
        default=None,
        metadata={
            "name": "ReferencedDocument",
            "type": "Element",
            "namespace": "",
        },
    )
    description: None | str = field(
        default=None,
        metadata={
            "name": "Description",
            "type": "Element",
            "namespace": "",
        },
    )
    guid: None | str = field(
        default=None,
        metadata={
            "name": "Guid",
            "type": "Attribute",
            "pattern": r"[a-fA-F0-9]{8}-[a-fA-F0-9]{4}-[a-fA-F0-9]{4}-[a-fA-F0-9]{4}-[a-fA-F0-9]{12}",
        },
    )
    is_external: bool = field(
        default=False,
        metadata={
            "name": "isExternal",
            "type": "Attribute",
        },
    )


@dataclass(kw_only=True)
class TopicRelatedTopic:
    class Meta:
        global_type = False

    guid: str = field(
        metadata={
            "name": "Guid",
            "type": "Attribute",
            "pattern": r"[a-fA-F0-9]{8}-[a-fA-F0-9]{4}-[a-fA-F0-9]{4}-[a-fA-F0-9]{4}-[a-fA-F0-9]{12}",
        }
    )


@dataclass(kw_only=True)
class ViewPoint:
    viewpoint: None | str = field(
        default=None,
        metadata={
            "name": "Viewpoint",
            "type": "Element",
            "namespace": "",
        },
    )
    snapshot: None | str = field(
        default=None,
        metadata={
            "name": "Snapshot",
            "type": "Element",
            "namespace": "",
        },
    )
    index: None | int = field(
        default=None,
        metadata={
            "name": "Index",
            "type": "Element",
            "namespace": "",
        },
    )
    guid: str = field(
        metadata={
            "name": "Guid",
            "type": "Attribute",
            "pattern": r"[a-fA-F0-9]{8}-[a-fA-F0-9]{4}-[a-fA-F0-9]{4}-[a-fA-F0-9]{4}-[a-fA-F0-9]{12}",
        }
    )


@dataclass(kw_only=True)
class Comment:
    date: XmlDateTime = field(
        metadata={
            "name": "Date",
            "type": "Element",
            "namespace": "",
        }
    )
    author: str = field(
        metadata={
            "name": "Author",
            "type": "Element",
            "namespace": "",
        }
    )
    comment: str = field(
        metadata={
            "name": "Comment",
            "type": "Element",
            "namespace": "",
        }
    )
    viewpoint: None | CommentViewpoint = field(
        default=None,
        metadata={
            "name": "Viewpoint",
            "type": "Element",
            "namespace": "",
        },
    )
    modified_date: None | XmlDateTime = field(
        default=None,
        metadata={
            "name": "ModifiedDate",
            "type": "Element",
            "namespace": "",
        },
    )
    modified_author: None | str = field(
        default=None,
        metadata={
            "name": "ModifiedAuthor",
            "type": "Element",
            "namespace": "",
        },
    )
    guid: str = field(
        metadata={
            "name": "Guid",
            "type": "Attribute",
            "pattern": r"[a-fA-F0-9]{8}-[a-fA-F0-9]{4}-[a-fA-F0-9]{4}-[a-fA-F0-9]{4}-[a-fA-F0-9]{12}",
        }
    )


@dataclass(kw_only=True)
class Header:
    file: list[HeaderFile] = field(
        default_factory=list,
        metadata={
            "name": "File",
            "type": "Element",
            "namespace": "",
            "min_occurs": 1,
        },
    )


@dataclass(kw_only=True)
class Topic:
    reference_link: list[str] = field(
        default_factory=list,
        metadata={
            "name": "ReferenceLink",
            "type": "Element",
            "namespace": "",
        },
    )
    title: str = field(
        metadata={
            "name": "Title",
            "type": "Element",
            "namespace": "",
        }
    )
    priority: None | str = field(
        default=None,
        metadata={
            "name": "Priority",
            "type": "Element",
            "namespace": "",
        },
    )
    index: None | int = field(
        default=None,
        metadata={
            "name": "Index",
            "type": "Element",
            "namespace": "",
        },
    )
    labels: list[str] = field(
        default_factory=list,
        metadata={
            "name": "Labels",
            "type": "Element",
            "namespace": "",
        },
    )
    creation_date: XmlDateTime = field(
        metadata={
            "name": "CreationDate",
            "type": "Element",
            "namespace": "",
        }
    )
    creation_author: str = field(
        metadata={
            "name": "CreationAuthor",
            "type": "Element",
            "namespace": "",
        }
    )
    modified_date: None | XmlDateTime = field(
        default=None,
        metadata={
            "name": "ModifiedDate",
            "type": "Element",
            "namespace": "",
        },
    )
    modified_author: None | str = field(
        default=None,
        metadata={
            "name": "ModifiedAuthor",
            "type": "Element",
            "namespace": "",
        },
    )
    due_date: None | XmlDateTime = field(
        default=None,
        metadata={
            "name": "DueDate",
            "type": "Element",
            "namespace": "",
        },
    )
    assigned_to: None | str = field(
        default=None,
        metadata={
            "name": "AssignedTo",
            "type": "Element",
            "namespace": "",
        },
    )
    stage: None | str = field(
        default=None,
        metadata={
            "name": "Stage",
            "type": "Element",
            "namespace": "",
        },
    )
    description: None | str = field(
        default=None,
        metadata={
            "name": "Description",
            "type": "Element",
            "namespace": "",
        },
    )
    bim_snippet: None | BimSnippet = field(
        default=None,
        metadata={
            "name": "BimSnippet",
            "type": "Element",
            "namespace": "",
        },
    )
    document_reference: list[TopicDocumentReference] = field(
        default_factory=list,
        metadata={
            "name": "DocumentReference",
            "type": "Element",
            "namespace": "",
        },
    )
    related_topic: list[TopicRelatedTopic] = field(
        default_factory=list,
        metadata={
            "name": "RelatedTopic",
            "type": "Element",
            "namespace": "",
        },
    )
    guid: str = field(
        metadata={
            "name": "Guid",
            "type": "Attribute",
            "pattern": r"[a-fA-F0-9]{8}-[a-fA-F0-9]{4}-[a-fA-F0-9]{4}-[a-fA-F0-9]{4}-[a-fA-F0-9]{12}",
        }
    )
    topic_type: None | str = field(
        default=None,
        metadata={
            "name": "TopicType",
            "type": "Attribute",
        },
    )
    topic_status: None | str = field(
        default=None,
        metadata={
            "name": "TopicStatus",
            "type": "Attribute",
        },
    )


@dataclass(kw_only=True)
class Markup:
    header: None | Header = field(
        default=None,
        metadata={
            "name": "Header",
            "type": "Element",
            "namespace": "",
        },
    )
    topic: Topic = field(
        metadata={
            "name": "Topic",
            "type": "Element",
            "namespace": "",
        }
    )
    comment: list[Comment] = field(
        default_factory=list,
        metadata={
            "name": "Comment",
            "type": "Element",
            "namespace": "",
        },
    )
    viewpoints: list[ViewPoint] = field(
        default_factory=list,
        metadata={
            "name": "Viewpoints",
            "type": "Element",
            "namespace": "",
        },
    )
