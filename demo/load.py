"""Loads the demo business through the same actions as everybody's; times are relative to now."""

import json
import os
import random
import secrets
from datetime import date, datetime, timedelta
from functools import cache
from typing import Any
from urllib.parse import urlsplit

from allauth.account.models import EmailAddress
from django.contrib.auth.hashers import make_password
from django.db import transaction
from django.db.models import QuerySet
from procrastinate.contrib.django import app
from procrastinate.testing import InMemoryConnector

from intavo import clock
from intavo.accounts.actions import add_member, change_business, found_business
from intavo.accounts.actor import Actor, member_actor, visitor_of
from intavo.accounts.edits import Edit
from intavo.accounts.models import Business, Member, User
from intavo.accounts.queries import members
from intavo.accounts.secrets import sealed
from intavo.channels.actions import add_channel
from intavo.core.followup import Outcome, State
from intavo.core.hours import OpeningHours, add_open_time, open_stretches
from intavo.core.presence import Until
from intavo.core.replies import Reply, Situation
from intavo.core.rights import Role
from intavo.core.touchpoint import Document
from intavo.followup.actions import answer, put_off, wait_for_them
from intavo.followup.first_steps import put_away
from intavo.followup.models import FollowUp, PromiseCounted
from intavo.hours.actions import add_hours, go_away, set_hours, set_replies, set_reply, set_usual_hours
from intavo.hours.queries import kept_sets, main_hours
from intavo.intake.actions import Sent, receive
from intavo.intake.actions.confirming import give_confirmed
from intavo.intake.models import Pending
from intavo.mail.models import OutgoingMail
from intavo.mailin.actions import set_mail_in
from intavo.results.models import HourlyTally
from intavo.sites.actions import PageSeen, add_site, count_pages, count_sources, set_house, set_rules
from intavo.sites.models import Site
from intavo.talks.actions import Begun, SaidNow, begin_talk, said_of, say
from intavo.talks.gateways import add_gateway
from intavo.talks.models import Gateway, Talk
from intavo.touchpoints.actions import (
    add_asset,
    add_codes,
    keep_question,
    make,
    save_draft,
    turn_off,
    turn_on,
)
from intavo.touchpoints.live import live_site
from intavo.touchpoints.models import Touchpoint
from intavo.touchpoints.onsite import LiveSite

from . import business as b
from . import pictures
from . import touchpoints as t
from .people import everybody

PEOPLE = 258
WHERRY = os.environ.get("INTAVO_WHERRY", "http://wherry.localhost:8403")
QUESTIONS = (
    "Do you hire wetsuits for children of 9?", "Is the sunrise trip on if it rains?", "Can I bring my dog in a double?",
    "Do you sell vouchers?", "How deep is the water by the slip at low tide?", "Is there parking for a small coach?",
    "What happens if the wind gets up?", "Can two beginners share a double?",
)  # fmt: skip


def load(names: b.Names = b.DEMO, wherry: str = WHERRY, people: int = PEOPLE) -> Actor:
    """Load everything in one transaction, and say who its owner is. History sends no mail. `wherry` is where the
    messaging service is; `people` is how many came in the last ninety days.
    """
    with app.replace_connector(InMemoryConnector()), transaction.atomic():
        owner = _business(names)
        _channels(owner, names, wherry)
        touchpoints = _touchpoints(owner)
        site = live_site(names.site_key)
        assert site is not None
        at = clock.now()
        _history(site, touchpoints, at, names, people)
        _open_ones(owner, site, touchpoints, at)
        _tallies(owner, site, touchpoints, at)
        _under_way(owner, site, touchpoints["talk"], at, names)
        members_are(owner, names, at)
        mails = OutgoingMail.objects.filter(business_id=owner.business_id)
        mails.update(state=OutgoingMail.SENT, sent_at=at)
    return owner


