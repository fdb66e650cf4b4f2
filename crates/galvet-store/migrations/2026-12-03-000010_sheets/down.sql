UPDATE settings SET document = json_extract(document, '$.value');
ALTER TABLE settings RENAME COLUMN document TO value;
