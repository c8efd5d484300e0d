"""On pages that are not ours: style sheets, names, keys, dialogs and faults of the page that a touchpoint stands on."""

import re
from typing import Any

import pytest
from playwright.sync_api import BrowserContext, expect

from scripts.cluster import ROOT
from scripts.stack import Stack
from tests.waiting import until

from .pages.site import by_hand, on_a_page, planned, settled, until_still

HELD = "getComputedStyle(document.documentElement).overflow"
ASK = "Something you want to know?"


@pytest.mark.parametrize(
    "css",
    [
        "div:empty,body>*:empty{display:none}",
        "body>div,body>:not(main){position:static;float:left;width:1px;height:1px;overflow:hidden;opacity:0;transform:scale(.1)}",
        "*{letter-spacing:9px!important;visibility:hidden!important;text-transform:uppercase!important;color:red!important}",
    ],
)
def test_a_style_sheet_of_the_page_does_not_reach_in(
    stranger: BrowserContext, stack: Stack, css: str
) -> None:
    page = on_a_page(stranger, stack, css=css)
    page.evaluate("intavo.open('boathouse-question')")
    heading = page.get_by_role("dialog").get_by_role("heading", name=ASK)
    expect(heading).to_be_visible()
    assert heading.evaluate(
        "h => [getComputedStyle(h).letterSpacing, getComputedStyle(h).textTransform]"
    ) == [
        "normal",
        "none",
    ]
    box = page.get_by_role("dialog").bounding_box()
    assert box is not None
    assert box["width"] > 250


def test_what_cannot_be_seen_never_holds_the_page(stranger: BrowserContext, stack: Stack) -> None:
    page = on_a_page(stranger, stack)
    page.evaluate(
        """() => new MutationObserver(() => document.querySelectorAll('[data-intavo-touchpoint]')
        .forEach((one) => one.inert ||= true)).observe(document.documentElement, { childList: true })"""
    )
    page.evaluate("intavo.open('boathouse-question')")
    expect(page.get_by_role("dialog")).to_have_count(0)
    assert page.evaluate(HELD) != "hidden"


def test_nothing_of_ours_is_printed(stranger: BrowserContext, stack: Stack) -> None:
    page = on_a_page(stranger, stack)
    button = page.locator("[data-intavo-touchpoint=button] .face").first
    expect(button).to_be_visible()
    page.emulate_media(media="print")
    expect(button).to_be_hidden()


def test_an_element_of_the_page_may_have_our_name(stranger: BrowserContext, stack: Stack) -> None:
    page = on_a_page(stranger, stack, body='<div id="intavo"></div><div id="x" name="intavo"></div>')
    page.evaluate("intavo.open('boathouse-question')")
    expect(page.get_by_role("dialog")).to_be_visible()


def test_its_address_is_the_name_of_a_place_as_any_page_takes_it(
    stranger: BrowserContext, stack: Stack
) -> None:
    page = on_a_page(
        stranger, stack, script="addEventListener('load', () => document.querySelector(location.hash || 'a'))"
    )
    page.goto(f"{stack.site_url}/contact#intavo-boathouse-question")
    page.reload()
    expect(page.get_by_role("dialog").get_by_role("heading", name=ASK)).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.evaluate(
        "document.body.insertAdjacentHTML('afterbegin', '<a href=\"#intavo-boathouse-question\">Ask</a>')"
    )
    page.get_by_role("link", name="Ask", exact=True).click()
    expect(page.get_by_role("dialog")).to_be_visible()


def test_a_slot_may_hold_words_of_its_own(stranger: BrowserContext, stack: Stack) -> None:
    page = on_a_page(
        stranger,
        stack,
        body="""<div id="one" data-intavo="boathouse-question"> <!-- here --> <p>Write to us.</p></div>
        <div id="two" data-intavo="nothing-of-this-name"><p>Call us.</p></div>""",
    )
    expect(page.locator("#one").get_by_role("heading", name=ASK)).to_be_visible()
    expect(page.get_by_text("Write to us.")).to_have_count(0)
    expect(page.get_by_text("Call us.")).to_be_visible()


