//! Records that are one document go through the one door like all others: journal, undo,
//! trash, exchange file, backup.

use galvet_store::files::exchange;
use galvet_store::files::setting::Setting;
use galvet_store::files::sheet::{Document, Sheet};
use galvet_store::{Catalogue, Kind, Record, Store, StoreError};

fn record(value: &str) -> Record {
    Record::Sheet(Document::of(&Setting {
        key: "harbour".to_owned(),
        value: value.to_owned(),
    }))
}

#[test]
fn a_document_is_put_in_changed_taken_back_and_thrown_away() {
    let directory = tempfile::tempdir().unwrap();
    let store = Store::open(directory.path()).unwrap();
    let kind = Kind::of::<Setting>();
    let known = store
        .write("Ann", "put in", |door| door.put(&record("north"), None))
        .unwrap();
    store
        .edit::<StoreError>("Ann", "changed", (kind, "harbour"), |r| {
            *r = record("south");
            Ok(())
        })
        .unwrap();
    let now = || store.record(kind, "harbour").unwrap();
    assert_eq!(now().unwrap().1, record("south"));
    assert_eq!(store.history(kind, known.id, (9, None)).unwrap().len(), 2);
    let (known, _) = now().unwrap();
    store.back_to("Ann", kind, known, 1).unwrap();
    assert_eq!(now().unwrap().1, record("north"));
    let (known, _) = now().unwrap();
    store
        .write("Ann", "thrown away", |door| door.throw_away(kind, known))
        .unwrap();
    assert_eq!(now(), None);
    let trash = store.trash().unwrap();
    assert_eq!((trash.len(), trash[0].kind), (1, kind));
    store.take_back("Ann", &trash).unwrap();
    assert_eq!(now().unwrap().1, record("north"));
    // Read again after a write: the one that changed, and only it, is new.
    let before = store.read(None).unwrap();
    store.set_setting("Ann", "pier", "long").unwrap();
    let sheets = store.read(Some(&before)).unwrap().catalogue.sheets;
    let names: Vec<&str> = sheets.iter().map(|s| s.name.as_str()).collect();
    assert_eq!(names, ["harbour", "pier"]);
}

#[test]
fn documents_go_out_as_a_file_and_come_back_in() {
    let Record::Sheet(sheet) = record("north") else {
        panic!("a sheet");
    };
    let mut catalogue = Catalogue::default();
    catalogue.sheets.push(sheet);
    let text = exchange::write(&catalogue).unwrap();
    let back = exchange::read("all.json", &text).unwrap();
    assert_eq!(back.sheets, catalogue.sheets);
    assert_eq!(back.others(), ["1 settings"]);
    for (wrong, said) in [
        (text.replace("\"settings\"", "\"sittings\""), "“sittings”"),
        (text.replace("\"value\"", "\"valve\""), "valve"),
        (text.replace("\"harbour\"", "\"Harbour \""), "key"),
    ] {
        let errors = exchange::read("all.json", &wrong).unwrap_err();
        assert!(errors[0].problem.contains(said), "{errors:?}");
    }
}

#[test]
fn a_database_of_an_earlier_edition_brings_its_settings() {
    use diesel::connection::SimpleConnection;
    use diesel::{Connection, SqliteConnection};
    let directory = tempfile::tempdir().unwrap();
    let store = Store::open(directory.path()).unwrap();
    store
        .set_setting("Ann", "harbour", "a \"north\" one")
        .unwrap();
    drop(store);
    // As the ninth edition kept it.
    let path = directory.path().join("galvet.db");
    let mut raw = SqliteConnection::establish(path.to_str().unwrap()).unwrap();
    raw.batch_execute(
        "UPDATE settings SET document = json_extract(document, '$.value');
         ALTER TABLE settings RENAME COLUMN document TO value;
         DELETE FROM __diesel_schema_migrations WHERE version = '20261203000010';",
    )
    .unwrap();
    let store = Store::open(directory.path()).unwrap();
    let kept = store.setting("harbour").unwrap();
    assert_eq!(kept.as_deref(), Some("a \"north\" one"));
    assert_eq!(
        store
            .history(Kind::of::<Setting>(), 1, (9, None))
            .unwrap()
            .len(),
        1
    );
    drop(store);
    // A kind of record nobody here knows: a later Galvet wrote it.
    raw.batch_execute("UPDATE journal SET kind = 'tide'")
        .unwrap();
    let newer = Store::open(directory.path()).unwrap_err();
    assert!(matches!(newer, StoreError::Newer { .. }), "{newer}");
    // A document the type refuses is set aside; the rest is read.
    raw.batch_execute(
        "UPDATE journal SET kind = 'setting'; UPDATE settings SET document = '{\"key\":\"x\"}'",
    )
    .unwrap();
    let store = Store::open(directory.path()).unwrap();
    let aside = store.catalogue().unwrap().set_aside;
    assert_eq!(aside.len(), 1);
    assert!(aside[0].problem.contains("value"), "{aside:?}");
    assert_eq!(Setting::KEY, "setting");
}
