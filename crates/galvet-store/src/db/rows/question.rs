//! Rows of waters and saved questions.

use crate::db::kind::Kind;
use crate::db::record::SavedBrief;
use crate::db::schema;
use crate::error::StoreError;
use crate::files::{waters, word};
use diesel::prelude::*;
use galvet_core::base::Keyed;
use galvet_core::question::Water;

/// The columns of a water that describe it.
#[derive(Debug, Clone, Queryable, Selectable, Insertable, AsChangeset)]
#[diesel(table_name = schema::waters, treat_none_as_null = true)]
pub(in crate::db) struct WaterRow {
    slug: String,
    name: String,
    density: f64,
    freeboard: f64,
    floor_clearance: f64,
    working_share: f64,
    least_depth: f64,
    conditions: String,
    standing: String,
    capacity_weight: f64,
    reserve_share: f64,
    must_drain: bool,
    plugs_allowed: bool,
    cautions: String,
    demands: String,
    stream: Option<f64>,
    anchor_depth: Option<f64>,
}

impl WaterRow {
    pub(in crate::db) fn of(w: &Water) -> Result<Self, StoreError> {
        Ok(Self {
            slug: w.key.clone(),
            name: w.name.clone(),
            density: w.density,
            freeboard: w.freeboard,
            floor_clearance: w.floor_clearance,
            working_share: w.working_share,
            least_depth: w.least_depth,
            conditions: w.conditions.clone(),
            standing: w.standing.key().to_owned(),
            capacity_weight: w.capacity_weight,
            reserve_share: w.reserve_share,
            must_drain: w.must_drain,
            plugs_allowed: w.plugs_allowed,
            cautions: serde_json::to_string(&w.cautions)
                .map_err(|e| StoreError::bad(Kind::Water, &w.key, e))?,
            demands: w
                .demands
                .iter()
                .map(|d| d.key())
                .collect::<Vec<_>>()
                .join(" "),
            stream: w.stream,
            anchor_depth: w.anchor_depth,
        })
    }

    pub(in crate::db) fn water(self) -> Result<Water, StoreError> {
        let key = self.slug.clone();
        let bad = |problem: String| StoreError::bad(Kind::Water, &key, problem);
        let water = Water {
            key: self.slug,
            name: self.name,
            density: self.density,
            freeboard: self.freeboard,
            floor_clearance: self.floor_clearance,
            working_share: self.working_share,
            least_depth: self.least_depth,
            conditions: self.conditions,
            stream: self.stream,
            anchor_depth: self.anchor_depth,
            standing: word("way of standing", &self.standing).map_err(bad)?,
            capacity_weight: self.capacity_weight,
            reserve_share: self.reserve_share,
            must_drain: self.must_drain,
            plugs_allowed: self.plugs_allowed,
            cautions: serde_json::from_str(&self.cautions).map_err(|e| bad(e.to_string()))?,
            demands: self
                .demands
                .split_whitespace()
                .map(|d| word("thing a water asks", d))
                .collect::<Result<_, String>>()
                .map_err(bad)?,
        };
        waters::check(water).map_err(|(_, error)| bad(error.to_string()))
    }
}

/// The columns of a saved question.
#[derive(Debug, Clone, Queryable, Selectable, Insertable, AsChangeset)]
#[diesel(table_name = schema::briefs, treat_none_as_null = true)]
pub(in crate::db) struct BriefRow {
    slug: String,
    name: String,
    pub(in crate::db) rig_id: Option<i64>,
    pub(in crate::db) water_id: Option<i64>,
    question: String,
    customer: String,
}

impl BriefRow {
    pub(in crate::db) fn of(
        brief: &SavedBrief,
        rig_id: Option<i64>,
        water_id: Option<i64>,
    ) -> Self {
        Self {
            slug: brief.key.clone(),
            name: brief.name.clone(),
            rig_id,
            water_id,
            question: brief.question.to_string(),
            customer: brief.customer.clone(),
        }
    }

    pub(in crate::db) fn brief(self) -> Result<SavedBrief, StoreError> {
        let question = serde_json::from_str(&self.question)
            .map_err(|e| StoreError::bad(Kind::Brief, &self.slug, e))?;
        Ok(SavedBrief {
            key: self.slug,
            name: self.name,
            customer: self.customer,
            question,
        })
    }
}
