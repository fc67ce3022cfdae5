"""What a timed class can be written as, as text or bytes; `store.formats` has the list of them."""
