"""Heat and time: pans, burners, coming to the boil, what boils off."""

from saucier.heat.choice import (
    BARE_PANS,
    POT_SHAPES,
    Load,
    fills_well,
    pan_reached_for,
    stands_well,
)
from saucier.heat.evaporation import (
    Heat,
    Pace,
    Paces,
    Stove,
    evaporation_g_per_min,
    open_surface_m2,
)
from saucier.heat.mixing import heat_capacity_j_per_k, mixed_temperature_c, pot_heat_j_per_k
from saucier.heat.pan import Pan, SideView
from saucier.heat.warming import boil_up_minutes, heat_lost_w, warmed_c

__all__ = [
    "BARE_PANS",
    "POT_SHAPES",
    "Heat",
    "Load",
    "Pace",
    "Paces",
    "Pan",
    "SideView",
    "Stove",
    "boil_up_minutes",
    "evaporation_g_per_min",
    "fills_well",
    "heat_capacity_j_per_k",
    "heat_lost_w",
    "mixed_temperature_c",
    "open_surface_m2",
    "pan_reached_for",
    "pot_heat_j_per_k",
    "stands_well",
    "warmed_c",
]
