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
}

const focusOn = (css: string) => () => document.querySelector<HTMLElement>(css)?.focus()

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
    { key: '↑', label: 'From an empty box to the line above', when: () => canWrite.value },
    { key: 'n d a', label: 'On a line: make it a note, a decision, an action', when: () => canWrite.value },
    { key: 'v', label: 'On a decision: put it to the vote', when: () => canWrite.value },
    { key: 'Alt ↑ ↓', label: 'On a line: move it', when: () => canWrite.value },
    { key: 'Alt ← →', label: 'On a line: outdent, indent', when: () => canWrite.value },
    { key: 'Del', label: 'On a line: remove it', when: () => canWrite.value },
  ])
}
