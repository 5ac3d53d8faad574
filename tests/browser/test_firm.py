"""A firm's own: a unit at the door with few touches, cards of two people at once, one search, lists in, on a real page."""

import io
import time

from PIL import Image, ImageDraw
from playwright.sync_api import expect

from tests.served import queue_beside

MOST_TOUCHES, MOST_S = 25, 60

COUNTS = """() => {
    window.touches = 0
    for (const kind of ['pointerdown', 'keydown'])
        document.addEventListener(kind, (e) => (window.touches += kind === 'pointerdown' || e.key.length === 1), true)
}"""


def plate(tmp_path):
    """A picture of a plate, as a phone takes it."""
    picture = Image.new("RGB", (900, 500), "silver")
    draw = ImageDraw.Draw(picture)
    for row, text in enumerate(("NORVANE", "MODEL HEARTH 70", "SERIAL NO. N70-55555")):
        draw.text((60, 80 + 110 * row), text, fill="black", font_size=60)
    file = tmp_path / "plate.jpg"
    picture.save(file)
    return file


def test_a_unit_is_made_at_the_door_with_a_thumb(sign_in, tmp_path):
    page = sign_in("tove", width=390, height=844)
    file = plate(tmp_path)
    page.evaluate(COUNTS)
    begun = time.monotonic()
    page.click("button:text-is('Find')")
    page.keyboard.type("orrin")
    page.click("[role=option]:has(b:text-is('Orrin Street Music School'))")
    page.click("a:text-is('A new unit here')")
    page.click("button:has-text('F-1 · Stage room')")
    page.click(".chip:text-is('F-5')")
    page.fill("input[name=door_place]", "Porch")
    page.evaluate("window.touches += 5")  # `fill` presses no key: as many as the word has letters
    page.set_input_files("input[type=file]", file)
    page.evaluate("window.touches += 3")  # the camera's own: open, shoot, take
    page.click("button:has-text('Make this unit')")
    page.wait_for_selector("header h1:has-text('F-5')")
    assert page.evaluate("window.touches") <= MOST_TOUCHES
    assert time.monotonic() - begun < MOST_S
    page.click("a:text-is('Its card')")
    expect(page.locator("img[alt='The plate']")).to_be_visible()
    expect(page.locator("input[name=label]")).to_have_value("F-5")


def test_a_field_that_cannot_be_says_so_where_it_was_entered(sign_in):
    page = sign_in("wenna")
    page.click("nav a:text-is('Kept')")
    page.click("a:text-is('New site')")
    page.fill("input[name=name]", "Weir House")
    page.fill("input[name=altitude_m]", "high up")
    page.click("button:text-is('Make this site')")
    field = page.locator(".n-form-item:has(input[name=altitude_m])")
    expect(field).to_contain_text("“high up” is no number")
    expect(page.locator("input[name=name]")).to_have_value("Weir House")
    page.fill("input[name=altitude_m]", "5050")
    page.click("button:text-is('Make this site')")
    expect(page.locator("h2").first).to_have_text("Weir House")
    expect(page.locator(".card:has-text('What became of it')")).to_contain_text("Wenna Harrowick")


def test_two_change_one_card_and_the_second_sees_what_changed(sign_in):
    first, second = sign_in("wenna"), sign_in("odo")
    for page in (first, second):
        page.click("nav a:text-is('Kept')")
        page.wait_for_selector("input[name=card_find]")
        page.click("main li a:has-text('Ferncliff')")
        page.wait_for_selector("input[name=hours]")
    first.fill("input[name=hours]", "9 to 5")
    first.click("button:text-is('Keep the changes')")
    expect(first.locator("[role=status]")).to_contain_text("Kept")
    second.fill("input[name=hours]", "ring first")
    second.click("button:text-is('Keep the changes')")
    expect(second.locator("[role=alert]")).to_contain_text("Somebody changed this card")
    expect(second.locator(".moved")).to_contain_text("“9 to 5” now, by Wenna Harrowick")
    expect(second.locator("input[name=hours]")).to_have_value("ring first")
    second.click("button:text-is('Keep the changes')")
    expect(second.locator("[role=status]")).to_contain_text("Kept")


def test_one_field_finds_it_with_the_keyboard_alone(sign_in):
    page = sign_in("tove")
    page.keyboard.press("Control+k")
    page.keyboard.type("twin 80")
    expect(page.locator("[role=option]").first).to_contain_text("F-2 · East cellar")
    page.keyboard.press("Enter")
    page.wait_for_selector("header h1:has-text('F-2')")
    page.keyboard.press("Control+k")
    page.keyboard.type("wasp nest")
    expect(page.locator("[role=option]").first).to_contain_text("B-1")
    page.keyboard.press("Enter")
    page.wait_for_selector("[data-station]")
    page.keyboard.press("Control+k")
    page.keyboard.type("xyzzy nothing")
    expect(page.locator(".find .found")).to_contain_text("Nothing has all of these words")


LIST = """Site,Tag,Place,Model,Serial number
Orrin Street Music School,F-7,Attic,Norvane Hearth 70,N70-77777
Orrin Street Music School,F-1,Stage hall,Norvane Hearth 70,N70-03318
Nowhere,F-1,Hall,Norvane Hearth 70,
"""


def test_a_list_is_looked_through_taken_in_and_taken_back(sign_in, server):
    page = sign_in("odo")
    with queue_beside(server):
        page.goto(f"{server.url}/kept/lists")
        page.wait_for_selector("input[type=file]", state="attached")
        page.set_input_files(
            "input[type=file]",
            {"name": "units.csv", "mimeType": "text/csv", "buffer": io.BytesIO(LIST.encode()).read()},
        )
        page.click("button:text-is('Look through it')")
        expect(page.locator(".sum")).to_contain_text("1 new · 1 changed · 0 the same · 1 unclear")
        expect(page.locator("li:has-text('Nowhere')")).to_contain_text("was not found, or several have that name")
        page.click("button:text-is('Take it in')")
        expect(page.locator(".sum")).to_contain_text("1 made, 1 changed, 1 left alone")
        page.click("button:text-is('Take it back, as one')")
        expect(page.locator(".sum")).to_contain_text("Taken back: 1 retired, 1 as they were")
