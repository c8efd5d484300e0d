"""The start command: what ends is started again."""

from scripts.watch import Watch


def test_what_ends_is_started_again_with_growing_pauses_until_it_stays() -> None:
    clock: list[float] = [100.0]
    begun: list[tuple[str, float]] = []
    said: list[str] = []
    watch = Watch(lambda name: begun.append((name, clock[0])), said.append, lambda: clock[0])
    while clock[0] < 250:
        watch.look(["worker"])
        clock[0] += 0.5
    assert begun == [("worker", at) for at in (100, 101.5, 104, 108.5, 117, 133.5, 164, 194.5, 225)]
    assert said[:2] == [
        "the worker ended by itself and is started again now",
        "the worker ended by itself and is started again in 1 s",
    ]
    clock[0] += 61
    watch.look(["worker", "web"])
    assert begun[-2:] == [("worker", 311), ("web", 311)]
