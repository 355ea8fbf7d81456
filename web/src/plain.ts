/** Words as they are compared: without accents, in small letters. */
export const plain = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()
