"""Makes the demo class: the Saltmarsh field station's evening class, with its first assignment."""

from __future__ import annotations

import io
import zipfile
from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from django.core.management.base import BaseCommand

from assignments.services import create_assignment, replace_given
from courses.models import Course, Membership
from courses.services import create_course, replace_roster
from intake.services import receive
from partitor.exchange.assignment import parse_assignment

DEMO = Path(settings.ROOT) / "demo" / "sluice-gates"
FURTHER = tuple(Path(settings.ROOT) / "demo" / name for name in ("ferry-tickets", "pump-panel"))
PEOPLE = (("ines", "Ines", "Valder", "owner"), ("rolf", "Rolf", "Hansen", "assistant"))
PASSWORD = "saltmarsh-demo"
TITLE = "Saltmarsh field station: evening class"


def class_archive(folder: Path = DEMO / "submissions") -> bytes:
    """The class's work as the one ZIP that a course system would give."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for path in sorted(folder.iterdir()):
            archive.write(path, path.name)
        archive.writestr("__MACOSX/._program", b"\x00\x05\x16\x07")
        archive.writestr(".DS_Store", b"\x00\x00\x00\x01Bud1")
    return out.getvalue()


class Command(BaseCommand):
    """`manage.py demo_class`: makes what of the class is not there already."""

    help = "Make the demo class."

    def add_arguments(self, parser: Any) -> None:
        """--empty leaves the class's work out, to be handed in by hand."""
        parser.add_argument("--empty", action="store_true")
        parser.add_argument("--people", action="store_true", help="only the logins")
        parser.add_argument("--migrate", action="store_true", help="bring the database up to date first")

    def handle(
        self, *args: Any, empty: bool = False, people: bool = False, migrate: bool = False, **options: Any
    ) -> None:
        """Make people, course, class list, assignment, and hand the work in."""
        if migrate:
            call_command("migrate", verbosity=0)
        users = {}
        for name, first, last, _ in PEOPLE:
            user, made = get_user_model().objects.get_or_create(
                username=name, defaults={"first_name": first, "last_name": last}
            )
            if made:
                user.set_password(PASSWORD)
                user.save()
            users[name] = user
        teacher = users["ines"]
        if people:
            return
        course = Course.objects.filter(title=TITLE).first()
        if course is None:
            course = create_course(teacher, TITLE, "Winter term")
            for name, _, _, part in PEOPLE[1:]:
                Membership.objects.create(course=course, user=users[name], part=part)
            replace_roster(course, teacher, (DEMO / "roster.csv").read_bytes())
            assignment = self._assignment(course, teacher, DEMO)
            if empty:
                return
            for name, folder in (("sluice-gates.zip", "submissions"), ("late.zip", "late")):
                self._hand_in(assignment, teacher, name, DEMO / folder)
        titles = {a.current().spec().title for a in course.assignments.all()}
        for folder in FURTHER:
            if not empty and parse_assignment((folder / "assignment.toml").read_text()).title not in titles:
                self._hand_in(
                    self._assignment(course, teacher, folder), teacher, f"{folder.name}.zip", folder / "submissions"
                )

    def _assignment(self, course: Course, teacher: Any, folder: Path) -> Any:
        assignment = create_assignment(course, teacher, (folder / "assignment.toml").read_text())
        for kind in ("starter", "reference"):
            if (folder / kind).is_dir():
                files = {p.name: p.read_text() for p in sorted((folder / kind).iterdir())}
                replace_given(assignment, teacher, kind, files)
        return assignment

    def _hand_in(self, assignment: Any, teacher: Any, name: str, folder: Path) -> None:
        upload = SimpleUploadedFile(name, class_archive(folder), "application/zip")
        receive(assignment, teacher, [upload])
