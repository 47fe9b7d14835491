"""Pans by geometry alone: volumes against slices summed, levels against volumes."""

import itertools
import math
import unittest

from saucier.heat import Pan, SideView

PANS = (
    Pan("straight", "straight", 20, 12),
    Pan("sloped", "sloped", 24, 8),
    Pan("bowl", "bowl", 26, 10),
    Pan("shell", "shell", 12, 2.5),
    Pan("dish", "dish", 14, 5),
    Pan("tray", "tray", 50, 6, width_cm=30),
)


def sliced_ml(pan: Pan, height_cm: float, slices: int = 4000) -> float:
    """What stands below ``height_cm``: thin slices as wide as the pan's own outline has them (drawn
    straight between its points), or as long and wide as a tray."""
    if pan.shape == "tray":
        return pan.diameter_cm * (pan.width_cm or 0.0) * height_cm
    points = pan.outline
    thick = height_cm / slices
    whole = 0.0
    for number in range(slices):
        at = 10.0 * (number + 0.5) * thick
        low, high = next(
            pair for pair in itertools.pairwise(points) if at <= pair[1].height_mm + 1e-9
        )
        up = (at - low.height_mm) / (high.height_mm - low.height_mm)
        half_cm = (low.half_mm + up * (high.half_mm - low.half_mm)) / 10.0
        whole += math.pi * half_cm**2 * thick
    return whole


class Volumes(unittest.TestCase):
    def test_a_pan_holds_what_its_slices_add_up_to(self) -> None:
        for pan in PANS:
            with self.subTest(pan.name):
                # A round pan's outline is drawn in straight pieces: a little inside the sphere.
                delta = 0.02 if pan.shape in ("bowl", "shell") else 0.001
                self.assertAlmostEqual(
                    sliced_ml(pan, pan.depth_cm) / pan.capacity_ml, 1.0, delta=delta
                )

    def test_a_level_is_where_its_volume_stands(self) -> None:
        for pan in PANS:
            for share in (0.02, 0.3, 0.75, 1.0):
                level = pan.level_mm(share * pan.capacity_ml)
                held = sliced_ml(pan, level / 10.0)
                with self.subTest(pan.name, share=share):
                    self.assertAlmostEqual(held / pan.capacity_ml, share, delta=0.02)

    def test_nothing_stands_at_nothing_and_a_drop_above_it(self) -> None:
        for pan in PANS:
            self.assertEqual(pan.level_mm(0.0), 0.0)
            self.assertGreater(pan.level_mm(0.5), 0.0)
            self.assertLess(pan.level_mm(0.5), 2.0)

    def test_over_the_rim_it_stands_straight_up_from_there(self) -> None:
        for pan in PANS:
            over = pan.level_mm(pan.capacity_ml + 100.0) - 10.0 * pan.depth_cm
            rim_cm2 = 1e4 * pan.surface_m2(pan.capacity_ml)
            self.assertAlmostEqual(over, 10.0 * 100.0 / rim_cm2, delta=1e-6)

    def test_the_open_surface_is_what_the_shape_has_there(self) -> None:
        across = {"straight": 20, "sloped": 24, "bowl": 26, "shell": 12, "dish": 14}
        for pan in PANS:
            full = 1e4 * pan.surface_m2(pan.capacity_ml)
            wide = 50 * 30 if pan.shape == "tray" else math.pi / 4 * across[pan.shape] ** 2
            self.assertAlmostEqual(full, wide, delta=1e-3 * wide)
            self.assertLessEqual(pan.surface_m2(0.1 * pan.capacity_ml), full / 1e4 + 1e-9)

    def test_a_tray_without_a_width_is_square(self) -> None:
        self.assertAlmostEqual(Pan("t", "tray", 20, 5).capacity_ml, 2000.0)


class Pictures(unittest.TestCase):
    def test_a_pan_is_drawn_by_its_own_outline(self) -> None:
        pan = Pan("sauteuse", "sloped", 24, 8, tare_g=1180)
        view = SideView.of(pan)
        told = (view.name, view.diameter_cm, view.depth_cm, view.tare_g, view.outline)
        self.assertEqual(told, ("sauteuse", 24, 8, 1180, pan.outline))
        self.assertEqual((view.outline[-1].half_mm, view.outline[-1].height_mm), (120.0, 80.0))
        self.assertGreater(len(SideView.of(PANS[2]).outline), 8)


if __name__ == "__main__":
    unittest.main()
