"""Every constant of the model in one place, each with where it comes from.

Tolerances of searches and limits of documents are no part of the model and stand where they are used.
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
YOLK_COOKED_C = 80.0
"""Where a liaison is warmed to for a guest who eats no raw yolk: past setting, and held to be sure."""
TEMPERATURE_EXPONENT_K = 2000.0
"""Arrhenius-like slope of viscosity against 1/T (K)."""
REFERENCE_C, KELVIN = 65.0, 273.0
SETS_BELOW_C = 40.0
"""Below this a roux sauce or a cream boiled down sets as well as thickens: no number is given."""
FLOUR_RAW_MIN, STARCH_RAW_MIN, ROUX_RAW_MIN, ROUX_COOKED_MIN = 3.0, 1.0, 1.0, 2.0
PURE_STARCH_POWER = 1.8
"""Minutes at the boil after which flour no longer tastes raw: three, one where it was cooked two minutes in fat first,
one for a starch (a power of 1.8 and more)."""
LEAN_ROUX = 0.6
"""With less fat than this share of its flour a roux is a paste that lumps and catches."""
DUSTED_INTO_WATER = 3.0
"""With more water than so many times its weight, flour dusted over a pot falls into liquid."""
ROOT_STARCH_MIN = 2.0
"""Boiled longer than this, what is bound with a root starch is told to thin."""
SMOKES_UNDER_C = 200.0
"""A pan to sear in is hotter than this: a fat that smokes below it is told."""
SAFE_MIDDLE_UNDER_C = 75.0
"""A sauce that falls below this as food goes in has to be warmed through."""
SETS_ONCE_SWOLLEN = 0.5
"""Half of its starch swollen, a cold sauce sets; before that it is thin."""

MAX_FLOUR_PER_100_WATER = 30.0
MAX_PROTEIN_SHARE = 0.30
MAX_VISCOSITY_PA_S = 300.0
MAX_FAT_VOLUME_SHARE = 0.82
"""Limits inside which the viscosity formula is meant to hold; past 300 Pa·s it is a paste."""
LEAST_LIQUID = 0.25
"""Fat with less water and alcohol than this share of the whole, and nothing that binds them, is no sauce."""
MOUNTS_INTO = 0.10
"""Butter mounted into less than this share of its weight of liquid swims."""
COMPANION_FAT = 0.40
"""Yolk with no starch, and butter or oil in so much of the volume: an emulsion whisked warm, which
no roux grade fits."""
EMULSION_CAUTION = 0.70
EMULSION_OILY = 0.77
EMULSION_SPLIT = 0.82
"""Fat share of volume at which a reduced cream turns risky, oily, split (kitchen practice:
35 % cream stands a reduction to about half)."""
POURED_WITH_CARE = 0.02
"""Alcohol share from which a liquid is measured into a cup and poured off the flame (kitchen figures)."""
WET_INGREDIENT = 0.40
"""An ingredient with this share of water makes the pot a liquid worth judging."""

PREDICTION_FACTOR = 1.7
"""Uncertainty of a prediction either way: about half a grade."""
BY_THE_SPOON = {"flour": 0.12, "cheese": 0.20}
"""Standard shares by which flour by spoon or cup, and cheese grated by the cup, miss their weight: how loose it lies."""
BODY_SPREAD_PCT = 30.0
"""How far purées of one kind differ in body, where a row does not say."""
EYE_SPREAD = 0.13
"""Standard share by which "by half" as the eye sees it misses (0.42 to 0.65 in practice)."""
MASS_UNCERTAINTY = 0.02
"""The pot's mass is known to about this share when nobody weighed it."""