def _under_way(owner: Actor, site: LiveSite, row: Touchpoint, at: datetime, names: b.Names) -> None:
    """One conversation, answered and waiting for them; and one of the staff away until half past three."""
    assert row.live is not None
    began = at - timedelta(minutes=20)
    begun = Begun.model_validate(
        {
            "touchpoint": row.public_id,
            "revision": row.live.number,
            "device": "phone",
            "page": {"url": f"https://{names.host}/lessons", "title": "Lessons"},
        }
    )
    token = begin_talk(site, begun, began)["talk"]
    heard: tuple[dict[str, Any], ...] = (
        {"choice": "c1"},
        {"text": "The lesson on Saturday"},
        {"address": {"email": "pasco@quay-lane.example"}},
    )
    first = said_of(site, Talk.objects.get(token=token), began)
    said = heard if first.situation in {Situation.OPEN} else ({"choice": "skip"}, *heard)
    for number, what in enumerate(said):
        say(
            site,
            token,
            SaidNow.model_validate({"id": f"demo-{number}", **what}),
            began + timedelta(minutes=number),
        )
    talk = Talk.objects.get(token=token)
    jory = member_actor(Member.objects.get(user__email=names.email(b.STAFF[0])))
    assert talk.followup_id is not None
    answer(
        jory,
        followup_id=talk.followup_id,
        text="Which of you is it for? Ten o’clock is still free.",
        key="demo",
        then="wait",
    )


def members_are(owner: Actor, names: b.Names, at: datetime) -> None:
    """One of the staff is away until half past three, and is usually there in the hours of the phone line."""
    zone = main_hours(owner.business_id).value.zone
    sable = member_actor(Member.objects.get(user__email=names.email(b.STAFF[1])))
    back = at.astimezone(zone).replace(hour=15, minute=30, second=0, microsecond=0)
    go_away(sable, until=Until.TIME if back > at else Until.OPENING, time=back)
    phone_line = next(one.pk for one in kept_sets(owner.business_id) if one.name == "Phone line")
    set_usual_hours(owner, member_id=sable.member_id or 0, hours_id=phone_line)


def _tallies(owner: Actor, site: LiveSite, touchpoints: dict[str, Touchpoint], at: datetime) -> None:
    """Ninety days of what browsers reported, with the days of the week in it; doubles are long dropped."""
    rows = []
    for ago in range(1, 91):
        day = (at - timedelta(days=ago)).replace(hour=12, minute=0, second=0, microsecond=0)
        for key, (seen, share) in b.SEEN_A_DAY.items():
            count = round(seen * (1.0 + 0.35 * (day.weekday() >= 4) + 0.1 * ((ago * 7) % 5 - 2)))
            for what, number in (("seen", count), ("goal", round(count * share + (ago % 3) * 0.3))):
                rows.append(
                    HourlyTally(
                        business_id=owner.business_id,
                        site_id=site.id,
                        touchpoint=touchpoints[key].public_id,
                        hour=day,
                        what=what,
                        count=number,
                    )
                )
    HourlyTally.objects.bulk_create(rows)


@cache
def _hashed(password: str) -> str:
    """Hashed once: it is made slow on purpose."""
    return make_password(password)


def _user(name: str, email: str) -> User:
    user = User.objects.create(email=email, name=name, password=_hashed(b.PASSWORD))
    EmailAddress.objects.create(user=user, email=email, verified=True, primary=True)
    return user


def found(names: b.Names) -> Actor:
    """Found the business with its staff, and what belongs to no copy of it; says who its owner is."""
    address = names.email("hello")
    owner = found_business(
        user=_user(b.OWNER, names.email(b.OWNER)),
        name=b.NAME,
        timezone=b.TIMEZONE,
        region=b.REGION,
        mail_address=address,
    )
    for name in b.STAFF:
        add_member(owner, user=_user(name, names.email(name)), role=Role.STAFF)
    Business.objects.filter(pk=owner.business_id).update(mail_confirmed=True)
    set_mail_in(owner, address=names.email("answers"))
    change_business(owner, name=b.NAME, mail_address=address, promise_minutes=120)
    put_away(owner)
    return owner


