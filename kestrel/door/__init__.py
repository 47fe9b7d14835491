"""The door: what strangers and slow lines may cost before anybody of the kitchen has to wait for them."""
