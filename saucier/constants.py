"""Every constant of the model in one place, each with where it comes from.

They are engineering estimates: fitted to common kitchen tables of flour per litre and of
cream reductions (docs/model.md), not measured on your stove. The app says so beside each
prediction and the kitchen's own log is meant to correct them.
"""

# --- composition -----------------------------------------------------------------------
DRY_SHARE_OF_FLOUR = 0.87
"""Dry matter in a gram of flour or starch as bought (g/g); flour at 12 % water, 1 % fat."""

DENSITY_WATER = 0.985
DENSITY_FAT = 0.90
DENSITY_DRY = 1.45
DENSITY_SALT = 2.1
DENSITY_ALCOHOL = 0.79
"""Densities in the pot at 65 °C (g/mL): water and fat from handbook values, dry matter a
usual figure for starch, protein and sugars in solution."""

# --- thickness -------------------------------------------------------------------------
VISCOSITY_BASE = 0.00047
"""Pa·s of the bare water phase at 65 °C (water 0.43 mPa·s, a little for what is never
counted)."""
SOLIDS_EXPONENT = 5.0
PROTEIN_EXPONENT = 15.0
"""How strongly dissolved solids and thickening protein stiffen the water phase."""
FAT_CROWDING = 1.08
FAT_CROWDING_LIMIT = 0.74
FAT_EXPONENT = 2.5
"""Fat droplets as crowded spheres (Krieger–Dougherty-like form, capped at close packing)."""
FLOUR_FACTOR = 0.46
FLOUR_EXPONENT = 3.7
"""Fitted so that flour per litre in milk falls into the kitchen's grades."""
YOLK_AS_FLOUR = 1.4
"""Grams of flour a gram of heated yolk protein thickens like."""
YOLK_SETS_C = 75.0
TEMPERATURE_EXPONENT_K = 2000.0
"""Arrhenius-like slope of viscosity against 1/T (K)."""
REFERENCE_C = 65.0
SETS_BELOW_C = 40.0
"""Below this a roux sauce sets as well as thickens: no number is given."""

MAX_FLOUR_PER_100_WATER = 30.0
MAX_PROTEIN_SHARE = 0.20
MAX_FAT_VOLUME_SHARE = 0.82
"""Limits inside which the viscosity formula is meant to hold."""
EMULSION_CAUTION = 0.70
EMULSION_OILY = 0.77
EMULSION_SPLIT = 0.82
"""Fat share of volume at which a reduced cream turns risky, oily, split (kitchen practice:
35 % cream stands a reduction to about half)."""
WET_INGREDIENT = 0.40
"""An ingredient with this share of water makes the pot a liquid worth judging."""

PREDICTION_FACTOR = 1.7
"""Uncertainty of a prediction either way: about half a grade."""
SPOON_SPREAD = 0.12
"""Standard share by which flour measured by spoon or cup misses its weight."""
MASS_UNCERTAINTY = 0.02
"""The pot's mass is known to about this share when nobody weighed it."""

BOILED_SHARE_AT_ONCE = 0.3
BOILED_SHARE_1_MIN = 0.9
BOILED_FULL_MIN = 3.0
"""Share of a flour's thickening there at about 75 °C, after a minute's boil, and the minutes
to all of it."""

ROUX_POWER = {"raw": 1.0, "white": 1.0, "blond": 0.90, "brown": 0.67, "dark": 0.5}
"""Thickening power of a gram of flour by the colour of its roux, against a white one; raw is
beurre manié."""

