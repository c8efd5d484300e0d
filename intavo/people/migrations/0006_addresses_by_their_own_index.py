"""What is looked up whole never takes the index for parts of words, which can answer that too and is far slower."""

from django.db import migrations

FORWARD = """
DROP INDEX address_like;
CREATE INDEX address_like ON people_address USING gin (business_id, lower(key) gin_trgm_ops);
"""
BACK = """
DROP INDEX address_like;
CREATE INDEX address_like ON people_address USING gin (business_id, key gin_trgm_ops);
"""


class Migration(migrations.Migration):
    dependencies = [("people", "0005_groups_merges_erasing")]
    operations = [migrations.RunSQL(FORWARD, BACK)]
