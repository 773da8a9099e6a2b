// A map to point at: the point goes on as latitude and longitude, to a hundredth of a degree.
document.querySelectorAll("[data-map]").forEach((map) => {
  const { north, south, west, east, to, x, y } = map.dataset;
  const here = map.querySelector(".here");
  if (here) {
    here.style.left = `${Number(x) * 100}%`;
    here.style.top = `${Number(y) * 100}%`;
  }
  map.addEventListener("click", (event) => {
    const box = map.getBoundingClientRect();
    const latitude = Number(north) - (event.clientY - box.top) / box.height * (north - south);
    const longitude = Number(west) + (event.clientX - box.left) / box.width * (east - west);
    const turned = (longitude + 540) % 360 - 180;
    location.assign(`${to}?latitude_deg=${latitude.toFixed(2)}&longitude_deg=${turned.toFixed(2)}`);
  });
});
