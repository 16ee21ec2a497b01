from django.core.management import call_command
from django.db import migrations


def make(apps, schema_editor):
    """The table that counts requests for throttling."""
    call_command("createcachetable", database=schema_editor.connection.alias)


class Migration(migrations.Migration):

    dependencies = [
        ('courses', '0001_initial'),
    ]

    operations = [
        migrations.RunPython(make, migrations.RunPython.noop),
    ]
