"""Light: a module at night, its legends in figures, strips and LEDs behind it, the lamps of the functions."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Literal

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from wingboard.api.routers.common import DesignId, Key, OnDesk, Revision, WithJobs, as_json, file_of
from wingboard.api.routers.events import JobView, job_view
from wingboard.core.findings.limits import limit
from wingboard.core.light.boxes import BoxLight, boxes_of
from wingboard.core.light.chain import chain_of
from wingboard.core.light.figures import Night, night_of, standing
from wingboard.core.light.indicators import lamps_of
from wingboard.core.light.kinds import LEDS, STRIPS
from wingboard.core.light.patches import dark_rings, hot_spots
from wingboard.core.light.picture import bands, brightest, even_picture, night_picture
from wingboard.core.light.power import power_of
from wingboard.core.light.scene import FINER, STEP, bodies_before, groups_of
from wingboard.core.light.screens import GLOWS, screens_of
from wingboard.core.light.suggest import Way
from wingboard.core.light.through import passes, way_through
from wingboard.core.record.errors import UnknownThing
from wingboard.core.record.functions import Film
from wingboard.core.record.lights import USUAL_STRIP, Backlight, LedKind, StripKind
from wingboard.core.record.modules import Opacity, opacity_of
from wingboard.core.resolved.boards import board_front
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.services.desk import State
from wingboard.services.lighting import refining, suggesting

LENS_EVERY = 4
"""Of the points of a caption's lens every fourth is sent, each way."""
router = APIRouter(prefix="/api/designs/{design_id}", tags=["light"])


class WordView(BaseModel):
    """A word of a legend: least and mean (cd/m²)."""

    text: str
    least: float
    mean: float


class LegendView(BaseModel):
    """How a legend reads at night (cd/m²), where it is darkest (mm), and the words with dark patches."""

    function: str
    name: str
    least: float
    mean: float
    evenness: float
    standing: Literal["must", "judge", "ok"]
    dark: list[str]
    uncovered: float
    x: float
    y: float
    words: list[WordView]


class DotView(BaseModel):
    """One LED (mm)."""

    x: float
    y: float


class RunView(BaseModel):
    """A strip as it is cut, with its LEDs (mm, A)."""

    id: str
    name: str
    run: float
    cut: float
    leds: int
    amps: float
    volts: float
    dots: list[DotView]


class LinkView(BaseModel):
    """A strip of the chain: its first and last LED, and the wire to it from the one before (mm)."""

    strip: str
    first: int
    last: int
    wire: float


class FeedView(BaseModel):
    """Where power comes in: before that LED of the chain, at its place (mm)."""

    number: int
    x: float
    y: float


class ChainView(BaseModel):
    """Addressable strips in the order their data runs, and where power is fed in."""

    links: list[LinkView]
    feeds: list[FeedView]


class LoadView(BaseModel):
    """What one supply, and its dimmer, has to give."""

    volts: float
    amps: float
    leds: int


class ResistorView(BaseModel):
    """How many resistors of a value (Ω) the single LEDs want."""

    many: int
    ohms: float


class PassView(BaseModel):
    """A layer on the way of the light: how it takes it, and the share that passes."""

    layer: str
    name: str
    opacity: Opacity
    share: float


class BodyView(BaseModel):
    """What throws shadows, as a path in the module's coordinates."""

    path: str


class BandView(BaseModel):
    """A colour of the evenness picture, and the share of the usual light that it stands for."""

    share: float
    colour: str


class HotView(BaseModel):
    """A spot so many times as bright as the usual legend (mm)."""

    x: float
    y: float
    times: float


class RingView(BaseModel):
    """A part with darkness round it: the share of the ring that is dark, the least of what is beyond."""

    function: str
    name: str
    x: float
    y: float
    dark: float
    least: float


class NightView(BaseModel):
    """The map: its rectangle, the step between its points (mm), what is shown as white, the usual legend (cd/m²)."""

    x: float
    y: float
    width: float
    height: float
    step: float
    white: float
    usual: float
    flux: float
    arrived: float
    bands: list[BandView]
    legends: list[LegendView]
    hot: list[HotView]
    rings: list[RingView]


class LightView(BaseModel):
    """A module's light; no ``night`` while nothing lights it, while light cannot pass, or while it is worked out."""

    module: str
    light: Backlight
    board: float = Field(description="Where lamps lie unless it is said, mm behind the front")
    plane: float = Field(description="What spreads the light, mm behind the front")
    back: float = Field(description="The back of the plate, mm behind the front")
    lit: bool
    working: bool
    way: list[PassView]
    runs: list[RunView]
    chain: ChainView | None
    loads: list[LoadView]
    resistors: list[ResistorView]
    watts: float
    price: int
    bodies: list[BodyView]
    even: float
    night: NightView | None


class KindView(BaseModel):
    """A kind of strip or LED that can be laid."""

    kind: StripKind | LedKind
    name: str
    strip: bool