SWELLS_FROM_C, SWOLLEN_C = 62.0, 94.0
SWOLLEN_SHARE = 0.92
BOILED_FULL_MIN = 3.0
"""Starch swells with heat: of its power 0.92·(3x² − 2x³) is given, x = (T − 62)/32; from 94 °C on the
rest comes in three minutes."""
THINS_MIN = 10.0
"""Minutes at the boil in which root starches, full as they come to it, lose what their row says of their power."""

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
STEAM_KG_M2_H = 6.0
WALL_W_M2_K = 12.0
AIR_VAPOUR_KPA, BOIL_VAPOUR_KPA, KPA_PER_MMHG = 1.2, 101.3, 0.133322
"""Below the boil a pot steams up to 6 kg/m²·h, by the vapour's pressure over that in a kitchen's air, and its
walls lose 12 W/m²·K (kitchen estimates)."""
LEAST_NET_SHARE, NEVER_BOILS_MIN, LAST_DEGREES_SHARE = 0.01, 1440.0, 0.1
"""What gets less than a hundredth of its burner's power as it comes to the boil never does: told as a day."""
LONG_TO_BOIL_MIN = 120.0
"""Longer to the boil than this is told as not on this ring."""
LID_FACTOR = 0.1
BURNER_EFFICIENCY = {"gas": 0.45, "electric": 0.70, "induction": 0.85}
ALCOHOL_EXPONENT = 4.5
ALCOHOL_SOON, ALCOHOL_SOON_MIN, ALCOHOL_PER_MIN = 0.9, 8.0, 0.008
"""Alcohol left = exp(−k), k growing by the greater of 4.5·ln(water before / water after) and the growth of
0.9·(1 − exp(−t/8)) + 0.008·t, t the minutes since it met a simmer (published retention; spread 30 %)."""
NEARLY_DRY_SHARE = 0.10
HARDLY_BOILED_DOWN = 0.97
"""A simmer that leaves more than this is no boiling down."""
COUNTED_MOST = 24.0
"""More pieces than this nobody counts out."""
PIECES_IN, ROUNDS_BY, ROUNDS_SHARP_BY, SHARP_SHARE = 0.25, 0.15, 0.10, 0.02
"""Pieces come in quarters (yolks whole). Rounding moves nothing by more than 15 %, and what is sour, salt or hot
(2 % acid or salt and more, spices) by no more than 10 %."""
BOILED_BY_MINUTES_MOST = 0.4
"""So much of a sauce at most is boiled away by minutes in a pan of our own choosing."""
NEARLY_FULL = 0.8
"""A pan fuller than this may boil over."""
SAME_SIZE = 0.02
"""A batch within this share of what is written is as it is written."""
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
REDUCE_GOES_IN_MM, REDUCE_LEFT_MM = 5.0, 2.5
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
WATER_OF_FLOUR = 12.0
"""g of water in 100 g of a flour or starch dried to keep."""
CUPS_OF_LIQUID_ML, CUPS_OF_DRY_ML = 1000.0, 500.0
"""Nobody measures more than this by the cup: four of a liquid, two of flour or butter."""
RENDER_MINUTES = 6.0
"""Time constant of fat running out of streaky meat in a hot pan: three quarters of it in eight
minutes (kitchen figure)."""
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
STRAINED_HOLDS = {"food": 0.03, "pieces": 0.05, "leaves": 0.10, "minced": 0.25}
LEAVES_LEAK = 0.35
"""Liquor strained food keeps on it, of the weight that went in (spread 40 %): fish, shellfish and meat in pieces,
vegetables in pieces, mushrooms and leaves (what gives back 35 % and more), minced aromatics and herbs."""
COOKED_IN_SAUCE_MIN = {"seafood": 3.0, "fish": 9.0, "meat": 12.0}
"""Minutes in a hot sauce after which raw food of usual pieces is done within: prawns 12 mm thick, fish and meat 25 mm
thick and twice as wide (slabs in a sauce at 97 °C, docs/model.md 6)."""
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
(fitted to the kitchen figures of docs/model.md 6: 25 min at 25 mm, 40–50 at 40, an hour at 50)."""

# --- energy ----------------------------------------------------------------------------
KCAL_PER_G = {"fat": 9.0, "alcohol": 7.0, "flour": 3.5, "protein": 4.0, "solids": 4.0}
"""Usual labelling factors; solids are mostly sugars."""

PLATES_WARMED_FROM_C = 45.0
"""A plate asked for warmer than this is warmed beforehand (kitchen practice)."""

# --- reductions ---------------------------------------------------------------------
STRENGTHS_TOLD = (1.5, 2.0, 3.0)
"""So many times as strong: what is told on the way down of a stock (kitchen practice)."""
GLAZE_STRENGTH = 6.0
"""A stock stronger than that coats, but as a glaze nobody means by the grade (kitchen practice)."""
EYE_LOW, EYE_HIGH = 0.84, 1.30
"""By half as the eye sees it is 0.42 to 0.65 in practice (kitchen figures): these times the share."""
REDUCED_TO_ABOUT = 0.6
"""About where a reduction to a grade, or for some minutes, ends: for choosing its pan only."""
TASTED_SHARE = 0.5
"""Where a reduction to taste is planned to stop, as a share, where nothing is said."""
AS_SAID = 0.004
"""A share within this of a half, a third … was meant so, and stopped by eye."""
JUICE_MIN = 5.0
"""Minutes in which pieces give most of their juice at the boil."""
SAME_TIME = 0.3
"""Two stopping rules whose minutes differ by more are told apart."""
SHORT_OF_TURNING = 0.999
"""A grade is boiled for no further than just under where a cream turns oily."""

# --- seasoning ----------------------------------------------------------------------
OVER_SALTED_PCT = 0.03
"""g salt per 100 g over the target from which a sauce was salted too soon."""
RINSED_KEEPS = 0.5
"""Share of its salt that brined food keeps where it is rinsed or blanched (docs/model.md 2)."""
BRINE_TOLD_PCT = 0.1
"""g salt per 100 g of the sauce from which what salted food gives is told."""
SALTY_AS_SAID_PCT = 0.15
"""g salt per 100 g by which a sauce is brought down that somebody finds too salty though the sum does not."""
SALT_WHOLE_G = 20.0
"""From here on salt is weighed in whole grams: a tenth is under half a percent of it."""

# --- correcting ---------------------------------------------------------------------
OVER_YIELD = 0.05
"""A correction that makes so much more than was planned is told."""
CORRECTED_FULL = 0.9
"""A pan filled further is told before more goes in."""
THIN_OF_A_GRADE = 1.0 / 3.0
"""The thin and the thick third of a grade (on its logarithmic band) are called so."""
STIFF_TIMES = 2.0
"""A panade so many times as thick as where panades begin is called a thick one: it has no upper edge."""
NEAR_ENOUGH = 0.12
"""So near its thickness (in log η) nothing is done about it."""
CORRECT_MINUTES = {"liquid": 1.0, "roux": 4.0}
"""Minutes a correction takes, by what is held back."""
CORRECT_MOST_SHARE = 3.0
"""The most that is tried to correct a pot, times the pot."""

# --- dishes -------------------------------------------------------------------------
VESSEL_FULLEST = 0.92
"""A dish filled further boils over its rim (kitchen practice)."""
VESSEL_SHALLOWEST = 0.12
"""Less than this and the filling is a film that dries in the oven (kitchen practice)."""
SAUCE_G_PER_ML = 1.03
"""A sauce's density where only its volume is known."""