def _business(names: b.Names) -> Actor:
    owner = found(names)
    main = main_hours(owner.business_id)
    main.name = "Boathouse"
    main.save(update_fields=["name"])
    today = clock.now().date()
    set_hours(owner, hours_id=main.pk, edit=Edit(b.boathouse(*_winter(today))))
    for name, document in b.OTHER_HOURS.items():
        holidays = [one for one in b.boathouse(*_winter(today))["exceptions"] if one["holiday"]]
        add_hours(owner, name=name, document=document | {"exceptions": holidays})
    for situation, reply in b.REPLIES.items():
        set_reply(owner, situation=Situation(situation), language="en", reply=Reply.model_validate(reply))
    for situation, reply in b.REPLIES_CY.items():
        set_reply(owner, situation=Situation(situation), language="cy", reply=Reply.model_validate(reply))
    site = add_site(owner, name=names.host, hosts=[names.local_host, names.host], slug=names.slug)
    logo = add_asset(
        owner, kind="picture", name="logo.png", data=pictures.logo(), description="Two crossed paddles"
    )
    pages = {
        path: PageSeen(title, list(kinds), clock.now() - timedelta(minutes=n), views)
        for n, (path, title, kinds, views) in enumerate(b.PAGES)
    }
    visitor = visitor_of(owner.business_id)
    count_pages(visitor, site_id=site.pk, pages=pages, confirmed=True)
    count_sources(visitor, site_id=site.pk, sources=b.SOURCES, at=clock.now())
    set_rules(owner, site_id=site.pk, edit=Edit(b.SITE_RULES))
    set_house(owner, site_id=site.pk, edit=Edit(b.HOUSE | {"logo": logo.public_id}))
    Site.objects.filter(pk=site.pk).update(key=names.site_key)
    return owner


def open_to_wherry(gateways: "QuerySet[Gateway]", names: b.Names) -> None:
    """Give the gateway the key and the secrets that the messaging stand-in knows."""
    gateways.update(key=names.wherry_key, secret=sealed(b.WHERRY_SECRET), bearer=sealed(b.WHERRY_BEARER))


def _channels(owner: Actor, names: b.Names, wherry: str) -> None:
    """Six ways to reach the boathouse, two of them with words of their own, and when the staff are usually there."""
    sets = {row.name: row.pk for row in kept_sets(owner.business_id)}
    people = {row.user.name: row.pk for row in members(owner)}
    ids: dict[str, str] = {}
    gateway, _ = add_gateway(
        owner, name="Wherry", address=f"http://127.0.0.1:{urlsplit(wherry).port}", bearer=b.WHERRY_BEARER
    )
    open_to_wherry(Gateway.objects.filter(pk=gateway.pk), names)
    for wanted in b.CHANNELS:
        handle = names.here(wanted["handle"]) if wanted["kind"] == "mail" else wanted["handle"]
        document = wanted | {"handle": handle, "hours": [sets[name] for name in wanted.get("hours", ())]}
        if "template" in wanted:
            document["template"] = wanted["template"].replace("{wherry}", wherry)
        if wanted["kind"] == "message-link":
            document["gateway"] = gateway.pk
        document["people"] = [
            one
            | {
                "hours": [sets[name] for name in one.get("hours", ())],
                "member": people.get(one.get("member")),
            }
            for one in wanted.get("people", ())
        ]
        ids[wanted["label"]] = add_channel(owner, document=document).public_id
    for label, situation, reply in b.CHANNEL_REPLIES:
        set_replies(owner, situation=situation, edit=Edit(reply), column=ids[label])


def _winter(today: date) -> tuple[int, str, str]:
    """The winter that is here or comes next, the Sunday after next week, and a weekday in three weeks."""
    sunday = today + timedelta(days=(6 - today.weekday()) % 7 or 7)
    early = today + timedelta(days=21 - today.weekday())
    return today.year, sunday.isoformat(), early.isoformat()


def _first_of_next_month() -> str:
    today = clock.now().date()
    return (today.replace(day=1) + timedelta(days=32)).replace(day=1).isoformat()


