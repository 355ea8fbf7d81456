import type { Ref } from 'vue'
import type { Sheet } from '../api/client'
import { droppedOn, moved } from '../order'
import type { useMinutes } from './useMinutes'
import { useNotice } from './useNotice'
import type { useSheet } from './useSheet'

/** Topics put in order, put off and shortened; all with a way back. */
export function useTopicDeeds(
  sheet: Ref<Sheet | undefined>,
  doing: ReturnType<typeof useSheet>,
  minutes: ReturnType<typeof useMinutes>,
) {
  const { say } = useNotice()
  const topicIds = () => sheet.value!.topics.map(topic => topic.id)
  function move(topicId: string, by: number) {
    const ids = moved(topicIds(), topicId, by)
    if (ids) doing.order(ids)
  }
  function dropBefore(topicId: string, droppedId: string) {
    const ids = droppedOn(topicIds(), droppedId, topicId)
    if (ids) doing.order(ids)
  }
  const putOff = (topicId: string, off: boolean) => minutes.act({ kind: 'putOff', topicId, putOff: off })

  function remedy(way: Sheet['runningOrder']['remedies'][number]) {
    if (way.kind === 'carry') return way.topicIds.forEach(topicId => putOff(topicId, true))
    trim(way.topicIds[0]!, way.toMin!)
  }
  /** Another length for a topic, with a way back. */
  async function trim(topicId: string, lengthMin: number) {
    const topic = sheet.value?.topics.find(one => one.id === topicId)
    if (!topic) return
    const { title, purpose, presenter, lengthMin: before } = topic
    await doing.changeTopic(topic, { title, purpose, presenterId: presenter?.id ?? null, lengthMin })
    say(`“${title}” has ${lengthMin} min now.`, () => void trim(topicId, before))
  }
  return { topicIds, move, dropBefore, putOff, remedy }
}
