// What was written down waits on the device until the garden has it: each stop with its own key, sent until it is answered.
(() => {
  const PORTION = 50, PORTION_BYTES = 1500000, PAUSE_MS = 20000, KEEP_ROUND_MS = 15 * 60000;
  const WORKER_AGAIN_MS = [0, 1000, 4000, 15000, 60000];
  const TOO_LARGE = [400, 413];
  const here = () => document.body.dataset;
  const opened = () => idb.openDB("cloche", 1, { upgrade: (db) => db.createObjectStore("stops", { keyPath: "key" }) });
  const tell = (name, detail) => document.dispatchEvent(new CustomEvent(`cloche:${name}`, { detail }));
  const token = () => (document.cookie.match(/(?:^|; )csrftoken=([^;]+)/) || [])[1] || "";

  const all = async () => (await (await opened()).getAll("stops")).sort((a, b) => a.at.localeCompare(b.at));
  const put = async (stop) => {
    // Asked once: what waits here must not be cleared away when the device runs short of room.
    navigator.storage?.persist?.();
    await (await opened()).put("stops", stop);
    await show();
  };
  const drop = async (key) => { await (await opened()).delete("stops", key); await show(); };

  async function answered(result) {
    const db = await opened();
    const stop = await db.get("stops", result.key);
    if (!stop) return;
    if (result.state === "kept" || result.state === "known") await db.delete("stops", result.key);
    else await db.put("stops", { ...stop, state: result.state, message: result.message });
  }

  async function post(garden, stops) {
    const sentAt = new Date(Date.now() + Number(here().daysAhead || 0) * 864e5).toISOString();
    const body = JSON.stringify({ sent_at: sentAt, person: here().person, stops: stops.map((stop) => stop.entry) });
    return fetch(`/g/${garden}/round/send/`, { method: "POST", redirect: "manual", body,
      headers: { "Content-Type": "application/json", "X-CSRFToken": token() } });
  }

  // Readings first: what has a picture comes after what has none, and no portion is larger than a slow line carries in a while.
  const weight = (stop) => (stop.entry.photo || "").length;
  function portion(stops) {
    const lightest = [...stops].sort((a, b) => (weight(a) > 0) - (weight(b) > 0) || a.at.localeCompare(b.at)), taken = [];
    let bytes = 0;
    for (const stop of lightest) {
      bytes += JSON.stringify(stop.entry).length;
      if (taken.length && (bytes > PORTION_BYTES || taken.length === PORTION)) break;
      taken.push(stop);
    }
    return taken;
  }

  // A portion that is refused as too large is halved; a single stop that is, says so and keeps nothing else waiting.
  async function sendGarden(garden, stops) {
    const answer = await post(garden, stops);
    if (answer.ok) { for (const result of (await answer.json()).results) await answered(result); return true; }
    if (TOO_LARGE.includes(answer.status)) {
      const half = Math.ceil(stops.length / 2);
      if (stops.length > 1) return await sendGarden(garden, stops.slice(0, half)) && await sendGarden(garden, stops.slice(half));
      const message = weight(stops[0]) ? "Its picture is too large to send. Send it without." : "It is too large to send.";
      await answered({ key: stops[0].key, state: "refused", message });
      return true;
    }
    const why = answer.type === "opaqueredirect" || answer.status === 403 ? "Sign in again to send what waits here."
      : `The garden did not take it (${answer.status}). It stays on this device and is tried again.`;
    tell("unsent", { message: why });
    return false;
  }
  const mineIn = async (garden) => (await all()).filter((stop) => stop.person === here().person && stop.garden === garden && stop.state === "waiting");

  // One page at a time sends, and who asks meanwhile is served after.
  const send = () => navigator.locks.request("cloche-send", async () => {
    if (!here().person) return;
    const mine = (await all()).filter((stop) => stop.person === here().person && stop.state === "waiting");
    const gardens = [...new Set(mine.map((stop) => stop.garden))];
    for (const garden of gardens) {
      try {
        for (let stops = await mineIn(garden), before = Infinity; stops.length && stops.length < before; stops = await mineIn(garden)) {
          before = stops.length;
          if (!(await sendGarden(garden, portion(stops)))) break;
        }
      } catch (lost) { tell("unsent", { message: "No signal: what you read stays on this device and is sent later." }); }
    }
    await show();
  });

  async function show() {
    const stops = await all();
    const mine = stops.filter((stop) => stop.person === here().person);
    document.querySelectorAll("[data-unsent]").forEach((node) => {
      node.hidden = mine.length === 0;
      node.textContent = mine.length === 1 ? "1 place is not sent yet" : `${mine.length} places are not sent yet`;
    });
    tell("waiting", { stops });
  }

  // Leaving with something unsent is said first.
  document.addEventListener("submit", async (event) => {
    if (!event.target.matches("[data-sign-out]") || event.target.dataset.sure) return;
    event.preventDefault();
    const mine = (await all()).filter((stop) => stop.person === here().person);
    const message = `${mine.length} place${mine.length === 1 ? " is" : "s are"} not sent yet. It stays on this device and is sent when ${here().person} signs in here again. Sign out all the same?`;
    if (mine.length && !window.confirm(message)) return;
    if (window.caches) await caches.delete("cloche-pages");
    event.target.dataset.sure = "yes";
    event.target.submit();
  });
  document.addEventListener("click", async (event) => {
    const link = event.target.closest("[data-other-garden]");
    if (!link || link.dataset.sure) return;
    event.preventDefault();
    const mine = (await all()).filter((stop) => stop.person === here().person && String(stop.garden) === here().garden);
    const message = `${mine.length} place${mine.length === 1 ? " of this garden is" : "s of this garden are"} not sent yet. They stay on this device and are sent from any page. Go on?`;
    if (mine.length && !window.confirm(message)) return;
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
        if (await settled(await navigator.serviceWorker.register("/worker.js"))) return;
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
  async function listKept() {
    const list = document.getElementById("kept-rounds");
    if (!list || !window.caches) return;
    for (const request of await (await caches.open("cloche-pages")).keys()) {
      const answer = await (await caches.open("cloche-pages")).match(request);
      const name = ((await answer.text()).match(/data-garden-name="([^"]*)"/) || [])[1];
      const item = document.createElement("li"), link = document.createElement("a");
      link.href = new URL(request.url).pathname;
      link.className = "btn btn-act";
      link.textContent = `The round in ${new DOMParser().parseFromString(name || "", "text/html").body.textContent}`;
      item.append(link);
      list.append(item);
      document.getElementById("no-rounds").hidden = true;
    }
  }

  window.clocheWaiting = { all, put, drop, send };
  document.addEventListener("DOMContentLoaded", async () => {
    if ("serviceWorker" in navigator) {
      navigator.serviceWorker.addEventListener("controllerchange", keepRound);
      keepRound();
      bringWorker();
    }
    listKept();
    await show();
    send();
    setInterval(async () => { if ((await all()).some((stop) => stop.state === "waiting")) send(); }, PAUSE_MS);
  });
  window.addEventListener("online", send);
  document.addEventListener("visibilitychange", () => { if (!document.hidden) send(); });
})();
