"""Everything that can be done in the window, declared once: menus, shortcuts and help come from here."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Deed:
    """One action: its name in code (a method of the window), its menu, title, keys, and what it does."""

    name: str
    menu: str
    title: str
    keys: tuple[str, ...] = ()
    about: str = ""


DEEDS: tuple[Deed, ...] = (
    Deed("open_class", "Class", "Open a class…", ("Ctrl+O",), "Choose a class file."),
    Deed("save_class", "Class", "Save the class", ("Ctrl+S",), "Writes the class file whole."),
    Deed("save_class_as", "Class", "Save the class as…", ("Ctrl+Shift+S",), "Writes another class file."),
    Deed(
        "export_script",
        "Class",
        "Export the script…",
        ("Ctrl+E",),
        "Write the script as text, PDF, captions, chapters and more.",
    ),
    Deed("close", "Class", "Close", ("Ctrl+W",), "Close this window."),
    Deed("mend", "Mend", "Do what is offered", ("Ctrl+M",), "The fix or remedy named below."),
    Deed("undo", "Mend", "Undo", ("Ctrl+Z",), "Takes the last change back."),
    Deed("redo", "Mend", "Do again", ("Ctrl+Shift+Z", "Ctrl+Y"), "Does it again."),
    Deed("longer_minute", "Length", "A minute longer", ("Ctrl++", "Ctrl+=", "+", "="), "Re-times the class."),
    Deed("shorter_minute", "Length", "A minute shorter", ("Ctrl+-", "-"), "Re-times the class."),
    Deed("longer_bit", "Length", "Five seconds longer", ("Ctrl+Shift+Down",), "Re-times the class."),
    Deed("shorter_bit", "Length", "Five seconds shorter", ("Ctrl+Shift+Up",), "Re-times the class."),
    Deed("as_promised", "Length", "Back to the promised length", ("Ctrl+0",), "The length in the brief."),
    Deed("other_light", "View", "Light or dark", ("Ctrl+D",), "Changes the colours."),
    Deed("larger_text", "View", "Larger text", ("Ctrl+Shift++", "Ctrl+Shift+="), "Up to twice the size."),
    Deed("smaller_text", "View", "Smaller text", ("Ctrl+Shift+-",), "Down to the usual size."),
    Deed("show_keys", "Help", "Keys", ("F1",), "Every action and its keys."),
    Deed("show_about", "Help", "About and cautions", (), "What this program is, and what it is not."),
)
