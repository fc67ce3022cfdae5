"""What brings in what is slow to import: a renderer of PDFs, a writer of TOML, NumPy, SQLite."""

from yewhour.ui.back.page import BackPage
from yewhour.ui.frame.drafting import Drafting
from yewhour.ui.frame.exporting import Exporting
from yewhour.ui.library.view import LibraryView
from yewhour.ui.shelf.page import ShelfPage
from yewhour.ui.shelf.shelving import Shelving

__all__ = ["BackPage", "Drafting", "Exporting", "LibraryView", "ShelfPage", "Shelving"]