# --- recipes ------------------------------------------------------------------------
USUAL_SIMMER_MIN = 5.0
USUAL_SWEAT_MIN = 8.0
USUAL_SALT_PCT = 0.8
USUAL_STEEP_MIN = 15.0
"""What a recipe that does not say is taken to mean (kitchen figures)."""

# --- pans ---------------------------------------------------------------------------
BOILED_FULL_MOST = 0.75
"""A pan filled further than this is none to boil in."""
SEAR_ROUNDS = 2.0
"""Rounds in which a pan takes the food to be seared without being too small for it."""
BASE_OF_SLOPED = 0.75
"""A sloped pan's base as a share of its rim."""
PINCH_OF_QUARTERS_G, PINCH_SPREAD = 0.1, 0.5
"""A quarter of a pinch, g (measures.csv has a pinch at 0.4 g), and how far pinches differ."""
POT_FULLEST = 2.0 / 3.0
"""A pot is at most so full (docs/model.md 7)."""
POT_HARDLY_FILLED = 0.12
"""Under this a pan is told as wide for so little."""
PANS_ALIKE_MIN = 0.5
"""Pans whose minutes differ by less are told as equally quick, min."""
POT_EMPTIEST = 0.25
"""A pot is at least so full (docs/model.md 7)."""
MOST_BATCHES = 12
"""More rounds than this in the largest pan are told as far too many."""
POT_A_LITTLE_OVER = 1.003
POT_WITHIN = 0.005
"""A pot aims this much over and is rounded within that share: a need is met, to a percent."""
FINISHED_FULL = 0.8
"""A branch is finished in a pan it leaves a fifth of."""
POT_HOLDS = 0.9
"""A sheet's own pan, or one the cook chose, is filled so far and no further."""

