import { api, dataOf, sendBytes } from '../api/client'

/**
 * Brings a file in pieces; asked again after a break, it goes on where it stopped. `told` hears the share that is
 * there.
 */
export async function bringPaper(
  meetingId: string,
  id: string,
  file: File,
  topicId: string | null,
  told: (share: number) => void,
) {
  const begun = await dataOf(
    api.POST('/meetings/{id}/papers', {
      params: { path: { id: meetingId } },
      body: { id, name: file.name, sizeBytes: file.size, topicId },
    }),
  )
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
