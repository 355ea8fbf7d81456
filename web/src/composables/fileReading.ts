import { api, dataOf, type Schemas } from '../api/client'

const ASK_EVERY_MS = 250

/**
 * A file that was handed in, once it has been read in the background. @throws ProblemError with what is wrong with it
 */
export async function whenRead(handedIn: Promise<Schemas['FileReading']>): Promise<Schemas['FileReading']> {
  let reading = await handedIn
  while (reading.state === 'waiting') {
    await new Promise(resolve => setTimeout(resolve, ASK_EVERY_MS))
    reading = await dataOf(api.GET('/file-readings/{id}', { params: { path: { id: reading.id } } }))
  }
  return reading
}