# --- mother pots --------------------------------------------------------------------
SAME_LIQUID = 0.006
"""Two liquids are one where no part of a gram differs by more: two milks from two suppliers."""
BRANCH_BOIL_MIN = 3.0
"""What goes in before a base's simmer is boiled in the branch for so long."""
LET_DOWN_C = 85.0
"""Let-down goes in hot."""
RATHER_THIN = -0.25
JUST_RIGHT = 0.05
"""So near its thickness (in log η) a branch is poured as it comes. A mother weighed in whole steps may
come out thinner than her thickest branch asks for: a quarter is well within its grade, and nobody
kneads beurre manié for that."""
BRANCH_SHORT = 0.004
BRANCH_OVER = 0.008
"""A rounded branch may miss its volume by so much: rather over than short, under one percent."""
MOST_LET_DOWN = 0.40
"""Past this share of let-down another way is offered (docs/model.md 7)."""
SMALL_BRANCH = 1.0 / 3.0
"""A branch under this share of the whole may be bound by itself (docs/model.md 7)."""

# --- mending ------------------------------------------------------------------------
CLINGS = {"whisk": 0.0, "blend": 0.01, "sieve": 0.04, "decant": 0.05}
"""Share of the pot that stays in the sieve, the blender, the caught pan (kitchen practice)."""
MEND_SPOON_SHARE = 0.03
"""A spoon of water for a split sauce to be whisked into, as a share of it."""
MENDING_HOT_C = 80.0
MENDING_WARM_C = 75.0
"""What goes in hot, and how warm a cold pot is made first (kitchen practice)."""
COLD_BY_C = 10.0
"""A pot this far under its serving temperature is warmed before anything else."""
MENDING_BOIL_MIN = 3.0
"""A thickener put in late is boiled for so long."""

# --- schools ------------------------------------------------------------------------
FAT_TO_FLOUR = {"drier": 0.8, "equal": 1.0, "more-fat": 1.25, "spoonfuls": 1.75}
"""Fat to flour by weight, by school (kitchen figures)."""
LIQUID_IN_C = {
    "cold-gradual": 5.0,
    "warm-stream": 60.0,
    "hot-at-once": 90.0,
    "cold-roux-into-boiling": 20.0,
}
"""How warm the liquid meets the roux, by school (kitchen figures)."""

# --- keeping ------------------------------------------------------------------------
FREEZER_DAYS = 90.0
"""Days a sauce is used from the freezer, where its label says nothing else (kitchen practice)."""
ROUX_DAYS = 14.0
"""A ready roux has little water in it and keeps longer than what is made with it."""
BROUGHT_BACK_C = 85.0
"""What was made ahead is warmed to this before it is judged."""
THICKER_AHEAD = 1.05
"""Made-ahead sauce is let down where it is more than this times as thick as wanted."""

# --- steps --------------------------------------------------------------------------
STEEP_C = 85.0
"""Just under the boil: where aromatics are steeped."""
JUICE_SHARE = 0.2
"""So much of their weight pieces must give at the boil for a dry pot to be a liquid."""
KITCHEN_C, FRIDGE_C = 20.0, 4.0
"""What comes from the shelf and from the fridge, °C."""
MELT_MINUTES = 2.0
"""Minutes to melt a batch's cheese in by handfuls."""
MUCH_CHEESE = 0.45
"""More cheese than this share of the sauce may turn greasy (kitchen practice)."""
USED_PAN_C = 120.0
SEAR_C = 150.0
"""A used pan taken off the fire for a moment, and one that is seared in."""

