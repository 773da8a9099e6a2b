// Single letters open the rooms; `?` lists them. They can be turned off (WCAG 2.1.4) and never act while one is typing.
import { say } from "./sentences.js";

const OFF = "cloche-keys-off";
const typing = (node) => node.closest("input, select, textarea, [contenteditable]") !== null;
const dialog = () => document.getElementById("keys");
document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey || typing(event.target)) return;
  if (localStorage.getItem(OFF) || document.querySelector("dialog[open]")) return;
  if (event.key === "?" && dialog()) { dialog().showModal(); return; }
  const link = document.querySelector(`[data-key="${CSS.escape(event.key)}"]`);
  if (link) { event.preventDefault(); link.click(); }
});
document.addEventListener("click", (event) => {
  if (event.target.closest("[data-keys-open]")) dialog().showModal();
  if (event.target.closest("[data-keys-close]")) dialog().close();
  const toggle = event.target.closest("[data-keys-toggle]");
  if (!toggle) return;
  if (localStorage.getItem(OFF)) localStorage.removeItem(OFF); else localStorage.setItem(OFF, "1");
  label(toggle);
});
const label = (toggle) => { toggle.textContent = say(localStorage.getItem(OFF) ? "keys-on" : "keys-off"); };
document.querySelectorAll("[data-keys-toggle]").forEach(label);
// A refused form takes the eye and the keyboard to the first wrong field.
const toWrong = () => { document.querySelector("[aria-invalid=true]")?.focus(); };
document.addEventListener("htmx:afterSettle", toWrong);
toWrong();
// A job that was answered leaves the list: the keyboard goes on at the one that follows.
let answered = -1;
document.addEventListener("htmx:beforeRequest", (event) => {
  const row = event.target.closest?.("#jobs li");
  answered = row ? [...row.parentElement.children].indexOf(row) : -1;
});
document.addEventListener("htmx:afterSettle", () => {
  if (answered < 0) return;
  const rows = document.querySelectorAll("#jobs .jobs li");
  const next = rows[Math.min(answered, rows.length - 1)] ?? document.querySelector("#jobs .answered");
  next?.querySelector("button, .acts a")?.focus();
  answered = -1;
});
// One password that can be looked at needs no second one.
document.addEventListener("change", (event) => {
  const field = event.target.dataset.showPassword && document.getElementById(event.target.dataset.showPassword);
  if (field) field.type = event.target.checked ? "text" : "password";
});
// On a phone the rooms of a purpose open under their name, one group at a time.
const groups = () => document.querySelectorAll(".rooms .opens");
function openOnly(wanted) {
  groups().forEach((button) => button.setAttribute("aria-expanded", String(button === wanted)));
}
document.addEventListener("click", (event) => {
  const button = event.target.closest(".rooms .opens");
  if (button) openOnly(button.getAttribute("aria-expanded") === "true" ? null : button);
  else if (!event.target.closest(".rooms")) openOnly(null);
});
document.addEventListener("keydown", (event) => {
  const open = event.key === "Escape" && document.querySelector(".rooms .opens[aria-expanded=true]");
  if (!open) return;
  openOnly(null);
  open.focus();
});
