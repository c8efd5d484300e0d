"""What was said in conversations, found by its words."""

from django.db import connection

from intavo.people.effects import Searching, words_sought

_WORDS = """
SELECT DISTINCT ON (person_id) person_id, 'in a conversation',
       CASE WHEN %(whom)s::bigint[] IS NULL THEN '' ELSE
           ts_headline('intavo_words', text, to_tsquery('intavo_words', %(query)s), %(how)s) END
FROM (SELECT message.id, talk.person_id, message.text FROM talks_message AS message
      JOIN talks_talk AS talk ON talk.id = message.talk_id
      WHERE message.business_id = %(business)s AND talk.person_id IS NOT NULL
            AND message.words @@ to_tsquery('intavo_words', %(query)s)
            AND (%(whom)s::bigint[] IS NULL OR talk.person_id = ANY(%(whom)s::bigint[]))
      LIMIT %(most)s) AS said
ORDER BY person_id, id DESC
"""


@words_sought.register
def _in_conversations(sought: Searching) -> None:
    with connection.cursor() as cursor:
        cursor.execute(_WORDS, sought.asked)
        sought.found += cursor.fetchall()