# --- swaps --------------------------------------------------------------------------
SWAP_TOO_MUCH = 2.5
SWAP_TOO_LONG = 3.0
"""A swap that takes so many times the weight or the time is none."""

# --- thickness ----------------------------------------------------------------------
SPOON_LENGTH_M = 0.05
SPOON_DRAINS_S = 3.0
SPOON_DENSITY_KG_M3 = 1030.0
GRAVITY_M_S2 = 9.81
"""The spoon held up: how long a film drains over what length (Jeffreys 1930)."""
MODERATE_OVEN_C, FAN_IS_WORTH_C, FOOD_IN_OVEN_C = 180.0, 20.0, 74.0
"""A moderate oven; what a fan is worth beside a still one (usual kitchen conversion); and the middle
the food has to reach, above which the oven drives it (estimate: minutes go with the difference)."""

ABOUT_AS_QUICK_MIN = 5.0
"""Remedies within so many minutes of one another are as quick to a cook."""
REMEDY_ADDS_MOST, REMEDY_COSTS_LITTLE = 1.5, 2.0
"""A remedy that more than doubles the pot and takes so many times what another would, or costs more
than the pot did and than so much money, is no cook's first thought."""
TOO_MUCH_DOWN_TO = 2.0 / 3.0
"""What is too hot or too sweet is brought down by a third at a time: as far as a tongue tells."""
TRIAL_CUP_G, TRIAL_SPOON_G = 100.0, 15.0
"""A cup of the sauce to try on, and the spoon of plain base that goes in at a time, g."""
SPOON_OF_WATER_G = 15.0
EMULSION_COLD_SHARE, EMULSION_HOT_SHARE = 0.06, 0.05
"""Water that brings a warm emulsion back, as a share of it: a spoon or two for a sauceboat."""
SWEET_FROM = 0.05
"""g sugar in a gram from which a wine, juice or spirit is a sweet one."""

# --- how sure (docs/model.md 13) ---------------------------------------------------------
SCALE_OFF_G, SCALE_OFF_SHARE = 0.5, 0.003
"""How far a kitchen scale is off: half a gram, and a little of the whole."""
JUG_SPREAD, PIECE_SPREAD = 0.02, 0.10
"""Standard shares by which a jug's mark and the weight of a piece (a yolk, an onion) differ."""
BOIL_SPREAD_NAMED, BOIL_SPREAD_ASSUMED = 0.15, 0.35
"""Standard share by which what boils off in a minute differs: in a pan that is named (the ring, the
draught, how wide it is turned), and in one that had to be assumed (16 to 28 cm is three times the
area). Estimates."""
PACE_OF_THE_DAY = 0.10
"""Standard share by which one pan at one heat boils off more on one day than on another. Estimate."""
EYE_THICKNESS_SPREAD = 0.3
"""Standard share (logarithm of η) by which a cook misses a thickness judged by the spoon: a quarter of
a grade's width. Estimate."""
CLOCK_OFF_MIN, CLOCK_OFF_SHARE = 0.5, 0.05
"""By how much minutes at the stove are off: when they began, when somebody looked. Estimate."""
SERVED_OFF_C = 4.0
"""By how much it is served hotter or cooler than planned. Estimate."""
STOP_BY_SCALE_SPREAD = 0.01
"""The same for a stop weighed with the pan on the scale: a percent of the pot."""
AFTER_THE_EYE = 0.5
"""Share of the model's doubt left in what goes in after a stop the eye decided."""
STILL_THE_SAME = 0.15
"""What goes in after that stop counts as little up to this share of the pot."""

