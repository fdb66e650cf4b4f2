//! Tables as Diesel sees them; keep in step with `migrations/`.
#![allow(missing_docs, reason = "the columns are documented in the migration")]

diesel::table! {
    hulls (id) {
        id -> BigInt,
        slug -> Text,
        revision -> BigInt,
        updated_at -> BigInt,
        deleted_at -> Nullable<BigInt>,
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
        origin -> Text,
        notes -> Text,
        extra -> Text,
        looked -> Text,
    }
}

diesel::table! {
    readings (id) {
        id -> BigInt,
        hull_id -> BigInt,
        measure -> Text,
        value -> Double,
        source -> Text,
        taken -> Text,
        who -> Text,
        note -> Text,
        error -> Nullable<Double>,
    }
}

diesel::table! {
    pictures (name) {
        name -> Text,
        jpeg -> Binary,
    }
}

diesel::table! {
    evidence (id) {
        id -> BigInt,
        hull_id -> BigInt,
        aboard_mass -> Double,
        aboard_place -> Double,
        aboard_height -> Double,
        density -> Double,
        scuppers -> Text,
        taken -> Text,
        kind -> Text,
        reading -> Text,
    }
}

diesel::table! {
    stations (id) {
        id -> BigInt,
        hull_id -> BigInt,
        x -> Double,
        points -> Text,
    }
}

diesel::table! {
    waters (id) {
        id -> BigInt,
        slug -> Text,
        revision -> BigInt,
        updated_at -> BigInt,
        deleted_at -> Nullable<BigInt>,
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
        demands -> Text,
        stream -> Nullable<Double>,
        anchor_depth -> Nullable<Double>,
    }
}

diesel::table! {
    zones (id) {
        id -> BigInt,
        hull_id -> BigInt,
        document -> Text,
    }
}

diesel::table! {
    fittings (id) {
        id -> BigInt,
        hull_id -> BigInt,
        document -> Text,
    }
}

diesel::table! {
    modifications (id) {
        id -> BigInt,
        hull_id -> BigInt,
        document -> Text,
    }
}

diesel::table! {
    configurations (id) {
        id -> BigInt,
        hull_id -> BigInt,
        document -> Text,
    }
}

diesel::table! {
    gear (id) {
        id -> BigInt,
        slug -> Text,
        revision -> BigInt,
        updated_at -> BigInt,
        deleted_at -> Nullable<BigInt>,
        document -> Text,
    }
}

diesel::table! {
    rigs (id) {
        id -> BigInt,
        slug -> Text,
        revision -> BigInt,
        updated_at -> BigInt,
        deleted_at -> Nullable<BigInt>,
        name -> Text,
    }
}

diesel::table! {
    rig_lines (id) {
        id -> BigInt,
        rig_id -> BigInt,
        item -> Text,
        count -> Integer,
        dry_mass -> Double,
        loaded_mass -> Double,
        place -> Double,
        height -> Double,
        offset_y -> Double,
        energy_wh -> Double,
        gear_id -> Nullable<BigInt>,
        importance -> Text,
        within -> Text,
    }
}

diesel::table! {
    briefs (id) {
        id -> BigInt,
        slug -> Text,
        revision -> BigInt,
        updated_at -> BigInt,
        deleted_at -> Nullable<BigInt>,
        name -> Text,
        rig_id -> Nullable<BigInt>,
        water_id -> Nullable<BigInt>,
        question -> Text,
        customer -> Text,
    }
}

diesel::table! {
    journal (id) {
        id -> BigInt,
        at -> BigInt,
        who -> Text,
        change_group -> BigInt,
        label -> Text,
        undoes -> Nullable<BigInt>,
        kind -> Text,
        record -> BigInt,
        revision -> BigInt,
        before -> Nullable<Text>,
        after -> Nullable<Text>,
    }
}

diesel::table! {
    people (id) {
        id -> BigInt,
        handle -> Text,
        name -> Text,
        folded -> Text,
        role -> Text,
        password -> Text,
        lent_at -> Nullable<BigInt>,
        since -> BigInt,
        left_at -> Nullable<BigInt>,
    }
}

diesel::table! {
    sessions (id) {
        id -> BigInt,
        hash -> Text,
        person -> BigInt,
        browser -> Text,
        made_at -> BigInt,
        seen_at -> BigInt,
        proved_at -> BigInt,
    }
}

diesel::table! {
    account_log (id) {
        id -> BigInt,
        at -> BigInt,
        who -> Text,
        about -> Text,
        act -> Text,
    }
}

diesel::joinable!(sessions -> people (person));
diesel::joinable!(readings -> hulls (hull_id));
diesel::joinable!(evidence -> hulls (hull_id));
diesel::joinable!(stations -> hulls (hull_id));
diesel::joinable!(zones -> hulls (hull_id));
diesel::joinable!(fittings -> hulls (hull_id));
diesel::joinable!(modifications -> hulls (hull_id));
diesel::joinable!(configurations -> hulls (hull_id));
diesel::joinable!(rig_lines -> rigs (rig_id));
diesel::joinable!(rig_lines -> gear (gear_id));
diesel::allow_tables_to_appear_in_same_query!(
    hulls,
    readings,
    evidence,
    stations,
    zones,
    fittings,
    modifications,
    configurations,
    waters,
    gear,
    rigs,
    rig_lines,
    briefs,
    journal
);
diesel::allow_tables_to_appear_in_same_query!(people, sessions);
