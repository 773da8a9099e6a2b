// On every page: what still waits on this device is counted, sent, and not left behind unnoticed; the round is kept for places
// without signal.
import { all, drop, put } from "./device.js";
import { send } from "./sending.js";
import { say } from "./sentences.js";

const PAUSE_MS = 20000, KEEP_ROUND_MS = 15 * 60000;
const WORKER_AGAIN_MS = [0, 1000, 4000, 15000, 60000];
const here = () => document.body.dataset;
const ofPerson = (stops) => stops.filter((stop) => stop.person === here().person);

async function show() {
  const stops = await all(), number = ofPerson(stops).length;
  document.querySelectorAll("[data-unsent]").forEach((node) => {
    node.hidden = number === 0;
    node.textContent = say("unsent", { number });
  });
  document.dispatchEvent(new CustomEvent("cloche:waiting", { detail: { stops } }));
}

// Leaving with something unsent is said first.
document.addEventListener("submit", async (event) => {
  if (!event.target.matches("[data-sign-out]") || event.target.dataset.sure) return;
  event.preventDefault();
  const number = ofPerson(await all()).length;
  if (number && !window.confirm(say("sign-out-unsent", { number, person: here().person }))) return;
  if (window.caches) await caches.delete("cloche-pages");
  event.target.dataset.sure = "yes";
  event.target.submit();
});
document.addEventListener("click", async (event) => {
  const link = event.target.closest("[data-other-garden]");
  if (!link) return;
  event.preventDefault();
  const number = ofPerson(await all()).filter((stop) => String(stop.garden) === here().garden).length;
  if (number && !window.confirm(say("other-garden-unsent", { number }))) return;
  location.href = link.href;
});

// The round is kept ahead, so that it opens where there is no signal even if it was never opened before.
async function keepRound() {
  const garden = here().garden;
  if (!garden || !here().person || !navigator.serviceWorker?.controller) return;
  const mark = `cloche-kept-${garden}`;
  if (Date.now() - Number(localStorage.getItem(mark) || 0) < KEEP_ROUND_MS) return;
  localStorage.setItem(mark, String(Date.now()));
  await fetch(`/g/${garden}/round/`).catch(() => localStorage.removeItem(mark));
}

// A page that is left while the worker is on its way may take it along, and a weak signal may lose one of its files: asked again.
async function bringWorker() {
  for (const pause of WORKER_AGAIN_MS) {
    await new Promise((rested) => setTimeout(rested, pause));
    try {
      const registration = await navigator.serviceWorker.register("/worker.js");
      if (!(await settled(registration))) continue;
      // A page that was on its way while the worker took over was not there to be taken.
      if (!navigator.serviceWorker.controller) registration.active?.postMessage("claim");
      return;
    } catch (refused) {
      console.info("no offline round yet:", refused.message);
    }
  }
}

function settled(registration) {
  const coming = registration.installing || registration.waiting;
  if (!coming) return Boolean(registration.active);
  return new Promise((known) => {
    const look = () => {
      if (coming.state === "activated") known(true);
      if (coming.state === "redundant") known(false);
    };
    coming.addEventListener("statechange", look);
    look();
  });
}

// Where there is no signal: the rounds that are kept on this device.
async function listKept() {
  const list = document.getElementById("kept-rounds");
  if (!list || !window.caches) return;
  const pages = await caches.open("cloche-pages");
  for (const request of await pages.keys()) {
    const kept = new DOMParser().parseFromString(await (await pages.match(request)).text(), "text/html");
    const link = document.createElement("a"), item = document.createElement("li");
    link.href = new URL(request.url).pathname;
    link.className = "btn btn-act";
    link.textContent = say("kept-round", { garden: kept.body.dataset.gardenName || "" });
    item.append(link);
    list.append(item);
    document.getElementById("no-rounds").hidden = true;
  }
}

window.clocheWaiting = { all, put, drop, send };
document.addEventListener("cloche:stored", show);
window.addEventListener("online", send);
document.addEventListener("visibilitychange", () => { if (!document.hidden) send(); });
if ("serviceWorker" in navigator) {
  navigator.serviceWorker.addEventListener("controllerchange", keepRound);
  keepRound();
  bringWorker();
}
listKept();
show().then(send);
setInterval(async () => { if ((await all()).some((stop) => stop.state === "waiting")) send(); }, PAUSE_MS);
