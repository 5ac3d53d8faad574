"""The sample world: a made-up firm in a high valley, its sites, units, people and visits."""
