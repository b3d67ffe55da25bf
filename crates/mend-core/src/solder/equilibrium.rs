//! Which phases are there at one temperature, how much of each, and of what composition.

use super::linear::{N, Rows, Vector, solve};
use super::response::Response;
use super::system::{LIQUID, System, moved};

/// Steps after which a phase set with an amount below zero is given up; the others go on, as inside a spinodal Newton
/// creeps.
const NEWTON_STEPS: usize = 25;
const MOST_NEWTON_STEPS: usize = 400;
/// Largest relative change of a share, and change of an amount, at which a phase set has settled. Newton converges
/// quadratically: what is left after a step this small is the square of it, and mass balances to 1e-12.
const SETTLED: f64 = 1e-6;
/// A phase with a stronger driving force than this joins, J/mol.
const WORTH_JOINING: f64 = 1e-3;
/// A phase that was shut out and has a stronger driving force than this belongs to the state, J/mol.
const WANTED: f64 = 5.0;
/// Amount with which a phase joins.
const JOINING: f64 = 1e-4;
/// Amounts below this still carry their response, so that the rows stay regular.
const LEAST_RESPONSE: f64 = 1e-7;
const MOST_ROUNDS: usize = 20;
/// A phase that was dropped so often stays out.
const MOST_DROPS: u8 = 3;
/// Solid solutions and compounds together.
const MOST_PHASES: usize = 32;

/// A phase that is there.
#[derive(Debug, Clone, Copy)]
pub(super) struct Portion {
    pub(super) phase: usize,
    /// Mole of it per mole of all.
    pub(super) amount: f64,
    /// Its composition, in its own components.
    pub(super) y: Vector,
}

/// The state. Kept from temperature to temperature: the next one starts from it.
#[derive(Debug, Clone, Copy)]
pub(super) struct Equilibrium {
    active: [Portion; N + 1],
    count: usize,
    mu: Vector,
}

impl Equilibrium {
    /// All liquid, of composition x.
    pub(super) fn liquid(x: &Vector) -> Self {
        let all = Portion { phase: LIQUID, amount: 1.0, y: *x };
        Self { active: [all; N + 1], count: 1, mu: [0.0; N] }
    }

    /// The phases that are there.
    pub(super) fn phases(&self) -> &[Portion] {
        &self.active[..self.count]
    }

    /// The liquid, if any is left.
    pub(super) fn liquid_portion(&self) -> Option<&Portion> {
        self.phases().iter().find(|p| p.phase == LIQUID)
    }

    /// The same phases with compositions carried on as they went from `before` to here, by `ratio` of that way. Where the
    /// phases were others, as it is. Only where a search starts: it saves a step of Newton's four or five.
    pub(super) fn carried_on(mut self, before: &Self, ratio: f64) -> Self {
        let same = self.phases().iter().map(|p| p.phase).eq(before.phases().iter().map(|p| p.phase));
        for (portion, old) in self.active.iter_mut().zip(&before.active).take(if same { self.count } else { 0 }) {
            for (y, old) in portion.y.iter_mut().zip(old.y) {
                *y = (*y + ratio * (*y - old)).max(*y / 2.0);
            }
            let sum: f64 = portion.y.iter().sum();
            portion.y.iter_mut().for_each(|y| *y /= if sum > 0.0 { sum } else { 1.0 });
        }
        self
    }

    fn has(&self, phase: usize) -> bool {
        self.phases().iter().any(|p| p.phase == phase)
    }

    /// Settles the state for mole fractions x at the system's temperature; false where it does not.
    pub(super) fn settle(&mut self, system: &mut System, x: &Vector) -> bool {
        let mut drops = [0_u8; MOST_PHASES];
        let mut felt = [None; N + 1];
        for _ in 0..MOST_ROUNDS {
            let settled = self.newton(system, x, &mut felt);
            let weakest = (0..self.count).min_by(|a, b| self.active[*a].amount.total_cmp(&self.active[*b].amount));
            match weakest {
                Some(k) if self.count > 1 && (self.active[k].amount < 0.0 || !settled) => {
                    drops[self.active[k].phase] += 1;
                    self.drop_phase(system, k);
                }
                _ if !settled => return false,
                _ => match self.strongest_outside(system, &drops) {
                    Some(phase) => self.join(system, phase),
                    None => return self.is_stable(system, &drops),
                },
            }
        }
        false
    }

