"""What was said in a conversation is found by its words, as everything else that was written."""

from django.db import migrations

FORWARD = """
ALTER TABLE talks_message ADD COLUMN words tsvector
    GENERATED ALWAYS AS (to_tsvector('intavo_words', CASE source WHEN 'script' THEN '' ELSE text END)) STORED;
CREATE INDEX message_words ON talks_message USING gin (business_id, words);
"""
BACK = """
DROP INDEX message_words;
ALTER TABLE talks_message DROP COLUMN words;
"""


class Migration(migrations.Migration):
    dependencies = [("talks", "0002_files"), ("people", "0004_found_by_any_word")]
    operations = [migrations.RunSQL(FORWARD, BACK)]