def _touchpoints(owner: Actor) -> dict[str, Touchpoint]:
    """Every stance once, on; one turned off, one changed since it went live, one never on."""
    estuary = add_asset(
        owner,
        kind="picture",
        name="estuary.png",
        data=pictures.estuary(),
        description="Two kayaks on the estuary on a still morning",
    )
    moon = "The moon over the estuary"
    night = add_asset(owner, kind="picture", name="after-dark.png", data=pictures.night(), description=moon)
    month = clock.now().strftime("%B %Y")
    table = add_asset(owner, kind="file", name="tide-table.pdf", data=pictures.tide_table(month))
    for group, question, words in b.QUESTIONS:
        keep_question(owner, question_id=None, group=group, question=question, answer=words)
    wanted = (
        ("ask", "Ask the boathouse", t.ASK), ("tide", "Tide table", t.tide_table(estuary.public_id, table.public_id)),
        ("groups", "Group booking", t.GROUPS), ("parting", "Parting card", t.PARTING), ("hire", "Hire question", t.HIRE),
        ("question", "Boathouse question", t.QUESTION), ("winter", "Winter hire", t.winter(night.public_id, _first_of_next_month())),
        ("call-back", "Call me back", t.CALL_BACK), ("call", "Call the boathouse", t.CALL), ("reach", "Contact menu", t.REACH),
        ("talk", "Talk to the boathouse", t.TALK),
    )  # fmt: skip
    found = {key: _touchpoint(owner, name, document) for key, name, document in wanted}
    add_codes(
        owner, touchpoint_id=found["parting"].pk, text="\n".join(f"PADDLE-{1000 + 37 * n}" for n in range(60))
    )
    for key, row in found.items():
        found[key] = turn_on(owner, touchpoint_id=row.pk)
    turn_off(owner, touchpoint_id=found["call"].pk)
    _reworded(owner, found["winter"])
    make(owner, starter="score", name="Feedback card")
    return found


def _touchpoint(owner: Actor, name: str, document: dict[str, Any]) -> Touchpoint:
    row = make(owner, starter="empty", name=name)
    assert row.draft is not None
    return save_draft(owner, touchpoint_id=row.pk, document=document, based_on=row.draft.number)


def _reworded(owner: Actor, row: Touchpoint) -> None:
    """Changed since it went live, and not put live."""
    assert row.draft is not None
    document = json.loads(json.dumps(row.draft.document))
    document["steps"][0]["parts"][1]["text"] = "A boat of your own, all winter"
    save_draft(owner, touchpoint_id=row.pk, document=document, based_on=row.draft.number)


def _send(
    site: LiveSite, touchpoint: Touchpoint, at: datetime, answers: dict[str, str], page: str, device: str
) -> None:
    live = touchpoint.live
    assert live is not None
    host = next(host for host in site.hosts if host.endswith(".example"))
    consents = {part.name: True for part in Document.model_validate(live.document).consents()}
    sent = Sent.model_validate(
        {
            "id": secrets.token_hex(16),
            "touchpoint": touchpoint.public_id,
            "revision": live.number,
            "step": "ask",
            "answers": answers,
            "consents": consents,
            "device": device,
            "page": {"url": f"https://{host}{page}", "title": "Otterwick Paddle Hire"},
        }
    )
    receive(site, sent, at=at, sender="demo")
    waits = Pending.objects.filter(submission__site_id=site.id, submission__client_id=sent.id).first()
    if waits is not None:
        give_confirmed(waits.pk, site.key, at)


def _history(
    site: LiveSite, touchpoints: dict[str, Touchpoint], at: datetime, names: b.Names, people: int
) -> None:
    """Ninety days of sign-ups and questions, all worked off, nearly all promises kept."""
    chance = random.Random(90)  # noqa: S311  # made-up data, not a secret
    pages = (
        "/trips",
        "/trips/sunrise",
        "/lessons",
        "/blog/reading-a-tide-table",
        "/blog/what-to-wear-in-march",
    )
    for number, one in enumerate(everybody(people)):
        when = at - timedelta(minutes=chance.randrange(3 * 24 * 60, 90 * 24 * 60))
        device = chance.choice(("phone", "phone", "desktop", "tablet"))
        if number % 5 == 2:
            answers = {"email": one.email, "name": one.name, "question": chance.choice(QUESTIONS)}
            # Two pairs share a phone: perhaps the same person with two addresses.
            answers |= {"phone": f"07700 90040{number % 2}"} if number in {12, 17, 22, 27} else {}
            _send(site, touchpoints["question"], when, answers, "/hire", device)
        else:
            _send(
                site,
                touchpoints["tide"],
                when,
                {"email": one.email, "name": one.name},
                chance.choice(pages),
                device,
            )
    for number in range(3):
        answers = {"email": names.email(f"crew{number + 1}")}
        _send(site, touchpoints["tide"], at - timedelta(days=60 + number), answers, "/trips", "desktop")
    _work_off(site, chance)


