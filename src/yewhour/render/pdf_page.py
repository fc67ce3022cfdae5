"""Paper: a PDF in our type and ink. It lies in `store` because it reads the fonts that ship."""

import unicodedata
from typing import TYPE_CHECKING, Any

from yewhour.content.paths import FONTS
from yewhour.core.figure.body import Figure
from yewhour.core.figure.drawing import FigureDrawing, drawing_of, placed
from yewhour.core.figure.shapes import What
from yewhour.files.late import late

if TYPE_CHECKING:
    import fpdf
else:
    fpdf = late("fpdf")  # 150 ms with its fonts; only a PDF needs it


Pdf = Any  # fpdf.FPDF, which ships no types
SIZE = 17.0  # points
INK, SOFT, SIDE_INK = (31, 42, 36), (86, 96, 90), {"right": (44, 106, 75), "left": (45, 92, 125)}


def new_pdf() -> Pdf:
    """An empty PDF, with our fonts, and pages that end where we say."""
    pdf = fpdf.FPDF(format="A4", unit="mm")
    pdf.add_font("Body", "", str(FONTS / "AtkinsonHyperlegibleNext_400Regular.ttf"))
    pdf.add_font("Body", "B", str(FONTS / "AtkinsonHyperlegibleNext_600SemiBold.ttf"))
    pdf.add_font("Title", "", str(FONTS / "YoungSerif_400Regular.ttf"))
    pdf.set_auto_page_break(False)
    pdf.set_font("Body", "", SIZE)
    return pdf


FIGURE_INK = {
    "middle": 70,
    "ghost": 215,
    "arrow": 0,
    "face": 190,
    "still": 50,
    "near": 20,
    "other": 120,
    "far": 175,
    "prop": 205,
    "mat": 235,
    "line": 0,
    "edge": 255,
}


def figure_ink(what: What, side: str) -> tuple[int, int, int]:
    """What a part of a figure is printed in: grey, and the limbs of a side in the ink of that side."""
    if what == "other" and side not in SIDE_INK:
        what = "near"
    if what == "near" and side in SIDE_INK:
        return SIDE_INK[side]
    grey = FIGURE_INK[what]
    return grey, grey, grey


def print_figure(
    pdf: Pdf, figure: Figure, box: tuple[float, float, float, float], side: str = "both"
) -> None:
    """Prints a figure into a box: left, top, wide and high, in millimetres."""
    print_drawing(pdf, drawing_of(figure), box, side)


def print_drawing(
    pdf: Pdf, drawing: FigureDrawing, box: tuple[float, float, float, float], side: str = "both"
) -> None:
    """Prints a drawing into a box: left, top, wide and high, in millimetres."""
    for shape in placed(drawing, box):
        pdf.set_fill_color(*figure_ink(shape.what, side))
        pdf.polygon(shape.corners, style="F")


def printable(pdf: Pdf, text: str) -> str:
    """A text in signs that the font has: others in their plain form where there is one, else a mark."""
    known = pdf.current_font.cmap if hasattr(pdf.current_font, "cmap") else {}
    result = []
    for sign in " ".join(text.split()):
        plain = unicodedata.normalize("NFKD", sign)
        if ord(sign) in known:
            result.append(sign)
        elif plain and all(ord(one) in known or unicodedata.combining(one) for one in plain):
            result.append("".join(one for one in plain if ord(one) in known))
        elif unicodedata.category(sign) not in ("So", "Cf", "Cn", "Mn", "Sk"):
            result.append("?")
    return "".join(result).strip()
