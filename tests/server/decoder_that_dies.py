"""Stands for a decoder that a picture has killed."""

import os
import signal

if __name__ == "__main__":
    os.kill(os.getpid(), signal.SIGKILL)
