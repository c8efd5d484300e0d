"""Cells of a CSV file that no spreadsheet takes for a formula."""


def harmless(cell: str) -> str:
    """A cell that is read as text: one that begins with = + - @, a tab or a return gets an apostrophe before
    it.
    """
    return f"'{cell}" if cell[:1] in {"=", "+", "-", "@", "\t", "\r"} else cell
