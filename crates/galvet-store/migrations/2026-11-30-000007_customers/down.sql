UPDATE briefs SET name = customer || ': ' || name WHERE customer <> '';
ALTER TABLE briefs DROP COLUMN customer;
