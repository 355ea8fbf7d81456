/** A choice that is made already has a name, though the list of them is still being read. */
export function withKnown(
  choices: { title: string; value: string }[],
  ...known: ({ id: string; name: string } | null | undefined)[]
) {
  const missing = known.filter(one => one && !choices.some(choice => choice.value === one.id))
  return [...choices, ...missing.map(one => ({ title: one!.name, value: one!.id }))]
}
