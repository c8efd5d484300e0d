"""Addresses of the visitor's side."""

from django.urls import path, re_path

from . import buttons, calls, confirming, frame, hosted, hours, links, media, talking, views

urlpatterns = [
    path("e/frame", frame.page),
    path("e/<str:key>.js", views.loader),
    path("e/<str:key>/plan", views.plan_view),
    path("e/<str:key>/intake", views.intake),
    path("e/<str:key>/more", views.more_view),
    path("e/<str:key>/helped", views.helped),
    path("e/<str:key>/talks", talking.begin),
    path("e/<str:key>/talks/<str:token>", talking.talk),
    path("e/<str:key>/talks/<str:token>/messages", talking.messages),
    path("e/<str:key>/talks/<str:token>/files", talking.files),
    path("e/<str:key>/talks/<str:token>/files/<str:file>", talking.file),
    path("g/<str:key>", talking.gateway),
    path("m/<str:asset>/<str:name>", media.media),
    path("f/<str:token>", media.given_file),
    path("c/<str:token>", confirming.page),
    path("sender/<str:token>", buttons.sender),
    path("told/<str:token>", buttons.told),
    path("told-of/<str:token>", buttons.told_of),
    path("b/<str:token>", calls.page),
    path("h/<str:token>.ics", hours.calendar),
    path("csv/<str:token>.csv", media.answers),
    path("e/<str:key>/beats", views.beats),
    path("l/<slug:site>/<slug:slug>.<str:form>", links.qr_code),
    path("l/<slug:site>/<slug:slug>", links.short),
    path("t/<slug:site>/<slug:slug>", hosted.page, name="hosted"),
    path("l/<slug:channel>", links.channel),
    path("l/<slug:channel>.<str:form>", links.channel_code),
    re_path("^[lt]/", links.nowhere),
]
