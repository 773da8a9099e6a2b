// A passkey that was not used after all: the page says so, instead of the console alone.
document.addEventListener("allauth.error", (event) => {
  event.preventDefault();
  document.getElementById("passkey_failed").hidden = false;
});
