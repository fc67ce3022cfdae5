"""Makes what Yew Hour is given out as, in dist/: `python -m tools.package [wheel] [source] [debian]`."""

import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

from tools.package import debian
from yewhour import __version__

ROOT = Path(__file__).resolve().parent.parent.parent


def built(out: Path, *kinds: str) -> list[Path]:
    """The wheel (`wheel`) and the source archive (`sdist`), as files."""
    out.mkdir(parents=True, exist_ok=True)
    command = [sys.executable, "-m", "hatchling", "build", "-d", str(out)]
    for kind in kinds:
        subprocess.run([*command, "-t", kind], cwd=ROOT, check=True, stdout=subprocess.DEVNULL)
    ending = {"wheel": ".whl", "sdist": ".tar.gz"}
    return [next(iter(sorted(out.glob(f"yewhour-{__version__}*{ending[kind]}")))) for kind in kinds]


def debian_package(out: Path, quick: bool = False) -> Path:
    """The Debian package. quick: nothing is compressed or compiled, for a test."""
    out.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(dir=out if quick else None) as room:
        target = Path(room) / "root"
        debian.tree(target, ROOT / "src" / "yewhour", link=quick)
        if not quick:
            debian.compiled(target)
        return debian.package(target, out, __version__, 0 if quick else 6)


def main(wanted: list[str]) -> None:
    """Makes those named, or all."""
    out = ROOT / "dist"
    kinds = wanted or ["wheel", "source", "debian"]
    made = built(out, *[{"source": "sdist"}.get(kind, kind) for kind in kinds if kind != "debian"])
    if "debian" in kinds:
        if shutil.which("dpkg-deb") is None:
            print(
                "package: dpkg-deb is not here, so no Debian package was made (apt-get install dpkg)",
                file=sys.stderr,
            )
        else:
            made.append(debian_package(out))
    for path in made:
        print(f"{path.relative_to(ROOT)}  {path.stat().st_size / 1e6:.1f} MB")


if __name__ == "__main__":
    main(sys.argv[1:])
