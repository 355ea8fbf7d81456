import { ref, watch, type Ref } from 'vue'

const KEY = 'left-over.waiting-sound'

/** A short sound when somebody comes to the door, and how many wait in the title of the page. */
export function useWaitingSound(waiting: Ref<number>) {
  const sounds = ref(localStorage.getItem(KEY) !== 'off')
  watch(sounds, on => localStorage.setItem(KEY, on ? 'on' : 'off'))
  watch(
    waiting,
    (now, before) => {
      const title = document.title.replace(/^\(\d+\) /, '')
      document.title = now ? `(${now}) ${title}` : title
      if (now > (before ?? 0) && sounds.value) sound()
    },
    { immediate: true },
  )
  return { sounds }
}

// Two short tones; before anybody has pressed anything a browser stays silent.
function sound() {
  const context = new AudioContext()
  for (const [at, pitch] of [
    [0, 440],
    [0.18, 560],
  ] as const) {
    const tone = context.createOscillator()
    const volume = context.createGain()
    tone.frequency.value = pitch
    volume.gain.value = 0.08
    tone.connect(volume).connect(context.destination)
    tone.start(context.currentTime + at)
    tone.stop(context.currentTime + at + 0.12)
  }
  setTimeout(() => context.close(), 600)
}
