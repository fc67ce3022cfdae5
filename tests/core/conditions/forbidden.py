"""What no draft may contain, by condition, listed by hand and apart from the rules: names as a teacher knows
them.

Written from what careful teachers leave out, not from data/groups.toml or data/cautions.toml; nothing here
reads those. A name is a movement's id; BASES are places a class for it may never be in.
"""


def _listed(text: str) -> frozenset[str]:
    """The names of a list with commas."""
    return frozenset(" ".join(name.split()) for name in text.split(","))


FORBIDDEN = {
    "pregnancy-first": _listed("""
        breath-of-fire, skull-shining, bellows, rapid-breath, box-breath, four-seven-eight, chin-lock,
        hold-after-exhale, interval-breath, cobra, bow, locust, hundred, boat, teaser, roll-up,
        criss-cross, double-leg-stretch, plank, side-crow, crow, headstand, revolved-triangle,
        revolved-side-angle, revolved-chair, half-lord-twist, marichi-c, high-lunge-twist, breath-of-joy,
        lower-lift, swimming, sphinx, double-leg-kick, revolved-half-moon
    """),
    "pregnancy": _listed("""
        final-rest, constructive-rest, evening-rest, supported-rest, floor-breath, hundred, roll-up,
        chest-lift, boat, teaser, teaser-prep, criss-cross, single-leg-stretch, double-leg-stretch,
        lower-lift, plank, side-plank, low-plank, forearm-plank, leg-pull-front, camel, camel-prep, wheel,
        bow, locust, cobra, sphinx, upward-dog, swan-prep, swan-dive, headstand, shoulder-stand, plough,
        forearm-stand, handstand-wall, toe-squat, reclined-hero, revolved-chair, revolved-triangle,
        revolved-side-angle, half-lord-twist, lying-twist, marichi-c, crow, bridge, happy-baby,
        knees-to-chest, front-rest, crocodile, legs-up-wall, supported-fish, fish, breath-of-fire,
        box-breath, downward-dog, squat-twist, windscreen-wipers, figure-four, long-sphinx,
        reclined-butterfly, snail, pelvic-tilt, hip-rolls, dead-bug, table-hold, toe-taps, supported-twist
    """),
    "after-birth": _listed("""
        chest-lift, roll-up, hundred, criss-cross, plank, side-plank, forearm-plank, double-leg-stretch,
        lower-lift, boat, teaser, revolved-chair, half-lord-twist, wheel, camel, bow, locust, cobra,
        sphinx, swan-prep, headstand, breath-of-fire, box-breath, crow, scissors, neck-pull, low-squat,
        table-hold, leg-pull-front, revolved-triangle, long-sphinx
    """),
    "c-section": _listed("""
        chest-lift, roll-up, hundred, plank, boat, teaser, revolved-chair, lying-twist, half-lord-twist,
        wheel, camel, bow, cobra, sphinx, bridge, supported-fish, puppy, low-lunge-back, seated-twist,
        lunge-twist, windscreen-wipers, long-seal
    """),
    "belly-surgery": _listed("""
        chest-lift, roll-up, hundred, plank, boat, teaser, revolved-chair, half-lord-twist, wheel, camel,
        cobra, box-breath, chin-lock, wall-sit, block-squeeze, lying-twist, bridge
    """),
    "pelvic-floor": _listed("""
        hundred, boat, roll-up, teaser, double-leg-stretch, lower-lift, criss-cross, chest-lift,
        breath-of-fire, low-squat, box-breath, table-hold, neck-pull, plank, four-part-curl, squat-twist
    """),
    "fragile-bones": _listed("""
        roll-up, rolling-ball, saw, spine-stretch, plough, jackknife, neck-pull, chest-lift, seated-fold,
        hundred, criss-cross, open-leg-rocker, mat-seal, teaser, half-roll-down, lying-twist,
        half-lord-twist, seated-twist, revolved-triangle, revolved-chair, spine-twist, chair-twist,
        standing-roll-down, fold, long-caterpillar, rabbit, shoulder-stand, headstand, boomerang, crab,
        rollover, rock-to-sit, trunk-rounding, head-to-knee, wide-fold, windscreen-wipers, standing-twist,
        snail, melting-butterfly, chair-fold, boat
    """),
    "disc": _listed("""
        roll-up, rolling-ball, saw, spine-stretch, plough, lower-lift, teaser, neck-pull, seated-fold,
        fold, pyramid, wide-fold, big-toe-fold, wheel, camel, bow, half-lord-twist, lying-twist,
        revolved-triangle, revolved-chair, seated-twist, long-caterpillar, dragonfly, straight-leg-twist,
        standing-split, head-to-knee, half-splits, criss-cross, swan-dive, jackknife, dangling,
        standing-roll-down, ragdoll, marichi-c
    """),
    "low-back": _listed("""
        roll-up, rolling-ball, saw, plough, lower-lift, teaser, neck-pull, seated-fold, fold,
        big-toe-fold, wheel, camel, camel-prep, bow, half-lord-twist, revolved-triangle, revolved-chair,
        long-caterpillar, dragonfly, straight-leg-twist, swan-dive, jackknife, locust, standing-split
    """),
    "neck": _listed("""
        headstand, headstand-prep, rolling-ball, shoulder-stand, half-shoulder-stand, plough, fish,
        rollover, jackknife, control-balance, boomerang, snail, rabbit, open-leg-rocker, mat-seal, camel,
        supported-fish, neck-pull, upward-dog
    """),
    "shoulders": _listed("""
        plank, low-plank, side-plank, downward-dog, dolphin, forearm-stand, handstand-wall, wheel,
        upward-plank, reverse-tabletop, bound-side-angle, leg-pull-back, arms-up, warrior-one, chair-pose,
        crow, side-crow, cow-face, puppy, melting-heart, wild-thing, forearm-plank, wall-angels
    """),
    "wrists": _listed("""
        hands-and-knees, cat, cow, plank, downward-dog, crow, upward-dog, side-plank, handstand-wall,
        side-crow, opposite-reach, fire-hydrant, donkey-kick, wheel, reverse-tabletop, upward-plank,
        three-legged-dog, half-plank, hover, cat-roll, bird-dog-hold, leg-pull-front, wild-thing,
        mat-push-up, cobra, low-lunge
    """),
    "elbows": _listed("""
        low-plank, upward-plank, mat-push-up, reverse-tabletop, plank, crow, wheel, handstand-wall
    """),
    "knees": _listed("""
        low-squat, toe-squat, hero, reclined-hero, half-reclined-hero, saddle, half-saddle, pigeon,
        pigeon-fold, long-swan, king-pigeon, fire-log, square, cow-face, heron, squat-twist, child,
        frog-stretch, long-frog, camel, camel-prep, low-lunge, gate, opposite-reach, fire-hydrant,
        chair-pose, wall-sit, crow, rabbit, puppy, tuck-sit, quad-stretch, half-frog, knee-bends, bow
    """),
    "knee-replacement": _listed("""
        low-squat, toe-squat, hero, saddle, pigeon, low-lunge, gate, camel, child, opposite-reach, cat,
        fire-hydrant, hands-and-knees, chair-pose, frog-stretch, half-splits, lizard, puppy
    """),
    "hips": _listed("""
        pigeon, low-squat, splits, seated-fold, happy-baby, knees-to-chest, cow-face, eagle, lying-twist,
        figure-four, fire-log, shoelace, child, lizard, fold, boat, eagle-twist, long-caterpillar,
        hand-to-toe, half-splits
    """),
    "hip-replacement": _listed("""
        pigeon, low-squat, splits, seated-fold, happy-baby, knees-to-chest, cow-face, eagle, lying-twist,
        figure-four, shoelace, child, lizard, fold, deer, ninety-ninety, tree, sit, hero, cat-tail
    """),
    "ankles": _listed("""
        tree, eagle, dancer, warrior-three, half-moon-side, toe-squat, downward-dog, hero, calf-raise,
        standing-split, one-leg-stand, tandem-stand, saddle, ankle-stretch, low-squat
    """),
    "hypermobile": _listed("""
        splits, half-splits, king-pigeon, dragonfly, long-frog, saddle, long-swan, long-dragon, snail,
        melting-heart, reclined-hero, compass, wheel, long-caterpillar, twisted-roots, heron,
        reverse-tabletop, upward-plank
    """),
    "blood-pressure": _listed("""
        headstand, shoulder-stand, plough, forearm-stand, handstand-wall, downward-dog, fold, dolphin,
        box-breath, breath-of-fire, skull-shining, bellows, chin-lock, wall-sit, four-seven-eight,
        big-toe-fold, wide-fold, pyramid, dangling, rabbit, warrior-one, wheel, ragdoll, standing-split,
        legs-up-block, puppy
    """),
    "low-blood-pressure": _listed("""
        rolling-ball, rock-to-stand, headstand, downward-dog, fold, head-half-circles, breath-of-fire,
        standing-roll-down, open-leg-rocker, ragdoll, wide-fold, sit-to-stand, plough
    """),
    "dizziness": _listed("""
        rolling-ball, rock-to-stand, headstand, downward-dog, fold, head-half-circles, breath-of-fire,
        standing-roll-down, ragdoll, wide-fold, tree, plough, boomerang, mat-seal, backward-walk
    """),
    "eye-pressure": _listed("""
        headstand, shoulder-stand, plough, downward-dog, fold, wide-fold, pyramid, forearm-stand, dolphin,
        breath-of-fire, box-breath, rabbit, dangling, puppy, child, ragdoll, legs-up-wall, big-toe-fold,
        standing-split, wall-sit, chair-fold, snail
    """),
    "heart": _listed("""
        headstand, downward-dog, fold, box-breath, breath-of-fire, wall-sit, hundred, plank, chair-pose,
        boat, warrior-three, crow, goddess, shoulder-stand, teaser, side-plank, breath-of-joy
    """),
    "stroke": _listed("""
        headstand, downward-dog, fold, box-breath, breath-of-fire, hundred, plank, low-lunge, cobra, gate,
        camel-prep, bow-prep, hands-and-knees, tree, warrior-two, boat, crow, shoulder-stand, child,
        four-point-leg
    """),
    "migraine": _listed("""
        headstand, downward-dog, fold, wheel, camel, bow, breath-of-fire, skull-shining, shoulder-stand,
        plough, ragdoll, child, breath-of-joy, rolling-ball, wide-fold, dangling, puppy, bridge
    """),
    "asthma": _listed("""
        box-breath, breath-of-fire, skull-shining, bellows, four-seven-eight, climb-breath, long-exhale,
        chin-lock, hold-after-exhale, interval-breath, final-rest
    """),
    "breath-holding": _listed("""
        box-breath, breath-of-fire, skull-shining, bellows, four-seven-eight, climb-breath, chin-lock,
        hold-after-exhale, interval-breath
    """),
    "anxiety": _listed("""
        box-breath, breath-of-fire, four-seven-eight, climb-breath, chin-lock, hold-after-exhale, bellows,
        long-exhale
    """),
    "period": _listed("""
        headstand, shoulder-stand, plough, hundred, boat, teaser, roll-up, revolved-chair,
        revolved-triangle, breath-of-fire, criss-cross, half-lord-twist, plank, forearm-stand,
        double-leg-stretch
    """),
    "reflux": _listed("""
        headstand, downward-dog, plough, cobra, bow, locust, sphinx, fold, seated-fold, chest-lift,
        roll-up, hundred, rolling-ball, knees-to-chest, child, shoulder-stand, boat, crocodile, wide-fold
    """),
    "larger-bodies": _listed("""
        bound-side-angle, shoulder-stand, plough, cow-face, eagle, compass, seated-fold, rolling-ball,
        crow, marichi-c, half-lord-twist, jackknife, child, rollover, heron, king-pigeon
    """),
    "older": _listed("""
        tree, eagle, dancer, warrior-three, half-moon-side, headstand, downward-dog, rolling-ball, plank,
        roll-up, head-half-circles, rock-to-stand, crow, low-squat, hero, splits, breath-of-fire,
        standing-roll-down, breath-of-joy, toe-squat
    """),
    "balance": _listed("""
        tree, eagle, dancer, warrior-three, half-moon-side, standing-split, hand-to-toe, rock-to-stand,
        breath-of-joy, standing-figure-four, crow
    """),
    "chair-only": _listed("""
        warrior-one, warrior-two, tree, one-leg-stand, backward-walk, tandem-stand, knee-bends,
        sit-to-stand, mountain, child, cat, fold, wall-press, chair-march, chair-warrior-two,
        chair-pigeon, seated-twist, final-rest, knee-extension, heel-toe-walk, weight-shift,
        standing-march
    """),
    "ms": _listed("""
        tree, warrior-three, half-moon-side, dancer, eagle, hand-to-toe, standing-split, headstand,
        handstand-wall, shoulder-stand, downward-dog, breath-of-fire, bellows, box-breath, plank, low-squat,
        mountain-climbers, wall-sit, rolling-ball, saddle, long-dragon
    """),
    "parkinsons": _listed("""
        tree, warrior-three, half-moon-side, dancer, eagle, standing-split, headstand, forearm-stand, plough,
        rolling-ball, rock-to-stand, breath-of-fire, box-breath, plank, low-squat, downward-dog, hundred,
        head-half-circles, breath-of-joy
    """),
    "arthritis": _listed("""
        plank, low-plank, downward-dog, side-plank, crow, handstand-wall, hands-and-knees, hero, camel,
        low-squat, reclined-hero, headstand, plough, saddle, mat-push-up, fire-log
    """),
    "lasting-tiredness": _listed("""
        plank, side-plank, low-plank, hundred, chair-pose, wall-sit, mountain-climbers, breath-of-fire,
        box-breath, headstand, wheel, boat, teaser, goddess, handstand-wall, breath-of-joy
    """),
    "breast-surgery": _listed("""
        plank, low-plank, side-plank, downward-dog, cobra, bow, locust, swimming, sphinx, wheel, crow,
        handstand-wall, headstand, mat-push-up, camel, supported-fish, wall-chest, crocodile, front-rest,
        hundred, boat
    """),
    "pelvic-girdle": _listed("""
        warrior-one, warrior-two, triangle, side-angle, low-lunge, high-lunge, side-lunge, goddess,
        tree, eagle, dancer, warrior-three, half-moon-side, low-squat, wide-fold, pigeon, lizard,
        frog-stretch, happy-baby, butterfly, wide-seat, dragonfly, clam, fire-hydrant, side-leg-lift,
        inner-thigh-lift, one-leg-stand, standing-march, step-up, splits, kneeling-side-kick,
        reclined-butterfly, gate, chair-hip-abduction, cow-face, figure-four, double-leg-stretch,
        lower-lift
    """),
    "curved-spine": _listed("""
        wheel, camel, bow, king-pigeon, plough, shoulder-stand, headstand, forearm-stand,
        half-lord-twist, marichi-c, revolved-triangle, revolved-side-angle, revolved-chair, roll-up,
        rolling-ball, jackknife, neck-pull, mat-seal, open-leg-rocker, snail, control-balance, crow,
        handstand-wall, bananasana, twisted-roots
    """),
    "cancer-treatment": _listed("""
        plank, low-plank, side-plank, hundred, boat, teaser, chair-pose, wall-sit, headstand,
        shoulder-stand, plough, wheel, bow, locust, cobra, swimming, breath-of-fire, skull-shining,
        box-breath, crow, handstand-wall, mountain-climbers, downward-dog, half-lord-twist,
        revolved-triangle, roll-up, neck-pull, tree, dancer, warrior-three, crocodile, front-rest,
        long-dragon, dragonfly, toe-squat, low-squat
    """),
    "teenagers": _listed("""
        headstand, shoulder-stand, plough, box-breath, breath-of-fire, saddle, long-frog, dragonfly, wheel,
        splits, chin-lock, king-pigeon, forearm-stand, snail
    """),
    "children": _listed("""
        headstand, shoulder-stand, plough, box-breath, breath-of-fire, saddle, long-frog, dragonfly,
        wheel, wall-sit, splits, chin-lock, king-pigeon, forearm-stand, long-caterpillar, hundred,
        rollover, snail
    """),
}

