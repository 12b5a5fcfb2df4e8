from __future__ import annotations

from dataclasses import dataclass, field


@dataclass(kw_only=True)
class ExtensionsPriorities:
    class Meta:
        global_type = False

    priority: list[str] = field(
        default_factory=list,
        metadata={
            "name": "Priority",
            "type": "Element",
            "namespace": "",
            "min_length": 1,
            "white_space": "collapse",
        },
    )


@dataclass(kw_only=True)
class ExtensionsSnippetTypes:
    class Meta:
        global_type = False

    snippet_type: list[str] = field(
        default_factory=list,
        metadata={
            "name": "SnippetType",
            "type": "Element",
            "namespace": "",
            "min_length": 1,
            "white_space": "collapse",
        },
    )


@dataclass(kw_only=True)
class ExtensionsStages:
    class Meta:
        global_type = False

    stage: list[str] = field(
        default_factory=list,
        metadata={
            "name": "Stage",
            "type": "Element",
            "namespace": "",
            "min_length": 1,
            "white_space": "collapse",
        },
    )


@dataclass(kw_only=True)
class ExtensionsTopicLabels:
    class Meta:
        global_type = False

    topic_label: list[str] = field(
        default_factory=list,
        metadata={
            "name": "TopicLabel",
            "type": "Element",
            "namespace": "",
            "min_length": 1,
            "white_space": "collapse",
        },
    )


@dataclass(kw_only=True)
class ExtensionsTopicStatuses:
    class Meta:
        global_type = False

    topic_status: list[str] = field(
        default_factory=list,
        metadata={
            "name": "TopicStatus",
            "type": "Element",
            "namespace": "",
            "min_length": 1,
            "white_space": "collapse",
        },
    )


@dataclass(kw_only=True)
class ExtensionsTopicTypes:
    class Meta:
        global_type = False

    topic_type: list[str] = field(
        default_factory=list,
        metadata={
            "name": "TopicType",
            "type": "Element",
            "namespace": "",
            "min_length": 1,
            "white_space": "collapse",
        },
    )


@dataclass(kw_only=True)
class ExtensionsUsers:
    class Meta:
        global_type = False

    user: list[str] = field(
        default_factory=list,
        metadata={
            "name": "User",
            "type": "Element",
            "namespace": "",
            "min_length": 1,
            "white_space": "collapse",
        },
    )


@dataclass(kw_only=True)
class Extensions:
    topic_types: ExtensionsTopicTypes | None = field(
        default=None,
        metadata={
            "name": "TopicTypes",
            "type": "Element",
            "namespace": "",
        },
    )
    topic_statuses: ExtensionsTopicStatuses | None = field(
        default=None,
        metadata={
            "name": "TopicStatuses",
            "type": "Element",
            "namespace": "",
        },
    )
    priorities: ExtensionsPriorities | None = field(
        default=None,
        metadata={
            "name": "Priorities",
            "type": "Element",
            "namespace": "",
        },
    )
    topic_labels: ExtensionsTopicLabels | None = field(
        default=None,
        metadata={
            "name": "TopicLabels",
            "type": "Element",
            "namespace": "",
        },
    )
    users: ExtensionsUsers | None = field(
        default=None,
        metadata={
            "name": "Users",
            "type": "Element",
            "namespace": "",
        },
    )
    snippet_types: ExtensionsSnippetTypes | None = field(
        default=None,
        metadata={
            "name": "SnippetTypes",
            "type": "Element",
            "namespace": "",
        },
    )
    stages: ExtensionsStages | None = field(
        default=None,
        metadata={
            "name": "Stages",
            "type": "Element",
            "namespace": "",
        },
    )
