"""The calls about records, sites, links and papers."""
