"""Small simulated stand-ins for what hangs at the app from outside: a pot on a ring, a scale under it, a
probe in it, a label printer. They run as a process of their own and know the app only by what anything
that can send HTTP knows of it; nothing here imports from it."""
