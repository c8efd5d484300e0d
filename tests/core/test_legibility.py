"""What can be read on what, and how much of a phone is covered."""

import colorsys

import pytest
from hypothesis import given
from hypothesis import strategies as st

from intavo.core.legibility import (
    boxed_in,
    brightened,
    contrast,
    covered,
    cropped,
    hex_of,
    mixed,
    nearest_passing,
    reading,
    rgb,
    worst_contrast,
)

WHITE, BLACK = (255, 255, 255), (0, 0, 0)
pixels = st.tuples(*[st.integers(0, 255)] * 3)


@pytest.mark.parametrize(
    ("one", "other", "ratio"),
    [
        ("#ffffff", "#000000", 21.0),
        ("#777777", "#ffffff", 4.48),
        ("#767676", "#ffffff", 4.54),
        ("#0e4f57", "#0e4f57", 1.0),
    ],
)
def test_contrast_is_that_of_the_standard(one: str, other: str, ratio: float) -> None:
    assert contrast(rgb(one), rgb(other)) == pytest.approx(ratio, abs=0.01)


@given(pixels, pixels)
def test_contrast_does_not_care_which_is_in_front(one: tuple, other: tuple) -> None:
    assert contrast(one, other) == contrast(other, one) >= 1


@given(pixels, st.lists(pixels, min_size=1, max_size=4), st.sampled_from([3.0, 4.5]))
def test_the_nearest_shade_passes_and_keeps_its_hue(text: tuple, behind: list, needed: float) -> None:
    found = nearest_passing(hex_of(text), behind, needed)
    if found is None:
        assert all(worst_contrast(one, behind) < needed for one in (BLACK, WHITE))
        return
    assert worst_contrast(rgb(found), behind) >= needed
    before, after = (colorsys.rgb_to_hls(*(part / 255 for part in one)) for one in (text, rgb(found)))
    # Near black and white a hue is only a rounding.
    if 0.15 < after[1] < 0.85 and before[2] > 0.2:
        assert min(abs(before[0] - after[0]), 1 - abs(before[0] - after[0])) < 0.03


def test_a_text_that_passes_is_left_alone() -> None:
    assert nearest_passing("#1a2326", [WHITE], 4.5) == "#1a2326"
    assert reading("p1", "Text on card", "text", "#1a2326", [WHITE], 4.5).better is None


def test_a_button_that_fails_is_offered_a_shade_darker() -> None:
    found = reading("p6", "Button", "button", "#d9742c", [WHITE], 4.5)
    assert not found.passes
    assert found.better is not None
    assert sum(rgb(found.better)) < sum(rgb("#d9742c"))


def test_a_few_odd_pixels_do_not_make_a_picture_unreadable_but_a_light_fifth_does() -> None:
    assert worst_contrast(WHITE, [BLACK] * 95 + [WHITE] * 5) == 21
    assert worst_contrast(WHITE, [BLACK] * 80 + [WHITE] * 20) == 1


def test_a_wash_and_brightness_change_what_is_behind() -> None:
    assert mixed(WHITE, BLACK, 0.5) == (128, 128, 128)
    assert brightened((100, 200, 50), 50) == (150, 255, 75)
    assert brightened((100, 200, 50), 0) == (100, 200, 50)


def test_a_wide_box_shows_the_part_of_a_picture_around_its_focus() -> None:
    rows = [[(row, column, 0) for column in range(4)] for row in range(8)]
    assert {row for row, _, _ in cropped(rows, 2.0, 50, 0)} == {0, 1}
    assert {row for row, _, _ in cropped(rows, 2.0, 50, 100)} == {6, 7}
    assert {column for _, column, _ in cropped(rows, 0.25, 100, 50)} == {2, 3}


def test_a_picture_with_an_even_edge_is_boxed_in_its_background() -> None:
    box = [[WHITE] * 5 for _ in range(5)]
    assert not boxed_in(box)
    box[2][2] = (200, 30, 30)
    assert boxed_in(box)
    box[0][0] = (0, 90, 0)
    assert not boxed_in(box)


def test_the_share_of_a_phone_never_passes_the_whole() -> None:
    assert covered(375, 333.5) == 0.5
    assert covered(900, 2000) == 1
    with pytest.raises(ValueError, match="some width"):
        covered(1, 1, 0, 0)


@pytest.mark.parametrize("nonsense", ["red", "#fff", "", "123456"])
def test_nonsense_is_no_colour(nonsense: str) -> None:
    with pytest.raises(ValueError, match="not a colour"):
        rgb(nonsense)
