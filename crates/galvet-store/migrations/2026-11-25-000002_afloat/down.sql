ALTER TABLE briefs DROP COLUMN stability_school;
ALTER TABLE briefs DROP COLUMN capacity_school;
ALTER TABLE rig_lines DROP COLUMN energy_wh;
DROP TABLE evidence;
