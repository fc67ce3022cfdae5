"""Everything that can be done in the window, declared once: menus, shortcuts, the finder of deeds and the
help sheet come from here."""

from typing import NamedTuple


class Command(NamedTuple):
    """One action: its name in code, its menu, title, keys, and what it does.

    at: where its keys work: "window" anywhere, "sprig" or "script" only while that has the focus, so that
    they can be letters. What does it stands in `frame.acting.bindings`.
    """

    name: str
    menu: str
    title: str
    keys: tuple[str, ...] = ()
    about: str = ""
    at: str = "window"


# What is offered where the right button is pressed; "" parts them.
AT_HAND = {
    "sprig": (
        "more", "fewer", "lock", "", "gentler", "stronger", "clock", "", "both_sides", "rounds", "flow",
        "ungroup", "", "earlier", "later", "again", "", "cut", "copy", "paste", "leave_out",
    ),
    "script": (
        "edit_line", "choose_wording", "tell_otherwise", "mute", "", "pin", "sooner", "later_line", "",
        "mirror", "keep_on_card", "restore",
        "add_line", "", "take_in", "make_room", "mend_here",
    ),
}  # fmt: skip


def with_letter(title: str, taken: set[str]) -> str:
    """A menu's title with the letter that opens it marked: the first that no other has."""
    at = next((n for n, letter in enumerate(title.lower()) if letter.isalpha() and letter not in taken), -1)
    if at < 0:
        return title
    taken.add(title[at].lower())
    return f"{title[:at]}&{title[at:]}"


def _on(at: str, menu: str, *commands: tuple[str, str, tuple[str, ...], str]) -> tuple[Command, ...]:
    return tuple(Command(name, menu, title, keys, about, at) for name, title, keys, about in commands)


