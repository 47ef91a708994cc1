"""A question of the sheet answered, when it can be seen."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from ironkettle.core.base.errors import RefusedError, fault
from ironkettle.core.jobs.ask import Ask, Choice
from ironkettle.core.jobs.case import Carried, Case
from ironkettle.core.jobs.kind import EntryKind, Line, Section, keep
from ironkettle.core.jobs.kinds.base import ItemKey, Note, known
from ironkettle.core.jobs.kinds.fitting import FITTED
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.state import Book, Payload, State
from ironkettle.core.jobs.task import Draft, Stage, Task, TaskKind, stage_of
from ironkettle.core.sheets.document.parts import Read

_TASK = TaskKind("answer", "Record the answer", rank=4)


class QuestionAnswered(Payload):
    kind: Literal["question_answered"] = "question_answered"
    question: ItemKey
    choice: ItemKey
    note: Note = ""


ANSWERS: Book[str, QuestionAnswered] = Book("answers")


def answers_in(state: State) -> dict[str, str]:
    """The choice for each question that is answered."""
    return {key: marked.value.choice for key, marked in state.book(ANSWERS).items()}


def _check(case: Case, payload: QuestionAnswered) -> None:
    questions = {question.key: question for question in case.resolved.whole.questions}
    known("question", payload.question, questions, "question")
    known("choice", payload.choice, [choice.key for choice in questions[payload.question].choices], "choice")
    chosen = next(choice for choice in questions[payload.question].choices if choice.key == payload.choice)
    if chosen.refuses:
        raise RefusedError("not-this-sheet", f"{chosen.says}: {chosen.refuses}")
    given = case.state.get(ANSWERS, payload.question)
    if given is not None and given.choice != payload.choice and not payload.note:
        says = next(c.says for c in questions[payload.question].choices if c.key == given.choice)
        raise fault("note", f"this was answered “{says}” before; give the reason for the change")
    if given is not None and given.choice != payload.choice and case.state.book(FITTED):
        raise RefusedError(
            "answer-used", "parts were fitted on that answer; first strike out those entries and the answer"
        )


def _drafts(case: Case) -> Iterator[Draft]:
    steps = {step.key: step for step in case.resolved.whole.steps}
    for question in case.resolved.whole.questions:
        seen = steps.get(question.seen_at or "")
        before = case.carried.answers.get(question.key) if case.carried else None
        # What a sister unit was says so; a person still looks.
        choices = tuple(
            Choice(choice.key, choice.says, _sign(choice.sign, case.carried if choice.key == before else None))
            for choice in question.choices
        )
        right = before or next(choice.key for choice in question.choices if choice.refuses is None)
        task = Task(
            f"answer:{question.key}",
            stage_of(seen) if seen else Stage.INTAKE,
            _TASK,
            question.key,
            question.ask,
            {"kind": "question_answered", "question": question.key},
            asks=(Ask("choice", Read.CHOICE, question.ask, choices, right=right),),
        )
        # Seen at the first of several alike.
        first = next((key for key in case.resolved.steps if seen and key.split("@")[0] == seen.key), None)
        after = {f"step:{first}": ""} if first else {}
        # What can be seen on the bench is asked before a hand is laid on it.
        before_all = {} if seen else {f"step:{key}": f"answer first: {question.ask}" for key in case.resolved.steps}
        yield Draft(task, case.state.has(ANSWERS, question.key), step=question.seen_at, after=after, before=before_all)


def _sign(sign: str | None, carried: Carried | None) -> str | None:
    return "; ".join(part for part in (sign, carried.words if carried else None) if part) or None


def _words(resolved: Resolved, payload: QuestionAnswered) -> str:
    question = next(listed for listed in resolved.whole.questions if listed.key == payload.question)
    says = next(choice.says for choice in question.choices if choice.key == payload.choice)
    return f"{question.ask} {says}"


def _hand_over(case: Case) -> Iterator[Line]:
    for key, marked in case.state.book(ANSWERS).items():
        question = next((listed for listed in case.resolved.whole.questions if listed.key == key), None)
        if question is not None:
            says = next(
                (choice.says for choice in question.choices if choice.key == marked.value.choice), marked.value.choice
            )
            yield Line.by(Section.DECIDED, f"{question.ask} {says}", marked.mark)
    for question in case.resolved.whole.questions:
        if not case.state.has(ANSWERS, question.key):
            yield Line(Section.ASSUMED, f"Not known yet: {question.ask}")


KIND = EntryKind(
    payload=QuestionAnswered,
    check=_check,
    apply=keep(ANSWERS, lambda question: question.question),
    words=_words,
    tasks=_drafts,
    completes="answer:{question}",
    hand_over=_hand_over,
)
