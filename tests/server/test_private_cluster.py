"""The private database: it asks for a password, and Partitor's role in it can do no more than it needs."""

import os
from pathlib import Path

import psycopg
import pytest
from django.conf import settings
from django.db import connection


def test_partitors_role_is_no_superuser(db):
    with connection.cursor() as cursor:
        cursor.execute("SELECT rolsuper, rolcreaterole, rolreplication FROM pg_roles WHERE rolname = current_user")
        assert cursor.fetchone() == (False, False, False)


@pytest.mark.parametrize("password", ["", "guessed"])
def test_nobody_comes_in_without_the_password(password, db):
    known = connection.settings_dict
    with pytest.raises(psycopg.OperationalError, match="password"):
        psycopg.connect(
            host=known["HOST"],
            port=known["PORT"],
            user=known["USER"],
            dbname="postgres",
            password=password,
            passfile="/dev/null",
        )


def test_the_passwords_are_readable_by_their_owner_only():
    for name in ("database-password", "database-admin-password"):
        file = Path(settings.LOCAL) / name
        assert oct(file.stat().st_mode & 0o777) == "0o600"
        assert file.stat().st_uid == os.getuid()
        assert len(file.read_text().strip()) >= 32
