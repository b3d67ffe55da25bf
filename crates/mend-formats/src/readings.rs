//! Readings of a thermocouple as loggers write them or people type them: a line each, seconds and temperature, with whatever separator
//! and decimal mark. docs/formats/readings.md.

use mend_core::finding::Finding;
use mend_core::units::Scale;

const RULE: &str = "readings";
/// A day at 10 Hz is looked at; what is longer is another file.
const MOST_LINES: usize = 900_000;
/// So many a second are kept.
const PER_SECOND: f64 = 1.0;

/// Which columns hold what, counted from 0.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Columns {
    /// Seconds.
    pub time: usize,
    /// The temperature.
    pub temperature: usize,
}

/// What was read.
#[derive(Debug, Clone, PartialEq)]
pub struct Readings {
    /// Seconds from the first and °C, ascending, one a second at the most.
    pub readings: Vec<[f64; 2]>,
    /// Lines that held no reading: a gap of the logger, an open circuit.
    pub left_out: usize,
    /// What the columns are called where the first line says so; else their numbers and first cells.
    pub names: Vec<String>,
    /// Which of them were read.
    pub columns: Columns,
}

/// Reads them on a scale; columns are found by their names, or are the first two. A header that names °F or °C overrules the scale.
pub fn parse(text: &str, scale: Scale, columns: Option<Columns>) -> Result<Readings, Vec<Finding>> {
    let lines: Vec<&str> = text.lines().map(str::trim).filter(|line| !line.is_empty()).take(MOST_LINES + 1).collect();
    if lines.len() > MOST_LINES {
        let object = Finding::written(RULE, "readings", format!("more than {MOST_LINES} lines"));
        return Err(vec![object.hint("cut out the two minutes of the probe")]);
    }
    let cut = separator(&lines);
    let first: Vec<String> = lines.first().map_or(Vec::new(), |line| cells(line, cut).map(str::to_owned).collect());
    let named = first.iter().any(|cell| value(cell).is_none() && cell.chars().any(char::is_alphabetic));
    let names = if named { first.clone() } else { Vec::new() };
    let columns = columns.unwrap_or_else(|| by_name(&names));
    let scale = names.get(columns.temperature).map_or(scale, |name| scale_of(name).unwrap_or(scale));
    let (mut readings, mut left_out): (Vec<[f64; 2]>, usize) = (Vec::new(), 0);
    for line in lines.iter().skip(usize::from(named)) {
        let row: Vec<&str> = cells(line, cut).collect();
        let cell = |column: usize| row.get(column).and_then(|cell| value(cell));
        match (cell(columns.time), cell(columns.temperature)) {
            (Some(at), Some(shown)) => readings.push([at, scale.read(shown).in_celsius()]),
            _ => left_out += 1,
        }
    }
    if readings.len() < 2 {
        let object = Finding::written(RULE, "readings", "there are not two readings in it");
        return Err(vec![object.hint("a line each: seconds, temperature, like 10, 34.5")]);
    }
    readings.sort_by(|a, b| a[0].total_cmp(&b[0]));
    let begins = readings[0][0];
    let mut kept: Vec<[f64; 2]> = Vec::new();
    for [at, celsius] in readings {
        if kept.last().is_none_or(|last| at - begins >= last[0] + 1.0 / PER_SECOND) {
            kept.push([at - begins, celsius]);
        }
    }
    let numbered = |(k, cell): (usize, &String)| format!("column {}: {cell}", k + 1);
    let names = if named { names } else { first.iter().enumerate().map(numbered).collect() };
    Ok(Readings { readings: kept, left_out, names, columns })
}

/// What parts the cells: a tab or a semicolon where there is one; a comma where it is no decimal mark; else blanks.
fn separator(lines: &[&str]) -> char {
    let in_all =
        |mark: char| lines.iter().take(50).filter(|line| line.contains(mark)).count() * 2 > lines.len().min(50);
    // "10,5 34,2" and "10, 34.5": a comma that is followed by a blank, or a point beside it, parts.
    let parts = |line: &&&str| line.contains(", ") || line.contains('.') || !line.contains(' ');
    match () {
        () if in_all('\t') => '\t',
        () if in_all(';') => ';',
        () if in_all(',') && lines.iter().take(50).filter(parts).count() * 2 > lines.len().min(50) => ',',
        () => ' ',
    }
}

