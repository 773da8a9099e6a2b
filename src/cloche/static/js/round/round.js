// The round: one place at a time on a phone, one table at the desk. Each place is kept on the device first, then sent.
import { all, drop, put } from "../device.js";
import { send } from "../sending.js";
import { clock, say } from "../sentences.js";
import { Draft, empty, fields, gather, probeOf, refill } from "./entry.js";
import { hour, number, question, summary } from "./expecting.js";
import { refusedList } from "./refused.js";
import { button, keypad, line, settleTimer, small } from "./tools.js";

const NOON_H = 12, BEFORE_MS = 60000, DAY_MS = 864e5;
const form = document.getElementById("round");
const typedAt = () => document.getElementById("read-at").value;
const verdict = (stop) => stop.querySelector(".verdict");

function reopen(stop) {
  delete stop.dataset.key;
  delete stop.dataset.asked;
  stop.classList.remove("kept");
  fields(stop).forEach((field) => { field.readOnly = false; });
  verdict(stop).replaceChildren();
}

function walk(data) {
  const room = document.getElementById("round-room"), next = document.getElementById("next");
  const notice = document.getElementById("round-notice"), title = document.getElementById("round-name");
  const stops = [...form.querySelectorAll(".stop")], open = () => stops.filter((stop) => !stop.dataset.key);
  const phone = window.matchMedia("(max-width: 820px)"), draft = new Draft(data.garden);
  const now = () => new Date(Date.now() + data.daysAhead * DAY_MS), time = (instant) => clock(instant, data.zone);
  const began = now();
  const readAt = () => (typedAt() ? new Date(typedAt()) : now());
  let at = 0, probe = null;

  // What is asked and said of a stop's numbers.
  const expected = (stop, depth) => {
    const place = data.places.find((one) => String(one.id) === stop.dataset.place);
    return hour(place?.[depth], readAt());
  };
  const questions = (stop) => ["temperature", "deeper"].map((depth) => {
    const value = number(probeOf(stop, depth)?.value || "");
    return value === null || Number.isNaN(value) ? "" : question(value, expected(stop, depth));
  }).filter(Boolean);
  const inWords = (stop) => summary(number(probeOf(stop).value), expected(stop, "temperature"));

  // A place counts as read in the instant of Enter, so that what is typed next can only land in the next one; that it is safe on the
  // device is known a moment later. False: something is asked first. Otherwise a promise that it is kept.
  function keep(stop) {
    const entry = gather(stop);
    if (!entry || stop.dataset.key) return Promise.resolve(true);
    const asked = questions(stop);
    if (asked.length && stop.dataset.asked !== JSON.stringify(entry)) {
      stop.dataset.asked = JSON.stringify(entry);
      verdict(stop).replaceChildren(...asked.map((text) => line(text, "refused")));
      name();
      return false;
    }
    const key = crypto.randomUUID(), instant = readAt();
    Object.assign(entry, { key, at: typedAt() || now().toISOString(), degree: data.degree, length: data.length });
    const stored = { key, garden: data.garden, person: data.person, place: Number(stop.dataset.place),
      placeName: stop.dataset.name, at: instant.toISOString(), state: "waiting", message: "", entry };
    close(stop, key, `${inWords(stop)} · ${time(instant)}`);
    return put(stored).then(() => { send(); return true; }, (error) => notKept(stop, error));
  }
  // The device has no room left, or does not let a page keep anything.
  function notKept(stop, error) {
    reopen(stop);
    draft.keep(open());
    verdict(stop).replaceChildren(line(say("not-stored", { error: error.name }), "refused"));
    notice.replaceChildren(line(say("place-not-stored", { place: stop.dataset.name }), "refused"));
    return false;
  }
  function close(stop, key, text) {
    stop.dataset.key = key;
    stop.classList.add("kept");
    fields(stop).forEach((field) => { field.readOnly = true; });
    const undo = () => {
      const made = button(say("undo"), "linklike", () => takeBack(stop, key));
      made.setAttribute("aria-label", say("undo-place", { place: stop.dataset.name }));
      return made;
    };
    const inPlace = line(`${text}. `, "notice"), above = line(`${stop.dataset.name}: ${text}. `, "notice");
    const again = button(say("read-again"), "linklike", () => { empty(stop); reopen(stop); come(stop); });
    inPlace.append(undo(), " · ", again);
    above.append(undo());
    verdict(stop).replaceChildren(inPlace);
    notice.replaceChildren(above);
    draft.keep(open());
  }
  async function takeBack(stop, key) {
    if ((await all()).some((one) => one.key === key)) await drop(key);
    else {
      const token = form.querySelector("[name=csrfmiddlewaretoken]").value;
      const request = { method: "POST", headers: { "X-CSRFToken": token } };
      const answer = await fetch(`${location.pathname}${key}/take-back/`, request).catch(() => null);
      if (!answer?.ok) { notice.replaceChildren(line(say("undo-needs-signal"), "refused")); return; }
    }
    reopen(stop);
    notice.replaceChildren(line(say("open-again", { place: stop.dataset.name }), "notice"));
    come(stop);
  }
  function come(stop) {
    if (phone.matches) go(stops.indexOf(stop));
    probeOf(stop).focus();
  }

  // On a phone: one place, then the next.
  function go(index) {
    at = Math.max(0, Math.min(stops.length, index));
    stops.forEach((stop, i) => stop.classList.toggle("here", i === at));
    room.classList.toggle("over", at === stops.length);
    room.classList.toggle("begun", phone.matches && at > 0);
    if (at < stops.length) choose(probeOf(stops[at]));
    title.textContent = heading();
    name();
    if (!phone.matches) return;
    if (at > 0) title.scrollIntoView({ block: "start" });
    stops[at]?.scrollIntoView({ block: "nearest" });
  }
  function heading() {
    const hours = new Intl.DateTimeFormat("en", { hour: "2-digit", hourCycle: "h23", timeZone: data.zone }).format(now());
    const half = say(Number(hours) < NOON_H ? "morning-round" : "evening-round");
    if (!phone.matches) return half;
    return at === stops.length ? say("round-done", { half }) : say("round-at", { half, number: at + 1, all: stops.length });
  }
  function choose(field) {
    probe = field;
    form.querySelectorAll("[data-probe]").forEach((one) => one.classList.toggle("typing", one === field));
  }
  function name() {
    const stop = stops[at], last = at === stops.length - 1;
    if (!phone.matches) next.textContent = say("write-round-down");
    else if (!stop) return;
    else if (stop.dataset.key) next.textContent = say(last ? "finish" : "next");
    else if (!gather(stop)) next.textContent = say(last ? "skip-finish" : "skip");
    else if (stop.dataset.asked) next.textContent = say("right-keep-it");
    else next.textContent = say(last ? "keep-finish" : "keep-next");
  }
  async function onward() {
    const kept = keep(stops[at]);
    if (!kept) return;
    go(at + 1);
    if (await kept && at === stops.length) finish();
  }
  async function finish() {
    const count = stops.filter((stop) => stop.dataset.key).length, box = document.getElementById("round-summary");
    await send();
    const left = (await all()).filter((one) => one.garden === data.garden && one.state === "waiting").length;
    const since = encodeURIComponent(new Date(began - BEFORE_MS).toISOString());
    if (left) box.replaceChildren(line(say("read-and-waiting", { count, all: stops.length, number: left }), "big"));
    else htmx.ajax("GET", `${room.dataset.summary}?since=${since}`, { target: box, swap: "innerHTML" });
    box.scrollIntoView({ block: "nearest" });
  }

  form.addEventListener("submit", async (event) => {
    event.preventDefault();
    if (phone.matches) { await onward(); return; }
    const kept = await Promise.all(stops.map(keep)), first = stops.find((stop, i) => !kept[i]);
    if (first) probeOf(first).focus();
    else if (stops.some((stop) => stop.dataset.key)) finish();
    else notice.replaceChildren(line(say("all-empty"), "refused"));
  });
  form.addEventListener("keydown", (event) => {
    if (event.key !== "Enter" || event.target.tagName !== "INPUT" || event.target.type === "file") return;
    event.preventDefault();
    if (phone.matches) { onward(); return; }
    const stop = event.target.closest(".stop");
    if (!stop || !keep(stop)) return;
    const after = stops.slice(stops.indexOf(stop) + 1).find((one) => !one.dataset.key);
    (after ? probeOf(after) : next).focus();
  });
  // Whatever was asked of a stop was asked of what stood there then.
  form.addEventListener("input", (event) => {
    const stop = event.target.closest(".stop");
    if (stop && !stop.dataset.key) {
      delete stop.dataset.asked;
      verdict(stop).replaceChildren();
    }
    name();
    draft.keep(open());
  });
  form.addEventListener("focusin", (event) => { if (event.target.matches("[data-probe]")) choose(event.target); });
  form.addEventListener("change", async (event) => {
    if (!event.target.matches("[data-photo]") || !event.target.files[0]) return;
    event.target.closest(".stop").querySelector("[name$=-photo]").value = await small(event.target.files[0]);
    name();
  });
  document.getElementById("go-there")?.addEventListener("click", (event) => {
    event.preventDefault();
    come(stops.find((stop) => `#${stop.id}` === event.target.hash));
  });
  document.getElementById("back").addEventListener("click", () => go(at - 1));

  // What waits, and what became of it.
  refusedList(document.getElementById("waiting"), { ...data, reopen: (one) => {
    const stop = stops.find((place) => place.dataset.place === String(one.place));
    if (!stop) { notice.replaceChildren(line(say("place-gone"), "refused")); return; }
    reopen(stop);
    refill(stop, one.entry);
    come(stop);
  } });
  const quiet = () => notice.querySelectorAll(".not-sent").forEach((old) => old.remove());
  document.addEventListener("cloche:unsent", ({ detail }) => {
    quiet();
    notice.append(line(detail.message, "notice not-sent"));
  });
  document.addEventListener("cloche:sent", async ({ detail }) => {
    if (detail.garden !== data.garden) return;
    quiet();
    form.querySelectorAll(".waits").forEach((mark) => mark.remove());
    if (at === stops.length) await finish();
  });
  // Stops that still wait from before a reload count as read.
  async function markWaiting() {
    for (const one of await all()) {
      const stop = stops.find((place) => place.dataset.place === String(one.place));
      if (!stop || one.garden !== data.garden || one.state !== "waiting" || stop.dataset.key) continue;
      refill(stop, one.entry);
      close(stop, one.key, `${inWords(stop)} · ${time(new Date(one.at))}`);
      const waits = Object.assign(document.createElement("span"), { className: "waits", textContent: ` ${say("not-sent-yet")}` });
      verdict(stop).firstElementChild.append(waits);
    }
  }

  keypad(form, () => probe);
  settleTimer(form);
  draft.restore(stops);
  markWaiting().then(() => {
    const first = Math.max(0, stops.indexOf(open()[0]));
    const arrange = () => {
      form.classList.toggle("walking", phone.matches);
      const mode = phone.matches ? "none" : "decimal";
      form.querySelectorAll("[data-probe]").forEach((field) => field.setAttribute("inputmode", mode));
      go(phone.matches ? first : 0);
    };
    phone.addEventListener("change", arrange);
    arrange();
    if (!phone.matches && stops[first]) probeOf(stops[first]).focus();
  });
}

if (form) walk(JSON.parse(document.getElementById("round-data").textContent));
