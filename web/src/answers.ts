import type { Schemas } from './api/client'

type Word = Schemas['AnswerWord']

/** How an answer is said: of somebody, to oneself, and by oneself. */
export const ANSWERS: Record<Word, { they: string; you: string; i: string }> = {
  accepted: { they: 'comes', you: 'you come', i: 'I come' },
  tentative: { they: 'may come', you: 'you may come', i: 'I may come' },
  declined: { they: 'is away', you: 'you are away', i: 'I cannot' },
  none: { they: 'not answered yet', you: 'not answered yet', i: 'Take the answer back' },
}

/** The three that are offered, in order. */
export const GIVEN = ['accepted', 'tentative', 'declined'] as const
