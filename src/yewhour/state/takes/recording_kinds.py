"""Which files recordings are kept in, by their endings."""

CAPTIONS = (".srt", ".vtt", ".txt")
CAMERAS = (".mp4", ".mov", ".mkv", ".m4v", ".avi", ".webm", ".mts", ".mpg")
SOUNDS = (
    ".wav", ".flac", ".ogg", ".opus", ".mp3", ".m4a", ".aac", *CAMERAS,
)  # fmt: skip
