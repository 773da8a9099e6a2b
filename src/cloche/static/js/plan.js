// The bed's plan as a thing one works in: patches are dragged by mouse and finger, moved and resized by the arrow keys.
import { say } from "./sentences.js";

const token = () => (document.cookie.match(/(?:^|; )(?:csrftoken|__Host-csrf)=([^;]+)/) || [])[1] || "";
const plan = () => document.getElementById("bed-plan");
const numbers = (patch) => patch.dataset.at.split(" ").map(Number);
const clamp = (value, most) => Math.min(Math.max(value, 0), Math.max(most, 0));
const FINE_CM = 5, CLICK_PX = 4;

// To the bed's squares; within the bed.
export function snapped([x, y, length, width], step, [long, broad]) {
  const to = (value) => Math.round(value / step) * step;
  const size = [Math.min(Math.max(length, FINE_CM), long), Math.min(Math.max(width, FINE_CM), broad)];
  return [clamp(to(x), long - size[0]), clamp(to(y), broad - size[1]), ...size].map((value) => Math.round(value * 10) / 10);
}

const bed = () => [Number(plan().dataset.length), Number(plan().dataset.width)];
const stepOf = (event) => (event.altKey || event.ctrlKey ? FINE_CM : Number(plan().dataset.step));
const perPixel = () => plan().viewBox.baseVal.width / plan().getBoundingClientRect().width;

async function lay(patch, at) {
  const body = new URLSearchParams({ x: at[0], y: at[1], length: at[2], width: at[3] });
  const headers = { "X-CSRFToken": token(), "HX-Request": "true" };
  let answer;
  try {
    answer = await fetch(patch.dataset.lay, { method: "POST", body, headers, redirect: "manual" });
  } catch {
    answer = null;
  }
  if (!answer || ![200, 422].includes(answer.status)) {
    pressed = null;
    patch.removeAttribute("transform");
    if (patch.dataset.drawn) patch.dataset.at = patch.dataset.drawn;
    document.getElementById("said").textContent = say("not-kept");
    return;
  }
  if (pressed) return; // another key was pressed meanwhile: its answer has both
  const id = patch.id, held = document.activeElement === patch;
  const fresh = new DOMParser().parseFromString(await answer.text(), "text/html").getElementById("bed");
  document.getElementById("bed").replaceWith(fresh);
  if (held) document.getElementById(id)?.focus();
}

// Keys come faster than answers: the patch moves with each, and what is sent is where it stands when the last answer is there.
let pressed = null, sending = false;

async function sendPressed() {
  if (sending) return;
  sending = true;
  while (pressed) {
    const { id, to } = pressed, patch = document.getElementById(id);
    pressed = null;
    if (patch) await lay(patch, to);
  }
  sending = false;
}

let drag = null;

function begin(event) {
  const patch = event.target.closest?.(".patch[data-lay]");
  if (!patch || event.button) return;
  const resizes = event.target.classList.contains("handle");
  drag = { patch, resizes, from: [event.clientX, event.clientY], at: numbers(patch), scale: perPixel(), moved: false, frame: 0 };
  plan().setPointerCapture(event.pointerId);
  if (event.pointerType !== "touch") event.preventDefault();
}

function move(event) {
  if (!drag) return;
  const [dx, dy] = [event.clientX - drag.from[0], event.clientY - drag.from[1]];
  if (!drag.moved && Math.hypot(dx, dy) < CLICK_PX) return;
  drag.moved = true;
  drag.by = [dx * drag.scale, dy * drag.scale];
  drag.step = stepOf(event);
  if (!drag.frame) drag.frame = requestAnimationFrame(show);
}

function show() {
  if (!drag) return;
  drag.frame = 0;
  const to = wanted();
  if (drag.resizes) {
    const ground = drag.patch.querySelector(".ground");
    ground.setAttribute("width", to[2]);
    ground.setAttribute("height", to[3]);
  } else drag.patch.setAttribute("transform", `translate(${to[0] - drag.at[0]} ${to[1] - drag.at[1]})`);
}

function wanted() {
  const [x, y, length, width] = drag.at, [dx, dy] = drag.by, step = drag.step;
  if (!drag.resizes) return snapped([x + dx, y + dy, length, width], step, bed());
  const side = (value) => Math.max(Math.round(value / step) * step, step);
  const [long, broad] = bed();
  return [x, y, Math.min(side(length + dx), long - x), Math.min(side(width + dy), broad - y)];
}

async function finish(event) {
  if (!drag) return;
  const { patch, moved } = drag, to = moved ? wanted() : null;
  if (drag.frame) cancelAnimationFrame(drag.frame);
  drag = null;
  if (event.type === "pointercancel") return patch.removeAttribute("transform");
  if (moved) await lay(patch, to);
  else location.assign(patch.dataset.open);
}

const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

async function press(event) {
  const patch = event.target.closest?.(".patch");
  if (!patch) return;
  if (event.key === "Enter") location.assign(patch.dataset.open);
  const way = ARROWS[event.key];
  if (!way || !patch.dataset.lay) return;
  event.preventDefault();
  const step = stepOf(event), [x, y, length, width] = numbers(patch), [long, broad] = bed();
  const grown = [Math.max(length + way[0] * step, FINE_CM), Math.max(width + way[1] * step, FINE_CM)];
  const to = event.shiftKey
    ? [x, y, Math.min(grown[0], long - x), Math.min(grown[1], broad - y)]
    : snapped([x + way[0] * step, y + way[1] * step, length, width], Math.min(step, FINE_CM), [long, broad]);
  patch.dataset.drawn ??= patch.dataset.at;
  const drawn = patch.dataset.drawn.split(" ").map(Number);
  patch.dataset.at = to.join(" ");
  if (!event.shiftKey) patch.setAttribute("transform", `translate(${to[0] - drawn[0]} ${to[1] - drawn[1]})`);
  pressed = { id: patch.id, to };
  await sendPressed();
}

document.addEventListener("pointerdown", begin);
document.addEventListener("pointermove", move);
document.addEventListener("pointerup", finish);
document.addEventListener("pointercancel", finish);
document.addEventListener("keydown", press);
