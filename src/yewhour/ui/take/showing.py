"""What stands on the board of a take: before it, while it is counted in, on the way, standing still, over."""

from __future__ import annotations

from collections.abc import Callable

from yewhour.core.lengths import seconds, show_length
from yewhour.core.take.moment import Moment
from yewhour.core.take.take import Take
from yewhour.state.takes.interrupted_takes import InterruptedTake
from yewhour.ui.take import take_words
from yewhour.ui.take.board import TakeBoard, put
from yewhour.ui.take.rehearsing import Rehearsal
from yewhour.ui.take.take_runner import TakeRunner

SIDE_COMES_S = 6.0  # before a side begins it is shown as the next
DONE_S = 2.5  # so long it stands there that something was done
BROKEN_OFF = "{day}. Space goes on with it; Delete leaves it as it is, kept."


class TakeShowing:
    """Puts a runner's stage on a board. clock: seconds, by which what was done is told for a while."""

    def __init__(self, board: TakeBoard, runner: TakeRunner, clock: Callable[[], float]) -> None:
        self.board, self.runner, self.clock = board, runner, clock
        self.told = ""  # in the foot
        self.turned_on: Callable[[], list[str]] = list  # what else is on
        self.wanting: Callable[[float], list[str]] = lambda length_s: []  # what a take of so long lacks
        self._done, self._done_until = "", 0.0

    def done(self, words: str) -> None:
        """Something happens as it was asked for: large, for a moment."""
        self._done, self._done_until = words, self.clock() + DONE_S

    @property
    def _name(self) -> str:
        return self._done if self.clock() < self._done_until else ""

    # --- before the start, and after the end --------------------------------------------------------------

    def show_still(self, broken: InterruptedTake | None, rehearsal: Rehearsal) -> None:
        """Before the start, and after the end."""
        board, runner = self.board, self.runner
        take, over = runner.take, runner.state == "over"
        if take is not None:
            board.going.show_at(take.end if over else take.start)
        for band in board.bands.values():
            band.show_side("")
        for one in (board.phase, board.count, board.left_s, board.coming, board.clock):
            one.setText("")
        board.late.setText(self.told)
        if take is None:
            board.name.say("")
            board.line.say("There is no class to take yet.")
            board.following.say("Add movements first (Esc, then Ctrl+K).")
            return
        title = take.solved.plan.brief.title
        if over:
            board.name.say(title)
            board.line.say(take_words.how_it_ended(take))
            kept = "The take is kept. Enter looks back at it."
            board.following.say("A rehearsal is not kept." if runner.rehearsing else kept)
        elif runner.rehearsing:
            first = rehearsal.begins(take)
            board.name.say(first.use.name)
            board.line.say(next((cue.text for cue in take.cues if cue.start >= first.start), ""))
            board.following.say(rehearsal.said(take))
            board.going.show_at(first.start)
        elif broken is not None:
            board.name.say(broken.plan.brief.title)
            board.line.say(f"This take was broken off at {show_length(broken.until_s)}.")
            board.following.say(BROKEN_OFF.format(day=broken.when.strftime("%A %d %B, %H:%M")))
        else:
            on = ", ".join([take_words.LEADS[runner.leading.leads], *self.turned_on()])
            board.name.say(title)
            board.line.say(take.cues[0].text if take.cues else "")
            length_s = seconds(take.target - take.start)
            board.following.say(f"{show_length(length_s)}. {on[0].upper()}{on[1:]}. Space counts you in.")
            if not self.told:
                board.late.setText(" ".join(self.wanting(length_s)))

    # --- on the way ---------------------------------------------------------------------------------------

    def show_now(self, here: Moment) -> None:
        """What changes with the clock, while a take is on."""
        runner = self.runner
        self.board.stand_out(runner.state == "on" and runner.standing)
        if runner.state == "counting":
            self._show_counting()
        elif runner.state == "on" and runner.standing:
            self._show_standing(here)
        elif runner.state == "on" and here.segment is None:
            self._show_overtime()
        elif runner.state == "on":
            self._show_on(here)

    def _show_counting(self) -> None:
        take, board = self.runner.take, self.board
        assert take is not None
        board.name.say(take.solved.plan.brief.title)
        put(board.left_s, str(max(1, int(self.runner.counting_s + 0.999))))
        put(board.coming, "until you begin")
        board.line.say(take.cues[0].text if take.cues else "")
        board.following.say(
            "" if self.runner.rehearsing else "Clap as it turns to nought: the film begins there."
        )
        put(board.late, self.told)

    def _show_standing(self, here: Moment) -> None:
        """Nothing goes on: for how long, and what there is to press."""
        board, stop = self.board, self.runner.interruption
        if stop is None:
            return
        now_s = self.runner.now_s
        one, other = stop.words(now_s)
        board.name.say("Standing still")
        board.line.say(one)
        board.following.say(other)
        for band in board.bands.values():
            band.show_side("")
        put(board.phase, "")
        put(board.count, "")
        put(board.left_s, show_length(int(stop.lasts_s(now_s))))
        name = here.segment.use.name if here.segment is not None else ""
        put(board.coming, f"in {name}{take_words.side_words(here.side)}")
        put(board.late, self.told)

    def _show_overtime(self) -> None:
        """The class is over, and she may still be speaking."""
        take, board = self.runner.take, self.board
        assert take is not None
        board.name.say(take.solved.plan.brief.title)
        board.line.say("The class is over. Press Space when you are done.")
        board.following.say("")
        for band in board.bands.values():
            band.show_side("")
        put(board.phase, "")
        put(board.count, "")
        put(board.left_s, f"+{show_length(int(self.runner.over_s))}")
        put(board.coming, "over the promise")
        put(board.clock, "")
        put(board.late, self.told)

    def _show_on(self, here: Moment) -> None:
        take, segment, board = self.runner.take, here.segment, self.board
        assert take is not None
        assert segment is not None
        named = here.coming if segment.use.setup_for and here.coming is not None else segment
        side = take_words.side_words(take_words.side_of(named, here))
        board.name.say(self._name or f"{named.use.name}{side}")
        board.line.say(here.line.text if here.line is not None else "")
        board.following.say(here.following.text if here.following is not None else "")
        self._show_sides(here)
        put(board.phase, take_words.phase_words(here))
        put(board.count, take_words.count_words(here))
        left_s = max(1, -(-int(here.left) // 10))
        put(board.left_s, str(left_s) if left_s < 100 else show_length(left_s))
        put(board.coming, take_words.coming_words(here))
        put(board.clock, f"{show_length(seconds(max(0, round(take.target - here.at))))} to go")
        offers = take_words.offer_words(self.runner)
        late = take_words.late_words(take, here)
        put(board.late, f"{late}   {offers}" if offers else self.told or late)

    def _show_sides(self, here: Moment) -> None:
        """The side that is said, at the edge where the teacher's own body does it."""
        segment = here.segment
        assert segment is not None
        side, coming = here.side, False
        if side not in ("left", "right") and here.coming is not None and here.left < SIDE_COMES_S * 10:
            side, coming = here.coming.side, True
        coming = coming or bool(segment.use.setup_for)
        for at, band in self.board.bands.items():
            said = {"left": "right", "right": "left"}[at] if self.mirrors else at
            band.show_side(said if said == side else "", coming)

    @property
    def mirrors(self) -> bool:
        """Whether the teacher's own body does the other side than is said."""
        take: Take | None = self.runner.take
        return take is not None and take.solved.prepared.school.mirror
