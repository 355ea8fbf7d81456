import type { Ref } from 'vue'
import type { Sheet } from '../api/client'
import { useKeys } from './useKeys'

/** What the keys of a sheet do that are heard wherever one stands on it. */
interface Deeds {
  toNextLine: () => void
  nextTopic: () => void
  write: (at: string) => void
  change: () => void
  addTopic: () => void
  putOff: () => void
  askOut: () => void
}

const focusOn = (css: string) => () => document.querySelector<HTMLElement>(css)?.focus()

/** There, and from there back to where one writes. */
function toAndFro(region: string, css: string, back: () => void) {
  return () => {
    if (document.activeElement?.closest(region)) back()
    else document.querySelector<HTMLElement>(css)?.focus()
  }
}

/** The keys of a sheet; those without a deed here are heard where they work, and only listed. */
export function useSheetKeys(
  sheet: Ref<Sheet | undefined>,
  canWrite: Ref<boolean>,
  discussed: Ref<string | null>,
  deeds: Deeds,
) {
  const isTopicTime = () => !!sheet.value && ['planned', 'in_session'].includes(sheet.value.state)
  useKeys([
    { key: 'l', label: 'To the next line', when: () => canWrite.value, run: deeds.toNextLine },
    { key: 'n', label: 'On to the next topic', when: () => canWrite.value, run: deeds.nextTopic },
    {
      key: 'f',
      label: 'Write under what is being discussed',
      when: () => canWrite.value && discussed.value !== null,
      run: () => deeds.write(discussed.value!),
    },
    {
      key: 'c',
      label: 'Change this meeting',
      when: () => !!sheet.value?.may.hold && sheet.value.state === 'planned',
      run: deeds.change,
    },
    {
      key: 't',
      label: 'Add a topic',
      when: () => !!sheet.value?.may.bringTopic && isTopicTime(),
      run: deeds.addTopic,
    },
    {
      key: 'm',
      label: 'To start, close or issue',
      when: () => !!sheet.value?.may.hold,
      run: focusOn('[data-next] button'),
    },
    {
      key: 'F2',
      label: 'From the box to who is here, and back',
      when: () => canWrite.value && !!sheet.value?.may.hold,
      run: toAndFro('[data-here]', '[data-here] input', deeds.toNextLine),
      anywhere: true,
    },
    {
      key: 'F4',
      label: 'From the box on to the next topic',
      when: () => canWrite.value,
      run: deeds.nextTopic,
      anywhere: true,
    },
    {
      key: 'F7',
      label: 'At a closed topic: ask others to leave; after it, back in',
      when: () => canWrite.value && !!sheet.value?.topics.some(topic => topic.closed),
      run: deeds.askOut,
      anywhere: true,
    },
    {
      key: 'F8',
      label: 'Put off the topic one writes under, and take it after all',
      when: () => canWrite.value && !!sheet.value?.may.hold,
      run: deeds.putOff,
      anywhere: true,
    },
    {
      key: 'F9',
      label: 'From the box to what is left over, and back',
      when: () => canWrite.value && !!document.querySelector('.card[tabindex]'),
      run: toAndFro('[data-left]', '.card[tabindex]', deeds.toNextLine),
      anywhere: true,
    },
    { key: 'p', label: 'To who is here', when: () => canWrite.value, run: focusOn('.person select') },
    { key: 'o', label: 'To what is left over', when: () => canWrite.value, run: focusOn('.card[tabindex]') },
    {
      key: 'h c l g s a',
      label: 'On somebody: here, on the call, late, gone, apologies, absent',
      when: () => canWrite.value,
    },
    {
      key: 'd c s h e x',
      label: 'On what is left over: done, carry over, split, hand over, edit, drop',
      when: () => canWrite.value,
    },
    { key: 'Ctrl+Z', label: 'Undo; with Shift: redo', when: () => canWrite.value },
    { key: '↑', label: 'From an empty box: edit the line above', when: () => canWrite.value },
    { key: '↑ ↓', label: 'On a line: to the one above or below; Esc: to the box', when: () => canWrite.value },
    { key: 'n d a', label: 'On a line: make it a note, a decision, an action', when: () => canWrite.value },
    { key: 'v', label: 'On a decision: put it to the vote', when: () => canWrite.value },
    { key: 'Alt ↑ ↓', label: 'On a line: move it', when: () => canWrite.value },
    { key: 'Alt ← →', label: 'On a line: outdent, indent', when: () => canWrite.value },
    { key: 'Del', label: 'On a line: remove it', when: () => canWrite.value },
  ])
}
