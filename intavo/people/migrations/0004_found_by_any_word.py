"""Everything that was written is found by its words, with and without accents, in any script.

Needs the trusted extensions unaccent, pg_trgm and btree_gin, which come with PostgreSQL; the owner of the database may
create them.
"""

from django.db import migrations

FORWARD = """
CREATE EXTENSION IF NOT EXISTS unaccent;
CREATE EXTENSION IF NOT EXISTS pg_trgm;
CREATE EXTENSION IF NOT EXISTS btree_gin;
CREATE TEXT SEARCH CONFIGURATION intavo_words (COPY = simple);
ALTER TEXT SEARCH CONFIGURATION intavo_words
    ALTER MAPPING FOR hword, hword_part, word, asciiword, asciihword, hword_asciipart WITH unaccent, simple;
-- Immutable, so that it can stand in an index: the dictionary is named, and is never changed.
CREATE FUNCTION intavo_plain(words text) RETURNS text LANGUAGE sql IMMUTABLE STRICT PARALLEL SAFE
    AS $$ SELECT lower(public.unaccent('public.unaccent'::regdictionary, words)) $$;
CREATE FUNCTION intavo_said(kind text, data jsonb) RETURNS text LANGUAGE sql IMMUTABLE STRICT PARALLEL SAFE
    AS $$ SELECT concat_ws(' ', data->>'subject', data->>'text', data->>'from',
        (SELECT string_agg(one->>1, ' ') FROM jsonb_array_elements(
            CASE jsonb_typeof(data->'typed') WHEN 'array' THEN data->'typed' ELSE '[]'::jsonb END) AS one)) $$;
ALTER TABLE people_timelineevent ADD COLUMN words tsvector
    GENERATED ALWAYS AS (to_tsvector('intavo_words', intavo_said(kind, data))) STORED;
CREATE INDEX event_words ON people_timelineevent USING gin (business_id, words);
CREATE INDEX person_name_like ON people_person USING gin (business_id, intavo_plain(name) gin_trgm_ops);
CREATE INDEX address_like ON people_address USING gin (business_id, key gin_trgm_ops);
CREATE INDEX tag_like ON people_persontag USING gin (business_id, intavo_plain(tag) gin_trgm_ops);
"""
BACK = """
DROP INDEX tag_like, address_like, person_name_like, event_words;
ALTER TABLE people_timelineevent DROP COLUMN words;
DROP FUNCTION intavo_said(text, jsonb);
DROP FUNCTION intavo_plain(text);
DROP TEXT SEARCH CONFIGURATION intavo_words;
"""


class Migration(migrations.Migration):
    dependencies = [("people", "0003_consent_withdrawn")]
    operations = [migrations.RunSQL(FORWARD, BACK)]
