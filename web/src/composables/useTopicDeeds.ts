import { v7 as newKey } from 'uuid'
import type { Ref } from 'vue'
import type { Schemas, Sheet, Topic } from '../api/client'
import { droppedOn, moved } from '../order'
import type { useMinutes } from './useMinutes'
import { useNotice } from './useNotice'
import { useRemoval } from './useRemoval'
import type { useSheet } from './useSheet'
import type { Step } from './useSteps'

const asWished = ({
  title,
  purpose,
  presenter,
  lengthMin,
  text,
  sub,
  inWriting,
  closed,
}: Topic): Schemas['ChangedTopic'] => ({
  title,
  purpose,
  presenterId: presenter?.id ?? null,
  lengthMin,
  text,
  sub,
  inWriting,
  ...(closed === undefined ? {} : { closed }),
})

/** Topics brought, changed, put in order, put off, shortened and removed, and actions split; all with a way back. */
export function useTopicDeeds(
  sheet: Ref<Sheet | undefined>,
  doing: ReturnType<typeof useSheet>,
  minutes: ReturnType<typeof useMinutes>,
) {
  const { say } = useNotice()
  const removal = useRemoval()
  const topicIds = () => sheet.value!.topics.map(topic => topic.id)
  // One after the other: each needs the version the one before has left.
  let queue = Promise.resolve<unknown>(undefined)
  const inTurn = (act: () => unknown) => {
    queue = queue.then(act).catch(() => undefined)
  }

  // What was removed and comes again has another key than it had.
  const keys = new Map<string, string>()
  const keyNow = (id: string): string => (keys.has(id) ? keyNow(keys.get(id)!) : id)
  function remake(id: string) {
    const fresh = newKey()
    keys.set(keyNow(id), fresh)
    return fresh
  }

  function add(body: Schemas['NewTopic'], id = body.id): Step {
    inTurn(() => doing.addTopic({ ...body, id }))
    return () => {
      inTurn(() => doing.removeTopic(keyNow(id)))
      return () => add(body, remake(id))
    }
  }
  function change(id: string, body: Schemas['ChangedTopic'], before: Schemas['ChangedTopic']): Step {
    inTurn(() => {
      const topic = doing.known()?.topics.find(one => one.id === keyNow(id))
      return topic && doing.changeTopic(topic, body)
    })
    return () => change(id, before, body)
  }
  function order(ids: string[], before: string[]): Step {
    inTurn(() => doing.order(ids.map(keyNow)))
    return () => order(before, ids)
  }
  // What is gone already comes anew, with the words it had.
  function remove(topic: Topic, text: string): Step {
    const ids = topicIds()
    const id = keyNow(topic.id)
    const takeBack = removal.remove(id, text, () => doing.removeTopic(id))
    return () => {
      if (!takeBack()) {
        add({ id, ...asWished(topic) }, remake(id))
        order(ids, [])
      }
      return () => remove(topic, text)
    }
  }
  function split(actionId: string, parts: { id: string; text: string }[]): Step {
    doing.split(actionId, parts)
    return () => {
      minutes.step([{ kind: 'review', actionId, body: null }])()
      return () => split(actionId, parts)
    }
  }
  const { remember } = minutes

  const reorder = (ids: string[] | null) => ids && remember(order(ids, topicIds()))
  const putOff = (topicId: string, off: boolean) => minutes.act({ kind: 'putOff', topicId, putOff: off })
  function changeTo(topic: Topic, body: Schemas['ChangedTopic']) {
    const before = asWished(topic)
    remember(change(topic.id, { ...before, ...body }, before))
  }
  /** Another length for a topic, with a way back. */
  function trim(topicId: string, lengthMin: number) {
    const topic = sheet.value?.topics.find(one => one.id === topicId)
    if (!topic) return
    changeTo(topic, { ...asWished(topic), lengthMin })
    const { title, lengthMin: before } = topic
    say(`“${title}” has ${lengthMin} min now.`, () => trim(topicId, before))
  }

  return {
    topicIds,
    isThere: removal.isThere,
    add: (body: Schemas['ChangedTopic']) => remember(add({ id: newKey(), ...body })),
    change: changeTo,
    remove: (topic: Topic) => remember(remove(topic, `The topic ${topic.title} is removed.`)),
    withdraw: (topic: Sheet['broughtIn'][number]) =>
      removal.remove(topic.id, `“${topic.title}” is withdrawn.`, () => doing.removeTopic(topic.id)),
    move: (topicId: string, by: number) => reorder(moved(topicIds(), topicId, by)),
    dropBefore: (topicId: string, droppedId: string) => reorder(droppedOn(topicIds(), droppedId, topicId)),
    putOff,
    remedy: (way: Sheet['runningOrder']['remedies'][number]) =>
      way.kind === 'carry'
        ? way.topicIds.forEach(topicId => putOff(topicId, true))
        : trim(way.topicIds[0]!, way.toMin!),
    split: (actionId: string, texts: string[]) =>
      remember(
        split(
          actionId,
          texts.map(text => ({ id: newKey(), text })),
        ),
      ),
  }
}
