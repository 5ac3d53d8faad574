"""The sorts of cards: their fields in the order in which they are asked, whose they are, and who may write them."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any
from zoneinfo import available_timezones

from django.db.models import Model, QuerySet

from havrin_core.search.odds import surroundings_known
from havrin_core.vocabulary.catalogue import parts
from havrin_core.vocabulary.instruments import INSTRUMENT_KINDS
from havrin_core.wording.names import part_name
from havrin_server.cards.fields import BadField, CardField
from havrin_server.errors import NotFound
from havrin_server.instruments.models import Instrument
from havrin_server.people.models import Firm, Person
from havrin_server.shop.models import Part, ShopDocument
from havrin_server.shop.models import Sort as Shelf
from havrin_server.units.models import CONTACT_ROLES, Contact, Site, Unit


@dataclass(frozen=True, slots=True)
class CardSort:
    """One sort. ``of`` is the way to the firm; ``title`` and ``line`` say a card in a list; ``known_by`` are tried in turn
    to find the card that an imported row means: the first of which the row fills every field decides.
    """

    key: str
    name: str
    many: str
    model: type[Model]
    of: str
    fields: tuple[CardField, ...]
    title: Callable[[Any], str]
    line: Callable[[Any], str]
    write: str  # an action of the permissions
    order: tuple[str, ...]
    known_by: tuple[tuple[str, ...], ...] = ()
    related: tuple[str, ...] = ()
    made_here: bool = True  # people come by invitation, the firm is there
    retires: bool = True
    merges: bool = False

    def all_of(self, person: Person) -> "QuerySet[Any, Any]":
        """Return the cards of the person's firm."""
        rows = self.model._default_manager.filter(**{self.of: person.own_firm_id})
        return rows.select_related(*self.related).order_by(*self.order)

    def find(self, pk: int, person: Person) -> Any:
        """Return a card's thing. Raises NotFound, also for another firm's."""
        found = self.all_of(person).filter(pk=pk).first()
        if found is None:
            raise NotFound(f"There is no such {self.name.lower()} in your firm.")
        return found

    def field(self, key: str) -> CardField | None:
        """Return a field by its key."""
        return next((field for field in self.fields if field.key == key), None)

    def document(self, thing: Any) -> dict[str, Any]:
        """Return all that the card says, as a version keeps it."""
        return {field.key: field.value_of(thing) for field in self.fields}


def find_sort(key: str) -> CardSort:
    """Return a sort. Raises NotFound."""
    found = SORTS.get(key)
    if found is None:
        raise NotFound(f"No cards are called {key!r}: {', '.join(SORTS)}.")
    return found


def _zones(person: Person) -> Mapping[str, str]:
    return {name: name for name in sorted(available_timezones())}


def _sites(person: Person) -> Mapping[str, str]:
    rows = Site.objects.filter(firm_id=person.own_firm_id, retired_at=None).values_list("pk", "name")
    return {str(pk): name for pk, name in rows}


def _models(person: Person) -> Mapping[str, str]:
    rows = ShopDocument.objects.filter(firm_id=person.own_firm_id, sort=Shelf.MODEL).order_by("key")
    named = rows.values_list("key", "document__maker", "document__name")
    return {key: f"{maker} {name}" for key, maker, name in named}


def _people(person: Person) -> Mapping[str, str]:
    rows = Person.objects.filter(firm_id=person.own_firm_id, is_active=True).order_by("first_name", "last_name")
    return {str(one.pk): one.full_name for one in rows}


def _parts(person: Person) -> Mapping[str, str]:
    return dict(sorted(((key, part_name(key)) for key in parts()), key=lambda row: row[1]))


def fixed(names: Mapping[str, str]) -> Callable[[Person], Mapping[str, str]]:
    """Return choices that are the same for everybody."""
    return lambda person: names


def _put_model(unit: Unit, key: str) -> None:
    found = ShopDocument.objects.filter(firm_id=unit.site.firm_id, sort=Shelf.MODEL, key=key).first()
    if found is None:
        raise BadField("Model: there is no such model in your shop.")
    unit.model = found


def _put_person(instrument: Instrument, key: str) -> None:
    instrument.person_id = int(key) if key else None


def _put_site(thing: Unit | Contact, pk: int) -> None:
    thing.site_id = pk


