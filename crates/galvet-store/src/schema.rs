//! Tables as Diesel sees them; keep in step with `migrations/`.
#![allow(missing_docs, reason = "the columns are documented in the migration")]

diesel::table! {
    hulls (key) {
        key -> Text,
        maker -> Text,
        model -> Text,
        year -> Nullable<Integer>,
        construction -> Text,
        bottom -> Nullable<Text>,
        propulsion -> Text,
        drive_lifts -> Bool,
        tracks_straight -> Bool,
        seats -> Integer,
        fitted_includes -> Text,
        capacity_basis -> Text,
        notes -> Text,
        extra -> Text,
    }
}

diesel::table! {
    readings (id) {
        id -> Integer,
        hull_key -> Text,
        measure -> Text,
        value -> Double,
        source -> Text,
    }
}

diesel::table! {
    waters (key) {
        key -> Text,
        position -> Integer,
        name -> Text,
        density -> Double,
        freeboard -> Double,
        floor_clearance -> Double,
        working_share -> Double,
        least_depth -> Double,
        conditions -> Text,
        standing -> Text,
        capacity_weight -> Double,
        reserve_share -> Double,
        must_drain -> Bool,
        plugs_allowed -> Bool,
        cautions -> Text,
    }
}

diesel::table! {
    rigs (key) {
        key -> Text,
        position -> Integer,
        name -> Text,
    }
}

diesel::table! {
    rig_lines (id) {
        id -> Integer,
        rig_key -> Text,
        item -> Text,
        count -> Integer,
        dry_mass -> Double,
        loaded_mass -> Double,
        place -> Double,
        height -> Double,
        offset_y -> Double,
        energy_wh -> Double,
    }
}

diesel::table! {
    briefs (key) {
        key -> Text,
        position -> Integer,
        name -> Text,
        crew_mass -> Double,
        crew_stature -> Double,
        posture -> Text,
        rig_key -> Text,
        water_key -> Text,
        scuppers -> Text,
        seat -> Text,
        capacity_weight -> Nullable<Double>,
        longest -> Nullable<Double>,
        heaviest_lift -> Nullable<Double>,
        budget -> Nullable<Double>,
        capacity_school -> Text,
        stability_school -> Text,
    }
}

diesel::table! {
    settings (key) {
        key -> Text,
        value -> Text,
    }
}

diesel::table! {
    evidence (id) {
        id -> Integer,
        hull_key -> Text,
        entry -> Text,
    }
}

diesel::joinable!(readings -> hulls (hull_key));
diesel::joinable!(evidence -> hulls (hull_key));
diesel::joinable!(rig_lines -> rigs (rig_key));
diesel::joinable!(briefs -> rigs (rig_key));
diesel::joinable!(briefs -> waters (water_key));
diesel::allow_tables_to_appear_in_same_query!(
    hulls, readings, evidence, waters, rigs, rig_lines, briefs, settings
);
