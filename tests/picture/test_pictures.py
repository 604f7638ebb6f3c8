"""Pictures: true to the scene, complete in themselves, and with the study inside."""

import base64
import json
import re
import struct
import unittest
import xml.etree.ElementTree as ET
import zlib
from pathlib import Path

import numpy as np

from axis_path.core import Study, Window
from axis_path.picture import Format, Look, PictureError, draw_svg, make_picture, study_in
from axis_path.picture.palette import DARK, DASHES, LIGHT

WINDOW = Window((-10, 10), (-6.5, 6.5), 660, 430)
LINES = ("f(x) = x^2/8 - 3", "g(x) = 3 sin(2x)/x", "r(theta) = 3 + sin(5theta)", "wall: x^2/49 + y^2/25 = 1",
         "reg: y > 4 - x", "A = (2, 3)", "L = [(1, 2), (3, 4)]", "d(x, y) = x y", "h(x) = 9 sin(900x)")  # fmt: skip
STATIC = Path(__file__).resolve().parent.parent.parent / "src/axis_path/web/static"


def study() -> Study:
    made = Study()
    for line in LINES:
        made.define(line)
    axes = {"legend": True, "title": "Tern Quay <&>\nbeam", "grid": "polar", "x": {"labels": "pi"}}
    made.apply({"do": "axes", "axes": axes}, WINDOW)
    made.apply({"do": "check", "line": 1, "count": "5", "step": ""}, WINDOW)
    made.apply({"do": "style", "id": 1, "style": {"weight": 3, "stroke": 2}}, WINDOW)
    return made


