// Requests at an even pace, whatever the answers take, and what they took.
import { readFileSync } from "node:fs";
import http from "node:http";

const agent = new http.Agent({ keepAlive: true, maxSockets: 64 });

/** One request; answers its status, body and how long it took, ms. */
export function ask(address, { method = "GET", form, json } = {}) {
  const body = json ? JSON.stringify(json) : form ? new URLSearchParams(form).toString() : "";
  const type = json ? "application/json" : "application/x-www-form-urlencoded";
  const headers = body ? { "content-type": type, "content-length": Buffer.byteLength(body) } : {};
  const began = performance.now();
  return new Promise((found, lost) => {
    const request = http.request(address, { method, agent, headers }, (answer) => {
      const parts = [];
      answer.on("data", (part) => parts.push(part));
      answer.on("end", () =>
        found({ status: answer.statusCode, headers: answer.headers, text: Buffer.concat(parts).toString(), ms: performance.now() - began }),
      );
    });
    request.on("error", lost);
    request.end(body);
  });
}

/** Asks `perSecond` times a second for so many seconds; answers all that came. */
export async function steady(perSecond, seconds, one) {
  const answers = [];
  const began = performance.now();
  for (let k = 0; k < perSecond * seconds; k += 1) {
    const wait = began + (1000 * k) / perSecond - performance.now();
    if (wait > 0) await new Promise((done) => setTimeout(done, wait));
    answers.push(one(k));
  }
  return Promise.all(answers);
}

/** What a share of some values is at the most. */
export function shareOf(values, share) {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.ceil(share * sorted.length) - 1)];
}

/** What a share of answers took at the most, ms. */
export const quantile = (answers, share) =>
  shareOf(
    answers.map((answer) => answer.ms),
    share,
  );

/** What a served shop holds, MB. */
export const memory = ({ child }) => Number(readFileSync(`/proc/${child.pid}/status`, "utf8").match(/VmRSS:\s+(\d+)/)[1]) / 1024;

export const told = (answers) =>
  `${answers.length} answers, median ${quantile(answers, 0.5).toFixed(1)} ms, p99 ${quantile(answers, 0.99).toFixed(1)} ms, slowest ${quantile(answers, 1).toFixed(1)} ms`;
