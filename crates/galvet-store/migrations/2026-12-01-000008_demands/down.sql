ALTER TABLE waters DROP COLUMN demands;
