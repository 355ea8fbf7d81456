// Moments on the reader's own wall, whether a microphone may be used, and what becomes of a visit.
for (const one of document.querySelectorAll('time')) {
  one.textContent = new Date(one.dateTime).toLocaleString('en-GB', {
    weekday: 'long', day: 'numeric', month: 'long', hour: '2-digit', minute: '2-digit', timeZoneName: 'short',
  })
}
const microphone = document.getElementById('microphone')
const WORDS = {
  granted: 'Microphone: this browser may use it.',
  prompt: 'Microphone: the browser will ask when you enter.',
  denied: 'Microphone: this browser may not use it. Allow it in the settings of this page.',
}
if (microphone && navigator.permissions) {
  navigator.permissions.query({ name: 'microphone' }).then(
    found => (microphone.textContent = WORDS[found.state]),
    () => (microphone.textContent = 'Microphone: this browser does not say.'),
  )
}
const visit = document.getElementById('visit')
async function look() {
  try {
    const answer = await fetch(visit.dataset.of + '/state')
    if (!answer.ok) return location.reload()
    const now = await answer.json()
    if (now.state !== visit.dataset.state) return location.reload()
    const from = document.getElementById('from')
    if (from && (now.from ?? '') !== from.dataset.from) return location.reload()
    const people = document.getElementById('people')
    if (people) {
      people.replaceChildren(
        ...now.people.map(one => {
          const item = document.createElement('li')
          const words = [one.name, one.host && 'runs it', one.quiet ? 'quiet' : 'speaks', one.presents && 'presents']
          item.textContent = words.filter(Boolean).join(' · ')
          return item
        }),
      )
      document.getElementById('recording').hidden = !now.records
    }
  } catch {
    // The service is away for a moment.
  }
  setTimeout(look, 1000)
}
if (visit) look()
