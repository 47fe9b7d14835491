"""The worked examples in docstrings, run."""

import doctest
import importlib
import pkgutil
import unittest

import saucier


def load_tests(
    loader: unittest.TestLoader, tests: unittest.TestSuite, pattern: str | None
) -> unittest.TestSuite:
    for module in pkgutil.walk_packages(saucier.__path__, "saucier."):
        if ".tests" not in module.name and not module.name.endswith("__main__"):
            tests.addTests(doctest.DocTestSuite(importlib.import_module(module.name)))
    return tests
