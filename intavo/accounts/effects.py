"""What accounts tells the apps above it."""

from intavo.core.effects import Effect

from .models import Business

business_created: Effect[Business] = Effect("business created")
business_changed: Effect[int] = Effect("business changed (its id)")