    /// A phase goes; should it be wanted again, the search starts from where it was.
    fn drop_phase(&mut self, system: &mut System, k: usize) {
        system.remember(self.active[k].phase, &self.active[k].y);
        self.count -= 1;
        self.active[k] = self.active[self.count];
    }

    /// The phase outside with the strongest driving force, if it is worth joining.
    fn strongest_outside(&self, system: &mut System, drops: &[u8; MOST_PHASES]) -> Option<usize> {
        let worth = system.joules(WORTH_JOINING);
        let mut best = None;
        for (phase, dropped) in drops.iter().enumerate().take(system.len()) {
            if self.has(phase) || *dropped >= MOST_DROPS {
                continue;
            }
            let drive = system.drive(phase, &self.mu);
            if drive > worth && best.is_none_or(|(strongest, _)| drive > strongest) {
                best = Some((drive, phase));
            }
        }
        best.map(|(_, phase)| phase)
    }

    /// Is no phase that was shut out wanted after all? Then the phases that are there are the wrong ones.
    fn is_stable(&self, system: &mut System, drops: &[u8; MOST_PHASES]) -> bool {
        let worth = system.joules(WANTED);
        (0..system.len()).all(|k| drops[k] < MOST_DROPS || self.has(k) || system.drive(k, &self.mu) <= worth)
    }

    /// A phase comes in. Where as many phases are there as elements, one goes: the first whose amount the newcomer eats
    /// up (the ratio test of the simplex method).
    fn join(&mut self, system: &mut System, phase: usize) {
        let newcomer = Portion { phase, amount: JOINING, y: system.seen(phase) };
        let n = system.present.len();
        if self.count >= n {
            let leaving = self.eaten_by(system, &newcomer).unwrap_or(0);
            self.drop_phase(system, leaving);
        }
        self.active[self.count] = newcomer;
        self.count += 1;
    }

    fn eaten_by(&self, system: &System, newcomer: &Portion) -> Option<usize> {
        let n = system.present.len();
        let mut rows = Rows::ZERO;
        for (k, portion) in self.phases().iter().enumerate() {
            let share = system.spread(portion.phase, &portion.y);
            (0..n).for_each(|i| rows.of[i][k] = share[i]);
        }
        let new = system.spread(newcomer.phase, &newcomer.y);
        (0..n).for_each(|i| rows.right[i] = new[i]);
        let eaten = solve(&mut rows, n)?;
        let candidates = (0..self.count).filter(|k| eaten[*k] > 1e-12);
        candidates.min_by(|a, b| (self.active[*a].amount / eaten[*a]).total_cmp(&(self.active[*b].amount / eaten[*b])))
    }

    /// Newton on potentials, amounts and compositions of the present phase set. Where it does not settle, the state is
    /// as before but for the amounts: at an invariant too many phases chase each other to infinity, and the first step
    /// in which one of them is negative says which is not wanted.
    fn newton(&mut self, system: &System, x: &Vector, felt: &mut [Option<Felt>; N + 1]) -> bool {
        let before = *self;
        let mut unwanted = None;
        for step in 0..MOST_NEWTON_STEPS {
            if step >= NEWTON_STEPS && unwanted.is_some() {
                break;
            }
            match self.newton_step(system, x, felt) {
                Some(change) if change < SETTLED => return true,
                Some(_) => unwanted = unwanted.or_else(|| self.with_a_negative()),
                None => break,
            }
        }
        *self = before;
        if let Some(amounts) = unwanted {
            self.active.iter_mut().zip(amounts).for_each(|(portion, amount)| portion.amount = amount);
        }
        false
    }

