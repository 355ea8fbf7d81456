import type { Ref } from 'vue'
import type { Schemas, Sheet } from '../api/client'
import { count } from '../time'
import { lineDraft, takeDraft } from './useDraft'
import type { useMinutes } from './useMinutes'
import { useNotice } from './useNotice'
import type { useSheet } from './useSheet'

/**
 * Starting, closing and issuing. Nothing is closed over what is half typed or not sent yet.
 * @param keepEntry keeps what stands in the box one types in
 */
export function useSheetState(
  sheet: Ref<Sheet | undefined>,
  doing: ReturnType<typeof useSheet>,
  minutes: ReturnType<typeof useMinutes>,
  keepEntry: () => void,
) {
  const { say, show } = useNotice()
  // Under another topic, too, it is a line like the others.
  function takeAlong({ id, topics }: Sheet) {
    keepEntry()
    for (const topicId of [null, ...topics.map(topic => topic.id)]) {
      const text = takeDraft<string>(lineDraft(id, topicId))?.trim()
      if (text) minutes.add(topicId, text)
    }
  }
  async function setState(to: Schemas['MeetingState'], reason?: string) {
    const from = sheet.value!.state
    if (to === 'closed' || to === 'issued') {
      takeAlong(sheet.value!)
      if (!(await minutes.allSent())) {
        const what = count(minutes.unsent.value.length, 'change')
        const hint = 'Look at what is marked as unsent, then try again.'
        return show({ text: `Not yet: ${what} on this sheet could not be sent. ${hint}`, trouble: true })
      }
    }
    doing.setState(to, reason)
    if (to === 'closed' && from === 'in_session') say('The meeting is closed.', () => doing.setState('in_session'))
  }
  return { setState }
}