# Places a class for a condition is never in, and for what it does without.
BASES = {
    "pregnancy": _listed("""
        supine, prone, shoulders
    """),
    "after-birth": _listed("""
        prone, plank
    """),
    "breast-surgery": _listed("""
        prone, four-point, plank, inverted
    """),
    "chair-only": _listed("""
        standing, wide, split, folded, squat, kneeling, four-point, plank, inverted, seated, supine,
        prone, on-right, on-left, shoulders, wall
    """),
    "wrists": _listed("""
        four-point, plank, inverted
    """),
    "knee-replacement": _listed("""
        kneeling, four-point
    """),
    "blood-pressure": _listed("""
        inverted, folded, shoulders
    """),
    "eye-pressure": _listed("""
        inverted, folded, shoulders
    """),
    "migraine": _listed("""
        inverted, folded, shoulders
    """),
    "reflux": _listed("""
        prone, inverted, shoulders
    """),
    "kneeling": _listed("""
        kneeling, four-point
    """),
    "standing": _listed("""
        standing, wide, folded, wall
    """),
    "front": _listed("""
        prone
    """),
    "back": _listed("""
        supine, shoulders, wall-lying
    """),
    "lying": _listed("""
        supine, prone, on-right, on-left, shoulders
    """),
    "inversions": _listed("""
        inverted, folded, shoulders
    """),
    "hands": _listed("""
        four-point, plank, inverted
    """),
    "anything but lying": _listed("""
        standing, wide, split, folded, squat, kneeling, four-point, plank, inverted, seated, chair, wall
    """),
    "anything but sitting": _listed("""
        standing, wide, split, folded, squat, kneeling, four-point, plank, inverted, prone, shoulders,
        wall
    """),
    "anything but standing": _listed("""
        kneeling, four-point, plank, inverted, prone, shoulders, seated, supine, on-right, on-left, chair
    """),
    "floor": _listed("""
        kneeling, four-point, plank, inverted, prone, shoulders, seated, supine, on-right, on-left, squat
    """),
}
# Movements a class without a group never has, by the group as a teacher names it.
WITHOUT = {
    "kneeling": _listed("""
        child, cat, cow, camel, camel-prep, toe-squat, fire-hydrant, low-lunge, pigeon, hero, gate, puppy,
        lizard, opposite-reach, half-splits, shell-stretch, thread-arm
    """),
    "twists": _listed("""
        lying-twist, seated-twist, half-lord-twist, revolved-chair, criss-cross, open-book, thread-arm,
        chair-twist, windscreen-wipers, saw, standing-twist, open-twist, supported-twist, marichi-c,
        spine-twist, hip-rolls, twisted-roots, lunge-twist, hip-drop-twist
    """),
    "inversions": _listed("""
        downward-dog, headstand, shoulder-stand, plough, fold, wide-fold, dolphin, handstand-wall,
        three-legged-dog, legs-up-wall, rabbit, snail, standing-split, ragdoll
    """),
    "hands": _listed("""
        plank, downward-dog, cat, cow, hands-and-knees, crow, side-plank, opposite-reach, fire-hydrant,
        upward-dog, reverse-tabletop, cobra, wheel
    """),
    "balances": _listed("""
        tree, eagle, dancer, warrior-three, half-moon-side, one-leg-stand, tandem-stand,
        standing-figure-four, hand-to-toe, bird-dog-hold
    """),
    "backbends": _listed("""
        cobra, sphinx, camel, bow, wheel, bridge, locust, puppy, supported-fish, swan-prep, long-sphinx,
        low-lunge-back, upward-dog, dancer, saddle
    """),
    "folds": _listed("""
        fold, seated-fold, wide-fold, pyramid, head-to-knee, child, long-caterpillar, dragonfly, ragdoll,
        spine-stretch, chair-fold, melting-butterfly, roll-up
    """),
    "planks": _listed("""
        plank, side-plank, forearm-plank, low-plank, half-plank, hover, mat-push-up, leg-pull-front,
        mountain-climbers
    """),
    "deep knees": _listed("""
        low-squat, knee-bends, chair-pose, wide-squats, squat-twist, toe-squat, wall-sit, goddess
    """),
    "front": _listed("""
        cobra, sphinx, locust, crocodile, swan-prep, front-rest
    """),
    "back": _listed("""
        final-rest, bridge, lying-twist, figure-four, happy-baby, legs-up-wall, constructive-rest,
        evening-rest
    """),
}
