//! Photos and their pixels, kept and found.

use super::pictures;
use super::{Door, Store};
use crate::error::StoreError;
use crate::files::photo::{Photo, Picture};
use crate::files::sheet::Sheet;
use diesel::prelude::*;

impl Store {
    /// Keeps a picture; its name. Nothing shows it until a photo names it.
    ///
    /// # Errors
    /// [`StoreError::Reference`] where as many are kept as are allowed.
    pub fn keep_picture(&self, picture: &Picture) -> Result<String, StoreError> {
        let mut connection = self.connection()?;
        connection.immediate_transaction(|connection| pictures::keep(connection, picture))
    }

    /// The JPEG of a name; `None` where there is none.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn picture(&self, name: &str) -> Result<Option<Vec<u8>>, StoreError> {
        pictures::jpeg(&mut *self.connection()?, name)
    }
}

impl Door<'_> {
    /// Whether the pixels of a photo are there.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn has_picture(&mut self, photo: &Photo) -> Result<bool, StoreError> {
        pictures::is_there(self.connection, &photo.picture)
    }

    /// The photos of a hull, by their slugs.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn photos_of(&mut self, hull: &str) -> Result<Vec<String>, StoreError> {
        use diesel::sql_types::Text;
        #[derive(QueryableByName)]
        struct Slug {
            #[diesel(sql_type = Text)]
            slug: String,
        }
        let found: Vec<Slug> = diesel::sql_query(format!(
            "SELECT slug FROM {} WHERE deleted_at IS NULL \
             AND json_extract(document, '$.hull') = ? ORDER BY id",
            Photo::PLURAL
        ))
        .bind::<Text, _>(hull)
        .load(self.connection)?;
        Ok(found.into_iter().map(|s| s.slug).collect())
    }
}