# --- around a service -------------------------------------------------------------------
LEFT_TOLD_ML = 40.0
"""Less than this left over is not worth a word."""
ALCOHOL_TOLD_G = 0.2
"""Grams of alcohol left in a portion from which on it is told."""
SITTING_GAP_MIN = 45.0
"""Minutes between two sittings from which on what does not wait is made again, and what does is covered
(kitchen practice)."""
STOCK_ML_PER_G = {
    "shells": 1.5,
    "fish": 1.2,
    "poultry": 1.2,
    "meat": 1.0,
    "greens": 1.5,
    "mushrooms": 1.5,
}
"""mL of stock a gram of trimmings makes, by kind (water just over them, simmered and strained: kitchen
practice, ± a third)."""
STOCK_WORTH_ML = 150.0
"""Less than this is no stock worth a pot."""

# --- the dish, seen -------------------------------------------------------------------
POOL_SECONDS = 10.0
"""When a pool is looked at, s after it was poured (docs/model.md 7)."""
POOL_THINNEST_MM = 2.0
"""A sauce stops running where it is so thin (docs/model.md 7)."""
PATTERN_KEEPS = 1.5
"""Two sauces keep a pattern while their viscosities differ by less than this factor."""
PLATE_WELL_SHARE = 0.72
"""Of a plate's width, what lies within its rim (common dinner plates)."""
SLICE_CM2, SLICE_HIGH_MM = 100.0, 12.0
"""A slice of bread edge to edge, cm² (as the toast of uses.csv is reckoned), and how high it is, mm."""
CROQUETTE_G, CROQUETTE_G_PER_ML = 52.0, 1.05
"""A croquette, g (domain notes: 45 to 60), and its density."""
FOOD_HIGH_MM = 24.0
"""How high a piece of food stands on a plate where nobody measures it, mm."""
MOUTHFUL_SALT_PCT = 0.8
"""g salt per 100 g of a mouthful where no use says otherwise (docs/model.md 5)."""
MOUTHFUL_CLOSE_PCT = 0.05
"""A sauce is not salted anew for less than this."""
PASTA_WATER_ML_PER_G, PASTA_WAITS_MIN, PASTA_AHEAD_HOURS = 10.0, 3.0, 24.0
"""Water for a gram of dry pasta, mL; how long it waits drained before it sticks; how long cooked, cooled and
oiled it waits to be dipped (kitchen practice)."""
PASTA_DRINKS_BAKED, PASTA_DRINKS_TOSSED = 0.30, 0.08
"""g of a sauce's water that a gram of dry pasta still drinks, baked in it and tossed with it (kitchen
figures; ± half)."""
FOOD_DRINKS_MOST = 0.4
"""Of a sauce's water, what food in it drinks at most: starch and protein hold the rest (estimate)."""
DRAINED_STILL_GIVES = 0.3
"""Of the juice a vegetable gives raw, what it still gives in the oven though it was cooked and drained."""
THROUGH_FROM_MM = 8.0
"""Thinner than this a dish is hot as soon as it is coloured."""
COVERED_TAKES, OVEN_SPREAD = 1.1, 0.2
"""By how much longer a covered dish takes in an oven (foil holds radiant heat off), and by what share ovens differ.
Estimates."""
HOT_FINISH_MIN = {"grill": 3.0, "torch": 1.0, "oven": 12.0}
"""Minutes that colour a dish filled hot, where it says none itself (domain notes: 1 to 3 under a grill)."""

