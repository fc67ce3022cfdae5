"""What brings in what is slow to import: a renderer of PDFs, a writer of TOML, NumPy."""

from yewhour.ui.back.page import BackPage
from yewhour.ui.frame.exporting import Exporting
from yewhour.ui.library.view import LibraryView

__all__ = ["BackPage", "Exporting", "LibraryView"]