fn cells(line: &str, cut: char) -> impl Iterator<Item = &str> {
    line.split(cut).map(str::trim).filter(move |cell| cut != ' ' || !cell.is_empty())
}

/// A number with either decimal mark; minutes and seconds as 1:05 are 65.
fn value(cell: &str) -> Option<f64> {
    let plain = cell.trim_matches('"').replace(',', ".");
    if let Some((minutes, seconds)) = plain.split_once(':') {
        return Some(minutes.parse::<f64>().ok()? * 60.0 + seconds.parse::<f64>().ok()?);
    }
    plain.parse::<f64>().ok().filter(|v| v.is_finite())
}

fn by_name(names: &[String]) -> Columns {
    let of = |words: &[&str]| names.iter().position(|name| words.iter().any(|word| name.to_lowercase().contains(word)));
    let time = of(&["time", "sec", "elapsed"]).unwrap_or(0);
    let temperature = of(&["temp", "°c", "°f", "tc", "celsius"]).unwrap_or(usize::from(time == 0));
    Columns { time, temperature }
}

fn scale_of(name: &str) -> Option<Scale> {
    let name = name.to_lowercase();
    let says = |marks: &[&str]| marks.iter().any(|mark| name.contains(mark));
    match () {
        () if says(&["°f", "degf", "(f)", "[f]", "fahrenheit"]) => Some(Scale::Fahrenheit),
        () if says(&["°c", "degc", "(c)", "[c]", "celsius"]) => Some(Scale::Celsius),
        () => None,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn whoever_knows_the_file_picks_its_columns() {
        let text = "Elapsed (s);Room;Board (°F)\n0;22;75\n10;22;95\n";
        let of = |temperature| {
            let columns = Columns { time: 0, temperature };
            parse(text, Scale::Celsius, Some(columns)).expect("readings").readings[1][1]
        };
        assert_eq!((of(1), of(2).round()), (22.0, 35.0));
        let found = parse("0;22;24\n10;22;35\n", Scale::Celsius, None).expect("readings");
        assert_eq!(found.names, ["column 1: 0", "column 2: 22", "column 3: 24"]);
        assert_eq!(found.columns, Columns { time: 0, temperature: 1 });
    }

    fn read(text: &str) -> Vec<[f64; 2]> {
        parse(text, Scale::Celsius, None).expect("readings").readings
    }

    #[test]
    fn whatever_parts_the_cells_and_the_decimals() {
        for text in
            ["0, 23.5\n10, 34.5", "0;23,5\n10;34,5", "0\t23.5\n10\t34.5", "0 23,5\n10 34,5", "0:00 23.5\n0:10 34.5"]
        {
            assert_eq!(read(text), [[0.0, 23.5], [10.0, 34.5]], "{text}");
        }
    }

    #[test]
    fn columns_are_found_by_name_and_a_header_says_the_scale() {
        let text = "No;TC1 (°F);Elapsed s\n1;75.2;100\n2;95;110";
        let found = parse(text, Scale::Celsius, None).expect("readings");
        assert_eq!(
            found.readings.iter().map(|r| [r[0], r[1].round()]).collect::<Vec<_>>(),
            [[0.0, 24.0], [10.0, 35.0]]
        );
        let chosen = parse(text, Scale::Celsius, Some(Columns { time: 0, temperature: 1 })).expect("readings");
        assert_eq!(chosen.readings[1][0], 1.0);
    }

    #[test]
    fn gaps_are_left_out_and_counted_and_ten_a_second_become_one() {
        let lines: Vec<String> =
            (0..600).map(|k| format!("{:.1},{:.2}", f64::from(k) / 10.0, 23.0 + f64::from(k) / 50.0)).collect();
        let text = lines.join("\n") + "\n60.0,OPEN\n61.0,";
        let found = parse(&text, Scale::Celsius, None).expect("readings");
        assert_eq!((found.readings.len(), found.left_out), (60, 2));
    }

    #[test]
    fn what_holds_no_readings_is_refused_in_words() {
        for text in ["", "hello", "a,b\nc,d", "1,23"] {
            assert!(parse(text, Scale::Celsius, None).is_err(), "{text}");
        }
    }
}
