/**
 * The present, as the server has it: where a machine's clock is wrong, what is counted and shown is right all the same.
 * Nothing else here asks the machine (eslint.config.js).
 */
let aheadMs = 0
// What an answer on its way and whole seconds in its head may come to.
const SAME_MS = 5_000

/** @param date the head of an answer (RFC 9110 6.6.1); nothing is learnt where it has none */
export function heardFrom(date: string | null, machine = Date.now()) {
  const ahead = Date.parse(date ?? '') - machine
  if (!Number.isNaN(ahead)) aheadMs = Math.abs(ahead) > SAME_MS ? ahead : 0
}

/** Milliseconds since 1970. */
export const now = (machine = Date.now()) => machine + aheadMs
