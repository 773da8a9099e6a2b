// Where a drawing is wider than the screen it opens at the present, not at its oldest day.
const SHARE = 0.55;

function toNow() {
  document.querySelectorAll(".wide-drawing").forEach((frame) => {
    const now = frame.querySelector(".now");
    if (!now || frame.scrollWidth <= frame.clientWidth || frame.dataset.opened) return;
    const x = now.getBoundingClientRect().left - frame.getBoundingClientRect().left + frame.scrollLeft;
    frame.scrollLeft = x - frame.clientWidth * SHARE;
    frame.dataset.opened = "yes";
  });
}
toNow();
document.addEventListener("htmx:afterSettle", toNow);

// A slider says where it stands while it is moved.
document.addEventListener("input", (event) => {
  const output = event.target.type === "range" && document.querySelector(`output[for="${event.target.id}"]`);
  if (output && output.dataset.unit !== undefined) output.textContent = `${event.target.value.replace("-", "−")}${output.dataset.unit}`;
});
