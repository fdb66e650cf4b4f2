//! The question as a conversation, and the waters it is about.

pub mod talk;
pub mod waters;
