import { ref } from 'vue'
import { keepsOffline } from '../house'

/** Whether another version of the program lies ready; and taking it, when it suits. */
const waiting = ref<ServiceWorker | null>(null)
const LOOK_AGAIN_MS = 3_600_000

function look(registration: ServiceWorkerRegistration) {
  // The first one of all replaces nothing.
  if (registration.waiting && navigator.serviceWorker.controller) waiting.value = registration.waiting
}

/** Once, as the program begins: it is kept for when there is no connection, where the house wants that. */
export async function keepProgram() {
  if (!keepsOffline || !('serviceWorker' in navigator)) return
  try {
    const registration = await navigator.serviceWorker.register('/sw.js')
    look(registration)
    registration.addEventListener('updatefound', () => {
      const coming = registration.installing
      coming?.addEventListener('statechange', () => look(registration))
    })
    setInterval(() => void registration.update().catch(() => undefined), LOOK_AGAIN_MS)
  } catch {
    /* a browser that keeps nothing: then the program needs the server */
  }
}

export function useUpdate() {
  return {
    waiting,
    take() {
      navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true })
      waiting.value?.postMessage('take over')
    },
    later: () => (waiting.value = null),
  }
}
