// What is not sent yet, and why, each with what can be done about it.
import { all, drop, put } from "../device.js";
import { send } from "../sending.js";
import { clock, say } from "../sentences.js";
import { degrees } from "./expecting.js";
import { button, line } from "./tools.js";

const PLAIN = "btn btn-plain";

// reopen: takes a stop back into its fields. Stops that merely wait are no matter here.
export function refusedList(list, { person, zone, reopen }) {
  const show = (stops) => {
    const shown = stops.filter((one) => one.state !== "waiting" || one.person !== person);
    list.replaceChildren(...shown.map((one) => item(one, person, zone, reopen)));
  };
  document.addEventListener("cloche:waiting", ({ detail }) => show(detail.stops));
  // They may have been counted before this list was there to hear of it.
  all().then(show);
}

function item(one, person, zone, reopen) {
  const node = document.createElement("li"), value = one.entry.temperature ? `${degrees(one.entry.temperature)} ` : "";
  const own = one.person === person;
  const message = own ? one.message : say("waits-for", { person: one.person });
  node.append(line(`${one.placeName}, ${value}${clock(new Date(one.at), zone)}: ${message}`, "refused"));
  if (own) for (const act of acts(one, value, reopen)) node.append(act, " ");
  return node;
}

function acts(one, value, reopen) {
  const again = (entry) => put({ ...one, state: "waiting", message: "", entry }).then(send);
  if (one.state === "conflict") {
    return [
      button(say("mine-is-right"), PLAIN, () => again({ ...one.entry, replace: true })),
      button(say("theirs-is-right"), PLAIN, () => drop(one.key)),
    ];
  }
  const light = button(say("send-without-picture"), PLAIN, () => again({ ...one.entry, photo: undefined }));
  return [
    button(say("send-again"), PLAIN, () => again(one.entry)),
    ...(one.entry.photo ? [light] : []),
    button(say("change-it"), PLAIN, async () => { await drop(one.key); reopen(one); }),
    button(say("drop-it"), PLAIN, () => {
      if (window.confirm(say("drop-it-sure", { value: value.trim(), place: one.placeName }))) drop(one.key);
    }),
  ];
}
