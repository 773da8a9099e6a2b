// A stop's fields on the page and the entry that is sent of them.
const CHOSEN = ["checkbox", "radio"];

export const fields = (stop) => [...stop.querySelectorAll("input[name]")];
export const short = (field) => field.name.slice(field.name.indexOf("-") + 1);
export const probeOf = (stop, depth = "temperature") => stop.querySelector(`[data-probe="${depth}"]`);

// What was seen at a place, as it is sent. Nothing seen: null.
export function gather(stop) {
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

// The other way: an entry back into its fields; what it does not name stays as it is.
export function refill(stop, entry) {
  for (const field of fields(stop)) {
    const value = entry[short(field)];
    if (value === undefined || short(field) === "place") continue;
    if (CHOSEN.includes(field.type)) field.checked = [].concat(value).includes(field.value);
    else field.value = value;
  }
}

export function empty(stop) {
  for (const field of fields(stop)) {
    if (CHOSEN.includes(field.type)) field.checked = false;
    else if (short(field) !== "place") field.value = "";
  }
}

// What is half typed outlives a reload; a picture is too large for that.
export class Draft {
  constructor(garden) { this.name = `cloche-draft-${garden}`; }
  keep(stops) {
    const typed = stops.map((stop) => [stop.dataset.place, gather(stop)]).filter(([, entry]) => entry);
    const light = typed.map(([place, entry]) => [place, { ...entry, photo: undefined }]);
    localStorage.setItem(this.name, JSON.stringify(Object.fromEntries(light)));
  }
  restore(stops) {
    const kept = JSON.parse(localStorage.getItem(this.name) || "{}");
    for (const stop of stops) refill(stop, kept[stop.dataset.place] || {});
  }
}