    fn with_a_negative(&self) -> Option<[f64; N + 1]> {
        self.phases().iter().any(|p| p.amount < 0.0).then(|| self.active.map(|p| p.amount))
    }

    /// One step; answers the largest change. Rows "phase": `sum y mu = G`. Rows "element": `sum F y + sum f E (mu - G') = x`.
    fn newton_step(&mut self, system: &System, x: &Vector, felt: &mut [Option<Felt>; N + 1]) -> Option<f64> {
        let (n, p) = (system.present.len(), self.count);
        let mut rows = Rows::ZERO;
        (0..n).for_each(|i| rows.right[p + i] = x[i]);
        for (k, own) in felt.iter_mut().enumerate().take(p) {
            *own = self.phase_rows(system, k, &mut rows);
        }
        let found = solve(&mut rows, n + p)?;
        self.mu = [0.0; N];
        self.mu[..n].copy_from_slice(&found[..n]);
        let mut largest = 0.0_f64;
        for k in 0..p {
            largest = largest.max((found[n + k] - self.active[k].amount).abs());
            self.active[k].amount = found[n + k];
            if let (Ok(solution), Some((slope, response))) = (system.solution(self.active[k].phase), &felt[k]) {
                let change = response.to(&solution.pull(&self.mu, slope));
                largest = largest.max(moved(&mut self.active[k].y, &change, solution.n));
            }
        }
        largest.is_finite().then_some(largest)
    }

    /// Writes a phase's rows; answers how it feels potentials.
    fn phase_rows(&self, system: &System, k: usize, rows: &mut Rows) -> Option<Felt> {
        let (n, p) = (system.present.len(), self.count);
        let portion = &self.active[k];
        let solution = match system.solution(portion.phase) {
            Ok(solution) => solution,
            Err(compound) => {
                rows.of[k][..n].copy_from_slice(&compound.share[..n]);
                rows.right[k] = compound.g;
                (0..n).for_each(|i| rows.of[p + i][n + k] = compound.share[i]);
                return None;
            }
        };
        let (g, slope) = solution.slopes(&portion.y);
        rows.right[k] = g;
        let felt = Response::from_solution(solution, &portion.y);
        let response = felt.matrix();
        let amount = portion.amount.max(LEAST_RESPONSE);
        for (a, responses) in response.iter().enumerate().take(solution.n) {
            let i = solution.place[a];
            rows.of[k][i] = portion.y[a];
            rows.of[p + i][n + k] = portion.y[a];
            for b in 0..solution.n {
                let weight = amount * responses[b];
                rows.of[p + i][solution.place[b]] += weight;
                rows.right[p + i] += weight * slope[b];
            }
        }
        Some((slope, felt))
    }
}

/// A phase's slopes and its response to potentials, kept from the rows to the move.
type Felt = (Vector, Response);

#[cfg(test)]
impl Equilibrium {
    /// How hard a phase wants to form from it, over RT.
    pub(super) fn drive(&self, system: &mut System, phase: usize) -> f64 {
        system.drive(phase, &self.mu)
    }

    /// Gibbs energy of all of it, over RT.
    pub(super) fn energy(&self, system: &System) -> f64 {
        let of = |p: &Portion| system.solution(p.phase).map_or_else(|c| c.g, |s| s.slopes(&p.y).0);
        self.phases().iter().map(|p| p.amount * of(p)).sum()
    }

    /// The same metal kept to some of its phases, in balance; none where they can't hold it.
    pub(super) fn kept_to(mut self, system: &System, x: &Vector, names: &[&str]) -> Option<Self> {
        let of = |name: &&str| (0..system.len()).find(|k| system.name(*k) == *name);
        let phases: Vec<usize> = names.iter().filter_map(of).collect();
        self.count = phases.len();
        for (slot, phase) in self.active.iter_mut().zip(phases) {
            *slot = Portion { phase, amount: 1.0 / names.len() as f64, y: system.seen(phase) };
        }
        (self.newton(system, x, &mut [None; N + 1]) && self.phases().iter().all(|p| p.amount > 0.0)).then_some(self)
    }
}
