"""A business written down: a zip of JSON Lines with their schemas, its files, and a manifest."""

import json
import zipfile
from pathlib import Path
from typing import Any

from django.db import connection, transaction

from intavo import clock, keeping
from intavo.accounts.models import Business, Member
from intavo.core.copies import FORMAT, VERSION, Manifest, Table

from .files import files_of
from .tables import carried, rows_of, schema_of

ABOUT = ("name", "timezone", "region", "language", "promise_minutes", "mail_address")


def write_copy(business_id: int, path: Path) -> Manifest:
    """Write a copy of a business as it is at one instant; the file is there once it is whole."""
    alone = not connection.in_atomic_block
    with keeping.kept(path) as file, transaction.atomic():
        if alone:
            with connection.cursor() as cursor:
                cursor.execute("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ READ ONLY")
        with zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED, allowZip64=True) as out:
            return _write(business_id, out)


def _write(business_id: int, out: zipfile.ZipFile) -> Manifest:
    business = Business.objects.get(pk=business_id)
    out.writestr("business.json", _json({name: getattr(business, name) for name in ABOUT}))
    members = Member.objects.filter(business_id=business_id).select_related("user").order_by("pk")
    with out.open("members.jsonl", "w") as file:
        for one in members:
            said = {"id": one.pk, "email": one.user.email, "name": one.user.name, "role": one.role}
            file.write(json.dumps(said, ensure_ascii=False).encode() + b"\n")
    tables = []
    for table in carried():
        count = 0
        with out.open(table.file, "w", force_zip64=True) as file:
            for line in rows_of(table, business_id):
                file.write(line)
                count += 1
        out.writestr(table.schema_file, _json(schema_of(table)))
        tables.append(Table(name=table.name, file=table.file, schema_file=table.schema_file, rows=count))
    files = 0
    for name, path in files_of(business_id):
        # Pictures and the like are packed already.
        out.write(path, f"files/{name}", compress_type=zipfile.ZIP_STORED)
        files += 1
    manifest = Manifest(
        format=FORMAT,
        version=VERSION,
        made_at=clock.now(),
        business=business.name,
        tables=tuple(tables),
        files=files,
    )
    out.writestr("manifest.json", manifest.model_dump_json(indent=1))
    return manifest


def _json(value: Any) -> str:
    return json.dumps(value, ensure_ascii=False, indent=1)