@pytest.mark.parametrize("slot", ["", '<div data-intavo="boathouse-question"></div>'])
def test_what_is_typed_is_none_of_the_pages_shortcuts(
    stranger: BrowserContext, stack: Stack, slot: str
) -> None:
    listens = """window.pressed = []; for (const name of ['keydown', 'keypress', 'keyup'])
        document.addEventListener(name, (event) => pressed.push(event.key))"""
    page = on_a_page(stranger, stack, body=slot, script=listens)
    if not slot:
        page.evaluate("intavo.open('boathouse-question')")
    place = page.locator("[data-intavo]") if slot else page.get_by_role("dialog")
    field = place.get_by_role("textbox").first
    field.focus()
    page.keyboard.type("s/?k")
    expect(field).to_have_value("s/?k")
    assert page.evaluate("pressed") == []
    if not slot:
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_have_count(0)


def test_closed_at_once_and_opened_again_it_stays(stranger: BrowserContext, stack: Stack) -> None:
    page = on_a_page(stranger, stack)
    page.evaluate("intavo.open('boathouse-question')")
    expect(page.get_by_role("dialog")).to_be_visible()
    page.evaluate("intavo.close(); intavo.open('boathouse-question')")
    settled(page)
    expect(page.get_by_role("dialog")).to_have_count(1)


_OVER_ALL = "position: fixed; inset: 0; z-index: 1050; background: #0008"
DIALOGS = {
    "native": ("<dialog id=theirs>Cookies</dialog>", "theirs.showModal()", "theirs.close()"),
    "says nothing of being modal": (
        f"<div id=theirs role=dialog style='{_OVER_ALL}; display: none'><p>Our offers</p></div>",
        "theirs.style.display = 'block'",
        "theirs.style.display = 'none'",
    ),
    "the second of two": (
        "<div role=dialog aria-modal=true style='display: none'>Another</div>"
        "<div id=theirs role=dialog aria-modal=true style='position: fixed; left: 0; visibility: hidden'>Menu</div>",
        "theirs.style.visibility = 'visible'",
        "theirs.style.visibility = 'hidden'",
    ),
}


@pytest.mark.parametrize("kind", DIALOGS)
def test_it_waits_for_a_dialog_of_the_page(stranger: BrowserContext, stack: Stack, kind: str) -> None:
    html, opens, closes = DIALOGS[kind]
    page = by_hand(stranger, stack)
    page.wait_for_load_state("networkidle")
    page.evaluate("(html) => document.body.insertAdjacentHTML('beforeend', html)", html)
    page.evaluate(opens)
    page.clock.run_for(14_000)
    expect(page.locator("[data-intavo-touchpoint=pop-up]")).to_have_count(0)
    # What is there and not seen keeps nothing back.
    page.evaluate(closes)
    page.clock.run_for(1_000)
    expect(page.get_by_role("dialog", name=re.compile("safe paddling hours"))).to_be_visible()


@pytest.mark.parametrize("at", ["unfolded", "filled in"])
def test_what_a_visitor_is_at_is_not_interrupted(stranger: BrowserContext, stack: Stack, at: str) -> None:
    page = stranger.new_page()
    page.clock.install()
    with page.expect_response(re.compile("/plan$")):
        page.goto(f"{stack.site_url}/contact")
    page.wait_for_load_state("networkidle")
    question = page.get_by_role("dialog", name=ASK)
    if at == "unfolded":
        page.get_by_role("button", name="Reach us").click()
        expect(page.get_by_role("link", name=re.compile("Call us"))).to_be_visible()
    else:
        page.evaluate(
            "document.body.insertAdjacentHTML('afterbegin', '<div data-intavo=\"call-me-back\"></div>')"
        )
        page.locator("[data-intavo]").get_by_role("textbox").first.press_sequentially("07700")
    page.clock.run_for(25_000)
    expect(question).to_have_count(0)
    if at == "unfolded":
        page.keyboard.press("Escape")
    else:
        # Two minutes after the last letter it was left.
        page.clock.run_for(120_000)
    page.clock.run_for(1_000)
    expect(question).to_be_visible()


