"""Heat and time: pans, burners, coming to the boil, what boils off."""

from saucier.heat.evaporation import (
    Stove,
    boil_up_minutes,
    evaporation_g_per_min,
    open_surface_m2,
)
from saucier.heat.mixing import heat_capacity_j_per_k, mixed_temperature_c
from saucier.heat.pan import Pan, pan_for

__all__ = [
    "Pan",
    "Stove",
    "boil_up_minutes",
    "evaporation_g_per_min",
    "heat_capacity_j_per_k",
    "mixed_temperature_c",
    "open_surface_m2",
    "pan_for",
]