class LampView(BaseModel):
    """One lamp of a function, and what to buy for it (V, A, Ω, W)."""

    function: str
    name: str
    line: str
    terminal: str
    colour: str
    supply: float
    drop: float
    row: int
    amps: float
    ohms: float | None
    watts: float
    buy: float
    states: int
    made_for: float = Field(description="Supply of one that needs no resistor; 0: it needs one")
    bulb: bool
    power: float
    had_bulb: bool = Field(description="Its part comes with a bulb, in whose place an LED may stand")
    said: str


class BoxView(BaseModel):
    """A caption's lens lit (mm, cd/m²): least and mean light, the brightest point over the mean, its lamps."""

    function: str
    name: str
    width: float
    height: float
    depth: float
    side: bool
    lamps: int
    least: float
    mean: float
    evenness: float
    hot: float
    standing: Literal["must", "judge", "ok"]
    rows: list[list[float]] = Field(description="Light over the lens of its brightest point, upwards, every 2 mm or so")


class ScreenView(BaseModel):
    """A read-out or screen: what it glows by, its film and the share of light that passes, the film to cut (mm).

    ``aslant`` is how far off square it is looked at, ``cone`` from how far it reads (degrees).
    """

    function: str
    name: str
    glow: str
    colour: str
    film: Film | None
    passes: float
    aslant: float | None
    cone: float
    width: float
    height: float


class LampsView(BaseModel):
    """Every lamp of the functions, what all of them take together (A) by supply, and the kinds of light behind."""

    screens: list[ScreenView]
    lamps: list[LampView]
    boxes: list[BoxView]
    box_even: float = Field(description="Least over mean that a caption's lens shall have")
    loads: list[LoadView]
    kinds: list[KindView]


def _found(r: Resolved, module: str) -> ResolvedModule:
    found = r.modules.get(module)
    if found is None:
        raise UnknownThing("There is no such module", "module")
    return found


def _night(state: State, module: str, step: float = STEP) -> Night | None:
    """A module's night, worked out here and now unless it is known."""
    r = state.resolved
    known = night_of(r, _found(r, module), step) if step == STEP else None
    fresh = Resolved(state.design)
    return known or night_of(fresh, _found(fresh, module), step)


@router.get("/light/{module}", responses={200: {"model": LightView}})
def light(desk: OnDesk, design_id: DesignId, module: str) -> Response:
    """A module's light in figures; its night may follow later, which the stream of news says."""
    state = desk.open(design_id)
    r = state.resolved
    found = _found(r, module)
    made = found.module.light or Backlight()
    way = way_through(found.stack, found.plates)
    power = power_of(made)
    front = board_front(found.stack)
    dots = {g.id: [DotView(x=p.x, y=p.y) for p in g.lamps] for g in groups_of(made, front)}
    night = night_of(r, found)
    return as_json(
        LightView(
            module=module,
            light=made,
            board=front,
            plane=way.plane,
            back=found.thickness,
            lit=way.lit,
            working=night is None and way.lit and bool(made.strips or made.leds),
            way=[
                PassView(layer=x.id, name=x.name, opacity=opacity_of(x), share=passes(x)) for x in found.plates[1:]
            ],
            runs=[
                RunView(id=u.id, name=u.name, run=u.run, cut=u.cut, leds=u.leds, amps=u.amps, volts=u.volts,
                        dots=dots[u.id])
                for u in power.strips
            ],
            chain=_chain(r, made, dots),
            loads=[LoadView(**load._asdict()) for load in power.loads],
            resistors=[ResistorView(many=x.many, ohms=x.ohms) for x in power.resistors],
            watts=power.watts,
            price=power.price,
            bodies=[BodyView(path=_path(body.outline)) for body in bodies_before(found)],
            even=limit(r.design, "light-even"),
            night=_of(r, found, night) if night is not None else None,
        )
    )  # fmt: skip


def _chain(r: Resolved, light: Backlight, dots: Mapping[str, Sequence[DotView]]) -> ChainView | None:
    lamps = {ident: [(dot.x, dot.y) for dot in mine] for ident, mine in dots.items()}
    made = chain_of(light, lamps, limit(r.design, "chain-run"))
    return made and ChainView(
        links=[LinkView(**link._asdict()) for link in made.links],
        feeds=[FeedView(**feed._asdict()) for feed in made.feeds],
    )


def _path(outline: object) -> str:
    points = list(outline.simplify(0.05).exterior.coords)[:-1]  # type: ignore[attr-defined]
    return "M" + "L".join(f"{x:.2f} {y:.2f}" for x, y in points) + "Z"