WRITTEN_IN = {
    "a field": "<input id=theirs>",
    "a text": "<textarea id=theirs></textarea>",
    "a page that is written in": "<div id=theirs contenteditable>Dear Sirs</div>",
    "a frame": "<iframe id=theirs srcdoc='<input autofocus>'></iframe>",
    "an element of its own": "<their-field id=theirs></their-field>",
}
_OWN_ELEMENT = """customElements.define('their-field', class extends HTMLElement {
  connectedCallback() { this.attachShadow({ mode: 'open' }).innerHTML = '<input>' }
  focus() { this.shadowRoot.firstElementChild.focus() }
})"""


@pytest.mark.parametrize("where", WRITTEN_IN)
def test_whoever_writes_in_a_form_of_the_page_is_not_interrupted(
    stranger: BrowserContext, stack: Stack, where: str
) -> None:
    page = by_hand(stranger, stack)
    page.wait_for_load_state("networkidle")
    page.evaluate(_OWN_ELEMENT)
    page.evaluate("(html) => document.body.insertAdjacentHTML('afterbegin', html)", WRITTEN_IN[where])
    page.evaluate("theirs.focus()")
    page.keyboard.type("Two kayaks, please")
    page.clock.run_for(14_000)
    page.keyboard.type(" and one canoe")
    expect(page.locator("[data-intavo-touchpoint=pop-up]")).to_have_count(0)
    page.evaluate("document.activeElement.blur()")
    page.clock.run_for(1_000)
    expect(page.get_by_role("dialog", name=re.compile("safe paddling hours"))).to_be_visible()


def test_a_search_box_that_nobody_writes_in_keeps_nothing_back(
    stranger: BrowserContext, stack: Stack
) -> None:
    page = by_hand(stranger, stack)
    page.evaluate(
        "document.body.insertAdjacentHTML('afterbegin', '<input id=theirs autofocus placeholder=Search>')"
    )
    page.evaluate("theirs.focus()")
    page.clock.run_for(14_000)
    expect(page.get_by_role("dialog", name=re.compile("safe paddling hours"))).to_be_visible()


# What takes ours from a page, again and again, or puts it where nobody sees it.
TAKERS = {
    "taken out": """() => { const off = () =>
        document.querySelectorAll('html>[data-intavo-touchpoint]').forEach((one) => one.remove())
      new MutationObserver(off).observe(document.documentElement, { childList: true })
      off() }""",
    "hidden": """() => { const box = document.createElement('div')
      box.hidden = true
      document.body.append(box)
      box.append(...document.querySelectorAll('html>[data-intavo-touchpoint]')) }""",
}


@pytest.mark.parametrize(
    ("slug", "held"), [("boathouse-question", "overflow"), ("group-booking", "paddingTop")]
)
@pytest.mark.parametrize("how", TAKERS)
def test_a_page_that_takes_ours_away_is_held_by_nothing(
    stranger: BrowserContext, stack: Stack, how: str, slug: str, held: str
) -> None:
    page = on_a_page(stranger, stack)
    page.evaluate(f"intavo.open('{slug}')")
    page.wait_for_function(f"document.documentElement.style.{held}")
    page.evaluate(TAKERS[how])
    page.wait_for_function(f"!document.documentElement.style.{held}")


def test_where_the_page_has_broken_the_browsers_watch_it_can_be_closed(
    stranger: BrowserContext, stack: Stack
) -> None:
    stranger.add_init_script("window.IntersectionObserver = function () { throw new Error('theirs') }")
    page = on_a_page(stranger, stack)
    page.evaluate("intavo.open('boathouse-question')")
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Your question").fill("Is there a canoe?")
    dialog.get_by_role("button", name="Close").click()
    expect(dialog).to_have_count(0)
    assert page.evaluate(HELD) != "hidden"


def test_without_the_second_file_nothing_stands_there_naked(stranger: BrowserContext, stack: Stack) -> None:
    stranger.route("**/static/touch/more.js", lambda route: route.abort())
    page = on_a_page(stranger, stack)
    page.evaluate("intavo.open('boathouse-question')")
    settled(page)
    expect(page.locator("[data-intavo-touchpoint]")).to_have_count(0)
    assert page.evaluate(HELD) != "hidden"


