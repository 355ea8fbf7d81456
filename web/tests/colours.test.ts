import { describe, expect, it } from 'vitest'
import { COLOURS } from '../src/colours'
import css from '../src/public/public.css?raw'

const [light, dark] = [...css.matchAll(/:root \{(.*?)\}/gs)].map(
  ([, block]) => new Map([...block!.matchAll(/--([\w-]+): (#\w+);/g)].map(([, name, colour]) => [name!, colour!])),
)
const long = (colour: string) => (colour.length === 4 ? colour.replace(/\w/g, '$&$&') : colour).toUpperCase()

// The pages without an account have no Vuetify, and so a list of colours of their own.
describe('the pages for people without an account', () => {
  it.each([
    ['paper', 'background'],
    ['sheet', 'surface'],
    ['ink', 'ink'],
    ['soft', 'soft'],
    ['line', 'line'],
    ['pine', 'primary'],
    ['on-pine', 'on-primary'],
    ['pine-pale', 'pine-pale'],
    ['carried', 'carried'],
    ['gold', 'gold'],
    ['gold-pale', 'gold-pale'],
    ['alarm', 'alarm-ink'],
    ['fresh', 'fresh-ink'],
  ] as const)('have the colours of the application: %s', (name, theirs) => {
    const wanted = [COLOURS.light[theirs], COLOURS.dark[theirs]].map(long)
    // What is not said again for the dark is as in the light.
    expect([light!.get(name)!, dark!.get(name) ?? light!.get(name)!].map(long)).toEqual(wanted)
  })
})
