// The device's own store: each stop of a round with its own key, from the moment it is read until the garden has it.
const opened = () => idb.openDB("cloche", 1, { upgrade: (db) => db.createObjectStore("stops", { keyPath: "key" }) });
const changed = () => document.dispatchEvent(new CustomEvent("cloche:stored"));

export const all = async () => (await (await opened()).getAll("stops")).sort((a, b) => a.at.localeCompare(b.at));
export const get = async (key) => (await opened()).get("stops", key);

export async function put(stop) {
  // Asked once: what waits here must not be cleared away when the device runs short of room.
  navigator.storage?.persist?.();
  await (await opened()).put("stops", stop);
  changed();
}

export async function drop(key) {
  await (await opened()).delete("stops", key);
  changed();
}