@pytest.mark.parametrize("phone", ["", "no number"])
def test_an_answer_that_hangs_is_kept_and_they_are_told_what_became_of_it(
    stranger: BrowserContext, stack: Stack, phone: str
) -> None:
    page = on_a_page(stranger, stack)
    stranger.route("**/intake", lambda route: None)
    page.evaluate("intavo.open('boathouse-question')")
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Your question").fill("Is there a canoe?")
    dialog.get_by_label("Your email").fill("ife@post.example")
    dialog.get_by_label(re.compile("phone", re.I)).fill(phone)
    dialog.get_by_role("button", name=re.compile("send|ask", re.I)).first.click()
    kept = dialog.get_by_text("What you wrote is kept and sent later.")
    expect(kept).to_be_visible()
    stranger.unroute("**/intake")
    expect(kept).to_have_count(0)
    if phone:
        expect(dialog.get_by_text("This does not look like a phone number.")).to_be_visible()
    else:
        expect(dialog.get_by_role("textbox")).to_have_count(0)


def test_one_that_the_page_takes_out_as_it_comes_is_not_taken_for_unseen(
    stranger: BrowserContext, stack: Stack
) -> None:
    page = on_a_page(stranger, stack)
    page.evaluate(
        """() => {
          intavo.open('boathouse-question')
          let until = 0
          const off = () => {
            for (const one of document.querySelectorAll('[data-intavo-touchpoint=pop-up]')) {
              until ||= performance.now() + 700
              one.remove()
            }
            if (!until || performance.now() < until) setTimeout(off, 20)
          }
          off()
        }"""
    )
    expect(page.get_by_role("dialog").get_by_label("Your question")).to_be_visible()
    until_still(page)
    expect(page.get_by_role("dialog").get_by_label("Your question")).to_be_visible()


BUTTON = "[data-intavo-touchpoint=button]"


@pytest.mark.parametrize(
    "swap",
    [
        "document.body.innerHTML += '<p>more</p>'",
        "document.body.replaceWith(document.body.cloneNode(true))",
        "document.documentElement.replaceChildren(...[...document.documentElement.children].filter((one) => !one.shadowRoot))",
    ],
)
def test_a_body_that_is_swapped_takes_nothing_with_it(
    stranger: BrowserContext, stack: Stack, swap: str
) -> None:
    page = on_a_page(stranger, stack, body='<div id="slot" data-intavo="tide-table"></div>')
    expect(page.locator("#slot").get_by_role("textbox").first).to_be_visible()
    buttons = page.locator(f"{BUTTON} .face").count()
    page.evaluate("intavo.open('boathouse-question')")
    page.get_by_role("dialog").get_by_label("Your question").fill("Is there a canoe?")
    page.evaluate(swap)
    expect(page.get_by_role("dialog").get_by_label("Your question")).to_have_value("Is there a canoe?")
    expect(page.locator(f"{BUTTON} .face")).to_have_count(buttons)
    expect(page.locator("#slot").get_by_role("textbox").first).to_be_attached()
    assert page.evaluate(
        "[...document.querySelectorAll('[data-intavo-touchpoint]')].every((one) => one.shadowRoot)"
    )
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    assert page.evaluate(HELD) != "hidden"


def test_a_route_in_the_hash_is_a_page_and_what_is_replaced_while_they_scroll_is_none(
    stranger: BrowserContext, stack: Stack
) -> None:
    stranger.clock.install()
    page = on_a_page(stranger, stack, body='<div style="height:4000px"></div>', moved_by_hand=True)
    asked: list[str] = []
    page.on(
        "request",
        lambda one: asked.append(one.post_data_json["page"]["url"]) if one.url.endswith("/plan") else None,
    )
    for go in (
        "location.hash = '#section'",
        "scrollTo(0, 900)",
        "history.replaceState({}, '', '/contact/further')",
    ):
        page.evaluate(go)
        settled(page)
    page.clock.run_for(5_000)
    page.evaluate("fetch('/contact')")
    assert asked == []
    for go, path in (
        ("location.hash = '#/boats'", "/contact/further#/boats"),
        ("history.pushState({}, '', '/hire')", "/hire"),
        ("history.replaceState({}, '', '/trips')", "/trips"),
        ("history.back()", "/contact/further#/boats"),
    ):
        with page.expect_response(re.compile("/plan$")):
            page.evaluate(go)
            page.clock.run_for(1_000)
        page.clock.run_for(1_000)
        assert asked[-1].endswith(path)
    assert page.evaluate("history.pushState.toString()") == "function pushState() { [native code] }"


