/** Another order of a list, as keys and a dragging finger ask for it; null where nothing moves. */

/** @param by places further down; negative: up */
export function moved(ids: string[], id: string, by: number): string[] | null {
  const to = ids.indexOf(id) + by
  if (to < 0 || to >= ids.length) return null
  const rest = ids.filter(other => other !== id)
  rest.splice(to, 0, id)
  return rest
}

/** Let go on another: it takes that one's place, which moves out of its way. */
export function droppedOn(ids: string[], id: string, onto: string): string[] | null {
  return id === onto ? null : moved(ids, id, ids.indexOf(onto) - ids.indexOf(id))
}
