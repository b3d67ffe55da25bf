mod plan_command;
fn main() -> anyhow::Result<std::process::ExitCode> {
    plan_command::run(std::path::Path::new(&std::env::args().nth(2).unwrap_or_default()), false)
}