def test_what_the_server_refuses_of_the_memory_is_dropped_and_asked_for_without_it(
    stranger: BrowserContext, stack: Stack
) -> None:
    stranger.add_init_script(
        """for (const name of Object.keys(localStorage)) { const found = JSON.parse(localStorage[name])
        found.visit_started = 'today'; found.pages_ever = -4; found.touchpoints = { tp_x: { last_shown: 'never' } }
        localStorage[name] = JSON.stringify(found) }"""
    )
    page = stranger.new_page()
    answers: list[int] = []
    page.on("response", lambda one: answers.append(one.status) if one.url.endswith("/plan") else None)
    for _ in range(2):
        page.goto(f"{stack.site_url}/contact")
        expect(page.locator(f"{BUTTON} .face").first).to_be_visible()
    assert answers[-2:] == [422, 200]


@pytest.mark.parametrize("names", ["", "; trusted-types intavo", "; trusted-types other"])
def test_a_page_that_takes_markup_only_of_named_policies(
    stranger: BrowserContext, stack: Stack, names: str
) -> None:
    script = f"""new MutationObserver((_, seen) => {{ if (!document.head) return; seen.disconnect()
      const meta = document.createElement('meta'); meta.httpEquiv = 'Content-Security-Policy'
      meta.content = "require-trusted-types-for 'script'{names}"; document.head.append(meta) }}).observe(document, {{ childList: true, subtree: true }})"""
    stranger.add_init_script(script)
    page = stranger.new_page()
    wrong: list[Any] = []
    page.on("pageerror", lambda error: wrong.append(error))  # Playwright asks for a function of our own
    page.goto(f"{stack.site_url}/trips")
    page.wait_for_function("window.intavo")
    assert (
        page.evaluate(
            "(() => { try { document.createElement('p').innerHTML = 'x' } catch { return 'held' } })()"
        )
        == "held"
    )
    page.evaluate("intavo.open('tide-table')")
    dialog = page.get_by_role("dialog")
    expect(dialog.locator(".text").first).to_contain_text(re.compile(r"\w"))
    assert "<" not in (dialog.locator(".text").first.text_content() or "")
    assert (
        dialog.locator(".cross").evaluate("(one) => getComputedStyle(one, '::before').borderTopWidth")
        == "2px"
    )
    assert wrong == []


def test_places_that_the_page_draws_later_are_filled_with_one_more_plan(
    stranger: BrowserContext, stack: Stack
) -> None:
    page = on_a_page(stranger, stack)
    asked: list[Any] = []
    page.on("request", lambda one: asked.append(one.post_data_json) if one.url.endswith("/plan") else None)
    names = ("boathouse-question", "tide-table", "nothing-of-this-name")
    slots = "".join(f'<div data-intavo="{one}"><p>Call us.</p></div>' for one in names)
    page.evaluate(f"document.body.insertAdjacentHTML('beforeend', `{slots}`)")
    expect(page.locator("[data-intavo=tide-table]").get_by_role("textbox").first).to_be_attached()
    expect(page.locator("[data-intavo=boathouse-question]").get_by_role("textbox").first).to_be_attached()
    expect(page.get_by_text("Call us.")).to_have_count(1)
    page.evaluate("document.body.append('more')")
    until_still(page)
    assert [one["slots"] for one in asked if one.get("open")] == [list(names)]


@pytest.mark.parametrize(
    "css",
    [
        "body{transform:translateX(0)}",
        "body{filter:grayscale(0)}",
        "html{display:grid;gap:60px} body{will-change:transform}",
    ],
)
def test_a_body_that_is_moved_or_filtered_moves_nothing_of_ours(
    stranger: BrowserContext, stack: Stack, css: str
) -> None:
    page = on_a_page(stranger, stack, css=css, body='<div style="height:3000px"></div>')
    page.evaluate("scrollTo(0, 1200)")
    box = page.locator(f"{BUTTON} .face").first.bounding_box()
    size = page.viewport_size
    assert box is not None
    assert size is not None
    assert size["height"] - 160 < box["y"] + box["height"] <= size["height"]


