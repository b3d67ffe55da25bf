//! Arguments have names of their own: no function takes several things as one tuple beside others. One that takes a tuple and
//! nothing else is what is done with each item of a sequence.

use super::imports::Sources;

/// Names every function that takes a tuple apart beside its other arguments.
pub(crate) fn among_arguments(crates: &[(String, Sources)]) -> Vec<String> {
    let mut found = Vec::new();
    for (room, sources) in crates {
        for (module, source) in &sources.0 {
            let place = format!("{room}::{}", module.join("::"));
            let taken = functions(&source.code).filter(|(_, arguments)| takes_apart(arguments));
            found.extend(taken.map(|(name, _)| format!("{place}: {name} takes a tuple apart among its arguments")));
        }
    }
    found
}

/// Each function with its arguments as they are written.
fn functions(code: &str) -> impl Iterator<Item = (&str, Vec<&str>)> {
    code.split("fn ").skip(1).filter_map(|rest| {
        let name = rest.split(|c: char| !c.is_alphanumeric() && c != '_').next().filter(|name| !name.is_empty())?;
        let opens = name.len() + after_generics(&rest[name.len()..]);
        let arguments = rest[opens..].strip_prefix('(')?;
        Some((name, pieces(arguments)))
    })
}

/// Where what follows a name goes on after its type parameters.
fn after_generics(rest: &str) -> usize {
    let mut depth = 0_i32;
    for (at, c) in rest.char_indices() {
        match c {
            '<' => depth += 1,
            '>' if !rest[..at].ends_with('-') => depth -= 1,
            _ => {}
        }
        if depth == 0 {
            return if c == '>' { at + 1 } else { at };
        }
    }
    rest.len()
}

/// The pieces between commas, up to the bracket that closes them all.
fn pieces(arguments: &str) -> Vec<&str> {
    let (mut depth, mut from, mut found) = (0_i32, 0, Vec::new());
    for (at, c) in arguments.char_indices() {
        match c {
            '(' | '[' | '{' | '<' => depth += 1,
            ')' if depth == 0 => {
                found.push(&arguments[from..at]);
                break;
            }
            '>' if arguments[..at].ends_with(['-', '=']) => {}
            ')' | ']' | '}' | '>' => depth -= 1,
            ',' if depth == 0 => {
                found.push(&arguments[from..at]);
                from = at + 1;
            }
            _ => {}
        }
    }
    found.into_iter().map(str::trim).filter(|piece| !piece.is_empty()).collect()
}

fn takes_apart(arguments: &[&str]) -> bool {
    arguments.len() > 1 && arguments.iter().any(|argument| argument.starts_with('('))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn taken(code: &str) -> Vec<&str> {
        functions(code).filter(|(_, arguments)| takes_apart(arguments)).map(|(name, _)| name).collect()
    }

    #[test]
    fn a_tuple_among_other_arguments_is_named() {
        let code = "fn a(&self, (x, y): (f64, f64)) {}\nfn b<T: Fn(u8) -> u8>(\n    app: &App,\n    (id, name): (i64, &str),\n) {}\n";
        assert_eq!(taken(code), ["a", "b"]);
    }

    #[test]
    fn a_tuple_alone_one_in_a_type_and_one_in_a_pattern_are_none() {
        let code = "fn a((k, lane): (usize, &Lane)) {}\nfn b(at: (f64, f64), of: &dyn Fn((u8, u8)) -> u8) {}\nfn c(Path((id, item)): Path<(String, i64)>, app: App) {}\n";
        assert_eq!(taken(code), Vec::<&str>::new());
    }
}
