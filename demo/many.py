"""A business with very many people, for trying how Intavo stands up to it: `python -m demo.many [people]`.

Needs DATABASE_URL; `make demo` says it. Each person has five entries on their timeline, every tenth an open follow-up;
two people sent five answers to the business's sign-up, and for each person there are 25 reports of visitors' browsers.
Sign in as many-<people>@otterwick.example with the demo's password.
"""

import os
import sys
import time
from typing import Any

import django

_FIRST = (
    "Ife",
    "Rosalind",
    "Tomasz",
    "Perpetua",
    "Ansel",
    "Maren",
    "Bríd",
    "Søren",
    "Zofia",
    "Lucía",
    "Tadhg",
    "Wren",
)
_LAST = (
    "Dunmore",
    "Achterberg",
    "Wielgosz",
    "Lindqvist",
    "Brightwater",
    "Oyelaran",
    "Quillfeather",
    "Ångström",
    "Hale",
)
_WORDS = (
    "canoe", "kayak", "wetsuit", "lesson", "sunrise", "estuary", "tide", "school", "group", "Saturday", "crème", "picnic",
    "paddle", "helmet", "dry bag", "slipway", "mooring", "lantern", "otter", "heron", "driftwood", "ferry", "harbour",
)  # fmt: skip

# One statement each, since a million rows are many for anything else. Numbers make what is drawn the same every time.
_PEOPLE = """
INSERT INTO people_person (business_id, name, created_at, erasing)
SELECT %(business)s, (%(first)s::text[])[1 + n %% %(firsts)s] || ' ' || (%(last)s::text[])[1 + (n / 7) %% %(lasts)s] || ' ' || n,
       %(at)s - make_interval(mins => n), false
FROM generate_series(1, %(people)s) AS n
"""
_ADDRESSES = """
INSERT INTO people_address (business_id, person_id, kind, key, shown, domain)
SELECT business_id, id, 'email', 'person' || id || '@post.example', 'person' || id || '@post.example', 'post.example'
FROM people_person WHERE business_id = %(business)s
"""
_TAGS = """
INSERT INTO people_persontag (business_id, person_id, tag, given_by, given_at)
SELECT business_id, id, 'tag ' || id %% 20, '', created_at FROM people_person WHERE business_id = %(business)s
"""
_EVENTS = """
INSERT INTO people_timelineevent (business_id, person_id, at, kind, data)
SELECT person.business_id, person.id, person.created_at + make_interval(hours => n),
       CASE n WHEN 0 THEN 'asked' WHEN 2 THEN 'wrote by mail' ELSE 'noted' END,
       jsonb_build_object('text', (%(words)s::text[])[1 + (person.id * 3 + n) %% %(count)s] || ' ' ||
           (%(words)s::text[])[1 + (person.id * 7 + n * 5) %% %(count)s] || ' mark' || person.id / 50,
           'page', 'https://otterwick.example/' || (array['hire', 'trips', 'lessons', 'groups', 'contact'])[1 + person.id %% 5])
FROM people_person AS person, generate_series(0, 4) AS n WHERE person.business_id = %(business)s
"""
_OPEN = """
INSERT INTO followup_followup (business_id, person_id, kind, state, opened_at, due, thread, page, device, excerpt)
SELECT business_id, id, 'inquiry', 'for-us', created_at, %(at)s + make_interval(mins => (id %% 20000)::int - 2000),
       '', 'https://otterwick.example/' || (array['hire', 'trips', 'lessons', 'groups', 'contact'])[1 + id / 10 %% 5], 'phone', 'Is there a canoe on Saturday?'
FROM people_person WHERE business_id = %(business)s AND id %% 10 = 0
"""


_ANSWERS = """
INSERT INTO intake_submission (business_id, site_id, revision_id, client_id, raw, answer, person_id, code, received_at, sender)
SELECT %(business)s, %(site)s, %(revision)s, 'many-' || person.id || '-' || n,
       jsonb_build_object('answers', jsonb_build_object('email', 'person' || person.id || '@post.example', 'name', person.name),
           'consents', '{"news": true}'::jsonb, 'device', 'phone', 'step', 'ask',
           'page', jsonb_build_object('url', 'https://many.example/trips', 'title', 'Trips')),
       '{}', person.id, '', person.created_at + make_interval(hours => n), 'many'
FROM people_person AS person, generate_series(1, 5) AS n WHERE person.business_id = %(business)s AND person.id %% 2 = 0
"""
# From now back over sixty days, so that they lie in several months.
_BEATS = """
INSERT INTO results_beat (id, business_id, site_id, client_id, touchpoint, revision, what, page, device, at, received_at)
SELECT gen_random_uuid(), %(business)s, %(site)s, 'beat-' || n, %(touchpoint)s, 1,
       (array['seen', 'seen', 'seen', 'opened', 'closed', 'clicked', 'goal'])[1 + n %% 7], '/trips', 'phone', came, came
FROM (SELECT n, %(at)s - make_interval(secs => n * 5184000.0 / (%(people)s * 25)) AS came
      FROM generate_series(1, %(people)s * 25) AS n) AS drawn
"""


def load_many(people: int) -> int:
    """Found a business with so many people; says its id. Loaded anew it is another business."""
    from django.db import connection, transaction

    import intavo.hours.actions  # noqa: F401  # a new business gets its hours
    from intavo import clock
    from intavo.accounts.actions import found_business
    from intavo.accounts.models import User
    from intavo.sites.actions import add_site
    from intavo.touchpoints.actions import make, turn_on

    from .business import PASSWORD

    with transaction.atomic():
        user = User.objects.create_user(f"many-{people}@otterwick.example", PASSWORD, name="Morwenna Hale")
        owner = found_business(user=user, name=f"Otterwick with {people:,} people", timezone="Europe/London")
        site = add_site(owner, name="Many", hosts=[f"many-{people}.example"])
        touchpoint = turn_on(owner, touchpoint_id=make(owner, starter="news", name="News").pk)
        about: dict[str, Any] = {
            "site": site.pk, "revision": touchpoint.live_id, "touchpoint": touchpoint.public_id,
            "business": owner.business_id, "people": people, "at": clock.now(), "first": list(_FIRST),
            "firsts": len(_FIRST), "last": list(_LAST), "lasts": len(_LAST), "words": list(_WORDS), "count": len(_WORDS),
        }  # fmt: skip
        with connection.cursor() as cursor:
            for statement in (_PEOPLE, _ADDRESSES, _TAGS, _EVENTS, _OPEN, _ANSWERS, _BEATS):
                cursor.execute(statement, about)
    with connection.cursor() as cursor:
        # As the server does by itself after a while.
        cursor.execute("VACUUM ANALYZE")
    return owner.business_id


if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "intavo.project.settings")
    django.setup()
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 200_000
    started = time.perf_counter()
    load_many(count)
    print(
        f"{count:,} people in {time.perf_counter() - started:.0f} s; sign in as many-{count}@otterwick.example"
    )
