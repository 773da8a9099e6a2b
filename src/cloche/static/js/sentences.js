// What scripts say. The page brings every sentence in the reader's language (apps/shared/script_texts.py).
let texts = null;

const loaded = () => JSON.parse(document.getElementById("sentences")?.textContent || "{}");

// “{name} of {number}” with its holes filled; a hole without a value stays, so that a test can see it.
export function fill(text, values) {
  return text.replace(/\{(\w+)\}/g, (hole, name) => (name in values ? String(values[name]) : hole));
}

// The sentence of a code. One that counts has a text for each plural of the language and takes its number.
export function say(code, values = {}) {
  texts ??= loaded();
  const text = texts[code];
  if (typeof text === "string") return fill(text, values);
  const plural = new Intl.PluralRules(document.documentElement.lang).select(values.number);
  return fill(text[plural] ?? text.other, values);
}

// 7:31 or 7:31 AM, of a place on earth.
export function clock(instant, timeZone) {
  return new Intl.DateTimeFormat(document.documentElement.lang, { hour: "numeric", minute: "2-digit", timeZone }).format(instant);
}