SITE = CardSort(
    "site",
    "Site",
    "Sites",
    Site,
    "firm_id",
    (
        CardField("name", "Name", required=True),
        CardField("address", "Address", most=200, hint="Street and town, as you would drive there."),
        CardField(
            "altitude_m",
            "Altitude",
            "number",
            required=True,
            least=-450,
            most=5500,
            dimension="length",
            hint="Burners are set by it: to the nearest hundred is enough.",
        ),
        CardField("hours", "Hours", most=120),
        CardField("access", "Access", "long", most=500, hint="Keys, doors, whom to ring."),
        CardField("hazards", "Hazards", "long", most=500, hint="What hurts whoever comes: dogs, ladders, solvents."),
        CardField("latitude", "Latitude, °", "number", least=-90, most=90),
        CardField("longitude", "Longitude, °", "number", least=-180, most=180),
        CardField(
            "zone",
            "Time zone",
            "choice",
            most=40,
            choices=_zones,
            hint="Only where it is another one than the firm’s.",
        ),
    ),
    lambda site: site.name,
    lambda site: site.address or site.access,
    "site.write",
    ("name", "pk"),
    known_by=(("name", "address"), ("name",)),
    merges=True,
)
CONTACT = CardSort(
    "contact",
    "Contact",
    "Contacts",
    Contact,
    "site__firm_id",
    (
        CardField("site", "Site", "site", required=True, choices=_sites, get=lambda c: c.site_id, put=_put_site),
        CardField("name", "Name", required=True),
        CardField("role", "Role", "choice", required=True, choices=fixed(CONTACT_ROLES)),
        CardField("phone", "Phone", most=40),
        CardField("mail", "Mail"),
        CardField("language", "Language", most=40),
        CardField("decides", "Decides on", most=200, hint="Access, repairs up to a sum, everything."),
    ),
    lambda contact: contact.name,
    lambda contact: " · ".join(filter(None, (CONTACT_ROLES.get(contact.role, ""), contact.phone, contact.site.name))),
    "site.write",
    ("site__name", "name", "pk"),
    known_by=(("site", "name"),),
    related=("site",),
)
UNIT = CardSort(
    "unit",
    "Unit",
    "Units",
    Unit,
    "site__firm_id",
    (
        CardField("site", "Site", "site", required=True, choices=_sites, get=lambda u: u.site_id, put=_put_site),
        CardField("label", "Tag", required=True, most=20, hint="As on its tag, like F-1."),
        CardField("place", "Place", required=True, hint="Where it stands: east cellar, roof over the press hall."),
        CardField(
            "model", "Model", "choice", required=True, choices=_models, get=lambda u: u.model.key, put=_put_model
        ),
        CardField("serial", "Serial number", most=60),
        CardField("installed_year", "Installed in", "whole", least=1900, most=2100, hint="The year."),
        CardField("gas_line", "Gas line", most=60, hint="Units of a site on one branch have the same name here."),
        CardField("surroundings", "Surroundings", "choices", choices=fixed(surroundings_known())),
        CardField("vulnerable", "Who is there", hint="Whom cold or fumes harm first: one aged 84, a nursery."),
    ),
    lambda unit: unit.name,
    lambda unit: " · ".join(filter(None, (unit.site.name, unit.of_model().name, unit.serial))),
    "unit.write",
    ("site__name", "label", "pk"),
    known_by=(("serial",), ("site", "label")),
    related=("site__firm", "model"),
    merges=True,
)
PART = CardSort(
    "part",
    "Part",
    "Parts",
    Part,
    "firm_id",
    (
        CardField("number", "Number", required=True, most=60),
        CardField("name", "Name", required=True),
        CardField("part", "Which part", "choice", most=60, choices=_parts),
        CardField("fits", "Fits", "choices", choices=_models),
        CardField("set_point", "Set point", most=60, hint="With its unit: 0.65 inWC, 200 °F."),
        CardField("ports", "Ports", most=60),
        CardField("kit", "Goes with", most=200, hint="What is fitted with it: gaskets, a hose."),
        CardField("price", "Price", "price"),
    ),
    lambda part: part.name,
    lambda part: " · ".join(filter(None, (part.number, part.set_point))),
    "shelf.write",
    ("name", "number", "pk"),
    known_by=(("number",),),
)
INSTRUMENT = CardSort(
    "instrument",
    "Instrument",
    "Instruments",
    Instrument,
    "firm_id",
    (
        CardField("name", "Name", required=True, most=80),
        CardField("kind", "Kind", "choice", required=True, choices=fixed(INSTRUMENT_KINDS)),
        CardField("serial", "Serial number", most=60),
        CardField("calibrated_until", "Calibrated until", "date", hint="Unknown counts as overdue."),
        CardField(
            "person",
            "Whose",
            "choice",
            choices=_people,
            get=lambda i: str(i.person_id) if i.person_id else "",
            put=_put_person,
        ),
        CardField("van", "Van", most=20),
    ),
    lambda instrument: instrument.name,
    lambda instrument: " · ".join(
        filter(
            None,
            (
                INSTRUMENT_KINDS.get(instrument.kind, instrument.kind),
                instrument.serial,
                instrument.person.full_name if instrument.person else "",
                instrument.van,
            ),
        )
    ),
    "shelf.write",
    ("name", "pk"),
    known_by=(("serial",), ("name",)),
    related=("person",),
)
PERSON = CardSort(
    "person",
    "Person",
    "People",
    Person,
    "firm_id",
    (
        CardField("first_name", "First name", required=True, most=150),
        CardField("last_name", "Last name", most=150),
        CardField("phone", "Phone", most=40),
        CardField("licence", "Licence", most=80),
        CardField("licence_until", "Licence ends", "date"),
        CardField("van", "Van", most=20),
    ),
    lambda person: person.full_name,
    lambda person: " · ".join(filter(None, (person.role, person.van, person.phone))),
    "people.write",
    ("-is_active", "first_name", "last_name", "pk"),
    made_here=False,
    retires=False,
)
FIRM = CardSort(
    "firm",
    "Firm",
    "Firm",
    Firm,
    "pk",
    (
        CardField("name", "Name", required=True),
        CardField("address", "Address", "long", most=300),
        CardField("phone", "Phone", most=40),
        CardField("licence", "Licence", most=80),
        CardField("zone", "Time zone", "choice", required=True, most=40, choices=_zones),
        CardField("paper", "Paper", "choice", required=True, choices=fixed({"letter": "Letter", "a4": "A4"})),
        CardField(
            "currency", "Currency", required=True, most=3, least=3, hint="Three letters, as on a bank statement."
        ),
        CardField(
            "unit_system",
            "Units of who joins",
            "choice",
            required=True,
            choices=fixed({"us": "US", "metric": "metric"}),
        ),
    ),
    lambda firm: firm.name,
    lambda firm: firm.address,
    "firm.write",
    ("pk",),
    made_here=False,
    retires=False,
)
SORTS: Mapping[str, CardSort] = {s.key: s for s in (SITE, CONTACT, UNIT, PART, INSTRUMENT, PERSON, FIRM)}
