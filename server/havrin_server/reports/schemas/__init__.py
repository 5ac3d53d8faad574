"""What the calls about records, sites, links and papers take and say."""
