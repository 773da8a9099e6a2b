// The round: one place at a time on a phone, one table at the desk. Each place is kept on the device first, then sent.
(() => {
  const room = document.getElementById("round-room"), form = document.getElementById("round");
  if (!room || !form) return;
  const data = JSON.parse(document.getElementById("round-data").textContent);
  const stops = [...form.querySelectorAll(".stop")], next = document.getElementById("next"), notice = document.getElementById("round-notice");
  const phone = window.matchMedia("(max-width: 820px)"), DRAFT = `cloche-draft-${data.garden}`, began = now();
  let at = 0, probe = null;

  function now() { return new Date(Date.now() + data.daysAhead * 864e5); }
  const clock = (instant) => new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit", timeZone: data.zone }).format(instant);
  const fields = (stop) => [...stop.querySelectorAll("input[name]")];
  const short = (field) => field.name.slice(field.name.indexOf("-") + 1);
  const degrees = (value) => `${String(value).replace("-", "−")}°`;
  const number = (text) => text.trim() === "" ? null : Number(text.trim().replace(",", ".").replace(/[−–]/, "-"));
  const expected = (stop) => data.places.find((place) => String(place.id) === stop.dataset.place) || {};

  // What was seen at a place, as it is sent. Nothing seen: null.
  function gather(stop) {
    const entry = {};
    for (const field of fields(stop)) {
      const name = short(field);
      if (name === "at") continue;
      if (field.type === "checkbox") { if (field.checked) (entry[name] ||= []).push(field.value); }
      else if (field.type === "radio") { if (field.checked) entry[name] = field.value; }
      else if (field.value.trim() !== "") entry[name] = field.value;
    }
    return Object.keys(entry).some((name) => name !== "place") ? entry : null;
  }

  // The hours that the page has of a depth at an instant.
  function hour(stop, depth, instant) {
    const told = expected(stop)[depth];
    if (!told) return null;
    const index = Math.floor((instant - new Date(told.start)) / 36e5);
    if (index < 0 || index >= told.low_c.length) return null;
    return Object.fromEntries(Object.entries(told).filter(([name]) => name !== "start").map(([name, values]) => [name, values[index]]));
  }
  function doubt(stop, depth, value, instant) {
    const told = hour(stop, depth, instant);
    if (!told || (value >= told.ask_low_c && value <= told.ask_high_c)) return "";
    const nearer = (other) => Math.abs(value - other) < Math.min(Math.abs(value - told.low_c), Math.abs(value - told.high_c)) / 2;
    const why = nearer(told.air_c) ? `It is nearer the air’s ${degrees(told.air_c)}: was the probe in the ground?`
      : nearer(told.surface_c) ? `It is nearer the surface’s ${degrees(told.surface_c)}: was it deep enough?` : "Had it settled? Was it deep enough, and in the ground?";
    return `${degrees(value)} is far from the ${degrees(told.low_c)} to ${degrees(told.high_c)} expected. ${why}`;
  }
  const typedAt = () => document.getElementById("read-at").value;
  const instantOf = () => typedAt() ? new Date(typedAt()) : now();

  function questions(stop) {
    return ["temperature", "deeper"].map((depth) => {
      const field = stop.querySelector(`[data-probe="${depth}"]`), value = field ? number(field.value) : null;
      return value === null || Number.isNaN(value) ? "" : doubt(stop, depth, value, instantOf());
    }).filter(Boolean);
  }
  function told(stop) {
    const field = stop.querySelector('[data-probe="temperature"]'), value = number(field.value), band = value === null ? null : hour(stop, "temperature", instantOf());
    return (value === null ? "noted" : degrees(value)) + (band ? `, expected ${degrees(band.low_c)} to ${degrees(band.high_c)}` : "");
  }

  // A place counts as read in the instant of Enter, so that what is typed next can only land in the next one; that it is safe on the
  // device is known a moment later. False: something is asked first. Otherwise a promise that it is kept.
  function keep(stop) {
    const entry = gather(stop), verdict = stop.querySelector(".verdict");
    if (!entry || stop.dataset.key) return Promise.resolve(true);
    const asked = questions(stop);
    if (asked.length && stop.dataset.asked !== JSON.stringify(entry)) {
      stop.dataset.asked = JSON.stringify(entry);
      verdict.innerHTML = "";
      asked.forEach((text) => verdict.append(line(text, "refused")));
      name();
      return false;
    }
    const key = crypto.randomUUID(), instant = instantOf();
    entry.key = key;
    entry.at = typedAt() || now().toISOString();
    entry.degree = data.degree;
    entry.length = data.length;
    const written = { key, garden: data.garden, person: data.person, place: Number(stop.dataset.place), placeName: stop.dataset.name,
      at: instant.toISOString(), state: "waiting", message: "", entry };
    done(stop, key, `${told(stop)} · ${clock(instant)}`);
    return clocheWaiting.put(written).then(() => { clocheWaiting.send(); return true; }, (error) => notKept(stop, error));
  }
  // The device has no room left, or does not let a page keep anything.
  function notKept(stop, error) {
    open(stop);
    draft();
    stop.querySelector(".verdict").replaceChildren(line(`Not kept: this device could not store it (${error.name}). It is still typed here.`, "refused"));
    notice.replaceChildren(line(`${stop.dataset.name} could not be stored on this device. It is still typed there.`, "refused"));
    return false;
  }
  function open(stop) {
    delete stop.dataset.key;
    delete stop.dataset.asked;
    stop.classList.remove("kept");
    fields(stop).forEach((field) => { field.readOnly = false; });
    stop.querySelector(".verdict").replaceChildren();
  }

  function done(stop, key, words) {
    stop.dataset.key = key;
    stop.classList.add("kept");
    fields(stop).forEach((field) => { field.readOnly = true; });
    const undo = Object.assign(document.createElement("button"), { type: "button", className: "linklike", textContent: "Undo" });
    undo.setAttribute("aria-label", `Undo ${stop.dataset.name}`);
    undo.addEventListener("click", () => takeBack(stop, key));
    for (const place of [stop.querySelector(".verdict"), notice]) {
      const text = line(place === notice ? `${stop.dataset.name}: ${words}. ` : `${words}. `, "notice");
      text.append(place === notice ? Object.assign(undo.cloneNode(true), { onclick: () => takeBack(stop, key) }) : undo);
      place.replaceChildren(text);
    }
    draft();
  }
  async function takeBack(stop, key) {
    const waits = (await clocheWaiting.all()).some((one) => one.key === key);
    if (waits) await clocheWaiting.drop(key);
    else {
      const token = form.querySelector("[name=csrfmiddlewaretoken]").value;
      const answer = await fetch(`${location.pathname}${key}/take-back/`, { method: "POST", headers: { "X-CSRFToken": token } }).catch(() => null);
      if (!answer || !answer.ok) { notice.replaceChildren(line("It is sent already, and to undo it needs signal.", "refused")); return; }
    }
    open(stop);
    notice.replaceChildren(line(`${stop.dataset.name} is open again.`, "notice"));
    if (phone.matches) go(stops.indexOf(stop));
    stop.querySelector("[data-probe]").focus();
  }
  const line = (text, kind) => Object.assign(document.createElement("p"), { className: kind, textContent: text });

  // On a phone: one place, then the next.
  function go(index) {
    at = Math.max(0, Math.min(stops.length, index));
    stops.forEach((stop, i) => stop.classList.toggle("here", i === at));
    room.classList.toggle("over", at === stops.length);
    room.classList.toggle("begun", phone.matches && at > 0);
    if (at < stops.length) choose(stops[at].querySelector("[data-probe]"));
    document.getElementById("round-name").textContent = `${half()} round${!phone.matches ? "" : at === stops.length ? ", done" : `, ${at + 1} of ${stops.length}`}`;
    name();
    if (phone.matches && at > 0) document.getElementById("round-name").scrollIntoView({ block: "start" });
  }
  const half = () => Number(clock(now()).slice(0, 2)) < 12 ? "Morning" : "Evening";
  function choose(field) {
    probe = field;
    form.querySelectorAll("[data-probe]").forEach((one) => one.classList.toggle("typing", one === field));
  }
  function name() {
    if (!phone.matches) { next.textContent = "Write the round down"; return; }
    const stop = stops[at];
    if (!stop) return;
    const last = at === stops.length - 1;
    if (stop.dataset.key) next.textContent = last ? "Finish" : "Next";
    else if (!gather(stop)) next.textContent = last ? "Skip, finish" : "Skip";
    else next.textContent = stop.dataset.asked ? "It is right, keep it" : last ? "Keep, finish" : "Keep, next";
  }
  async function onward() {
    const kept = keep(stops[at]);
    if (!kept) return;
    go(at + 1);
    if (await kept && at === stops.length) finish();
  }
  async function finish() {
    const count = stops.filter((stop) => stop.dataset.key).length, box = document.getElementById("round-summary");
    await clocheWaiting.send();
    const left = (await clocheWaiting.all()).filter((one) => one.garden === data.garden && one.state === "waiting").length;
    if (left) box.replaceChildren(line(`${count} of ${stops.length} places read. ${left} wait on this device and are sent when there is signal.`, "big"));
    else htmx.ajax("GET", `${room.dataset.summary}?since=${encodeURIComponent(new Date(began - 60000).toISOString())}`, { target: box, swap: "innerHTML" });
    box.scrollIntoView({ block: "nearest" });
  }

  form.addEventListener("submit", async (event) => {
    event.preventDefault();
    if (phone.matches) { await onward(); return; }
    const kept = await Promise.all(stops.map(keep)), first = stops.find((stop, i) => !kept[i]);
    if (first) first.querySelector("[data-probe]").focus();
    else if (stops.some((stop) => stop.dataset.key)) finish();
    else notice.replaceChildren(line("Nothing is written down yet: every place is empty.", "refused"));
  });
  form.addEventListener("keydown", (event) => {
    if (event.key !== "Enter" || event.target.tagName !== "INPUT" || event.target.type === "file") return;
    event.preventDefault();
    if (phone.matches) { onward(); return; }
    const stop = event.target.closest(".stop");
    if (!stop || !keep(stop)) return;
    const after = stops.slice(stops.indexOf(stop) + 1).find((one) => !one.dataset.key);
    (after ? after.querySelector("[data-probe]") : next).focus();
  });
  form.addEventListener("input", () => { name(); draft(); });
  form.addEventListener("focusin", (event) => { if (event.target.matches("[data-probe]")) choose(event.target); });
  // A digit counts as the thumb comes down: two quick taps, or one that slips a little, are no click to a browser.
  form.addEventListener("pointerdown", (event) => { if (event.button === 0) press(event.target.closest("[data-digit]")); });
  form.addEventListener("click", (event) => { if (event.detail === 0) press(event.target.closest("[data-digit]")); });
  function press(key) {
    if (!key || !probe || probe.readOnly) return;
    const digit = key.dataset.digit;
    if (digit === "rub") probe.value = probe.value.slice(0, -1);
    else if (digit === "-") probe.value = probe.value.startsWith("-") ? probe.value.slice(1) : `-${probe.value}`;
    else if (digit !== "." || !probe.value.includes(".")) probe.value += digit;
    probe.dispatchEvent(new Event("input", { bubbles: true }));
  }
  document.getElementById("go-there")?.addEventListener("click", (event) => {
    const index = stops.findIndex((stop) => `#${stop.id}` === event.target.hash);
    event.preventDefault();
    if (phone.matches) go(index);
    stops[index].querySelector("[data-probe]").focus();
  });
  document.getElementById("back").addEventListener("click", () => go(at - 1));

  // What is half typed outlives a reload.
  function draft() {
    const open = stops.filter((stop) => !stop.dataset.key).map((stop) => [stop.dataset.place, gather(stop)]).filter(([, entry]) => entry);
    localStorage.setItem(DRAFT, JSON.stringify(Object.fromEntries(open.map(([place, entry]) => [place, { ...entry, photo: undefined }]))));
  }
  function restore() {
    const kept = JSON.parse(localStorage.getItem(DRAFT) || "{}");
    for (const stop of stops) for (const field of fields(stop)) {
      const value = (kept[stop.dataset.place] || {})[short(field)];
      if (value === undefined || short(field) === "place") continue;
      if (field.type === "checkbox" || field.type === "radio") field.checked = [].concat(value).includes(field.value);
      else field.value = value;
    }
  }

  // A picture is made small before it is kept.
  form.addEventListener("change", async (event) => {
    if (!event.target.matches("[data-photo]") || !event.target.files[0]) return;
    const picture = await createImageBitmap(event.target.files[0]), scale = Math.min(1, 1280 / Math.max(picture.width, picture.height));
    const canvas = Object.assign(document.createElement("canvas"), { width: picture.width * scale, height: picture.height * scale });
    canvas.getContext("2d").drawImage(picture, 0, 0, canvas.width, canvas.height);
    event.target.closest(".stop").querySelector("[name$=-photo]").value = canvas.toDataURL("image/jpeg", 0.8);
    name();
  });

  // Settling: as long as this probe needs.
  const SETTLE = "cloche-settle-s", left = document.getElementById("settle-left");
  let ticking = 0;
  const settleS = () => Number(localStorage.getItem(SETTLE) || 60);
  const shown = (s) => { left.textContent = `${Math.floor(s / 60)}:${String(s % 60).padStart(2, "0")}`; };
  form.addEventListener("click", (event) => {
    const step = event.target.closest("[data-settle]"), start = event.target.closest("[data-settle-go]");
    if (step) { localStorage.setItem(SETTLE, String(Math.max(30, Math.min(600, settleS() + Number(step.dataset.settle))))); shown(settleS()); }
    if (!start) return;
    clearInterval(ticking);
    const end = Date.now() + settleS() * 1000, box = start.closest(".settle");
    box.classList.remove("settled");
    ticking = setInterval(() => {
      const s = Math.max(0, Math.ceil((end - Date.now()) / 1000));
      shown(s);
      if (s) return;
      clearInterval(ticking);
      box.classList.add("settled");
      left.textContent = "Read it now";
      navigator.vibrate?.(300);
    }, 250);
  });

  // What is not sent yet, and why.
  document.addEventListener("cloche:waiting", ({ detail }) => {
    const list = document.getElementById("waiting");
    list.replaceChildren(...detail.stops.filter((one) => one.state !== "waiting" || one.person !== data.person).map(waitingLine));
  });
  function waitingLine(one) {
    const item = document.createElement("li"), value = one.entry.temperature ? `${degrees(one.entry.temperature)} ` : "";
    const own = one.person === data.person;
    item.append(line(`${one.placeName}, ${value}${clock(new Date(one.at))}: ${own ? one.message : `waits for ${one.person} to sign in here.`}`, "refused"));
    if (!own) return item;
    const act = (words, run) => { const button = Object.assign(document.createElement("button"), { type: "button", className: "btn btn-plain", textContent: words }); button.addEventListener("click", run); item.append(button, " "); };
    const again = (entry) => clocheWaiting.put({ ...one, state: "waiting", message: "", entry }).then(() => clocheWaiting.send());
    if (one.state === "conflict") { act("Mine is right", () => again({ ...one.entry, replace: true })); act("Theirs is right", () => clocheWaiting.drop(one.key)); return item; }
    act("Send again", () => again(one.entry));
    if (one.entry.photo) act("Send it without its picture", () => again({ ...one.entry, photo: undefined }));
    act("Change it", async () => { await clocheWaiting.drop(one.key); reopen(one); });
    act("Drop it", () => { if (window.confirm(`Drop ${value}of ${one.placeName}? It is nowhere else.`)) clocheWaiting.drop(one.key); });
    return item;
  }
  function reopen(one) {
    const stop = stops.find((place) => place.dataset.place === String(one.place));
    if (!stop) { notice.replaceChildren(line("That place is no longer on the walk.", "refused")); return; }
    open(stop);
    fields(stop).forEach((field) => { if (one.entry[short(field)] && !["checkbox", "radio"].includes(field.type)) field.value = one.entry[short(field)]; });
    if (phone.matches) go(stops.indexOf(stop));
    stop.querySelector("[data-probe]").focus();
  }
  document.addEventListener("cloche:unsent", ({ detail }) => {
    notice.querySelectorAll(".not-sent").forEach((old) => old.remove());
    notice.append(line(detail.message, "notice not-sent"));
  });

  // Stops that still wait from before a reload count as read.
  async function mark() {
    for (const one of await clocheWaiting.all()) {
      const stop = stops.find((place) => place.dataset.place === String(one.place));
      if (!stop || one.garden !== data.garden || one.state !== "waiting" || stop.dataset.key) continue;
      for (const field of fields(stop)) if (one.entry[short(field)] && !["checkbox", "radio"].includes(field.type)) field.value = one.entry[short(field)];
      done(stop, one.key, `${told(stop)} · ${clock(new Date(one.at))}, not sent yet`);
    }
  }
  shown(settleS());
  restore();
  mark().then(() => {
    const open = stops.findIndex((stop) => !stop.dataset.key);
    const touch = () => form.querySelectorAll("[data-probe]").forEach((field) => field.setAttribute("inputmode", phone.matches ? "none" : "decimal"));
    const arrange = () => { form.classList.toggle("walking", phone.matches); touch(); go(phone.matches ? Math.max(0, open) : 0); };
    phone.addEventListener("change", arrange);
    arrange();
    if (!phone.matches && stops[Math.max(0, open)]) stops[Math.max(0, open)].querySelector("[data-probe]").focus();
  });
})();
