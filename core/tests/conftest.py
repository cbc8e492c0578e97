"""No test is timed: speed lives in the benchmark. None takes a real-time priority, as an encoder
would in a process of root: all others on the machine would wait."""

from hypothesis import settings
from skypane.pixels.priority import keep_to_usual_priority

settings.register_profile("untimed", deadline=None)
settings.load_profile("untimed")
keep_to_usual_priority()
