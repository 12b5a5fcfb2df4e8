"""One unit of work: who does it, its transaction, the jobs it puts on the queue, and the events it sends."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, field

from stairpath.core.people.roles import Action, Role, Tie, may, refusal
from stairpath.store import history, models, projects, queue
from stairpath.store.database import Session, transaction
from stairpath.store.events import Kind, tell
from stairpath.store.record import Doer, begin
from stairpath.store.tables import Model, Project
from stairpath.work.base.errors import MissingError, NotAllowedError


@dataclass(frozen=True)
class Target:
    """The thing that a request is about: which versions it may have to be changed, and who is told its version then."""

    id: str
    versions: frozenset[int] | None
    """None where any will do."""
    told: Callable[[int], None]


@dataclass(frozen=True)
class Where:
    """Where somebody asks from: their address, what their browser calls itself, and the name of the token they ask with."""

    address: str = ""
    browser: str = ""
    token: str = ""


@dataclass(frozen=True)
class Who:
    """Who does something: a person by name, or the application itself; and to what, where that has versions."""

    name: str
    target: Target | None = None
    person_id: str | None = None
    """Who it is of those who sign in; None where nobody does, for a guest, and for the application itself."""
    role: Role = "own"
    """What they may in the project that the request is about."""
    where: Where = field(default_factory=Where)

    @property
    def said(self) -> str:
        """The name as it is kept."""
        return self.name.strip() or "Somebody"

    @property
    def doer(self) -> Doer:
        """Who it is, as the record has them."""
        return Doer(self.said, self.person_id, self.where.address, self.where.browser, self.where.token)

    def ties(self, made: str, given: Sequence[str] = ()) -> set[Tie]:
        """What ties them to a thing, by the names of who made it and of those whom it was given to."""
        mine = self.said.casefold()
        named: dict[Tie, Sequence[str]] = {"made": (made,), "given": given}
        return {tie for tie, names in named.items() if mine in (name.strip().casefold() for name in names)}

    def check(self, action: Action, ties: Collection[Tie] = ()) -> None:
        """Raise NotAllowedError where they may not do something in the project that the request is about."""
        if not may(self.role, action, ties):
            raise NotAllowedError(refusal(self.role, action))


WORKER = Who("Stair Path")
"""Jobs are done by the application itself."""

READ, FEDERATE, MAP, RUN = "read_model", "federate_project", "map_walks", "run_task"
PICTURES, STANDING = "draw_pictures", "make_standing_views"
NEW_PASSWORD = "mail_new_password"


@dataclass(frozen=True)
class UnitOfWork:
    """What somebody does, kept together or not at all."""

    session: Session
    who: Who

    def tell(self, project_id: str, *kinds: Kind, what: str = "") -> None:
        """Tell everyone who has the project open, once this is kept."""
        for kind in kinds:
            tell(self.session, project_id, kind, what)

    def project(self, project_id: str, hold: bool = False) -> Project:
        """The project, or MissingError; one that is in the bin is found."""
        found = projects.project_by_id(self.session, project_id, hold)
        if found is None:
            raise MissingError("There is no such project; open it from the start page.")
        return found

    def model(self, model_id: str, hold: bool = False) -> Model:
        """The model, or MissingError; one that was taken out is found."""
        found = models.model_by_id(self.session, model_id, hold)
        if found is None:
            raise MissingError("There is no such model; reload the page.")
        return found

    def read(self, model_id: str) -> None:
        """Have a model read."""
        queue.put(self.session, READ, f"read-{model_id}", model_id=model_id)

    def federate(self, project: Project) -> None:
        """Have the building put together anew, with what follows from it."""
        project.wanted += 1
        project.trouble = ""
        self.put_federation(project.id)

    def put_federation(self, project_id: str) -> None:
        """Put what is wanted already on the queue."""
        queue.put(self.session, FEDERATE, f"federate-{project_id}", priority=-1, project_id=project_id)

    def run(self, task_id: str) -> None:
        """Have a task run."""
        queue.put(self.session, RUN, f"task-{task_id}", task_id=task_id)

    def draw_pictures(self, project_id: str) -> None:
        """Have the pictures drawn of views that have none."""
        queue.put(self.session, PICTURES, f"pictures-{project_id}", priority=-2, project_id=project_id)

    def make_standing(self, project_id: str) -> None:
        """Have the standing views made."""
        queue.put(self.session, STANDING, f"standing-{project_id}", priority=-2, project_id=project_id)

    def mail_new_password(self, key: str) -> None:
        """Have a link to set a password mailed to who signs in with a name, if anybody does."""
        queue.put(self.session, NEW_PASSWORD, f"new-password-{key}", priority=1, key=key)

    def map_walks(self, project_id: str) -> None:
        """Have the walk map made where it is not that of the building."""
        queue.put(self.session, MAP, f"walks-{project_id}", priority=-2, project_id=project_id)


@contextmanager
def unit_of_work(who: Who) -> Iterator[UnitOfWork]:
    """Begin a unit of work. It is kept when the block ends well."""
    with transaction() as session:
        begin(session, who.doer)
        yield UnitOfWork(session, who)
        if who.target is not None:
            session.flush()
            who.target.told(history.version(session, who.target.id))


@contextmanager
def read_only() -> Iterator[UnitOfWork]:
    """A transaction that only reads."""
    with transaction() as session:
        yield UnitOfWork(session, WORKER)