COMMANDS: tuple[Command, ...] = (
    *_on("window", "Class",
        ("new_class", "New class", ("Ctrl+N",), "An empty class; what is open is kept."),
        ("open_class", "Open a class…", ("Ctrl+O",), "A class file, or an outline in plain text."),
        ("show_start", "First page", ("Ctrl+Home",), "The shelf, and every way to begin a class."),
        ("new_window", "Another window", ("Ctrl+Shift+N",), "Copy and paste go between windows."),
        ("save_class", "Save the class", ("Ctrl+S",), "Writes the class file whole."),
        ("save_class_as", "Save under another name…", ("Ctrl+Shift+S",), "Writes another class file."),
        ("save_outline", "Save as an outline…", (), "The class as plain text."),
        ("show_versions", "Versions…", ("Ctrl+Shift+V",), "Any two saved states side by side."),
        ("export_script", "Export the script…", ("Ctrl+E",), "Text, PDF, captions, chapters and more."),
    ),
    Command("close", "Class", "Close the window", ("Ctrl+W",), "What is not saved is kept."),
    Command("undo", "Change", "Undo", ("Ctrl+Z",), "Takes the last change back."),
    Command("redo", "Change", "Do again", ("Ctrl+Shift+Z", "Ctrl+Y"), "Does it again."),
    Command("mend", "Change", "Do what is offered", ("Ctrl+M",), "What would mend the class, named below."),
    *_on("window", "Change",
        ("show_acts", "What was done…", ("Ctrl+Shift+U",), "Every change, to go back to any of them."),
    ),
    *_on("sprig", "Shape",
        ("more", "One more", ("M",), "One more breath, repetition or round; it is kept then."),
        ("fewer", "One fewer", ("F",), "One fewer; it is kept then."),
        ("lock", "Keep the number", ("L",), "Fitting will not change it; again, and it will."),
        ("gentler", "The gentler way", ("G",), "What is taught; again, and it is as it is."),
        ("stronger", "The stronger way", ("S",), "What is taught; again, and it is as it is."),
        ("clock", "Held by the clock", ("C",), "Again, and it is held by breath."),
        ("inhale", "On one inhale", ("I",), "As in a flow; again, and it is held by breath."),
        ("exhale", "On one exhale", ("E",), "As in a flow; again, and it is held by breath."),
        ("second_more", "One more on the second side", ("Shift+M",), "A difference that is meant."),
        ("second_fewer", "One fewer on the second side", ("Shift+F",), "A difference that is meant."),
        ("second_out", "Not on the second side", ("Shift+O",), "Left out there, on purpose; again, and not."),
        ("both_sides", "Both sides", ("B",), "Makes what is chosen a pair: one side, then the other."),
        ("rounds", "In rounds", ("R",), "Makes what is chosen a group done again and again."),
        ("flow", "As a flow", ("W",), "One movement a breath, in rounds."),
        ("ungroup", "Take apart", ("U",), "Takes the pair, rounds or block away and leaves what is in it."),
        ("again", "Do it again", ("D",), "The same once more, right after."),
        ("earlier", "Earlier", ("Alt+Up",), "One place earlier; out of its group at the edge."),
        ("later", "Later", ("Alt+Down",), "One place later."),
        ("cut", "Cut", ("Ctrl+X",), "Out of here, to be put in elsewhere."),
        ("copy", "Copy", ("Ctrl+C",), "Steps, and an outline for other programs."),
        ("paste", "Paste", ("Ctrl+V",), "After what is chosen; lines of an outline too."),
        ("leave_out", "Leave out", ("Delete", "Backspace"), "Takes what is chosen out of the class."),
    ),
    *_on("window", "Draft",
        ("draft_another", "Another", ("Ctrl+J",), "Another class that keeps the same promise."),
        ("draft_rest", "Keep this part, change the rest", ("Ctrl+Alt+J",), "What is chosen stays."),
        ("draft_part", "This part anew", ("Ctrl+Alt+Shift+J",), "Other movements, as long as before."),
        ("draft_else", "Something else here…", ("Ctrl+I",), "Three that fit in place of what is chosen."),
        ("draft_not", "Not this one", ("Ctrl+Shift+I",), "Something else, and it does not come again."),
        ("draft_fill", "Draft what is missing", ("Ctrl+G",), "Fills what is still to fill."),
        ("draft_why", "Why this?", ("Ctrl+Shift+J",), "Why each movement is there; what was turned down."),
        ("draft_like", "One more class like this one", (), "The same promise, other movements."),
        ("draft_gentler", "A gentler class like this one", (), "For a gentler level."),
        ("draft_chair", "A class like this one on a chair", (), "Each movement by what is like it there."),
    ),
    *_on("sprig", "Shape",
        ("new_part", "New part", ("N",), "Starts a titled part of the class here."),
        ("pick_all", "Choose everything", ("Ctrl+A",), "Every movement of the class."),
    ),
    Command("find_movement", "Shape", "Find a movement", ("Ctrl+K", "Insert"), "Type part of it, and Enter."),
    *_on("window", "Shape",
        ("show_library", "The library…", ("Ctrl+L",), "Read, change and add movements."),
    ),
    *_on("window", "Length",
        ("longer_minute", "A minute longer", ("+", "="), "Promises a minute more."),
        ("shorter_minute", "A minute shorter", ("-",), "Promises a minute less."),
        ("longer_bit", "Five seconds longer", ("Ctrl+Shift+Down",), "Promises a little more."),
        ("shorter_bit", "Five seconds shorter", ("Ctrl+Shift+Up",), "Promises a little less."),
        ("by_itself", "As long as it is by itself", ("Ctrl+0",), "Everything as preferred."),
    ),
    *_on("script", "Words",
        ("edit_line", "Reword", ("F2",), "Edits the line in its place; Enter does too."),
        ("choose_wording", "Other wordings", ("W",), "The wordings there are, with their seconds."),
        ("tell_otherwise", "All of it in other words", ("J",), "The same class, each thought another one."),
        ("mute", "Leave unsaid", ("Delete",), "The line is not said; again, and it is."),
        ("pin", "Keep at this moment", ("P",), "The line stays at its second; again, and it is free."),
        ("sooner", "Half a second sooner", ("Alt+Up",), "Moves the line."),
        ("later_line", "Half a second later", ("Alt+Down",), "Moves the line."),
        ("mirror", "Other side too", ("M",), "Your own line, mirrored on the other side."),
        ("take_in", "Say it after all", ("T",), "Takes in a line that was left out."),
        ("make_room", "Make room for it", ("G",), "Makes the movement longer by what the line lacks."),
        ("keep_on_card", "Say it so from now on", ("K",), "Your words, on the card of the movement."),
        ("restore", "Put back", ("R",), "The line as the program has it."),
        ("add_line", "Add a line", ("A",), "A line of your own, in this movement."),
        ("mend_here", "Mend what is noticed", ("X",), "Does what the finding offers."),
    ),
    Command("open_find", "Words", "Find and replace", ("Ctrl+F",), "Words in the script."),
    Command("show_stand", "Words", "Reading view", ("F5",), "Large type for the music stand."),
    Command("to_promise", "View", "Promise", ("F6",), "What you promise, and who is in the room."),
    Command("to_sprig", "View", "Sprig", ("F7",), "The class as a sprig, and the movements."),
    Command("to_words", "View", "Words", ("F8",), "The script, to read and to edit."),
    Command("to_take", "View", "Take", ("F9",), "The class carried through the recording."),
    Command("to_back", "View", "Look back", ("F11",), "What really happened, beside what was planned."),
    Command("to_shelf", "View", "Shelf", ("F12",), "What was made, what goes out when, and the season."),
    *_on("window", "View",
        ("closer", "Closer", ("Ctrl++", "Ctrl+="), "From the whole class down to one breath."),
        ("further", "Further", ("Ctrl+-",), "Back towards the whole class."),
        ("whole_class", "The whole class", ("Ctrl+Shift+0",), "All of it in view."),
        ("other_light", "Light or dark", ("Ctrl+D",), "Changes the colours."),
        ("larger_text", "Larger text", ("Ctrl+Shift++", "Ctrl+Shift+="), "Up to twice the size."),
        ("smaller_text", "Smaller text", ("Ctrl+Shift+-",), "Down to the usual size."),
    ),
    *_on("window", "Help",
        ("show_keys", "Everything you can do", ("F1",), "Every action and its keys; Enter does one."),
        ("open_menus", "The menus", ("F10",), "Arrows go on; Alt and a letter open one."),
        ("what_went_wrong", "What went wrong…", (), "One file, to read and to send."),
        ("show_about", "About and cautions", (), "What this program is, and what it is not."),
    ),
)  # fmt: skip
