"""A kitchen simulated through a whole evening: true pots and trays, two cooks who do what the screens say, and a judge
who knows the truth. It knows the app by HTTP alone."""

from standins.evening.app import App
from standins.evening.judge import Verdict, judge
from standins.evening.run import Evening, play

__all__ = ["App", "Evening", "Verdict", "judge", "play"]
