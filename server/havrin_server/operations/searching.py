"""What makes a firm's words be found quickly: indexes, and a function that uses them.

Behind the wall between firms the database may not use an index on words: it would have to look at rows before it knows that
they are the firm's. The function is the owner's, sees every row, and answers for the firm that is told alone.
"""

# Prefixes of words, so that what is half typed is found; the newest first.
STATEMENTS = (
    """
    CREATE INDEX IF NOT EXISTS visit_words ON visits_visit
        USING gin (to_tsvector('english', complaint || ' ' || customer_words))
    """,
    """
    CREATE INDEX IF NOT EXISTS tape_words ON visits_tapeentry
        USING gin (to_tsvector('english', data ->> 'text')) WHERE kind IN ('note', 'said') AND data ->> 'text' IS NOT NULL
    """,
    r"""
    CREATE OR REPLACE FUNCTION havrin_visits_saying(firm bigint, asked text, most int) RETURNS TABLE (visit_id bigint)
    LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public AS $$
        WITH wanted AS (
            SELECT to_tsquery('english', nullif(string_agg(quote_literal(word) || ':*', ' & '), '')) AS words
            FROM regexp_split_to_table(regexp_replace(asked, '[^[:alnum:]\s]', ' ', 'g'), '\s+') AS word WHERE word <> ''
        ), said AS (
            SELECT v.id FROM visits_visit v, wanted
                WHERE to_tsvector('english', v.complaint || ' ' || v.customer_words) @@ wanted.words
            UNION
            SELECT e.visit_id FROM visits_tapeentry e, wanted
                WHERE e.kind IN ('note', 'said') AND e.data ->> 'text' IS NOT NULL
                AND to_tsvector('english', e.data ->> 'text') @@ wanted.words
        )
        SELECT v.id FROM said
            JOIN visits_visit v ON v.id = said.id
            JOIN units_unit u ON u.id = v.unit_id
            JOIN units_site s ON s.id = u.site_id
        WHERE s.firm_id = firm AND (havrin_firm() IS NULL OR havrin_firm() = firm)
        ORDER BY v.day DESC, v.id DESC LIMIT most
    $$
    """,
    "REVOKE ALL ON FUNCTION havrin_visits_saying(bigint, text, int) FROM PUBLIC",
    "GRANT EXECUTE ON FUNCTION havrin_visits_saying(bigint, text, int) TO havrin_app",
)
