import { api, dataOf, sendBytes, type Schemas } from '../api/client'

/**
 * Brings a file in pieces; asked again after a break, it goes on where it stopped. `told` hears the share that is
 * there.
 */
export async function bringPaper(
  { meetingId, topicId }: { meetingId: string; topicId: string | null },
  id: string,
  file: File,
  told: (share: number) => void,
) {
  const body = { id, name: file.name, sizeBytes: file.size, topicId }
  const begun = await dataOf(api.POST('/meetings/{id}/papers', { params: { path: { id: meetingId } }, body }))
  await bringPieces(id, file, begun, told)
}

/** The same for an action. */
export async function bringActionPaper(actionId: string, id: string, file: File, told: (share: number) => void) {
  const body = { id, name: file.name, sizeBytes: file.size }
  const begun = await dataOf(api.POST('/actions/{id}/papers', { params: { path: { id: actionId } }, body }))
  await bringPieces(id, file, begun, told)
}

async function bringPieces(id: string, file: File, begun: Schemas['PaperBegun'], told: (share: number) => void) {
  const pieces = Math.ceil(file.size / begun.pieceBytes)
  const there = new Set(begun.pieces)
  for (let number = 0; number < pieces; number++) {
    if (!there.has(number))
      await sendBytes(
        `/papers/${id}/pieces/${number}`,
        file.slice(number * begun.pieceBytes, (number + 1) * begun.pieceBytes),
      )
    told((number + 1) / pieces)
  }
}

export const removePaper = (id: string) => dataOf(api.DELETE('/papers/{id}', { params: { path: { id } } }))