def _work_off(site: LiveSite, chance: random.Random) -> None:
    for row in FollowUp.objects.filter(business_id=site.business.pk, state=State.US.value):
        late = chance.random() < 0.06
        done = (row.due or row.opened_at + timedelta(hours=20)) + timedelta(minutes=50 if late else -35)
        if row.due is not None:
            PromiseCounted.objects.create(
                business_id=row.business_id, followup=row, due=row.due, kept=not late, counted_at=done
            )
        row.state, row.finished_at = State.FINISHED.value, done
        row.due, row.outcome = None, Outcome.ANSWERED.value
        row.save()


def _ago(hours: OpeningHours, at: datetime, minutes: int) -> datetime:
    """An instant so many minutes of open time before `at` (just before `at` if the hours are too short)."""
    left = timedelta(minutes=minutes)
    for stretch in reversed(open_stretches(hours, at - timedelta(days=21), at)):
        if stretch.length >= left:
            return stretch.end - left
        left -= stretch.length
    return at - timedelta(minutes=1)


def _open_ones(owner: Actor, site: LiveSite, touchpoints: dict[str, Touchpoint], at: datetime) -> None:
    """Nine open ones: one late, the others over the lanes that the time of loading allows."""
    hours = site.hours
    rows: tuple[tuple[str, int, str, str, str, str], ...] = (
        ("question", 185, "Rosalind Achterberg", "rosalind@harbour-school.example",
         "22 pupils on 12 June — is the estuary safe at low tide for beginners?", "/contact"),
        ("question", 65, "Hedra Quillfeather", "h.quillfeather@mail.example",
         "I think I left a dry bag in the second double on Saturday. Has anybody handed it in?", "/contact"),
        ("question", 40, "Ife Dunmore", "ife.dunmore@post.example",
         "Can I swap Saturday’s sunrise trip for Sunday? Same two of us.", "/hire"),
        ("question", 12, "Tomasz Wielgosz", "tomasz@fen-letters.example", "Do you hire wetsuits for children of 9?",
         "/hire"),
        ("groups", 90, "Ansel Brightwater", "ansel.b@mail.example", "Two doubles and a single, weekend of 5 December?",
         "/groups"),
        ("groups", 25, "Maren Oyelaran", "maren@oyelaran-yards.example",
         "Fourteen of us from the yard, a Thursday in spring, something nobody can be late for.", "/groups"),
        ("tide", 30, "Perpetua Lindqvist", "perpetua.l@post.example", "", "/trips/sunrise"),
        ("question", 400, "Bríd Carbery", "brid.carbery@post.example", "Is there a discount for three lessons?",
         "/hire"),
        ("groups", 300, "Viktor Dvořák", "viktor@choir-north.example",
         "Our choir would like to sing on the water. Is that mad?", "/groups"),
    )  # fmt: skip
    for which, minutes, name, email, question, page in rows:
        answers = {"email": email, "name": name} | ({"question": question} if question else {})
        opened = min(_ago(hours, at, minutes), at - timedelta(minutes=1))
        _send(site, touchpoints[which], opened, answers, page, "phone")
    waits = FollowUp.objects.get(
        business_id=site.business.pk, person__name="Bríd Carbery", state=State.US.value
    )
    wait_for_them(owner, followup_id=waits.pk)
    aside = FollowUp.objects.get(
        business_id=site.business.pk, person__name="Viktor Dvořák", state=State.US.value
    )
    until = add_open_time(hours, at + timedelta(days=2), timedelta(hours=1))
    put_off(owner, followup_id=aside.pk, until=until or at + timedelta(days=3))
