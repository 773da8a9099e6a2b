// What a thumb needs at a stop: digits, a timer for the probe to settle, a picture made small.
import { say } from "../sentences.js";

const SETTLE = "cloche-settle-s", SETTLE_S = 60, SHORTEST_S = 30, LONGEST_S = 600;
const WIDEST_PX = 1280, QUALITY = 0.8;

// The text of a field after a key of the pad.
export function typed(text, digit) {
  if (digit === "rub") return text.slice(0, -1);
  if (digit === "-") return text.startsWith("-") ? text.slice(1) : `-${text}`;
  return digit === "." && text.includes(".") ? text : text + digit;
}

// A digit counts as the thumb comes down: two quick taps, or one that slips a little, are no click to a browser.
export function keypad(form, probe) {
  const press = (key) => {
    const field = probe();
    if (!key || !field || field.readOnly) return;
    field.value = typed(field.value, key.dataset.digit);
    field.dispatchEvent(new Event("input", { bubbles: true }));
  };
  form.addEventListener("pointerdown", (event) => { if (event.button === 0) press(event.target.closest("[data-digit]")); });
  form.addEventListener("click", (event) => { if (event.detail === 0) press(event.target.closest("[data-digit]")); });
}

export const minutes = (s) => `${Math.floor(s / 60)}:${String(s % 60).padStart(2, "0")}`;

const wanted = () => Number(localStorage.getItem(SETTLE) || SETTLE_S);

// Settling: as long as this probe needs.
export function settleTimer(form) {
  const left = form.querySelector("#settle-left");
  let ticking = 0;
  const run = (box) => {
    clearInterval(ticking);
    const end = Date.now() + wanted() * 1000;
    box.classList.remove("settled");
    ticking = setInterval(() => {
      const s = Math.max(0, Math.ceil((end - Date.now()) / 1000));
      left.textContent = s ? minutes(s) : say("read-it-now");
      if (s) return;
      clearInterval(ticking);
      box.classList.add("settled");
      navigator.vibrate?.(300);
    }, 250);
  };
  form.addEventListener("click", (event) => {
    const step = event.target.closest("[data-settle]"), start = event.target.closest("[data-settle-go]");
    if (start) run(start.closest(".settle"));
    if (!step) return;
    const s = Math.max(SHORTEST_S, Math.min(LONGEST_S, wanted() + Number(step.dataset.settle)));
    localStorage.setItem(SETTLE, String(s));
    left.textContent = minutes(s);
  });
  left.textContent = minutes(wanted());
}

export async function small(file) {
  const picture = await createImageBitmap(file), scale = Math.min(1, WIDEST_PX / Math.max(picture.width, picture.height));
  const canvas = Object.assign(document.createElement("canvas"), { width: picture.width * scale, height: picture.height * scale });
  canvas.getContext("2d").drawImage(picture, 0, 0, canvas.width, canvas.height);
  return canvas.toDataURL("image/jpeg", QUALITY);
}

export const line = (text, kind) => Object.assign(document.createElement("p"), { className: kind, textContent: text });

export function button(text, kind, run) {
  const made = Object.assign(document.createElement("button"), { type: "button", className: kind, textContent: text });
  made.addEventListener("click", run);
  return made;
}
