"""OpenTimelineIO: one clip as long as the class, with a marker for every movement."""

from yewhour.core.lengths import seconds
from yewhour.core.timed_class import TimedClass

RATE = 30.0  # frames a second of the time values; editors convert it
COLOURS = {"right": "GREEN", "left": "BLUE"}


def timeline(timed: TimedClass) -> bytes:
    """The timeline as .otio JSON."""
    # 200 ms and a shared library; only a timeline needs it.
    import opentimelineio as otio

    def time(ticks: int) -> "otio.opentime.RationalTime":
        return otio.opentime.RationalTime(round(seconds(ticks) * RATE), RATE)

    whole = otio.opentime.TimeRange(time(0), time(timed.length))
    clip = otio.schema.Clip(name=timed.plan.brief.title, source_range=whole)
    for segment in timed.segments:
        if segment.use.setup_for:
            continue
        side = f" ({segment.side})" if segment.side in ("left", "right") else ""
        clip.markers.append(
            otio.schema.Marker(
                name=f"{segment.use.name}{side}",
                marked_range=otio.opentime.TimeRange(time(segment.start), time(segment.length)),
                color=COLOURS.get(segment.side, "YELLOW"),
                metadata={"yewhour": {"section": segment.section, "id": segment.id}},
            )
        )
    made_timeline = otio.schema.Timeline(name=timed.plan.brief.title)
    track = otio.schema.Track(name="Class", kind=otio.schema.TrackKind.Video)
    track.append(clip)
    made_timeline.tracks.append(track)
    return str(made_timeline.to_json_string()).encode() + b"\n"
