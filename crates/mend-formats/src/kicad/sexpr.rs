//! S-expressions: lists of words and strings. Iterative, so that no depth can end the stack; what is too large, too deep
//! or too long is refused with the place.

use mend_core::finding::Finding;
use winnow::Parser;
use winnow::combinator::{alt, delimited, repeat};
use winnow::error::EmptyError;
use winnow::token::{any, none_of, take_while};

use super::RULE;

/// Larger files are refused before they are read, bytes: ten times a laptop's board.
pub const LARGEST: usize = 24 * 1024 * 1024;
/// Lists in lists in lists: such files go about ten deep.
pub const DEEPEST: usize = 64;
/// Words, strings and lists in all.
const MOST: usize = 3_000_000;

/// A word, a string, or a list.
#[derive(Debug, Clone, PartialEq)]
pub enum Sexpr {
    /// A word or a string, without its quotes.
    Text(String),
    /// A list.
    List(Vec<Sexpr>),
}

#[derive(Clone)]
enum Token {
    Open,
    Close,
    Text(String),
}

type Parsed<T> = Result<T, EmptyError>;

fn token(input: &mut &str) -> Parsed<Token> {
    alt(('('.value(Token::Open), ')'.value(Token::Close), string.map(Token::Text), word.map(Token::Text)))
        .parse_next(input)
}

fn word(input: &mut &str) -> Parsed<String> {
    take_while(1.., |c: char| !c.is_whitespace() && !matches!(c, '(' | ')' | '"')).map(str::to_owned).parse_next(input)
}

fn string(input: &mut &str) -> Parsed<String> {
    let escaped = ('\\', any).map(|(_, c)| if c == 'n' { '\n' } else { c });
    let letter = alt((escaped, none_of(['"', '\\'])));
    delimited('"', repeat(0.., letter), '"').parse_next(input)
}

fn refuse(whole: &str, rest: &str, message: &str, hint: &str) -> Vec<Finding> {
    let read = &whole[..whole.len() - rest.len()];
    let line = read.matches('\n').count() + 1;
    vec![Finding::written(RULE, format!("line {line}"), message).hint(hint)]
}

/// Reads one list; what follows it is refused.
pub fn read(bytes: &[u8]) -> Result<Sexpr, Vec<Finding>> {
    if bytes.len() > LARGEST {
        let message = format!("{:.0} MB", bytes.len() as f64 / 1e6);
        return Err(vec![Finding::written(RULE, "file", message).hint("layout files are up to 24 MB")]);
    }
    let not_text = |_| vec![Finding::written(RULE, "file", "is no text").hint("choose a layout file as it was saved")];
    let whole = std::str::from_utf8(bytes).map_err(not_text)?;
    let mut rest = whole.trim_start();
    let mut open: Vec<Vec<Sexpr>> = Vec::new();
    let mut count = 0;
    while !rest.is_empty() {
        let before = rest;
        let broken = |_: EmptyError| refuse(whole, before, "a string that does not end", "save the layout again");
        let found = token(&mut rest).map_err(broken)?;
        rest = rest.trim_start();
        count += 1;
        if count > MOST {
            return Err(refuse(whole, rest, "more than 3 million words", "leave out fills and pictures"));
        }
        match found {
            Token::Open if open.len() == DEEPEST => {
                return Err(refuse(whole, rest, "lists more than 64 deep", "such files go about ten deep"));
            }
            Token::Open => open.push(Vec::new()),
            Token::Close => {
                let outside = || refuse(whole, rest, "a list ends that never began", "save the layout again");
                let list = Sexpr::List(open.pop().ok_or_else(outside)?);
                match open.last_mut() {
                    Some(outer) => outer.push(list),
                    None if rest.is_empty() => return Ok(list),
                    None => return Err(refuse(whole, rest, "something follows the end", "one layout per file")),
                }
            }
            Token::Text(text) => {
                let outside = || refuse(whole, rest, "a word outside of any list", "choose a layout file");
                open.last_mut().ok_or_else(outside)?.push(Sexpr::Text(text));
            }
        }
    }
    Err(refuse(whole, rest, "the file ends inside a list", "it was cut off: copy it again"))
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::finding::problem::Problem;

    fn message(text: &str) -> String {
        match read(text.as_bytes()).expect_err(text).swap_remove(0).problem {
            Problem::Written { message, .. } => message,
            other => panic!("{other:?}"),
        }
    }

    #[test]
    fn words_strings_and_lists_are_told_apart() {
        let text = |t: &str| Sexpr::Text(t.to_owned());
        let read = read(br#" (a "b \"c\" (d)" (e -1.5) ) "#).expect("sound");
        let inner = Sexpr::List(vec![text("e"), text("-1.5")]);
        assert_eq!(read, Sexpr::List(vec![text("a"), text("b \"c\" (d)"), inner]));
    }

    #[test]
    fn what_is_broken_says_how() {
        assert!(message("(a (b)").contains("inside a list"));
        assert!(message("(a))").contains("something follows"));
        assert!(message("a").contains("outside"));
        assert!(message("(a \"b)").contains("does not end"));
        assert!(message("").contains("inside a list"));
        assert!(message(&"(".repeat(100_000)).contains("64 deep"));
    }

    #[test]
    fn the_line_is_counted() {
        assert_eq!(read(b"(a\n(b)\n\"").expect_err("cut off")[0].place, "line 3");
    }
}
