/** Whose pages these are, as people outside read it. */
export const house = document.querySelector<HTMLMetaElement>('meta[name=organisation]')?.content ?? ''