# Run-up (docs/model.md 8): minutes by hand and how long things stand, from general kitchen knowledge.
HANDLING_MIN = 0.5
RING_SLOWER = 1.3
"""A ring will do for a pot that takes it no more than this many times the quickest's minutes."""
WEIGH_MIN, WEIGH_EACH_MIN = 1.0, 0.4
WARM_MIN, WARM_MIN_PER_L = 4.0, 3.0
WASH_MIN = 2.0
DELICATE_WAITS_MIN, GREEN_WAITS_MIN, RICH_CREAM_WAITS_MIN = 10.0, 15.0, 20.0
SUFFERS_TOO_MUCH = 3
CREAM_WAITS_MIN, CHEESE_WAITS_MIN, ROUX_WAITS_MIN, MOTHER_WAITS_MIN = 60.0, 60.0, 90.0, 60.0
POTS_A_COOK = 3
PREPARE_AT_A_TIME_MIN = 15.0
"""Work by hand is cut into pieces no longer than this, so that two can share it."""
FILL_MIN, FILL_EACH_MIN = 1.0, 0.25
ROLL_EACH_MIN = 0.4
PLATE_MIN, PLATE_EACH_MIN = 0.5, 0.2
CARRY_MIN, CARRY_EACH_MIN = 0.5, 0.05
TORCH_EACH_MIN = 0.4
PLATED_WAITS_MIN, COLOURED_WAITS_MIN, FILLED_WAITS_MIN = 6.0, 5.0, 60.0
WARM_PLATES_MIN = 20.0
CHILL_FILLED_MIN = 90.0
HOT_OVEN_AS_GRILL_C = 240.0
OVEN_GIVE_C = 15.0
PIECE_CM2 = 150.0
"""What a portion without a vessel takes under a grill, on its tray."""
EARLIEST_H = 9.0
"""Nothing of the day begins earlier than so many hours before it is first served."""
STANDING_W_M2_K = 9.0
"""Heat that leaves a covered pan off the fire, W for each m² and K: still air and radiation."""
HOLDING_TOLD_MIN = 3.0
TAP_C = 15.0
HOT_HOLDING_C = 63.0
"""The highest of the usual figures for hot holding; a kitchen's own rule comes first."""
SAUCE_W_M_K, RICH_W_M_K, RICH_FAT_SHARE = 0.55, 0.35, 0.5
"""How sauces lead heat, W/m·K, from lean ones to a cream that is half fat."""
STIRRED_FILM_W_M2_K = 250.0
"""Within a pot that is stirred now and then: through the film of sauce at its side."""
MOVED_AT_C = 20.0
"""A tray in ice goes into the fridge at so many degrees in its middle."""
COVERED_SHARE = 0.6
"""What still leaves through film or a lid, of what leaves an open face."""
PROBE_OFF_C, PROBE_WILD_C, PROBE_WILD_SHARE = 1.0, 8.0, 0.03
"""How far a probe is off, °C; and how far where it slipped, in so many readings of a hundred."""
PROBE_FRESH_MIN = 2.0
"""A reading that is older is told with its age."""
PROBE_MISS_SPREADS = 2.5
"""A reading so many spreads from where it was expected is a miss: two on one side are a change."""
COOLING_PACE_SPREAD, COOLING_PACE_WANDERS, COOLING_PACE_EDGE = 0.45, 0.05, 0.9
"""Logarithm of how much quicker a tray cools than the sum: its spread, how it wanders in √min, and from where
the sum does not fit any more."""
COOLING_CHANGES_PER_MIN = 0.0015
"""Chance that a tray is put elsewhere, a minute."""
COOLING_LAG = 0.25
"""By what share of a fall by e the middle of a tray comes behind its outer part."""
IN_TIME_FROM, LATE_BELOW = 0.9, 0.8
"""Chances from which a cooling is called in time, and below which it is warned of."""
RICH_TO_FREEZE = 0.25
"""A cream with so large a share of fat may turn when it thaws."""
CHILLED_DAYS = 2
"""Days a cooled sauce is kept by the usual cautions."""
A_LA_MINUTE_SUFFERS = 6
"""Sides that suffer so much from waiting are cooked when the plate is called."""
CALL_SAUCE_MIN = 1.5

