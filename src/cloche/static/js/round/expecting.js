// What a typed number means beside what the ground is expected to be. Facts only: no page, no store.
import { say } from "../sentences.js";

const HOUR_MS = 36e5;

export const degrees = (value) => `${String(value).replace("-", "−")}°`;

// 8.4, “8,4”, “−0.5”; null for nothing typed, NaN for what is no number.
export const number = (text) => (text.trim() === "" ? null : Number(text.trim().replace(",", ".").replace(/[−–]/, "-")));

// Of a depth's hours (start, and lists of values by name) those of an instant; null outside of them.
export function hour(hours, instant) {
  if (!hours) return null;
  const index = Math.floor((instant - new Date(hours.start)) / HOUR_MS);
  if (index < 0 || index >= hours.low_c.length) return null;
  const lists = Object.entries(hours).filter(([name]) => name !== "start");
  return Object.fromEntries(lists.map(([name, values]) => [name, values[index]]));
}

// Why a value is asked about, or "": beyond what is expected, and nearer the air or the surface than the ground.
export function question(value, expected) {
  if (!expected || (value >= expected.ask_low_c && value <= expected.ask_high_c)) return "";
  const away = Math.min(Math.abs(value - expected.low_c), Math.abs(value - expected.high_c));
  const nearer = (other) => Math.abs(value - other) < away / 2;
  const why = nearer(expected.air_c) ? say("nearer-air", { air: degrees(expected.air_c) })
    : nearer(expected.surface_c) ? say("nearer-surface", { surface: degrees(expected.surface_c) })
      : say("had-it-settled");
  const text = say("far-from-expected", { value: degrees(value), low: degrees(expected.low_c), high: degrees(expected.high_c) });
  return `${text} ${why}`;
}

// “8.4°, expected 7° to 9°”, or “noted” where no number was read.
export function summary(value, expected) {
  if (value === null) return say("noted");
  if (!expected) return degrees(value);
  return say("read-and-expected", { value: degrees(value), low: degrees(expected.low_c), high: degrees(expected.high_c) });
}
