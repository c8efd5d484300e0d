"""What others are told of mail."""

from intavo.core.effects import Effect

from .models import OutgoingMail

# The mail, which says why; told once, in the transaction in which it is given up.
mail_given_up: Effect[OutgoingMail] = Effect("a mail could not be sent, and is not tried again")
