"""Every route of the API, in the order in which addresses are tried."""

from ironkettle.api.base import health, quantities
from ironkettle.api.jobs import certificate, handover, photos, plans, record, recordings, runs
from ironkettle.api.jobs import routes as jobs
from ironkettle.api.machine import adjusters, cylinders, pressure_tests, stand, tightening
from ironkettle.api.sealing import compounds, facing, failures, grooves, ring_chart, rings, seals
from ironkettle.api.sheets import check
from ironkettle.api.sheets import routes as sheets
from ironkettle.api.shop import (
    calendar,
    codes,
    letterhead,
    lubricants,
    orders,
    people,
    ring_puzzles,
    search,
    session,
    stock,
    tokens,
    tools,
    trail,
    units,
)
from ironkettle.api.shop import settings as shop_settings

ROUTERS = tuple(
    module.router
    for module in (
        quantities,
        rings,
        ring_chart,
        grooves,
        seals,
        failures,
        compounds,
        facing,
        adjusters,
        tightening,
        cylinders,
        pressure_tests,
        stand,
        shop_settings,
        letterhead,
        lubricants,
        ring_puzzles,
        orders,
        people,
        session,
        search,
        codes,
        tools,
        tokens,
        trail,
        stock,
        calendar,
        units,
        check,
        sheets,
        jobs,
        record,
        certificate,
        runs,
        handover,
        photos,
        recordings,
        plans,
        health,
    )
)