# --- heat ------------------------------------------------------------------------------
LATENT_HEAT_J_PER_G = 2257.0
EVAPORATION_KG_M2_H = {"bare-simmer": 6.0, "simmer": 14.0, "lively": 22.0, "rolling": 70.0}
"""Water leaving an open pot, kg per m² of surface and hour; rolling is a ceiling, the
burner's net power decides."""
LID_FACTOR = 0.1
BURNER_EFFICIENCY = {"gas": 0.45, "electric": 0.70, "induction": 0.85}
ALCOHOL_EXPONENT = 10.0
"""alcohol left = alcohol·(water left / water before)^10: some always stays."""
NEARLY_DRY_SHARE = 0.10
HEAT_CAPACITY = {"water": 4.18, "fat": 2.0, "dry": 1.6, "alcohol": 2.44}
"""J/(g·K), handbook values rounded."""
HEAT_CAPACITY_PLATE = 0.9
"""J/(g·K) of stoneware, handbook value."""
LIQUID_IN_MINUTES = {
    "cold-gradual": 5.0,
    "warm-stream": 3.0,
    "hot-at-once": 1.0,
    "cold-roux-into-boiling": 1.0,
}
READY_ROUX_MINUTES = 2.0
"""A cook's minutes working liquid into a roux, by school, or ready roux into a liquid."""
DEPTH_OF_UNKNOWN_PAN = 0.5
"""Without a pan: straight sides and a depth of half the diameter."""
ROUX_C = 110.0
BOIL_C = 100.0

LEAK_MINUTES = 2.0
"""Time constant of the juice greens, mushrooms, tomatoes and shellfish give back: most of it in
five minutes of heat."""
FLAMED_ALCOHOL_LEFT = 0.75
"""Share of the alcohol left after flaming: the flame dies with most of it still there."""
SWEAT_LOSS_PER_MIN = 0.02
"""Share of their weight sweating aromatics lose as steam a minute (about a fifth in ten)."""
SWEAT_LOSS_MOST = 0.5
HOLD_KG_M2_H = 2.5
"""Water leaving an uncovered pot held hot at 63–70 °C, kg per m² and hour; under film none."""
CHILLED_GAIN = 1.08
"""Effective flour of a roux sauce that was chilled and comes back, against before."""
CHILLED_BELOW_C = 10.0

# --- enriching -------------------------------------------------------------------------
TEMPER_RISE_C = 15.0
TEMPER_MAX_C = 65.0
"""Tempering: how far a ladle may raise the yolk mixture, and where it stays under until it is
diluted at least one to one."""
LIAISON_FLOUR_G_PER_L = 40.0
LIAISON_BARE_MAX_C = 82.0
"""With so much flour a litre a liaison may simmer; without, it stays under."""
SOFT_CREAM_MAX_C = 80.0
MOUNT_MAX_C = 80.0
STABLE_CREAM_FAT = 0.30
"""Creams under about 30 % fat split at the boil without starch; at 30 % or more they simmer."""
CURDLING_ACID = 0.003
"""Acid (as citric, g/g) from which milk or thin cream curdles where no starch protects it."""
CHEESE_MAX_C = 85.0
CHEESE_MELTS_C = 60.0
CHEESE_STARCH_SHARE = 0.01
"""Cheese goes stringy or greasy hotter than this, or with less flour than this share of the
pot's water to hold it; below the second figure it does not melt."""

# --- what clings -----------------------------------------------------------------------
FILM_ML = 30.0
"""Left on pot and whisk, and tasted away, mL a pot (kitchen practice; a kitchen sets its own)."""

WHISK_ML = 12_000.0
"""The most one pair of arms whisks smooth in a pot, mL (kitchen practice; a kitchen sets its own)."""

# --- the oven --------------------------------------------------------------------------
OVEN_MIN_AT_25_MM, OVEN_DEPTH_POWER = 25.0, 1.27
"""A filled dish from the fridge in a moderate oven: minutes at 25 mm, and how they grow with depth
(fitted to the kitchen figures of domain.md: 25 min at 25 mm, 40–50 at 40, an hour at 50)."""

# --- energy ----------------------------------------------------------------------------
KCAL_PER_G = {"fat": 9.0, "alcohol": 7.0, "flour": 3.5, "protein": 4.0, "solids": 4.0}
"""Usual labelling factors; solids are mostly sugars."""
