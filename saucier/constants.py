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

FLOUR_HOLDS_FAT = 2.0
"""Grams of loose fat a gram of flour holds; what is more swims on the sauce."""
CREAMY_SHARE = 0.25
"""So much of a pot's fat at least is in droplets where it is a cream at all: a judgement of ours,
between butter with wine under it (none) and cream boiled with what was sweated in butter."""

# --- thickness -------------------------------------------------------------------------
VISCOSITY_BASE = 0.00047
"""Pa·s of the bare water phase at 65 °C (water 0.43 mPa·s, a little for what is never
counted)."""
SOLIDS_EXPONENT = 5.0
"""How strongly dissolved solids (sugars, lactose) stiffen the water phase."""
FAT_CROWDING = 1.08
PROTEIN_CROWDING_ML_PER_G = 4.5
"""Room that fat droplets and swollen protein take: x = 1.08·φ + 4.5·protein (g/mL)."""
CROWDED_FROM = 0.60
CROWDED_MOST = 0.78
CROWDED_OVER = 0.18
"""Above x = 0.60 droplets deform: f = 0.78 − 0.18·exp(−(x − 0.60)/0.18)."""
CROWDING_EXPONENT = 2.5
"""G = exp(2.5·f/(1 − f)): crowded spheres, a Krieger–Dougherty-like form."""
FLOUR_FACTOR = 0.52
FLOUR_EXPONENT = 3.7
"""Starch S = 0.52·c^3.7, fitted so that flour per litre in milk falls into the kitchen's grades."""
STARCH_CROWDING = 0.72
STARCH_ROOM = 0.28
"""A starch paste is shear-thinning (flow index about 0.4), and particles stiffen such a liquid
less: G^0.72·(1 − f)^0.28, the homogenised bound of Chateau, Ovarlez and Trung 2008."""
YOLK_AS_FLOUR = 1.4
"""Grams of flour a gram of heated yolk protein thickens like."""
YOLK_SETS_C = 75.0
TEMPERATURE_EXPONENT_K = 2000.0
"""Arrhenius-like slope of viscosity against 1/T (K)."""
REFERENCE_C = 65.0
SETS_BELOW_C = 40.0
"""Below this a roux sauce sets as well as thickens: no number is given."""

MAX_FLOUR_PER_100_WATER = 30.0
MAX_PROTEIN_SHARE = 0.30
MAX_VISCOSITY_PA_S = 300.0
MAX_FAT_VOLUME_SHARE = 0.82
"""Limits inside which the viscosity formula is meant to hold; past 300 Pa·s it is a paste."""
COMPANION_FAT = 0.40
"""Yolk with no starch, and butter or oil in so much of the volume: an emulsion whisked warm, which
no roux grade fits."""
EMULSION_CAUTION = 0.70
EMULSION_OILY = 0.77
EMULSION_SPLIT = 0.82
"""Fat share of volume at which a reduced cream turns risky, oily, split (kitchen practice:
35 % cream stands a reduction to about half)."""
POURED_WITH_CARE = 0.02
"""Alcohol share from which a liquid is measured into a cup and poured off the flame (domain.md)."""
WET_INGREDIENT = 0.40
"""An ingredient with this share of water makes the pot a liquid worth judging."""

PREDICTION_FACTOR = 1.7
"""Uncertainty of a prediction either way: about half a grade."""
SPOON_SPREAD = 0.12
"""Standard share by which flour measured by spoon or cup misses its weight."""
BODY_SPREAD_PCT = 30.0
"""How far purées of one kind differ in body, where a row does not say."""
EYE_SPREAD = 0.13
"""Standard share by which "by half" as the eye sees it misses (0.42 to 0.65 in practice)."""
MASS_UNCERTAINTY = 0.02
"""The pot's mass is known to about this share when nobody weighed it."""

BOILED_SHARE_AT_ONCE = 0.3
BOILED_SHARE_1_MIN = 0.9
BOILED_FULL_MIN = 3.0
"""Share of a flour's thickening there at about 75 °C, after a minute's boil, and the minutes
to all of it."""

SOUR_FROM = 0.003
SOUR_LOSS, SOUR_MINUTES, SOUR_MOST = 0.15, 20.0, 0.20
"""Boiled in more acid than this (as citric, g/g), flour loses 15 % of its power in twenty minutes
and a fifth at most (10–20 % by kitchen tables)."""

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
ASSUMED_PANS_CM = ((16.0, 9.0), (20.0, 11.0), (24.0, 13.0), (28.0, 16.0), (32.0, 18.0))
"""Straight pans, diameter and depth, where no kitchen names its own."""
REDUCE_GOES_IN_MM, REDUCE_LEFT_MM = 15.0, 6.0
"""A pan for a reduction is the widest in which what goes in stands so high, and what is left so."""
FILLED_LEAST, FILLED_MOST = 1.0 / 3.0, 2.0 / 3.0
"""How full a pan should be that nothing is boiled down in."""
ROUX_C = 110.0
BOIL_C = 100.0

LEAK_MINUTES = 2.0
"""Time constant of the juice greens, mushrooms, tomatoes and shellfish give back: most of it in
five minutes of heat."""
FALL_APART_MINUTES = 8.0
"""Time constant of soft vegetables falling apart into the sauce: a tomato is half sauce in ten
minutes."""
DRY_LEFT = 0.03
"""A stop that cannot be reached is played to this share of the water: boiled as dry as it goes."""
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

# --- food that is cooked in it or goes back -----------------------------------------------
JUICE_SEARED, JUICE_COOKED = 0.03, 0.01
"""Juice seared (part-cooked) and cooked food gives, as a share of its weight; raw food its full
leak."""
FINISH_MINUTES = {"raw": 6.0, "seared": 4.0, "cooked": 2.0}
"""Minutes in the sauce until it is done, where none are given."""
SEAR_STEAM_SHARE, SEAR_FOND_SHARE, SEAR_FAT_TAKEN = 0.10, 0.01, 0.15
"""Searing to colour: weight lost as steam, what stays in the pan as fond, and the share of the fat
that goes with the food or spits away (kitchen practice)."""
SEAR_G_PER_CM2 = 0.8
"""Grams of small pieces on a square centimetre of a hot pan, with gaps between them."""
HOT_FAT_C, HOT_FAT_G = 105.0, 8.0
"""Fat so hot, and so much of it, spits when something wet goes in."""

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
MEND_MINUTES = 4.0
STABLE_CREAM_FAT = 0.30
"""Creams under about 30 % fat split at the boil without starch; at 30 % or more they simmer."""
CURDLING_ACID = 0.003
"""Acid (as citric, g/g) from which milk or thin cream curdles where no starch protects it."""
REACTIVE_ACID = 0.002
"""Acid (as citric, g/g) from which bare aluminium or iron turns a sauce grey."""
CHEESE_MAX_C = 85.0
CHEESE_MELTS_C = 60.0
CHEESE_STARCH_SHARE = 0.01
CHEESE_CREAM_FAT = 0.12
"""Cheese goes stringy or greasy hotter than this, or with less flour than this share of the
pot's water and less of a cream's fat than this share of the pot to hold it; below the second
figure it does not melt."""
CHEESE_BEARS_WATER = 0.33
"""A cheese drier than this, in a cream, bears the boil; a moister one strings."""
BUTTER_BOILS_IN = 0.15
"""With this share of the pot as a cream's own fat, butter boiled into it stays in."""

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

PLATES_WARMED_FROM_C = 45.0
"""A plate asked for warmer than this is warmed beforehand (kitchen practice)."""
