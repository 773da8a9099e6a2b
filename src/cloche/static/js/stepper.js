// A number between a minus and a plus.
document.addEventListener("click", (event) => {
  const button = event.target.closest("[data-step]"), field = button?.parentElement.querySelector("[data-step-field]");
  if (!field) return;
  const wanted = Number(field.value || 0) + Number(button.dataset.step);
  field.value = Math.max(Number(field.min), Math.min(Number(field.max), wanted)) || "";
});
