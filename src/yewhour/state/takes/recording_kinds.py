"""Which files recordings are kept in, by their endings."""

CAPTIONS = (".srt", ".vtt", ".txt")
SOUNDS = (
    ".wav", ".flac", ".ogg", ".opus", ".mp3", ".m4a", ".aac", ".mp4", ".mov", ".mkv", ".webm", ".avi",
)  # fmt: skip
