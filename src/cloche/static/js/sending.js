// Sends what waits on the device until it is answered: readings first, in portions, one page at a time.
import { all, drop, get, put } from "./device.js";
import { say } from "./sentences.js";

const PORTION = 50, PORTION_BYTES = 1500000;
const TOO_LARGE = [400, 413];
const here = () => document.body.dataset;
const token = () => (document.cookie.match(/(?:^|; )(?:csrftoken|__Host-csrf)=([^;]+)/) || [])[1] || "";
const tell = (name, detail) => document.dispatchEvent(new CustomEvent(`cloche:${name}`, { detail }));
const weight = (stop) => (stop.entry.photo || "").length;

// What has a picture comes after what has none, and no portion is larger than a slow line carries in a while.
export function portion(stops, most = PORTION, mostBytes = PORTION_BYTES) {
  const lightest = [...stops].sort((a, b) => (weight(a) > 0) - (weight(b) > 0) || a.at.localeCompare(b.at));
  const taken = [];
  let bytes = 0;
  for (const stop of lightest) {
    bytes += JSON.stringify(stop.entry).length;
    if (taken.length && (bytes > mostBytes || taken.length === most)) break;
    taken.push(stop);
  }
  return taken;
}

async function answered(result) {
  const stop = await get(result.key);
  if (!stop) return;
  if (result.state === "kept" || result.state === "known") await drop(result.key);
  else await put({ ...stop, state: result.state, message: result.message });
}

function post(garden, stops) {
  const sentAt = new Date(Date.now() + Number(here().daysAhead || 0) * 864e5).toISOString();
  const body = JSON.stringify({ sent_at: sentAt, person: here().person, stops: stops.map((stop) => stop.entry) });
  const headers = { "Content-Type": "application/json", "X-CSRFToken": token() };
  return fetch(`/g/${garden}/round/send/`, { method: "POST", redirect: "manual", body, headers });
}

// A portion that is refused as too large is halved; a single stop that is, says so and keeps nothing else waiting.
async function sendStops(garden, stops) {
  const answer = await post(garden, stops);
  if (answer.ok) {
    for (const result of (await answer.json()).results) await answered(result);
    return true;
  }
  if (TOO_LARGE.includes(answer.status)) return halved(garden, stops);
  const signedOut = answer.type === "opaqueredirect" || answer.status === 403;
  tell("unsent", { message: signedOut ? say("sign-in-again") : say("not-taken", { status: answer.status }) });
  return false;
}

async function halved(garden, stops) {
  if (stops.length > 1) {
    const half = Math.ceil(stops.length / 2);
    return await sendStops(garden, stops.slice(0, half)) && sendStops(garden, stops.slice(half));
  }
  const message = say(weight(stops[0]) ? "picture-too-large" : "too-large");
  await answered({ key: stops[0].key, state: "refused", message });
  return true;
}

const mine = async () => (await all()).filter((stop) => stop.person === here().person && stop.state === "waiting");
const mineIn = async (garden) => (await mine()).filter((stop) => stop.garden === garden);

async function sendGarden(garden) {
  let before = Infinity;
  for (let stops = await mineIn(garden); stops.length && stops.length < before; stops = await mineIn(garden)) {
    before = stops.length;
    if (!(await sendStops(garden, portion(stops)))) return false;
  }
  return true;
}

// One page at a time sends, and who asks meanwhile is served after.
export const send = () => navigator.locks.request("cloche-send", async () => {
  if (!here().person) return;
  const gardens = [...new Set((await mine()).map((stop) => stop.garden))];
  for (const garden of gardens) {
    try {
      if (await sendGarden(garden)) tell("sent", { garden });
    } catch (lost) {
      console.info("not sent yet:", lost.message);
      tell("unsent", { message: say("no-signal") });
    }
  }
});
