"""The two dialogs that bring in what is slow to import: a renderer of PDFs, and a writer of TOML."""

from yewhour.ui.frame.exporting import Exporting
from yewhour.ui.library.view import LibraryView

__all__ = ["Exporting", "LibraryView"]
