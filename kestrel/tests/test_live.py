"""Streams of those who are signed out end; those of others go on."""

import asyncio
from unittest import TestCase

from kestrel import live


class HangingUp(TestCase):
    def test_of_one_user_or_of_all(self) -> None:
        async def heard() -> list[list[str]]:
            told: list[list[str]] = [[], []]

            async def listen(number: int) -> None:
                async for event in live._stream(7, number):
                    told[number].append(event.partition("\n")[0])

            tasks = [asyncio.create_task(listen(number)) for number in (0, 1)]
            await asyncio.sleep(0.05)
            self.assertEqual(live.listening(7), 2)
            live.hang_up(0)
            await asyncio.wait_for(tasks[0], 2.0)
            live.tell(7, "look", {})
            await asyncio.sleep(0.05)
            live.hang_up()
            await asyncio.wait_for(tasks[1], 2.0)
            return told

        first, second = asyncio.run(heard())
        self.assertEqual(first, ["event: hello"])
        self.assertEqual(second, ["event: hello", "event: look"])
        self.assertEqual(live.listening(7), 0)
