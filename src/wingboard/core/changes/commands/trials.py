"""The log of lamps that were tried."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Ident, Words
from wingboard.core.record.trials import Verdict


class LogTrial(Saying):
    """Write down how a lamp of a part looked when it was lit."""

    do: Literal["log_trial"] = "log_trial"
    part: Ident
    volts: Annotated[float, Field(gt=0, le=400)]
    milliamps: Annotated[float, Field(gt=0, le=20_000)]
    verdict: Verdict
    note: Words = ""


class RemoveTrial(Saying):
    """Strike an entry from the log."""

    do: Literal["remove_trial"] = "remove_trial"
    trial: Ident
