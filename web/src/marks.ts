import type { Schemas } from './api/client'

export type MarkName = Schemas['Mark']

/** The signs by which series are known: drawn by us, each with its colour and its name. */
export const MARKS: Record<MarkName, { colour: string; path: string }> = {
  buoy: { colour: 'var(--alarm)', path: 'M10 3v4M7 7h6l2 7H5zM3 17c2-2 4-2 7 0s5 2 7 0' },
  anchor: { colour: 'var(--ink)', path: 'M10 6v11M10 6a2 2 0 1 1 0-.1M6 9h8M4 12c0 3 2 5 6 5s6-2 6-5' },
  lamp: { colour: 'var(--carried)', path: 'M10 3l4 9H6zM8 12v3h4v-3M7 18h6' },
  wave: { colour: 'var(--pine)', path: 'M2 8c3-3 5-3 8 0s5 3 8 0M2 14c3-3 5-3 8 0s5 3 8 0' },
  knot: { colour: 'var(--soft)', path: 'M3 13c5 3 6-9 10-6s-6 9-10 0M17 7c-5-3-5 8-9 7' },
  sail: { colour: 'var(--fresh)', path: 'M10 3v12L4 13zM12 6c3 2 4 5 4 8l-4 1zM4 17h12' },
  bell: { colour: 'var(--alarm)', path: 'M10 3c-4 1-4 6-5 10h10c-1-4-1-9-5-10zM8 16c1 2 3 2 4 0' },
  compass: { colour: 'var(--pine)', path: 'M10 3a7 7 0 1 0 .1 0M13 7l-2 4-4 2 2-4z' },
}
export const markName = (mark: MarkName) => mark[0]!.toUpperCase() + mark.slice(1)
