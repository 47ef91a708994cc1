"""The customer's report: the first page as JSON, and an e-mail file with it and the certificate attached."""

from __future__ import annotations

from datetime import datetime
from email.message import EmailMessage
from email.policy import SMTP

from pydantic import BaseModel

from ironkettle.core.jobs.kinds.ending import closed_by
from ironkettle.core.jobs.kinds.intake import intake_of
from ironkettle.core.jobs.summary import FittedLine, FoundLeft, TestLine, deviations_of
from ironkettle.reports.certified import Certified


class CustomerReport(BaseModel):
    """What a customer reads of a job, as data: the words of the certificate's first page."""

    job: int
    record: str
    title: str
    shop: str
    unit: str
    serial: str
    customer: str
    complaint: str
    fluid: str
    pressure: str
    taken_in: datetime | None
    statement: str
    remarks: list[str]
    signed_by: str | None
    signed_at: datetime | None
    found_left: list[FoundLeft]
    causes: list[str]
    done: list[str]
    fitted: list[FittedLine]
    tests: list[TestLine]


def customer_report(report: Certified) -> CustomerReport:
    """The first page of the certificate as data."""
    summary, intake, closed = report.summary, intake_of(report.state), closed_by(report.state)
    unit = None if intake is None else intake.value
    return CustomerReport(
        job=report.number,
        record=report.head,
        title=summary.title,
        shop=report.letterhead.name,
        unit=unit.unit if unit else report.resolved.whole.name,
        serial=unit.serial if unit else "",
        customer=unit.customer if unit else "",
        complaint=unit.complaint if unit else "",
        fluid=unit.fluid if unit else "",
        pressure=unit.pressure if unit else "",
        taken_in=None if intake is None else intake.mark.when,
        statement=report.statement[0],
        remarks=list(deviations_of(report.statement)),
        signed_by=None if closed is None else report.who(closed.mark),
        signed_at=None if closed is None else closed.mark.when,
        found_left=list(summary.found_left),
        causes=list(summary.causes),
        done=list(summary.done),
        fitted=list(summary.fitted),
        tests=list(summary.tests),
    )


def customer_mail(report: Certified, certificate: bytes) -> bytes:
    """An e-mail not sent yet, which a mail program opens to be addressed: a few lines, the certificate and the data attached."""
    said = customer_report(report)
    message = EmailMessage()
    message["Subject"] = f"{said.title}: {said.unit}, {said.serial}, job {said.job}"
    message["X-Unsent"] = "1"
    shop = report.letterhead
    lines = [
        f"{said.unit}, serial {said.serial}",
        f"Complaint: {said.complaint}",
        "",
        said.statement,
        *(f"- {remark}" for remark in said.remarks),
        "",
        "The certificate is attached, and its figures as data.",
        "",
        *(line for line in (shop.name, *shop.address, shop.contact) if line),
    ]
    message.set_content("\n".join(lines).rstrip() + "\n", cte="quoted-printable")
    name = f"certificate-{report.number}"
    message.add_attachment(certificate, maintype="application", subtype="pdf", filename=f"{name}.pdf")
    data = said.model_dump_json(indent=1).encode()
    message.add_attachment(data, maintype="application", subtype="json", filename=f"{name}.json")
    message.set_boundary(f"iron-kettle-{report.head[:24]}")
    return message.as_bytes(policy=SMTP)
