"""What brings in what is slow to import: a renderer of PDFs, a writer of TOML, NumPy, SQLite."""

from yewhour.ui.frame.dialogs.drafting import Drafting
from yewhour.ui.frame.dialogs.exporting import Exporting
from yewhour.ui.library.library_window import LibraryView
from yewhour.ui.review.page import BackPage
from yewhour.ui.shelf.page import ShelfPage
from yewhour.ui.shelf.shelf_session import ShelfSession

__all__ = ["BackPage", "Drafting", "Exporting", "LibraryView", "ShelfPage", "ShelfSession"]