# --- a pot watched at the stove (docs/model.md 17) -----------------------------------------
LIVE_SCALE_OFF_G = 3.0
"""How far one reading of a scale under a boiling pot is off: it trembles, a spoon leans on it."""
LEVEL_OFF_MM, LEVEL_OFF_SHARE = 1.5, 0.02
"""How far a level pressed on the picture, or a dip mark, is off."""
EYE_OFF_SHARE = 0.06
"""Standard share by which one eye, in one pan, sees every level too high or too low."""
POURED_SPREAD = 0.03
"""Standard share by which what is in a pot differs from what its sheet says, where nobody weighed it."""
MIDDLE_C, MIDDLE_POULTRY_C = 63.0, 74.0
"""Usual cautions for the middle of fish and meat, and of poultry; the kitchen's own rule comes first."""
TEMPER_NEAR_C = 2.0
"""Yolks so near to where a ladle should take them are there."""
FOUND_OFF_G = 2.0
"""Grams by which a pot may be off before what mends it is reckoned from the pot instead of the sheet."""
JUG_OFF_ML = 10.0
"""How far what is read off a jug twice is off by."""
TARE_SPREAD_G, TARE_UNKNOWN_G = 8.0, 2000.0
"""How far a pan's weight as entered is off, and where it is not entered at all."""
SCALE_DRIFTS_G_MIN = 0.4
"""By how much a scale that stays under a hot pot drifts in a minute, g, one standard spread. Estimate."""
PACE_SPREAD = 0.35
"""Standard share by which a pot boils off quicker or slower than the model says, before anything is
seen of it: the hand at the tap, the draught, how wide it boils."""
PACE_WANDERS = 0.07
"""By how much that share wanders in a minute (a random walk: for t minutes, times the root of t)."""
STRENGTH_SPREAD = 0.5
"""Standard spread of log η about the model, before a spoon is lifted: about half a grade."""
BOIL_UP_SPREAD = 0.3
"""Standard share by which the minutes until it boils are off."""
OUTLIER = 4.0
"""A reading so many spreads off what is believed is set aside."""
JUMP_AGREES_MIN, JUMP_GOES_BACK_MIN = 1.0 / 3.0, 12.0
"""Three readings that are off by the same over so many minutes are believed; what jumped and goes back within the
other was something that lay on the scale."""
JUMP_OPENS_PACE, JUMP_UNSETTLED, JUMP_PENDING = 0.4, 0.5, 0.6
"""What a jump opens of the logarithm of the pace, the share of it that may as well be the pan's, and the share of one
that is not believed yet by which the spread is opened. Estimates."""
FOAM_LIFTS = 0.15
"""Share by which foam lifts a level at the boil, as a standard spread to one side (up to a quarter)."""
LOOK_DISAGREES = 2.5
"""A cook who sees something so many spreads off what is believed is right: the step was begun late, the
fire turned, something poured."""
NINE_IN_TEN = 1.645
"""Half the width, in spreads, of what holds nine times in ten."""
WARN_BEFORE_MIN = 1.5
"""A cream about to turn oily is told when it may happen within so many minutes."""
PAST_SHARE = 0.03
"""Of what a reduction is to leave, how much less is told as past it: a dip or two of a spoon is not."""
JUMP_TOLD_MIN = 2.0
"""Minutes for which a jump of the scale is spoken of."""
PACE_TOLD = 1.35
"""A pot that boils off so many times as fast, or as slow, as expected is told so."""
PROBE_BOILS_C = 95.0
PROBE_STILL_MIN, PROBE_STILL_C = 0.75, 1.0
"""A probe says that it boils where it reads so much, and no more than so much hotter in the minutes
after."""
AGAIN_SIZE = 0.08
"""What is still to come is solved again where the pot is so much larger or smaller than it was to be."""

# --- what a kitchen learns (docs/model.md 19) ---------------------------------------------
LEARNED_PACE_SPREAD, LEARNED_STRENGTH_SPREAD = 0.35, 0.12
"""How far kitchens differ from what is usual, standard shares: what a pan boils off in a minute, and how
strong a flour is. Estimates; with little to go by, what is learned stays near the usual."""
BATCH_SCATTER = 0.28
"""Standard share of log η by which one batch differs from the next in one kitchen with one flour: the
hand, the stove, the kind of sauce. With the flour's own doubt it comes to the model's whole. Estimate."""
LEARNED_FILM_SPREAD, LEARNED_SERVED_SPREAD, LEARNED_WORK_SPREAD = 0.5, 0.3, 0.4
"""The same for what clings to a pot, what is served to each, and a cook's minutes at the board."""
LEARNED_FROM = 40
"""The newest records of one thing that are looked at: older ones say nothing new."""
CHANGED_CHANCE = 0.25
"""The chance, given beforehand, that something was changed within them: another flour, another ring."""
ODD_ABOVE = 0.7
"""A record that is so likely of something else fits no other, and is told."""
