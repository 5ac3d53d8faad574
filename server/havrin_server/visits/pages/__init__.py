"""The views of a visit as data for the page. No rule of the job here."""
