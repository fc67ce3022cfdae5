"""What a line can be for, and how each is said. Everything about a purpose is declared here once."""

from typing import Literal

import msgspec

Delivery = Literal["instruct", "count", "calm", "rest"]


class Purpose(msgspec.Struct, frozen=True):
    """must: it has to be said. priority: what is kept first when room is short. about: for a reader."""

    must: bool
    priority: int
    delivery: Delivery
    about: str


PURPOSES: dict[str, Purpose] = {
    "say": Purpose(True, 100, "calm", "talk, said in order"),
    "side": Purpose(True, 99, "instruct", "a change of side"),
    "way": Purpose(True, 99, "instruct", "getting from one position to the next"),
    "call": Purpose(True, 98, "instruct", "names the movement and starts it"),
    "flow": Purpose(True, 97, "instruct", "the movement of one breath phase"),
    "prop": Purpose(True, 96, "instruct", "a prop to have ready"),
    "caution": Purpose(True, 95, "instruct", "a caution, after the movement is named"),
    "half": Purpose(True, 94, "instruct", "a change halfway"),
    "remind": Purpose(True, 93, "instruct", "a reminder, before counted work starts"),
    "count": Purpose(False, 90, "count", "breaths or repetitions to go"),
    "time": Purpose(False, 89, "count", "time to go"),
    "setup": Purpose(False, 80, "instruct", "how to get there"),
    "option": Purpose(False, 75, "instruct", "a gentler or a stronger way"),
    "breath": Purpose(False, 70, "instruct", "words for one phase of the breath"),
    "exit": Purpose(True, 98, "instruct", "how to leave"),
    "place": Purpose(True, 98, "instruct", "how the shape is built, in the order of doing"),
    "protect": Purpose(True, 97, "instruct", "what those do who are cautioned for, before the weight comes"),
    "choice": Purpose(False, 75, "instruct", "another way, with its reason"),
    "first": Purpose(False, 88, "instruct", "the first repetition, talked through"),
    "aim": Purpose(False, 66, "instruct", "what it is for, or where it is felt"),
    "check": Purpose(False, 64, "instruct", "the usual mistake, and what mends it"),
    "keep": Purpose(False, 63, "instruct", "what to keep while it goes"),
    "compare": Purpose(False, 66, "calm", "one side against the other"),
    "image": Purpose(False, 50, "calm", "a picture that does work"),
    "deepen": Purpose(False, 48, "calm", "one step further"),
    "late": Purpose(False, 65, "instruct", "near the end of a set"),
    "leave": Purpose(True, 98, "instruct", "undoes the shape where it is"),
    "align": Purpose(False, 60, "instruct", "how the body is arranged"),
    "stay": Purpose(False, 40, "calm", "company while holding"),
    "rest": Purpose(False, 30, "rest", "a line into the silence of a rest"),
}

# What a movement's file may hold lines for, and the purpose they are said with.
LINE_PURPOSES: dict[str, str] = {
    "call": "call",
    "flow": "flow",
    "setup": "setup",
    "align": "align",
    "stay": "stay",
    "on_inhale": "breath",
    "on_full": "breath",
    "on_exhale": "breath",
    "on_empty": "breath",
    "on_effort": "breath",
    "on_ease": "breath",
    "on_part": "breath",
    "remind": "remind",
    "half": "half",
    "caution": "caution",
    "prop": "prop",
    "exit": "exit",
    "rest": "rest",
    "say": "say",
}
