//! Folders are private and held once; copies are whole and come back; what can't be written is named, and goes on by itself.
#![allow(clippy::unwrap_used)]

use std::path::Path;

use mend_store::{Folder, FolderError, Store, StoreError, TypedField, snapshot};

fn shop(path: &Path) -> (Folder, Store) {
    let folder = Folder::create(path).unwrap();
    let store = Store::open(&folder.database()).unwrap();
    (folder, store)
}

async fn device(store: &Store, job: i64) -> Option<String> {
    let row = store.read(move |r| r.job(job)).await.unwrap();
    row.and_then(|row| row.intake.get("device").cloned())
}

async fn name_device(store: &Store, device: &'static str) -> i64 {
    store
        .write(move |w| {
            let job = w.add_job(1)?;
            w.set_intake(job, TypedField::new("device", device), 1)?;
            Ok(job)
        })
        .await
        .unwrap()
}

#[test]
fn a_folder_without_a_shop_is_none_and_one_with_a_shop_is_made_once() {
    let temporary = tempfile::tempdir().unwrap();
    let path = temporary.path().join("shop");
    assert!(matches!(Folder::open(&path), Err(FolderError::NoShop(_))));
    drop(Folder::create(&path).unwrap());
    assert!(matches!(Folder::create(&path), Err(FolderError::Taken(_))));
    let held = Folder::open(&path).unwrap();
    assert!(matches!(Folder::open(&path), Err(FolderError::InUse(_))), "one process at a time");
    drop(held);
    assert!(Folder::open(&path).is_ok());
}

#[cfg(unix)]
#[tokio::test]
async fn nobody_but_its_owner_reads_a_shop() {
    use std::os::unix::fs::PermissionsExt;
    let temporary = tempfile::tempdir().unwrap();
    let path = temporary.path().join("shop");
    let (folder, store) = shop(&path);
    name_device(&store, "Tern").await;
    snapshot::snapshot(&folder.database(), "a").unwrap();
    let mode = |path: &Path| std::fs::metadata(path).unwrap().permissions().mode() & 0o777;
    assert_eq!(mode(&path), 0o700);
    for file in ["shop.db", "shop.db-wal", "shop.db-shm", "lock", "snapshots/a.db"] {
        assert_eq!(mode(&path.join(file)), 0o600, "{file}");
    }
}

#[tokio::test]
async fn a_backup_made_while_it_is_written_comes_back_and_what_was_there_is_kept() {
    let temporary = tempfile::tempdir().unwrap();
    let (folder, store) = shop(&temporary.path().join("shop"));
    let first = name_device(&store, "Tern").await;
    let file = temporary.path().join("backup.db");
    // While a transaction is open, and another job comes after it.
    let (database, to) = (folder.database(), file.clone());
    store
        .write(move |w| {
            w.add_job(2)?;
            std::thread::scope(|s| s.spawn(|| snapshot::backup(&database, &to)).join().unwrap())
        })
        .await
        .unwrap();
    let second = name_device(&store, "Lume").await;
    drop(store);
    snapshot::restore(&folder.database(), &file, "2031").unwrap();
    let store = Store::open(&folder.database()).unwrap();
    assert_eq!(device(&store, first).await.as_deref(), Some("Tern"));
    assert_eq!(device(&store, second).await, None);
    let kept = snapshot::kept(&folder.database()).unwrap();
    assert_eq!(kept.len(), 1);
    drop(store);
    snapshot::restore(&folder.database(), &kept[0], "2032").unwrap();
    let store = Store::open(&folder.database()).unwrap();
    assert_eq!(device(&store, second).await.as_deref(), Some("Lume"), "a snapshot comes back as well");
}

#[test]
fn what_is_no_backup_is_not_restored() {
    let temporary = tempfile::tempdir().unwrap();
    let (folder, store) = shop(&temporary.path().join("shop"));
    drop(store);
    let other = temporary.path().join("other.db");
    for bytes in [&b"hello"[..], &b""[..]] {
        std::fs::write(&other, bytes).unwrap();
        assert!(snapshot::restore(&folder.database(), &other, "x").is_err());
    }
    assert!(Store::open(&folder.database()).is_ok());
}

#[test]
fn fourteen_snapshots_are_kept_the_newest() {
    let temporary = tempfile::tempdir().unwrap();
    let (folder, store) = shop(&temporary.path().join("shop"));
    drop(store);
    for day in 1..=17 {
        snapshot::snapshot(&folder.database(), &format!("2031-01-{day:02}-daily")).unwrap();
    }
    let kept = snapshot::kept(&folder.database()).unwrap();
    assert_eq!(kept.len(), 14);
    assert!(kept[0].ends_with("2031-01-04-daily.db"));
}

#[tokio::test]
async fn a_full_disk_is_named_and_writing_goes_on_once_there_is_room() {
    let temporary = tempfile::tempdir().unwrap();
    let (_folder, store) = shop(&temporary.path().join("shop"));
    let job = name_device(&store, "Tern").await;
    store.limit_pages(Some(1)).await.unwrap();
    let long = || "x".repeat(200_000);
    let refused = store.write(move |w| w.set_intake(job, TypedField::new("symptom", &long()), 1)).await;
    assert!(matches!(refused, Err(StoreError::Full(_))), "{refused:?}");
    assert_eq!(device(&store, job).await.as_deref(), Some("Tern"), "reading goes on");
    store.limit_pages(None).await.unwrap();
    store.write(move |w| w.set_intake(job, TypedField::new("symptom", &long()), 1)).await.unwrap();
}

#[tokio::test]
async fn a_damaged_file_is_found() {
    let temporary = tempfile::tempdir().unwrap();
    let (folder, store) = shop(&temporary.path().join("shop"));
    for _ in 0..50 {
        name_device(&store, "Tern").await;
    }
    assert!(store.read(|r| r.integrity()).await.unwrap().is_empty());
    drop(store);
    // A clean end leaves no log beside; then a page in the middle is overwritten.
    drop(rusqlite::Connection::open(folder.database()).unwrap().query_row(
        "PRAGMA wal_checkpoint(TRUNCATE)",
        [],
        |_| Ok(()),
    ));
    let mut bytes = std::fs::read(folder.database()).unwrap();
    let from = bytes.len() / 2 / 4096 * 4096;
    bytes[from..from + 4096].fill(0x5a);
    std::fs::write(folder.database(), bytes).unwrap();
    let store = Store::open(&folder.database()).unwrap();
    let found = store.read(|r| r.integrity()).await;
    assert!(found.map_or(true, |found| !found.is_empty()));
}
