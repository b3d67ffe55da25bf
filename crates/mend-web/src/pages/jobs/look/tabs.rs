//! The lists of a stop as tabs, with how many of each are entered.

use mend_core::board::Joint;
use mend_core::shop::Stop;

use super::LookList;
use crate::job::{COMPONENTS, Job};

/// How many of a list are entered.
pub(super) struct ListCount {
    pub(super) done: usize,
    pub(super) of: usize,
}

/// A list of the stop, as a tab.
pub(crate) struct LookTab {
    pub(crate) href: String,
    pub(crate) name: &'static str,
    pub(crate) done: usize,
    pub(crate) of: usize,
    pub(crate) here: bool,
}

impl LookTab {
    /// One that leads to a page of the job; `here` is the address of the page that shows it.
    fn new(href: String, name: &'static str, ListCount { done, of }: ListCount, here: &str) -> Self {
        Self { here: href == here, href, name, done, of }
    }
}

fn address(job: &Job, list: LookList) -> String {
    format!("/jobs/{}/look?list={}", job.row.id, list.key())
}

/// The tabs of the inspection: the pin walk, the lists, what stands near. `here` is its address.
pub(crate) fn inspect_tabs(job: &Job, here: &str) -> Vec<LookTab> {
    let own = |path: &str| format!("/jobs/{}/{path}", job.row.id);
    let walked = job.walked();
    let marked = ListCount { done: walked.iter().filter(|pin| pin.mark.is_some()).count(), of: walked.len() };
    let walk = LookTab::new(own("pins"), "Pin walk", marked, here);
    let near = job.board.iter().flat_map(|(_, board)| &board.components);
    let found = near.clone().filter(|near| job.check(COMPONENTS, &near.name).is_some()).count();
    let near = ListCount { done: found, of: near.count() };
    let near = LookTab::new(own("components"), "What stands near", near, here);
    [walk].into_iter().chain(lists_of(job, Stop::Pins, here)).chain([near]).collect()
}

/// The tabs of the stop that a list belongs to.
pub(super) fn tabs_of(job: &Job, list: LookList) -> Vec<LookTab> {
    let here = address(job, list);
    if list.stop() == Stop::Pins { inspect_tabs(job, &here) } else { lists_of(job, Stop::Look, &here).collect() }
}

fn lists_of(job: &Job, stop: Stop, here: &str) -> impl Iterator<Item = LookTab> {
    let lists = LookList::ALL.into_iter().filter(move |list| list.stop() == stop);
    lists.map(move |list| LookTab::new(address(job, list), list.name(), counted(job, list), here))
}

/// Of all that there are in a list.
pub(super) fn counted(job: &Job, list: LookList) -> ListCount {
    if list == LookList::Between {
        let pairs = job.insulation();
        return ListCount { done: pairs.iter().filter(|(_, found)| found.is_some()).count(), of: pairs.len() };
    }
    let joints = job.board.iter().flat_map(|(_, board)| &board.connector.joints);
    let listed = joints.filter(|joint| list.is_lands() || joint.is_pin());
    let found = |joint: &&Joint| job.check(list.key(), &joint.name).is_some();
    ListCount { of: listed.clone().count(), done: listed.filter(found).count() }
}
