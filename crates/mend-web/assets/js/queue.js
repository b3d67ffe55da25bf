// What a technician enters, kept in this browser until the shop has it. One module for presses, marks, the ledger and acts on
// a board.
//
// Each entry is an item of the browser's storage of its own, so that two tabs never write over each other; sending is done by
// one tab at a time. An answer of the shop never discards an entry: taken, it goes; refused, it stays and is shown with the
// reason, to be sent again, moved or dropped by the person.

const PREFIX = "entry|";
const RETRY_MS = 1000;
const LATER_MS = 300;

/** A name that no other entry has; `crypto.randomUUID` is missing on a plain-http address of the network. */
export function token() {
  const bytes = crypto.getRandomValues(new Uint8Array(12));
  return [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
}

// The browser's storage, or this page's memory where that is full or off.
const memory = new Map();
let broken = false;

function put(key, entry) {
  const text = JSON.stringify(entry);
  try {
    localStorage.setItem(key, text);
    memory.delete(key);
  } catch {
    broken = true;
    memory.set(key, text);
  }
}

function take(key) {
  memory.delete(key);
  try {
    localStorage.removeItem(key);
  } catch {
    broken = true;
  }
}

function stored(prefix) {
  const found = new Map(memory);
  try {
    for (let k = 0; k < localStorage.length; k += 1) {
      const key = localStorage.key(k);
      if (key.startsWith(prefix) && !found.has(key)) found.set(key, localStorage.getItem(key));
    }
  } catch {
    broken = true;
  }
  const entries = [];
  for (const [key, text] of [...found].filter(([key]) => key.startsWith(prefix)).sort(([a], [b]) => (a < b ? -1 : 1))) {
    try {
      entries.push({ key, ...JSON.parse(text) });
    } catch {
      take(key);
    }
  }
  return entries;
}

/** Runs `work` in one tab at a time. Web Locks where the browser has them (it has not on a plain-http address); else a lease. */
async function alone(name, work) {
  if (navigator.locks) return navigator.locks.request(name, work);
  const key = `lease|${name}`;
  const mine = token();
  const held = () => {
    const [until, whose] = (localStorage.getItem(key) ?? "0|").split("|");
    return whose !== mine && Number(until) > Date.now();
  };
  const renew = () => localStorage.setItem(key, `${Date.now() + 5000}|${mine}`);
  try {
    if (held()) return undefined;
    renew();
    await new Promise((done) => setTimeout(done, 50));
    if (held()) return undefined;
  } catch {
    // Without a storage no other tab sees this one's entries.
    return work();
  }
  const renewing = setInterval(renew, 1000);
  try {
    return await work();
  } finally {
    clearInterval(renewing);
    localStorage.removeItem(key);
  }
}

/** How long ago an entry was made, ms: by the clock that nobody sets while its page lives, else by the time of day. */
function age(entry) {
  const same = Math.abs(entry.origin - performance.timeOrigin) < 1;
  return Math.max(0, Math.round(same ? performance.now() - entry.mono : Date.now() - entry.at));
}

/** What a page of refusal says. */
async function reason(answer) {
  const page = new DOMParser().parseFromString(await answer.text(), "text/html");
  const objections = [...page.querySelectorAll(".findings li")].map((finding) => words(finding.childNodes).join(" "));
  const said = objections.length > 0 ? objections : words(page.querySelectorAll(".refused h1, .refused p:not(:has(a))"));
  return said.join(". ") || `answered ${answer.status}`;
}

function words(nodes) {
  return [...nodes].map((node) => node.textContent.replace(/\s+/g, " ").trim()).filter(Boolean);
}

/**
 * A queue of one page.
 * - `name`: entries of the same name belong together, whatever tab made them
 * - `send(entry, ago)`: sends one; answers the fetch
 * - `shown(html, last, entry)`: an entry was taken; `last` where none waits after it. Without an entry: those after it were refused
 * - `refused(answer, entry)`: may take a refusal upon itself by answering true: the entry goes
 * - `lost()`: sending failed; it goes on by itself
 * - `move(entry)`: what the entry would be, made now; null where it can't be
 */
export function queue({ name, send, shown, refused, lost, move }) {
  const prefix = `${PREFIX}${name}|`;
  const all = () => stored(prefix);
  const waiting = () => all().filter((entry) => !entry.refused);
  let timer = null;
  let sending = false;
  let said = "";
  // What the shop answered last while others waited.
  let held = null;

  /** Adds an entry as its label says it to a person; `moment` is when it was made, ms on the page's own clock. */
  function add({ label, moment = performance.now() }, data) {
    const numbers = all().map((entry) => Number(entry.key.slice(prefix.length).split("|")[0]));
    const next = String(Math.max(0, ...numbers) + 1).padStart(9, "0");
    const made = {
      at: Math.round(Date.now() - (performance.now() - moment)),
      mono: moment,
      origin: performance.timeOrigin,
    };
    put(`${prefix}${next}|${token()}`, {
      label,
      data,
      token: token(),
      ...made,
    });
    draw();
    run();
  }

  async function run() {
    if (sending) return;
    sending = true;
    clearTimeout(timer);
    try {
      await alone(prefix, async () => {
        for (let next = waiting(); next.length > 0; next = waiting()) await sendOne(next);
      });
      said = "";
      if (waiting().length > 0) timer = setTimeout(run, LATER_MS);
    } catch (error) {
      said = error instanceof TypeError ? "No connection" : error.message;
      timer = setTimeout(run, RETRY_MS);
      lost?.();
    } finally {
      sending = false;
      draw();
    }
  }

  async function sendOne([entry, ...rest]) {
    const answer = await send(entry, age(entry));
    // The shop itself is in trouble, or a session has ended: the entry waits until that is mended.
    if (answer.status >= 500 || answer.status === 401) throw new Error(await reason(answer));
    if (answer.ok) {
      const html = await answer.text();
      take(entry.key);
      held = rest.length === 0 ? null : html;
      shown(html, rest.length === 0, entry);
    } else {
      const takes = refused && (await refused(answer.clone(), entry));
      if (takes) take(entry.key);
      else put(entry.key, { ...strip(entry), refused: await reason(answer) });
      // The last was refused: what was taken before it is shown, or the page would stay as it was before them all.
      if (rest.length === 0 && held) shown(held, true, null);
      held = rest.length === 0 ? null : held;
    }
    draw();
  }

  function strip(entry) {
    const { key, ...rest } = entry;
    return rest;
  }

  // What waits is counted; what was refused is listed with what can be done about it.
  function draw() {
    const note = document.getElementById("unsaved");
    const count = waiting().length;
    const parts = [];
    if (said && count > 0)
      parts.push(`${said}: ${count === 1 ? "1 entry is" : `${count} entries are`} kept here with the time and sent again.`);
    if (broken)
      parts.push("This browser's storage is full or off: entries are kept on this page alone until they are sent. Do not close it.");
    note.hidden = parts.length === 0;
    note.textContent = parts.join(" ");
    const list = document.getElementById("kept-here");
    const stuck = all().filter((entry) => entry.refused);
    list.hidden = stuck.length === 0;
    list.replaceChildren(...stuck.map(line));
  }

  function line(entry) {
    const row = document.createElement("p");
    const what = document.createElement("b");
    what.textContent = entry.label;
    row.append(what, ` was not taken. ${entry.refused} `);
    const button = (word, act) => {
      const made = document.createElement("button");
      made.type = "button";
      made.textContent = word;
      made.addEventListener("click", () => {
        act();
        draw();
        run();
      });
      row.append(made, " ");
    };
    button("Send again", () => put(entry.key, { ...strip(entry), refused: null }));
    if (move) {
      button("Enter it here", () => {
        const data = move(entry.data);
        if (data) put(entry.key, { ...strip(entry), data, refused: null });
      });
    }
    button("Drop it", () => take(entry.key));
    return row;
  }

  // Another tab has entered, sent or dropped something.
  window.addEventListener("storage", (event) => {
    if (event.key === null || event.key.startsWith(prefix)) draw();
  });
  window.addEventListener("online", run);
  draw();
  if (waiting().length > 0) setTimeout(run, 0);
  return { add, waiting: () => waiting().length };
}
