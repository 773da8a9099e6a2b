// A long list of boxes to tick: found by letters, cleared at once, and counted.
import { say } from "./sentences.js";

// Letters as they are compared: without case and accents.
export const plain = (text) => text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();

export const matches = (text, wanted) => plain(wanted).split(/\s+/).every((word) => plain(text).includes(word));

const tools = document.querySelector("[data-pick]");
if (tools) {
  const form = tools.closest("form"), find = tools.querySelector("[data-pick-find]");
  const rows = [...form.querySelectorAll("[data-pick-one]")];
  const boxes = rows.map((row) => row.querySelector("input"));

  const count = () => {
    const number = boxes.filter((box) => box.checked).length;
    tools.querySelector("[data-pick-count]").textContent = say("ticked", { number });
  };
  const show = () => {
    for (const row of rows) row.hidden = !matches(row.textContent, find.value.trim());
    for (const group of form.querySelectorAll("fieldset")) {
      group.hidden = !group.querySelector("[data-pick-one]:not([hidden])");
    }
  };

  find.addEventListener("input", show);
  // Enter ticks the only one left, and never sends the list by accident.
  find.addEventListener("keydown", (event) => {
    if (event.key !== "Enter") return;
    event.preventDefault();
    const left = rows.filter((row) => !row.hidden);
    if (left.length !== 1 || !find.value.trim()) return;
    const box = left[0].querySelector("input");
    box.checked = !box.checked;
    find.value = "";
    show();
    count();
  });
  tools.querySelector("[data-pick-none]").addEventListener("click", () => {
    for (const box of boxes) box.checked = false;
    count();
  });
  form.addEventListener("change", count);
  tools.hidden = false;
  show();
  count();
}