def test_a_button_stands_beside_one_of_the_pages_own(stranger: BrowserContext, stack: Stack) -> None:
    css = "#theirs{position:fixed;right:16px;bottom:16px;width:64px;height:64px;background:#246}"
    page = on_a_page(
        stranger, stack, css=css + "#theirs+#theirs{right:auto;left:16px}", body="<a id=theirs></a>" * 2
    )
    until_still(page)
    for face in page.locator(f"{BUTTON} .face").all():
        for theirs in page.locator("#theirs").all():
            one, other = face.bounding_box(), theirs.bounding_box()
            assert one is not None
            assert other is not None
            apart = one["x"] >= other["x"] + other["width"] or other["x"] >= one["x"] + one["width"]
            assert apart or one["y"] + one["height"] <= other["y"]


def test_what_the_page_does_once_it_is_loaded_does_not_wait_for_the_second_file(
    stranger: BrowserContext, stack: Stack
) -> None:
    asked: list[str] = []
    stranger.route("**/static/touch/more.js", lambda route: asked.append(route.request.url))  # and it hangs
    page = stranger.new_page()
    page.goto(f"{stack.site_url}/contact", wait_until="load")
    until(lambda: page.evaluate("1") and asked, "the second file is asked for")


def test_a_second_file_that_hangs_holds_up_no_plan_for_long(stranger: BrowserContext, stack: Stack) -> None:
    def asks_of_the_page(plan: dict[str, Any]) -> None:
        plan["wants"] = {"kinds": True, "signed_in": ""}
        for entry in plan["touchpoints"]:
            entry["moments"] = [[{"after": 0}]] if entry["slug"] == "boathouse-question" else []
            entry["needs_more"] = False

    planned(stranger, asks_of_the_page)
    stranger.route("**/static/touch/more.js", lambda route: None)
    page = stranger.new_page()
    page.clock.install()
    with page.expect_request("**/static/touch/more.js"):
        page.goto(f"{stack.site_url}/contact")
    page.clock.run_for(2_000)
    expect(page.get_by_role("dialog")).to_have_count(0)

    def there() -> bool:
        page.clock.run_for(1_000)
        return page.get_by_role("dialog").is_visible()

    until(there, "it comes without the second file", seconds=30)


@pytest.mark.parametrize(
    ("again", "words"),
    [
        ("", None),
        ("type", None),
        ("inlined", "loaded from elsewhere"),
        ("other", "loaded twice"),
        ("same", None),
    ],
)
def test_however_it_is_put_on_a_page_it_works_or_says_why(
    stranger: BrowserContext, stack: Stack, again: str, words: str | None
) -> None:
    page = stranger.new_page()
    said: list[str] = []
    page.on("console", lambda one: said.append(one.text) if "Intavo" in one.text else None)
    if again == "type":
        page.add_init_script(
            """new MutationObserver(() => document.querySelector('script[src*="/e/"]')?.setAttribute('type', 'module'))
            .observe(document, { childList: true, subtree: true })"""
        )
    page.goto(f"{stack.site_url}/contact")
    page.wait_for_function("window.intavo")
    address = page.locator('script[src*="/e/"]').first.get_attribute("src") or ""
    put = "(src) => { const made = document.createElement('script'); made.src = src; document.head.append(made) }"
    loader = ROOT / "visitor-script/dist/loader.js"
    stranger.route(
        "**/e/an0ther0key.js", lambda route: route.fulfill(path=loader, content_type="text/javascript")
    )
    if again in {"same", "other"}:
        page.evaluate(
            put, address if again == "same" else address.replace(stack.names.site_key, "an0ther0key")
        )
    if again == "inlined":
        page.evaluate(
            """async (src) => { const text = await (await fetch(src)).text()
            document.querySelectorAll('script').forEach((one) => one.remove()); delete window.intavo
            document.head.append(Object.assign(document.createElement('script'), { textContent: text })) }""",
            address,
        )
    page.wait_for_load_state("networkidle")
    settled(page)
    assert [words in one for one in said] == ([True] if words else [])
    if again != "inlined":
        page.evaluate("intavo.open('tide-table')")
        expect(page.get_by_role("dialog")).to_have_count(1)
