//! The core's closed words in JSON: `#[serde(with = …)]` for one, for one that
//! may be missing, for a list. An unknown word is answered with the known ones.

use super::word;
use galvet_core::base::Keyed;
use schemars::{JsonSchema, Schema, SchemaGenerator, json_schema};
use serde::{Deserialize, Deserializer, Serialize, Serializer, de::Error};
use std::borrow::Cow;
use std::marker::PhantomData;

/// A closed word in a schema: its values, by their keys.
pub(super) struct Word<T>(PhantomData<T>);

impl<T: Keyed> JsonSchema for Word<T> {
    fn inline_schema() -> bool {
        true
    }

    fn schema_name() -> Cow<'static, str> {
        let name = std::any::type_name::<T>();
        name.rsplit("::").next().unwrap_or(name).into()
    }

    fn json_schema(_: &mut SchemaGenerator) -> Schema {
        let keys: Vec<&str> = T::ALL.iter().map(|v| v.key()).collect();
        json_schema!({ "type": "string", "enum": keys })
    }
}

fn read<T: Keyed, E: Error>(text: &str) -> Result<T, E> {
    word("word known here", text).map_err(E::custom)
}

/// One word.
pub(super) mod one {
    use super::*;

    pub(in super::super) fn serialize<T: Keyed, S: Serializer>(
        value: &T,
        serializer: S,
    ) -> Result<S::Ok, S::Error> {
        serializer.serialize_str(value.key())
    }

    pub(in super::super) fn deserialize<'de, T: Keyed, D: Deserializer<'de>>(
        deserializer: D,
    ) -> Result<T, D::Error> {
        read(&String::deserialize(deserializer)?)
    }
}

/// One word, or nothing.
pub(super) mod maybe {
    use super::*;

    #[expect(clippy::ref_option, reason = "serde asks for this shape")]
    pub(in super::super) fn serialize<T: Keyed, S: Serializer>(
        value: &Option<T>,
        serializer: S,
    ) -> Result<S::Ok, S::Error> {
        value.map(Keyed::key).serialize(serializer)
    }

    pub(in super::super) fn deserialize<'de, T: Keyed, D: Deserializer<'de>>(
        deserializer: D,
    ) -> Result<Option<T>, D::Error> {
        Option::<String>::deserialize(deserializer)?
            .map(|text| read(&text))
            .transpose()
    }
}

/// A list of words.
pub(super) mod list {
    use super::*;

    pub(in super::super) fn serialize<T: Keyed, S: Serializer>(
        values: &[T],
        serializer: S,
    ) -> Result<S::Ok, S::Error> {
        serializer.collect_seq(values.iter().map(|v| v.key()))
    }

    pub(in super::super) fn deserialize<'de, T: Keyed, D: Deserializer<'de>>(
        deserializer: D,
    ) -> Result<Vec<T>, D::Error> {
        Vec::<String>::deserialize(deserializer)?
            .iter()
            .map(|text| read(text))
            .collect()
    }
}
