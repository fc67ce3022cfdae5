"""The options of the commands about recordings: the take, its sound, the look back, the film, bringing in."""

import argparse
from pathlib import Path
from typing import TYPE_CHECKING, Any

from yewhour.files.late import late

if TYPE_CHECKING:
    from yewhour.cli import film_command, recording_commands
else:  # what one command needs is not brought in for all
    film_command = late("yewhour.cli.film_command")
    recording_commands = late("yewhour.cli.recording_commands")

REPLACED = "write over what is there already"


def file_and_length(command: argparse.ArgumentParser) -> None:
    """A class, and the length it is wanted at."""
    command.add_argument("class_file", type=Path, metavar="FILE", help="a class (.yewhour)")
    length_option(command)


def length_option(command: argparse.ArgumentParser) -> None:
    """The length it is wanted at."""
    command.add_argument("--length", metavar="M:SS", help="as 24:00, 1:05:00 or 1440; default: its target")


def add_recording_commands(commands: Any) -> None:
    """Adds them to the commands there are."""
    take = commands.add_parser("take", help="what a class becomes with the marks of a take")
    file_and_length(take)
    take.add_argument("--marks", type=Path, required=True, metavar="M", help="one mark a line (JSON Lines)")
    take.add_argument("--format", choices=("text", "json"), default="text")
    take.add_argument("--out", type=Path, metavar="PATH", help="write there, not to standard output")
    take.add_argument("--replace", action="store_true", help=REPLACED)
    take.set_defaults(run=lambda options: recording_commands.take(options))

    voice = commands.add_parser("voice", help="speak a class into a sound file, every line at its moment")
    voice.add_argument("class_file", type=Path, nargs="?", metavar="FILE", help="a class (.yewhour)")
    length_option(voice)
    voice.add_argument("--out", type=Path, metavar="PATH", help="NAME.flac, wav, ogg, mp3 ...")
    voice.add_argument("--replace", action="store_true", help=REPLACED)
    voice.add_argument("--voice", default="en", metavar="NAME", help="default: en; joe, once installed")
    voice.add_argument("--install", action="store_true", help="fetch the neural voice, joe (121 MB)")
    voice.add_argument(
        "--with", dest="parts", default="lines", metavar="PARTS", help="lines,sides,counts,tones,breath,bells"
    )
    voice.set_defaults(run=lambda options: recording_commands.voice(options))

    back = commands.add_parser("look-back", help="what really happened in a recording, beside its plan")
    back.add_argument(
        "class_file", type=Path, nargs="?", metavar="FILE", help="its class, or the folder of a take"
    )
    length_option(back)
    back.add_argument("--marks", type=Path, metavar="M", help="the marks of the take (JSON Lines)")
    back.add_argument(
        "--captions", type=Path, metavar="C", help="SubRip, WebVTT, or text with times as [1:05]"
    )
    back.add_argument("--sound", type=Path, metavar="S", help="the recording: sound, or a video")
    back.add_argument("--format", choices=("text", "json"), default="text")
    back.add_argument("--out", type=Path, metavar="PATH", help="write there, not to standard output")
    back.add_argument("--to", type=Path, metavar="FOLDER", help="write captions, chapters ... as it was, too")
    back.add_argument("--replace", action="store_true", help=REPLACED)
    back.set_defaults(run=lambda options: recording_commands.look_back(options))

    film = commands.add_parser("film", help="the film of a class: the camera's file cut to it, or drawn")
    film.add_argument(
        "recording", type=Path, metavar="CAMERA", help="the camera's file; or a class, to be drawn and spoken"
    )
    film.add_argument("--class", dest="class_file", type=Path, metavar="FILE", help="the camera's class")
    length_option(film)
    film.add_argument("--marks", type=Path, metavar="M", help="the marks of the take (JSON Lines)")
    film.add_argument("--captions", type=Path, metavar="C", help="its captions; else its sound is heard")
    film.add_argument("--sound", type=Path, metavar="S", help="sound recorded apart, to be heard instead")
    film.add_argument("--take", type=Path, metavar="FOLDER", help="its take: class, marks and sound")
    film.add_argument("--list", action="store_true", help="tell what would be cut, and make nothing")
    film.add_argument(
        "--format", choices=("text", "json", "otio", "edl", "ffconcat", "labels"), default="text",
        help="of the list",
    )  # fmt: skip
    film.add_argument("--cuts", type=Path, metavar="F", help="cut as this list says (--list --format json)")
    film.add_argument(
        "--over", metavar="PARTS", help="title,end,name,side,left,next,breath,figure,captions,fade; or all"
    )
    film.add_argument("--alone", action="store_true", help="only what lies over it: .webm, .mov, or a folder")
    film.add_argument("--beside", default="captions", metavar="WHAT", help="captions,text,still,frame,page")
    film.add_argument("--quick", action="store_true", help="copy the picture: cuts fall on key frames")
    film.add_argument("--size", metavar="WxH", help="of what is drawn; else 1280x720, or the camera's")
    film.add_argument("--voice", default="en", metavar="NAME", help="of a class without a camera")
    film.add_argument("--out", type=Path, metavar="PATH", help="NAME.mp4, mkv, webm; or NAME.av1.mp4 ...")
    film.add_argument("--replace", action="store_true", help=REPLACED)
    film.set_defaults(run=lambda options: film_command.film(options))

    bring = commands.add_parser("bring-in", help="make a draft of a class from a recording's captions")
    bring.add_argument("captions", type=Path, metavar="CAPTIONS", help="SubRip, WebVTT, or text")
    bring.add_argument("--length", metavar="M:SS", help="how long it was, for text without times")
    bring.add_argument("--out", type=Path, metavar="PATH", help="NAME.txt for an outline, NAME.yewhour")
    bring.add_argument("--replace", action="store_true", help=REPLACED)
    bring.set_defaults(run=lambda options: recording_commands.bring_in(options))
