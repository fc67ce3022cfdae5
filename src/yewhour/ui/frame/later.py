"""What a window does without at its start: three stations and the dialogs. Loaded when one is asked for.

They bring in a hundred kinds of widget and of export; `Pages.later` is the one way to them.
"""

from yewhour.ui.frame.dialogs.choose_file import ChooseFile
from yewhour.ui.frame.dialogs.revisions import Revisions
from yewhour.ui.frame.dialogs.undo_list import UndoList
from yewhour.ui.frame.dialogs.went_wrong import WentWrong
from yewhour.ui.kit.command_palette import CommandPalette
from yewhour.ui.kit.small_dialogs import Telling
from yewhour.ui.promise.page import PromisePage
from yewhour.ui.take.page import TakePage
from yewhour.ui.words.page import WordsPage
from yewhour.ui.words.reading_view import ReadingView

__all__ = [
    "ChooseFile",
    "CommandPalette",
    "PromisePage",
    "ReadingView",
    "Revisions",
    "TakePage",
    "Telling",
    "UndoList",
    "WentWrong",
    "WordsPage",
]
