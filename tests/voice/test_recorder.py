"""The sound of a take is on the disk as it happens; a kill leaves what there was, a full disk is told."""

import os
import signal
import subprocess
import time

import numpy as np
import soundfile

from tools.kills import in_another
from yewhour.voice.devices.recorder import RATE, Microphone, SoundFile

TONE = (0.3 * np.sin(2 * np.pi * 440 * np.arange(RATE // 10) / RATE)).astype(np.float32)


def test_what_is_recorded_is_what_was_heard(tmp_path):
    file = SoundFile(tmp_path / "sound.flac", print)
    for _ in range(35):
        file.add(TONE)
    file.close()
    sound, rate = soundfile.read(tmp_path / "sound.flac")
    assert rate == RATE
    assert len(sound) == file.samples == 35 * len(TONE)
    assert np.abs(sound[: len(TONE)] - TONE).max() < 0.001


def test_a_kill_leaves_what_was_recorded_up_to_the_last_seconds(tmp_path):
    path = tmp_path / "sound.flac"
    read, write = os.pipe()

    def work():
        file = SoundFile(path, print)
        for _ in range(10**6):
            file.add(TONE)
            os.write(write, b"%d\n" % file.samples)
            time.sleep(0.002)

    child = in_another(work)
    written = 0
    with os.fdopen(read) as told:
        while written < 10 * RATE:
            written = int(told.readline())
        os.kill(child, signal.SIGKILL)
    os.waitpid(child, 0)
    os.close(write)
    import av

    with av.open(str(path)) as file:
        count = sum(frame.samples for frame in file.decode(audio=0))
    assert count > written - 2 * RATE


def test_a_full_disk_is_told_once_and_stops_nothing(tmp_path):
    disk = tmp_path / "disk"
    disk.mkdir()
    if subprocess.run(["mount", "-t", "tmpfs", "-o", "size=64k", "tmpfs", str(disk)], check=False).returncode:
        return
    try:
        message = []
        file = SoundFile(disk / "sound.flac", message.append)
        noise = np.random.default_rng(1).uniform(-0.5, 0.5, RATE).astype(np.float32)
        for _ in range(20):
            file.add(noise)
        file.close()
        assert len(message) == 1
        assert "The take goes on" in message[0]
    finally:
        subprocess.run(["umount", str(disk)], check=True)


def test_the_silent_microphone_records_silence_in_its_time(tmp_path):
    message = []
    file = SoundFile(tmp_path / "sound.flac", print)
    microphone = Microphone(file, message.append, "null")
    assert microphone.open
    while file.samples < 0.2 * RATE:
        time.sleep(0.01)
    microphone.close()
    sound, rate = soundfile.read(tmp_path / "sound.flac")
    assert len(sound) == file.samples
    assert rate == RATE
    assert not sound.any()
    assert message == []
