-- What a water asks of a hull, keys parted by a space; of the waters shipped so far
-- what they are shipped with from now on.
ALTER TABLE waters ADD COLUMN demands TEXT NOT NULL DEFAULT '';
UPDATE waters SET demands = 'holds-course' WHERE slug IN ('open-lake', 'estuary');
UPDATE waters SET demands = 'drive-lifts' WHERE slug = 'slow-river';
UPDATE waters SET demands = 'one-drags drive-lifts turns' WHERE slug = 'quick-creek';
UPDATE waters SET demands = 'one-drags drive-lifts' WHERE slug = 'marsh';
UPDATE waters SET demands = 'drains holds-course' WHERE slug IN ('coast', 'surf');
