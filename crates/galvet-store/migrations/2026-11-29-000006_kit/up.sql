-- Whether a line of a rig must come, and the container it is packed in.
ALTER TABLE rig_lines ADD COLUMN importance TEXT NOT NULL DEFAULT 'must';
ALTER TABLE rig_lines ADD COLUMN within TEXT NOT NULL DEFAULT '';
