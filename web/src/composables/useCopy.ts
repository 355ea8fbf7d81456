import { useNotice } from './useNotice'

/** Puts words where one can paste them from; where the browser does not let the page, it says the words instead. */
export function useCopy() {
  const { say, complain } = useNotice()
  return async (words: string, said: string) => {
    try {
      await navigator.clipboard.writeText(words)
      say(said)
    } catch {
      complain(new Error(`The browser does not let this page copy. Here it is: ${words.replaceAll('\n', ' · ')}`))
    }
  }
}
