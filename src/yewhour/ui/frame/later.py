"""What a window does without at its start: three stations and the dialogs. Loaded when one is asked for.

They bring in a hundred kinds of widget and of export; `Shell.later` is the one way to them.
"""

from yewhour.ui.frame.acts import Acts
from yewhour.ui.frame.versions import Versions
from yewhour.ui.frame.where import Where
from yewhour.ui.kit.asking import Telling
from yewhour.ui.kit.keys import Keys
from yewhour.ui.promise.page import Promise
from yewhour.ui.take.page import TakePage
from yewhour.ui.words.page import Words
from yewhour.ui.words.reading import Stand

__all__ = [
    "Acts",
    "Keys",
    "Promise",
    "Stand",
    "TakePage",
    "Telling",
    "Versions",
    "Where",
    "Words",
]
