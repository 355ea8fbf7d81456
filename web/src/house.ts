/** Whose pages these are, as people outside read it. */
export const house = document.querySelector<HTMLMetaElement>('meta[name=organisation]')?.content ?? ''

/** Whether the house wants browsers to keep the program and sheets for when there is no connection. */
export const keepsOffline = document.querySelector<HTMLMetaElement>('meta[name=offline]')?.content === 'on'
