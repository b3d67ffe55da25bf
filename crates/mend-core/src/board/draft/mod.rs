//! A board while it is being described: parts of it may still be missing, and every act on it is an [`Edit`].
//!
//! - `act`: what can be done to it; [`edit`]: doing it; [`set`]: a field that is typed; [`looked`]: what was seen of its copper

mod act;
pub mod edit;
mod edit_photo;
mod field;
pub mod looked;
mod refusal;
pub mod set;
mod set_component;
mod set_part;
mod set_stack;

pub use act::{Edit, Target};
pub use looked::Looked;

use super::library::Values;
use super::photo::Placement;
use super::stack_guess::{StackGuess, stack_guess};
use super::turn::Pose;
use super::{Board, Component, Connector, Face, Outline, Point, StackUp, Turn, rules};
use crate::finding::Finding;
use crate::finding::problem::DraftProblem;
use crate::units::Length;

const RULE: &str = "board_draft";
/// More than any region round a port has; what is further away does not matter to it.
pub const MOST_COMPONENTS: usize = 400;
/// Photographs of one board.
pub const MOST_PHOTOS: usize = 8;

/// A board that is being described.
#[derive(Debug, Clone, PartialEq)]
pub struct Draft {
    /// The model's name; empty until it is given.
    pub name: String,
    /// Who made it.
    pub maker: String,
    /// The rim; no corners until it is drawn.
    pub outline: Outline,
    /// Thickness and copper.
    pub stack: StackUp,
    /// What was seen of its copper.
    pub looked: Looked,
    /// The part that is to be replaced.
    pub part: Option<DraftPart>,
    /// What must not be damaged.
    pub components: Vec<Component>,
    /// Photographs under it.
    pub photos: Vec<Photo>,
    /// Places that are found again on the other face, to line the faces up.
    pub marks: Vec<Point>,
}

/// The part, as the library made it and where it stands.
#[derive(Debug, Clone, PartialEq)]
pub struct DraftPart {
    /// The part as made.
    pub made: Connector,
    /// The kind and the sizes that it was made from, where it was.
    pub from: Option<(String, Values)>,
    /// Its body's middle.
    pub at: Point,
    /// Its turn.
    pub turn: Turn,
    /// Its face.
    pub face: Face,
}

/// A photograph and how it lies.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Photo {
    /// Its number in the shop.
    pub id: i64,
    /// The face it shows.
    pub face: Face,
    /// Pixels, as kept.
    pub size: (u32, u32),
    /// How it lies.
    pub placement: Placement,
    /// Lined up with the other face, and how far its points were off then, mm.
    pub lined_up_mm: Option<f64>,
}

impl DraftPart {
    /// A connector where it stands.
    pub fn standing(connector: Connector) -> Self {
        let (at, face) = (connector.body.centre, connector.face);
        Self { made: connector, from: None, at, turn: Turn::None, face }
    }

    /// The connector on the board.
    pub fn placed(&self) -> Connector {
        self.made.placed(Pose { at: self.at, turn: self.turn, face: self.face })
    }
}

impl Draft {
    /// Nothing yet.
    pub fn new(name: &str) -> Self {
        Self {
            name: name.to_owned(),
            maker: String::new(),
            outline: Outline { corners: Vec::new() },
            stack: StackUp::usual(Length::mm(1.6)),
            looked: Looked::default(),
            part: None,
            components: Vec::new(),
            photos: Vec::new(),
            marks: Vec::new(),
        }
    }

    /// A finished board, to be described further.
    pub fn from_board(board: &Board) -> Self {
        Self {
            name: board.name.clone(),
            maker: board.maker.clone(),
            outline: board.outline.clone(),
            stack: board.stack.clone(),
            part: Some(DraftPart::standing(board.connector.clone())),
            components: board.components.clone(),
            ..Self::new("")
        }
    }

    /// The board, or everything that is missing and wrong. What only warns stays with [`Self::findings`].
    ///
    /// ```
    /// use mend_core::example::Bench;
    /// let bench = Bench::try_new().expect("the example");
    /// use mend_core::board::draft::Draft;
    /// assert_eq!(Draft::from_board(&bench.board).board(), Ok(bench.board.clone()));
    /// assert_eq!(Draft::new("empty").board().expect_err("no rim, no part").len(), 2);
    /// ```
    pub fn board(&self) -> Result<Board, Vec<Finding>> {
        let missing = self.missing();
        let Some(board) = self.whole().filter(|_| missing.is_empty()) else { return Err(missing) };
        let findings = rules::check(&board);
        if crate::finding::any_blocking(&findings) { Err(findings) } else { Ok(board) }
    }

    /// What is missing, wrong or odd, as far as it can be told by now.
    pub fn findings(&self) -> Vec<Finding> {
        let mut findings = self.missing();
        findings.extend(match self.whole() {
            Some(board) => {
                rules::check(&board).into_iter().filter(|f| f.place != "outline" || self.has_rim()).collect()
            }
            None => rules::stack(&self.stack),
        });
        findings
    }

    fn has_rim(&self) -> bool {
        !self.outline.corners.is_empty()
    }

    fn whole(&self) -> Option<Board> {
        let connector = self.part.as_ref()?.placed();
        let (name, maker) = (self.name.clone(), self.maker.clone());
        let (outline, stack) = (self.outline.clone(), self.stack.clone());
        self.has_rim().then(|| Board { name, maker, outline, stack, connector, components: self.components.clone() })
    }

    fn missing(&self) -> Vec<Finding> {
        let is_missing = [
            (self.name.trim().is_empty(), "name", DraftProblem::NoName),
            (!self.has_rim(), "outline", DraftProblem::NoOutline),
            (self.part.is_none(), "part", DraftProblem::NoPart),
        ];
        let found = is_missing.into_iter().filter(|m| m.0);
        found.map(|(_, place, problem)| Finding::blocking(RULE, place, problem)).collect()
    }

    /// What its copper comes to by what was seen, where anything was.
    pub fn guess(&self) -> Option<StackGuess> {
        let seen = self.looked.seen(self.outline.area());
        self.looked.is_used().then(|| stack_guess(self.stack.thickness, &seen))
    }

    /// Takes a guess over into the stack-up, where anything was seen.
    fn take_guess(&mut self) {
        if let Some(guess) = self.guess() {
            let StackUp { crowding, stiffener, .. } = self.stack;
            self.stack = StackUp { crowding, stiffener, ..guess.stack };
        }
    }
}
