"""A misspelt field is kept, and said."""

import msgspec

from yewhour.core.plan.vocabulary import unknown_fields
from yewhour.state.classes.class_file import parse_plan, plan_bytes

DOCUMENT = {
    "yewhour": 3,
    "brief": {"titel": "Ebb", "of another program": 3},
    "sections": [
        {"title": "One", "prioritiy": 2, "body": [
            {"is": "rounds", "times": 2, "body": [
                {"is": "step", "movement": "child", "ammount": 5, "colour": 1}]}
        ]}
    ],
}  # fmt: skip


def test_what_is_misspelt_is_said_with_its_place_and_kept():
    plan = parse_plan(msgspec.json.encode(DOCUMENT))
    said = [str(problem) for problem in unknown_fields(plan)]
    assert said == [
        "the brief: The field 'titel' means nothing here; it is kept as it is. Did you mean 'title'?",
        "the brief: The field 'of another program' means nothing here; it is kept as it is.",
        "section 'One': The field 'prioritiy' means nothing here; it is kept as it is. "
        "Did you mean 'priority'?",
        "section 'One', child: The field 'ammount' means nothing here; it is kept as it is. "
        "Did you mean 'amount'?",
    ]
    written = msgspec.json.decode(plan_bytes(plan))
    assert written["brief"]["titel"] == "Ebb"
    step = written["sections"][0]["body"][0]["body"][0]
    assert (step["ammount"], step["colour"]) == (5, 1)