def _of(r: Resolved, module: ResolvedModule, night: Night) -> NightView:
    g = night.map.grid
    even, patches = limit(r.design, "light-even"), limit(r.design, "light-patches")
    return NightView(
        x=g.x0 - g.step / 2,
        y=g.y0 - g.step / 2,
        width=g.columns * g.step,
        height=g.rows * g.step,
        step=g.step,
        hot=[HotView(**spot._asdict()) for spot in hot_spots(night, module)],
        rings=[RingView(**ring._asdict()) for ring in dark_rings(night, module)],
        white=brightest(night),
        usual=night.usual,
        flux=night.map.flux,
        arrived=night.map.arrived,
        bands=[BandView(share=share, colour=colour) for share, colour in bands()],
        legends=[
            LegendView(
                function=legend.function, name=legend.name, least=legend.least, mean=legend.mean,
                evenness=legend.evenness,
                standing=standing(legend.evenness, even, patches), dark=list(legend.dark), uncovered=legend.uncovered,
                x=legend.worst[0], y=legend.worst[1],
                words=[WordView(text=w.text, least=w.least, mean=w.mean) for w in legend.words],
            )
            for legend in night.legends
        ],
    )  # fmt: skip


PICTURE = file_of("image/png")


@router.get("/light/{module}/night.png", response_class=Response, responses=PICTURE)
def night_png(desk: OnDesk, design_id: DesignId, module: str, even: bool = False, fine: bool = False) -> Response:
    """What shines through the face everywhere, as a picture: as it looks, or in colours by its share of the usual."""
    night = _night(desk.open(design_id), module, FINER if fine else STEP)
    if night is None:
        raise UnknownThing("Nothing lights this module from behind", "module")
    content = even_picture(night) if even else night_picture(night)
    return Response(content, media_type="image/png", headers={"cache-control": "no-cache"})


def _box(r: Resolved, box: BoxLight) -> BoxView:
    coarse = box.field[::LENS_EVERY, ::LENS_EVERY] / max(1e-9, float(box.field.max()))
    return BoxView(
        function=box.function, name=box.name, width=box.width, height=box.height, depth=box.depth, side=box.side,
        lamps=box.lamps, least=box.least, mean=box.mean, evenness=box.evenness, hot=box.hot,
        standing=standing(box.evenness, limit(r.design, "light-even"), limit(r.design, "box-patches")),
        rows=[[round(float(v), 3) for v in row] for row in coarse],
    )  # fmt: skip


@router.get("/lamps", responses={200: {"model": LampsView}})
def lamps(desk: OnDesk, design_id: DesignId) -> Response:
    """The lamps of the functions with their resistors, and the kinds of light that can be laid behind."""
    r = desk.open(design_id).resolved
    found = lamps_of(r)
    loads: dict[float, tuple[float, int]] = {}
    for lamp in found:
        amps, many = loads.get(lamp.supply, (0.0, 0))
        loads[lamp.supply] = amps + lamp.amps, many + 1
    kinds = [KindView(kind=kind, name=x.name, strip=True) for kind, x in STRIPS.items()]
    kinds += [KindView(kind=kind, name=y.name, strip=False) for kind, y in LEDS.items()]
    return as_json(
        LampsView(
            screens=[
                ScreenView(
                    function=s.placed.function.id,
                    name=s.placed.function.name,
                    glow=GLOWS[s.glow],
                    colour=s.colour,
                    film=s.film,
                    passes=s.passes,
                    aslant=s.aslant,
                    cone=s.cone,
                    width=s.size[0],
                    height=s.size[1],
                )
                for s in screens_of(r)
            ],
            lamps=[
                LampView(
                    **lamp._asdict(),
                    said=lamp.said,
                    power=lamp.power,
                    had_bulb=any(line.bulb for line in r.parts[r.functions[lamp.function].part or ""].lines),
                )
                for lamp in found
            ],
            boxes=[_box(r, box) for box in boxes_of(r)],
            box_even=limit(r.design, "light-even"),
            loads=[LoadView(volts=v, amps=amps, leds=n) for v, (amps, n) in sorted(loads.items())],
            kinds=kinds,
        )
    )


class SuggestAsked(BaseModel):
    """From which revision lamps are looked for, how they are laid, and of which strip."""

    base: Revision
    way: Way = "rows"
    kind: StripKind | None = None
    key: Key = None


@router.post("/light/{module}/suggest", status_code=202, responses={202: {"model": JobView}})
def suggest_lamps(desk: OnDesk, jobs: WithJobs, design_id: DesignId, module: str, asked: SuggestAsked) -> Response:
    """Start looking where lamps would have to lie; nothing is changed by it."""
    _found(desk.open(design_id, asked.base).resolved, module)
    work = suggesting(desk, design_id, asked.base, module, asked.way, asked.kind or USUAL_STRIP)
    return as_json(job_view(jobs.start("lamps", design_id, work, asked.key)), 202)


class RefineAsked(BaseModel):
    """Of which revision a finer map is wanted."""

    base: Revision
    key: Key = None


@router.post("/light/{module}/refine", status_code=202, responses={202: {"model": JobView}})
def refine_map(desk: OnDesk, jobs: WithJobs, design_id: DesignId, module: str, asked: RefineAsked) -> Response:
    """Start working out a finer map; its picture follows at once when it is done."""
    _found(desk.open(design_id, asked.base).resolved, module)
    work = refining(desk, design_id, asked.base, module, FINER)
    return as_json(job_view(jobs.start("light", design_id, work, asked.key)), 202)
