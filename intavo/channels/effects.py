"""What channels tells the apps above it."""

from dataclasses import dataclass, field

from intavo.core.effects import Effect

from .models import Channel


@dataclass
class Used:
    """Who uses a channel: whoever does writes down what it is called."""

    channel: Channel
    by: list[str] = field(default_factory=list)


channel_used: Effect[Used] = Effect("who uses a channel")