def pixels(png: bytes) -> np.ndarray:
    """Read the pixels of a PNG with 8 bits a channel and alpha; enough for our own."""
    at, found, size = 8, b"", (0, 0)
    while at < len(png):
        length, kind = struct.unpack(">I4s", png[at : at + 8])
        body = png[at + 8 : at + 8 + length]
        if kind == b"IHDR":
            size = struct.unpack(">II", body[:8])
        found += body if kind == b"IDAT" else b""
        at += 12 + length
    width, height = size
    raw = np.frombuffer(zlib.decompress(found), np.uint8).reshape(height, 1 + 4 * width)
    lines = np.zeros((height + 1, width + 1, 4), np.int64)
    for y in range(height):
        kind, line = raw[y, 0], raw[y, 1:].reshape(width, 4)
        for x in range(width):
            left, up, corner = lines[y + 1, x], lines[y, x + 1], lines[y, x]
            guess = left + up - corner
            choices = np.stack([left, up, corner])
            nearest = choices[np.abs(choices - guess).argmin(axis=0), np.arange(4)]
            add = (0, left, up, (left + up) // 2, nearest)[kind]
            lines[y + 1, x + 1] = (line[x] + add) % 256
    return lines[1:, 1:]


class PictureTest(unittest.TestCase):
    def setUp(self) -> None:
        self.study = study()
        self.scene = self.study.scene(WINDOW, reading_x=1).to_dict()

    def test_a_study_is_read_back_from_every_picture_format(self) -> None:
        for form, head in ((Format.SVG, b"<svg"), (Format.PNG, b"\x89PNG"), (Format.PDF, b"%PDF")):
            with self.subTest(form):
                made = make_picture(self.scene, self.study.to_dict(), form, Look())
                self.assertTrue(made.data.startswith(head))
                again = Study.from_dict(study_in(made.data))
                self.assertEqual(self.study.to_dict(), again.to_dict())
        plain = json.dumps(self.study.to_dict()).encode()
        self.assertEqual(self.study.to_dict(), study_in(plain))

    def test_pdf_of_before_version_2_opens(self) -> None:
        """A PDF carried its study in a comment at its end, before it was an attached file."""
        carried = base64.b64encode(json.dumps(self.study.to_dict()).encode())
        for head in (make_picture(self.scene, {}, Format.PDF, Look()).data, b"%PDF-1.7\n%%EOF\n"):
            old = head + b"%axis-path-study " + carried + b"\n"
            self.assertEqual(self.study.to_dict(), study_in(old))

    def test_damaged_pdf_has_no_study(self) -> None:
        whole = make_picture(self.scene, self.study.to_dict(), Format.PDF, Look()).data
        for cut in (9, len(whole) // 2, len(whole) - 400):
            with self.subTest(cut), self.assertRaises(PictureError):
                study_in(whole[:cut])

    def test_a_file_without_a_study_is_refused_in_words(self) -> None:
        png = make_picture(self.scene, {}, Format.PNG, Look()).data
        damaged = png[: len(png) // 2]
        bomb = b"\x89PNG\r\n\x1a\n" + struct.pack(">I", 10) + b"zTXtaxis-path-study\0\0"
        for data in (b"", b"<svg></svg>", b"%PDF-1.7", b"\xff\xfe", damaged, bomb, b"\0" * 1000):
            with self.subTest(data[:12]), self.assertRaises(PictureError):
                study_in(data)
        with self.assertRaises(PictureError):
            make_picture(self.scene, {}, Format.PNG, Look(), scale=99)

    def test_an_svg_is_well_formed_and_needs_nothing_from_outside(self) -> None:
        svg = draw_svg(self.scene, Look(with_reading=True), metadata="<&>")
        tree = ET.fromstring(svg)
        self.assertEqual("660", tree.get("width"))
        links = re.findall(r'(?:href=|url\()["\']?([^"\')\s]+)', svg)
        self.assertTrue(all(link.startswith(("#", "data:")) for link in links))
        for text in ("Tern Quay &lt;&amp;&gt;", "beam", "−π", "π/2"):
            self.assertIn(text, svg)
        ids = re.findall(r' id="([^"]+)"', svg)
        self.assertGreaterEqual(set(ids), set(re.findall(r'href="#([^"]+)"', svg)))

    def test_data_and_their_error_bars_are_in_the_picture(self) -> None:
        made = Study()
        for name, cells in (("v", [1, 3]), ("u", [2, 4]), ("e", [1, 0.5])):
            made.column(name, cells)
        made.apply({"do": "plot", "x": "v", "y": "u", "y_error": "e"}, WINDOW)
        scene = made.scene(WINDOW).to_dict()
        svg = draw_svg(scene)
        (data,) = scene["data"]
        for k in (0, 2):
            x, y = (tenths / 10 for tenths in data["points"][k : k + 2])
            self.assertIn(f"M{x - 3:g} {y:g}h6m-3 -3v6", svg)
        for x, low, _, high in data["y_bars"]:
            self.assertIn(f"M{x / 10 - 3:g} {low / 10:g}h6m-3 0V{high / 10:g}", svg)

    def test_curves_stand_where_the_scene_has_them(self) -> None:
        svg = draw_svg(self.scene)
        row = self.scene["rows"][0]
        first = row["curve"]["pieces"][0]
        self.assertIn(
            f"M{first[0] / 10:g} {first[1] / 10:g}L{first[2] / 10:g} {first[3] / 10:g}", svg
        )
        self.assertIn('stroke-width="4"', svg)

    def test_a_png_shows_the_colours_of_the_screen(self) -> None:
        made = Study()
        made.define("f(x) = 2")
        small = Window((-10, 10), (-6.5, 6.5), 120, 80)
        teal, bright = (11, 107, 107), (79, 195, 189)
        for look, paper, tone in (
            (Look(), (255, 253, 246), teal),
            (Look(is_white=True), (255, 255, 255), teal),
            (Look(is_dark=True), (22, 29, 32), bright),
            (Look(is_white=True, is_dark=True), (255, 255, 255), teal),
        ):
            data = make_picture(made.scene(small).to_dict(), {}, Format.PNG, look).data
            image = pixels(data)[..., :3]
            self.assertTrue((image == paper).all(axis=2).any())
            line = round(small.height * 4.5 / 13)
            away = np.abs(image[line - 2 : line + 3, 30].astype(int) - tone).sum(axis=1).min()
            self.assertLess(away, 60)
        twice = make_picture(made.scene(small).to_dict(), {}, Format.PNG, Look(), scale=2).data
        self.assertEqual((240, 160), struct.unpack(">II", twice[16:24]))

    def test_the_palette_is_that_of_the_pages(self) -> None:
        css = (STATIC / "css/base.css").read_text()
        dark = css.index("[data-bs-theme")
        for palette, text in ((LIGHT, css[css.index(":root") : dark]), (DARK, css[dark:])):
            named = dict(re.findall(r"--([a-z0-9-]+): (#[0-9a-f]{6})", text)[::-1])
            self.assertEqual(palette.tones, tuple(named[f"tone-{k}"] for k in range(8)))
            for part in ("paper", "ink", "ink_soft", "grid", "grid_faint", "amber", "amber_deep"):
                with self.subTest(part):
                    self.assertEqual(named[part.replace("_", "-")], getattr(palette, part))
        script = (STATIC / "js/bench/plane/curves.paint.js").read_text()
        listed = re.search(r"const DASHES = (\[.*?\n\]);", script, re.S)[1]  # type: ignore[index]
        dashes = json.loads(re.sub(r",\s*\]", "]", listed))
        self.assertEqual([list(dash) for dash in DASHES], dashes)


class LegendTest(unittest.TestCase):
    def test_legend_stands_in_a_free_corner(self) -> None:
        for line, right, low in (("f(x) = x for x < 0", True, None), ("f(x) = 6 for x > -9", None, True),
                                 ("f(x) = x", False, False)):  # fmt: skip
            made = Study()
            made.define(line)
            made.apply({"do": "axes", "axes": {"legend": True}}, WINDOW)
            legend = made.scene(WINDOW).to_dict()["legend"]
            with self.subTest(line):
                if right is not None:
                    self.assertEqual(right, legend["x"] > 330)
                if low is not None:
                    self.assertEqual(low, legend["y"] > 215)
        made.apply({"do": "axes", "axes": {"legend_at": [0.5, 2]}}, WINDOW)
        legend = made.scene(WINDOW).to_dict()["legend"]
        self.assertEqual(330, legend["x"])
        self.assertLess(legend["y"] + legend["height"], 430)

    def test_styles_are_stored_and_invalid_ones_refused(self) -> None:
        made = study()
        again = Study.from_dict(made.to_dict())
        row = again.scene(WINDOW).rows[0]
        self.assertEqual(
            (3, 2, True), tuple(row["style"][name] for name in ("weight", "stroke", "flag"))
        )
        again.apply({"do": "style", "id": 1, "tone": 5, "style": {"flag": False}}, WINDOW)
        row = again.scene(WINDOW).rows[0]
        self.assertEqual((5, 3, None), (row["tone"], row["style"]["weight"], row["flag"]))
        for bad in ({"weight": 9}, {"stroke": -1}, {"mark": "star"}, {"flag": 1}, 7):
            with self.subTest(bad), self.assertRaises(Exception):  # noqa: B017 - any refusal in words
                again.apply({"do": "style", "id": 1, "style": bad}, WINDOW)


class ReadingTest(unittest.TestCase):
    def test_a_path_is_read_at_its_point_nearest_to_the_pointer(self) -> None:
        made = Study()
        made.define("P(t) = (5cos t, 5sin t) for 0 <= t <= 2pi")
        made.define("f(x) = x")
        for angle in np.linspace(0.1, 6.1, 25):
            at = (7 * np.cos(angle), 7 * np.sin(angle))
            values = made.readings(WINDOW, at[0], at[1])["values"]
            t = float(re.match(r"t = ([\d.]+):", values["1"]["text"])[1])  # type: ignore[index]
            self.assertAlmostEqual(angle, t, delta=0.02)
            self.assertAlmostEqual((5 * np.cos(t) + 10) * 330, values["1"]["x"], delta=2)
        self.assertNotIn("1", made.readings(WINDOW, 1)["values"])
