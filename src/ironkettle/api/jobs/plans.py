"""What is worked out at a task from the job's own sheet: the torque plan, the plan of a hold, the next turn, the ring that fits."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import Field

from ironkettle.api.base.deps import DbSession, JobShop, SettingsInForce
from ironkettle.api.base.identity import allow
from ironkettle.api.base.problems import ERROR_RESPONSES, GUARDED, NOT_THERE, NotThereError
from ironkettle.api.base.schemas import Body, LengthText, NameText
from ironkettle.api.jobs.named import case_for, job_of
from ironkettle.api.machine.adjusters import SettingAdviceOut, advice_in, advice_out
from ironkettle.api.machine.pressure_tests import PlanOut, hold_plan_out
from ironkettle.api.machine.tightening import AdapterBody, TorquePlanOut, plan_out, read_adapter
from ironkettle.api.policies import Caller, JobPolicy
from ironkettle.api.sealing.rings import RingMatchOut, RingReadBody, match_in
from ironkettle.core.base.errors import fault
from ironkettle.core.base.quantities import Dimension, read_length, read_quantity
from ironkettle.core.jobs import Case, Task, tasks_of
from ironkettle.core.jobs.judging import plan_of_hold
from ironkettle.core.jobs.kinds.setting import TurnRead
from ironkettle.core.jobs.kinds.size import groove_of
from ironkettle.core.jobs.kinds.tightening import place_of
from ironkettle.core.jobs.proving import hold_of
from ironkettle.core.jobs.runs import MeasuredInPlace
from ironkettle.core.jobs.setting_advice import advise_setting
from ironkettle.core.jobs.torque_plan import DoneWith, torque_plan
from ironkettle.core.machine.tightening import Locking

router = APIRouter(prefix="/api/jobs/{job_id}/tasks/{task}", tags=["jobs"], responses=ERROR_RESPONSES | GUARDED)

Reader = Annotated[Caller, allow(JobPolicy.read)]


class DoneWithBody(Body):
    """What a phase is tightened with: the wrench by its key in the shop's list, an adapter, how it is kept from turning.

    ``into`` and ``engaged``: the material the thread is tapped into, and how deep it is in.
    """

    wrench: NameText | None = Field(default=None, examples=["click-60"])
    adapter: AdapterBody | None = None
    locking: list[Locking] = Field(default=[], max_length=len(Locking))
    into: NameText | None = None
    engaged: LengthText | None = Field(default=None, examples=["12 mm"])


class HeldOnBody(Body):
    """The gauge that is read, by its key in the shop's list; ``compliance``: a known volume let out once, and the drop it made."""

    gauge: NameText = Field(examples=["digital-250"])
    compliance: MeasuredInPlace | None = None


class ReadingsBody(Body):
    """Where the adjuster stood, clockwise positive, and what was read or seen there."""

    readings: list[TurnRead] = Field(min_length=1, max_length=100)


def _task(case: Case, key: str, kind: str) -> Task:
    """A task of the job, of that kind. Raises NotThereError."""
    found = next((task for task in tasks_of(case) if task.key == key and task.kind.key == kind), None)
    if found is None:
        raise NotThereError("task", key)
    return found


@router.post("/torque", summary="Settings, order and preload of a phase of a fastener group", responses=NOT_THERE)
def torque(
    job_id: UUID, task: NameText, body: DoneWithBody, session: DbSession, caller: Reader, shop: JobShop
) -> TorquePlanOut:
    case = case_for(session, job_of(session, job_id), shop, caller)
    found = _task(case, task, "tighten")
    wrench = None if body.wrench is None else case.wrenches.get(body.wrench)
    if body.wrench is not None and wrench is None:
        raise fault("wrench", f"“{body.wrench}” is not a wrench on the shop's list", *case.wrenches)
    done_with = DoneWith(
        wrench,
        read_adapter(body.adapter),
        tuple(body.locking),
        body.into,
        None if body.engaged is None else read_length(body.engaged, "engaged", high=1000),
    )
    index, turn = place_of(found)
    plan = torque_plan(case, found.subject, index, done_with, turn)
    if plan is None:
        raise NotThereError("plan of", task)
    scale = None if wrench is None else read_quantity(wrench.high, Dimension.TORQUE, "high").unit
    return plan_out(plan, scale)


@router.post("/hold", summary="How long a gauge must hold, and what it can detect", responses=NOT_THERE)
def hold(job_id: UUID, task: NameText, body: HeldOnBody, session: DbSession, caller: Reader, shop: JobShop) -> PlanOut:
    case = case_for(session, job_of(session, job_id), shop, caller)
    found = _task(case, task, "test")
    spec = hold_of(case, found.subject)
    gauge = case.gauges.get(body.gauge)
    if gauge is None:
        raise fault("gauge", f"“{body.gauge}” is not a gauge on the shop's list", *case.gauges)
    return hold_plan_out(plan_of_hold(case, spec, gauge, body.compliance))


@router.post("/advice", summary="The next turn of an adjuster", responses=NOT_THERE)
def advice(
    job_id: UUID, task: NameText, body: ReadingsBody, session: DbSession, caller: Reader, shop: JobShop
) -> SettingAdviceOut:
    case = case_for(session, job_of(session, job_id), shop, caller)
    found = _task(case, task, "set")
    spec = next(setting for setting in case.resolved.sheet.settings if setting.key == found.subject)
    advised = advise_setting(case, spec, body.readings)
    if advised.unit is None:
        return advice_out(advised.advice, advised.pitch)
    return advice_in(advised.unit, advised.advice, advised.pitch, advised.values)


@router.post("/match", summary="Match the ring, checked against the groove of its element", responses=NOT_THERE)
def match(
    job_id: UUID,
    task: NameText,
    body: RingReadBody,
    session: DbSession,
    caller: Reader,
    shop: JobShop,
    settings: SettingsInForce,
) -> RingMatchOut:
    case = case_for(session, job_of(session, job_id), shop, caller)
    return match_in(groove_of(case, _task(case, task, "identify").subject), body, case.tables.settings)
