"""What there is: movements, schools, cautions, blocks and demo classes, for `./yew list`."""

from typing import Any

from yewhour.content.paths import demo_classes
from yewhour.content.terms import load_terms
from yewhour.core.lengths import show_length
from yewhour.core.teaching_data import TeachingData
from yewhour.files import program
from yewhour.state.classes.class_file import read_plan

Listing = dict[str, list[dict[str, Any]]]


def listing(teaching_data: TeachingData) -> Listing:
    """Everything by its kind, as plain values."""
    return {
        "movements": [
            {
                "id": movement.id, "name": movement.name, "traditional": movement.traditional,
                "family": movement.family, "kind": movement.kind, "sides": movement.sides,
                "dose": list(movement.dose), "effort": movement.effort,
            }
            for movement in sorted(teaching_data.library.values(), key=lambda m: (m.family, m.id))
        ],
        "schools": [{"id": s.id, "name": s.name, "about": s.about} for s in teaching_data.schools.values()],
        "cautions": [
            {"id": name, "name": caution.name, "about": caution.about, "watch": caution.watch}
            for name, caution in load_terms(teaching_data.positions).cautions.items()
        ],
        "blocks": [{"id": name, "steps": len(body)} for name, body in sorted(teaching_data.blocks.items())],
        "demo": [_demo(path) for path in demo_classes()],
    }  # fmt: skip


def _demo(path: Any) -> dict[str, Any]:
    brief = read_plan(path).brief
    return {
        "file": program.shown(path), "title": brief.title, "length": show_length(brief.target_s),
        "style": brief.style, "audience": brief.audience, "reason": brief.reason,
    }  # fmt: skip


def listing_text(found: Listing) -> str:
    """The listing to be read."""
    lines: list[str] = []
    for kind, entries in found.items():
        lines += ["", f"{kind.upper()} ({len(entries)})"]
        for entry in entries:
            if kind == "movements":
                traditional = f" ({entry['traditional']})" if entry["traditional"] else ""
                lines.append(f"  {entry['id']:24} {entry['family']:12} {entry['name']}{traditional}")
            elif kind == "demo":
                lines.append(
                    f"  {entry['file']:42} {entry['length']:>6}  {entry['title']}, for {entry['audience']}"
                )
            elif kind == "blocks":
                lines.append(f"  {entry['id']}")
            else:
                lines.append(f"  {entry['id']:24} {entry['name']}: {entry['about']}")
    return "\n".join(lines[1:])
