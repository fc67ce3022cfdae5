"""Which function does each command of a window. `kit.commands` says what each is called, and its keys."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from yewhour.ui.frame.acting.registry import Act
from yewhour.ui.frame.acting.view import View
from yewhour.ui.frame.dialogs.file_commands import FileCommands
from yewhour.ui.frame.pages import Pages

if TYPE_CHECKING:
    from yewhour.ui.frame.dialogs.drafting import Drafting
    from yewhour.ui.words.line_actions import LineActions


def file_acts(files: FileCommands) -> dict[str, Act]:
    """What is done with files."""
    return {
        "new_class": files.new_class,
        "open_class": files.open_class,
        "show_start": files.show_start,
        "new_window": files.new_window,
        "save_class": files.save_class,
        "save_class_as": files.save_class_as,
        "save_outline": files.save_outline,
        "show_versions": files.show_versions,
        "export_script": files.export_script,
    }


def view_acts(view: View) -> dict[str, Act]:
    """What is done to what is shown."""
    return {
        "show_acts": view.show_acts,
        "show_library": view.show_library,
        "longer_minute": view.longer_minute,
        "shorter_minute": view.shorter_minute,
        "longer_bit": view.longer_bit,
        "shorter_bit": view.shorter_bit,
        "by_itself": view.by_itself,
        "show_stand": view.show_stand,
        "closer": view.closer,
        "further": view.further,
        "whole_class": view.whole_class,
        "other_light": view.other_light,
        "larger_text": view.larger_text,
        "smaller_text": view.smaller_text,
        "show_keys": view.show_keys,
        "open_menus": view.open_menus,
        "show_about": view.show_about,
        "what_went_wrong": view.what_went_wrong,
    }


def draft_acts(pages: Pages) -> dict[str, Act]:
    """What is done with drafts, which are loaded when the first is asked for."""

    def on(do: Callable[[Drafting], object]) -> Act:
        return lambda: do(pages.drafting())

    return {
        "draft_another": on(lambda draft: draft.draft_another()),
        "draft_rest": on(lambda draft: draft.draft_rest()),
        "draft_part": on(lambda draft: draft.draft_part()),
        "draft_else": on(lambda draft: draft.draft_else()),
        "draft_not": on(lambda draft: draft.draft_not()),
        "draft_fill": on(lambda draft: draft.draft_fill()),
        "draft_why": on(lambda draft: draft.draft_why()),
        "draft_like": on(lambda draft: draft.draft_like()),
        "draft_gentler": on(lambda draft: draft.draft_gentler()),
        "draft_chair": on(lambda draft: draft.draft_chair()),
    }


def line_acts(pages: Pages) -> dict[str, Act]:
    """What is done to the current line of the script, which is there when the script is."""

    def on(do: Callable[[LineActions], object]) -> Act:
        return lambda: do(pages.words().line_actions)

    return {
        "edit_line": on(lambda line: line.edit_line()),
        "choose_wording": on(lambda line: line.choose_wording()),
        "tell_otherwise": on(lambda line: line.tell_otherwise()),
        "mute": on(lambda line: line.mute()),
        "pin": on(lambda line: line.pin()),
        "sooner": on(lambda line: line.sooner()),
        "later_line": on(lambda line: line.later_line()),
        "mirror": on(lambda line: line.mirror()),
        "take_in": on(lambda line: line.take_in()),
        "make_room": on(lambda line: line.make_room()),
        "keep_on_card": on(lambda line: line.keep_on_card()),
        "restore": on(lambda line: line.restore()),
        "add_line": on(lambda line: line.add_line()),
        "mend_here": on(lambda line: line.mend_here()),
    }
