DROP TABLE settings;
DROP TABLE briefs;
DROP TABLE rig_lines;
DROP TABLE rigs;
DROP TABLE waters;
DROP TABLE readings;
DROP TABLE hulls;
