// On every page: what was typed or chosen before the scripts had come is taken as typed now, so that a slow start loses no question.
const asking = "input[hx-get], select[hx-get], [hx-get] input, [hx-get] select";

const asSent = (field) => {
  if (field instanceof HTMLSelectElement) {
    const meant = [...field.options].findIndex((option) => option.defaultSelected);
    return field.selectedIndex === Math.max(meant, 0);
  }
  if (field.type === "checkbox" || field.type === "radio") return field.checked === field.defaultChecked;
  return field.value === field.defaultValue;
};

document.addEventListener("DOMContentLoaded", () => {
  for (const field of document.querySelectorAll(asking)) {
    if (asSent(field)) continue;
    field.dispatchEvent(new Event("input", { bubbles: true }));
    field.dispatchEvent(new Event("change", { bubbles: true }));
  }
});
