"""The rules of the job as plain Python over plain data: no Django, no clock, no input or output."""
