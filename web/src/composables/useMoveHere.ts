import { ref } from 'vue'
import { useRoute } from 'vue-router'
import { clock, mediumDay } from '../time'
import { useMoveMeeting, type Fit } from './useCommonTime'
import { useNotice } from './useNotice'

/** Moves the meeting one came from to a time that was found, with a way back. */
export function useMoveHere(meetingId: string) {
  const { query } = useRoute()
  const { say, complain } = useNotice()
  const { move, isMoving } = useMoveMeeting()
  // The version seen: a second move follows the first.
  const version = ref(Number(query.version))
  let before = { localStart: String(query.from ?? ''), lengthMin: Number(query.length ?? 0) }

  async function to(wish: { localStart: string; lengthMin: number }) {
    const sheet = await move({ id: meetingId, version: version.value, ...wish })
    version.value = sheet.version
    return sheet
  }
  async function moveHere(fit: Fit, lengthMin: number) {
    try {
      const sheet = await to({ localStart: fit.localStart.slice(0, 16), lengthMin })
      const there = before
      const back = there.localStart ? () => void to(there).catch(complain) : undefined
      say(`Moved to ${mediumDay(sheet.localStart)}, ${clock(sheet.localStart)}. Nobody is told yet.`, back)
      before = { localStart: sheet.localStart.slice(0, 16), lengthMin: sheet.lengthMin }
    } catch (fault) {
      complain(fault as Error)
    }
  }
  return { moveHere, isMoving }
}
