"""Sixty promises from as many lives: her words, what each must be read as, what the class must and must not
have.

`read` is held against the brief (a tuple: all of these are in it), `has` and `never` against the movements of
the class (ids, or groups of movements with a colon before), `asks` is the word that asks back.
"""

import msgspec


class Life(msgspec.Struct, frozen=True):
    """One of them."""

    words: str
    read: dict = {}
    has: tuple = ()
    never: tuple = ()
    asks: str = ""
    unmet: str = ""
    seed: int = 0


LIVES = (
    # --- bodies
    Life(
        "gentle yoga, she gets dizzy lying down, 30 minutes",
        {"cautions": ("dizziness",)},
        has=("seated-silence",),
        never=(":lying",),
    ),
    Life("knees hurt when I climb stairs, hatha", asks="when I climb stairs"),
    Life(
        "30 minute yoga for beginners who are heavy",
        {"cautions": ("larger-bodies",)},
        never=(":belly pressure", ":rolling"),
    ),
    Life("45 minutes gentle no standing", {"without": ("standing",)}, never=(":standing",)),
    Life("injured, 20 minutes", asks="injured"),
    Life("pilates while I'm recovering, 20 minutes", asks="recovering"),
    Life("prenatal pilates 30", {"style": "mat-modern"}, has=("clam",), never=("warrior-two", ":curls")),
    Life("sun salutations, bad wrists 20", has=("arms-up", "fold", "chair-pose"), never=(":hands",)),
    Life("classical pilates, bad low back 30", has=("bridge",), never=(":straight-leg work",)),
    Life("wall pilates 25", {"style": "mat-modern", "props": ("wall",)}, has=("wall-squat", "bridge")),
    Life("pilates in my seat 10", {"style": "chair-balance"}, never=(":floor",)),
    Life("45 minute flow with arm balances", {"peak": "crow"}, has=("crow",)),
    Life(
        "kids yoga 20 minutes, animals",
        {"cautions": ("children",), "wanted": ("animals",)},
        never=(":breath held",),
    ),
    Life(
        "standing pilates, 25 minutes",
        {"props": ("chair",)},
        has=("wide-squats", "calf-raise", "plie-pulses"),
        never=(":yoga on the feet", ":lying", ":kneeling", "warrior-one", "revolved-half-moon"),
    ),
    Life(
        "40 minute standing pilates, balance, osteoporosis",
        {"cautions": ("fragile-bones",), "props": ("chair",)},
        never=(":lying", ":kneeling", ":loaded rounding"),
    ),
    Life(
        "30 minute pilates, had a baby 3 months ago",
        {"cautions": ("after-birth",), "style": "mat-modern"},
        has=("pelvic-lift",),
        never=(":curls", ":planks", ":double legs", ":front"),
    ),
    Life("nurses after a shift, low back", {"focus": ("low back",)}),
    Life(
        "prenatal, third trimester",
        {"cautions": ("pregnancy",)},
        never=("toe-squat", "camel-prep", ":back", ":front", ":curls", ":inversions"),
    ),
    Life(
        "25 minutes prenatal hatha, pelvic girdle pain",
        {"cautions": ("pregnancy", "pelvic-girdle")},
        never=(":legs apart", ":lunges", ":balances", "clam"),
    ),
    Life(
        "30 minute yoga for scoliosis",
        {"cautions": ("curved-spine",), "style": "hatha"},
        never=(":end ranges", ":closed twists", ":loaded rounding"),
    ),
    Life(
        "a gentle 20 minutes after chemo",
        {"cautions": ("cancer-treatment",), "level": "gentle"},
        never=(":hard work", ":inversions", ":front", "toe-squat", "low-squat", ":balances without support"),
    ),
    Life(
        "for pregnant women",
        {"cautions": ("pregnancy",), "audience": ""},
        never=("reclined-hero", "final-rest", ":closed twists"),
    ),
    Life(
        "20 weeks pregnant, gentle, 25 minutes",
        {"cautions": ("pregnancy",), "level": "gentle", "target_s": 1500.0},
        never=(":back", "boat"),
    ),
    Life(
        "pregnant, first trimester, 20 min hatha",
        {"cautions": ("pregnancy-first",)},
        never=(":breath held", ":closed twists", ":front"),
    ),
    Life(
        "hatha after a C-section, 20 minutes",
        {"cautions": ("c-section",)},
        never=("revolved-chair", ":twists", ":curls", ":planks"),
    ),
    Life(
        "new mums, mat pilates, half an hour",
        {"cautions": ("after-birth",), "style": "mat-modern", "target_s": 1800.0},
        never=("hundred", ":curls", "plank"),
    ),
    Life(
        "wheelchair users about shoulders, 15 min",
        {"cautions": ("chair-only",), "props": ("chair",), "focus": ("shoulders",)},
        never=("backward-walk", "one-leg-stand", ":standing", ":legs"),
    ),
    Life(
        "half an hour for headache",
        {"cautions": ("migraine",), "target_s": 1800.0},
        never=("camel", ":inversions", ":quick breath"),
    ),
    Life(
        "mind low back, no kneeling",
        {"cautions": ("low-back",), "without": ("kneeling",)},
        never=("camel-prep", "toe-squat", "fire-hydrant", ":kneeling", "roll-up"),
    ),
    Life(
        "osteoporosis, pilates, 20 minutes",
        {"cautions": ("fragile-bones",), "style": "mat-modern"},
        never=(":loaded rounding", ":twists", "saw"),
    ),
    Life(
        "high blood pressure, chair, 20 minutes",
        {"cautions": ("blood-pressure",), "props": ("chair",)},
        never=(":inversions", "wall-sit", ":breath held"),
    ),
    Life(
        "herniated disc",
        {"cautions": ("disc",)},
        never=(":folds", ":twists", "roll-up", ":straight-leg work"),
    ),
    Life(
        "sciatica, 15 minutes on the floor",
        {"cautions": ("disc",), "without": ("standing",)},
        never=("seated-fold", ":twists", ":standing"),
    ),
    Life(
        "bad knees, flow, 20 min",
        {"cautions": ("knees",), "style": "flow"},
        never=("pigeon", "toe-squat", "low-squat", "hero"),
    ),
    Life(
        "knee replacement, chair yoga",
        {"cautions": ("knee-replacement",), "style": "chair-balance"},
        never=(":kneeling", "low-squat"),
    ),
    Life(
        "slow class for a friend with a new hip",
        {"cautions": ("hip-replacement",), "style": "slow"},
        never=("pigeon", "shoelace", "lying-twist", "cow-face"),
    ),
    Life(
        "carpal tunnel, flow, 25 minutes",
        {"cautions": ("wrists",), "style": "flow"},
        never=(":hands", "plank", "downward-dog"),
    ),
    Life("glaucoma, hatha", {"cautions": ("eye-pressure",)}, never=(":head low", "downward-dog", "fold")),
    Life(
        "vertigo, 20 min",
        {"cautions": ("dizziness",)},
        never=("head-half-circles", "rolling-ball", ":inversions"),
    ),
    Life(
        "asthma, breathing practice",
        {"cautions": ("asthma",), "style": "breathing"},
        never=(":breath held", ":quick breath", "long-exhale"),
    ),
    Life(
        "panic attacks, breath work, 10 minutes",
        {"cautions": ("anxiety",), "style": "breathing", "target_s": 600.0},
        never=(":breath held", ":long counts"),
    ),
    Life(
        "period pain, evening, bolster",
        {"cautions": ("period",), "props": ("bolster",), "time_of_day": "evening"},
        never=(":inversions", ":strong abdominals"),
    ),
    Life(
        "hypermobile students, hatha",
        {"cautions": ("hypermobile",)},
        never=("splits", ":end ranges", "saddle"),
    ),
    Life(
        "plus size beginners, 20 minutes",
        {"cautions": ("larger-bodies",), "level": "beginners"},
        never=(":legs through arms", "shoulder-stand"),
    ),
    Life(
        "seniors afraid of falling, 25 minutes",
        {"cautions": ("older",), "props": ("chair",)},
        never=("tree", "dancer", ":inversions", "rolling-ball"),
    ),
    Life(
        "a class for my mother, 78, chair",
        {"cautions": ("older",), "props": ("chair",)},
        never=("tree", "plank"),
    ),
    Life(
        "kids, 6-8 year olds, 10 minutes",
        {"cautions": ("children",), "target_s": 600.0},
        never=("headstand", ":breath held", ":long holds"),
    ),
    Life(
        "reflux, after dinner, 15 minutes",
        {"cautions": ("reflux",)},
        never=(":front", ":inversions", "seated-fold", "boat"),
    ),
    Life(
        "prolapse, pilates, gentle",
        {"cautions": ("pelvic-floor",), "style": "mat-modern", "level": "gentle"},
        never=("hundred", ":double legs", "boat"),
    ),
    Life(
        "sore shoulders and neck trouble, 20 minutes",
        {"cautions": ("shoulders", "neck")},
        never=("plank", "headstand", "shoulder-stand", "downward-dog"),
    ),
    Life(
        "gentle hatha for Parkinson's",
        {"cautions": ("parkinsons",), "level": "gentle"},
        never=("tree", "downward-dog", ":quick rises", "head-half-circles"),
    ),
    Life("yoga for my sister with ms", {"cautions": ("ms",)}, never=("tree", ":heat", "low-squat")),
    Life("hatha, 20 minutes, for Ms Parker's group", {"cautions": ()}),
    Life(
        "gentle hatha for breast cancer survivors 30 min",
        {"cautions": ("breast-surgery",), "level": "gentle"},
        never=("downward-dog", "cobra", "crocodile", ":front"),
    ),
    Life("yoga for arthritis 25 min", {"cautions": ("arthritis",)}, never=("plank", "hero", ":kneeling")),
    Life(
        "my mum has fibromyalgia, 15 minutes",
        {"cautions": ("lasting-tiredness",)},
        never=("plank", "chair-pose", ":hard work"),
    ),
    # --- what is not understood, and asks
    Life("yoga for epileptic teens", asks="epileptic"),
    Life("breath for asthma attack", asks="asthma attack"),
    Life("one lung, hatha", asks="one lung"),
    Life("prostate surgery recovery, hatha", {"cautions": ("belly-surgery",)}),
    Life("gentle hatha for cerebral palsy", asks="cerebral palsy"),
    Life("mind dragons", asks="dragons"),
    Life("20 minutes hatha for people with lupus", asks="lupus"),
    Life("no gribbling, slow, half an hour", asks="gribbling"),
    Life("yoga after dialysis", asks="dialysis"),
    Life("gentle yoga a week after chemotherapy", asks="chemotherapy"),
    Life("pilates for glomerulonephritis", asks="glomerulonephritis"),
    # --- where the body may be, and what is left out
    Life("no wrists, hatha, 20 minutes", {"without": ("hands",)}, never=(":hands", "plank")),
    Life("hatha without twists", {"without": ("twists",)}, never=(":twists",)),
    Life("20 minute hatha, without standing", {"without": ("standing",)}, never=(":standing",)),
    Life(
        "lying down, evening",
        {"without": ("anything but lying",), "time_of_day": "evening"},
        never=(":standing", ":kneeling", ":sitting"),
    ),
    Life(
        "yoga in bed, 12 minutes, before sleep",
        {"without": ("anything not done in bed",), "target_s": 720.0, "time_of_day": "night"},
        never=(":standing", ":kneeling", ":front"),
    ),
    Life(
        "all standing, lunch break, ten minutes",
        {"without": ("anything but standing",), "time_of_day": "midday", "target_s": 600.0},
        never=(":lying", ":kneeling", ":sitting"),
    ),
    Life(
        "flow, no inversions, no backbends",
        {"style": "flow", "without": ("inversions", "backbends")},
        never=(":inversions", ":backbends"),
    ),
    Life(
        "hatha, nothing on the hands, no balances",
        {"without": ("hands", "balances")},
        never=(":hands", ":balances"),
    ),
    Life("no forward bends, 25 min", {"without": ("folds",)}, never=(":folds",)),
    # --- style, peak, place
    Life(
        "flow to crow, 40 minutes, experienced",
        {"style": "flow", "peak": "crow", "level": "experienced", "target_s": 2400.0},
        has=("crow", "low-squat", "child"),
    ),
    Life(
        "half an hour of vinyasa peaking in half moon, a block",
        {"peak": "half-moon-side", "props": ("block",)},
        has=("half-moon-side", "triangle"),
    ),
    Life(
        "classical mat for beginners, 20 minutes",
        {"style": "mat-classical", "level": "beginners"},
        has=("hundred",),
    ),
    Life(
        "classical mat to the teaser, half an hour, experienced",
        {"style": "mat-classical", "peak": "teaser"},
        has=("teaser", "hundred"),
    ),
    Life(
        "hatha towards camel, 35 minutes, mixed level",
        {"peak": "camel"},
        has=("camel", "camel-prep", "child"),
    ),
    Life("headstand while pregnant", {"cautions": ("pregnancy",)}, never=("headstand",), unmet="headstand"),
    Life(
        "people who can't sleep",
        {"time_of_day": "night", "style": "restorative"},
        never=(":standing", "camel", "chair-march"),
    ),
    Life("meditation, 15 minutes", {"style": "breathing"}, never=(":standing", ":quick breath")),
    Life(
        "yoga nidra, half an hour",
        {"without": ("anything but lying still",)},
        has=("scan-body", "final-rest"),
        never=(":standing", ":sitting", ":front", "happy-baby", "lying-twist"),
    ),
    Life("wall yoga 20 min", {"props": ("wall",)}, has=("wall-hinge", "legs-up-wall")),
    Life(
        "restorative 30 min with a bolster",
        {"style": "restorative"},
        never=("cobra", "figure-four", "sphinx"),
    ),
    Life(
        "barre, 20 minutes",
        {"without": ("anything but standing",), "focus": ("thighs", "glutes")},
        has=("plie-pulses",),
        never=(":lying",),
    ),
    Life(
        "1 hour of yin for hips",
        {"style": "slow", "target_s": 3600.0, "focus": ("hips",)},
        never=(":standing",),
    ),
    Life("hatha with a ring and a resistance band", {"props": ("band",)}, unmet="ring"),
    Life(
        "golfers, three quarters of an hour",
        {"audience": "golfers", "focus": ("upper back", "hips", "shoulders"), "target_s": 2700.0},
    ),
    Life(
        "runners' hamstrings, slow, no props, evening",
        {"focus": ("hamstrings",), "style": "slow", "time_of_day": "evening", "props": ()},
        never=(":standing",),
    ),
    Life(
        "pregnent, sholders, 20 min",
        {"cautions": ("pregnancy",), "focus": ("shoulders",)},
        never=(":back", ":front"),
    ),
    Life(
        "quick stretch for office workers",
        {"target_s": 600.0, "focus": ("shoulders", "chest", "hip flexors")},
    ),
    Life(
        "slow evening hips, mind knees, bolster",
        {
            "style": "slow",
            "time_of_day": "evening",
            "focus": ("hips",),
            "cautions": ("knees",),
            "props": ("bolster",),
        },
        never=("saddle", "pigeon", ":standing"),
    ),
)
