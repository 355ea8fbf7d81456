/**
 * What somebody is called among others: by the first name, and where another has the same one by the initial of the
 * surname as well.
 */
export function shortName(name: string, among: readonly { name: string }[]) {
  const [first, ...rest] = name.split(' ')
  const alike = among.some(other => other.name !== name && other.name.split(' ')[0] === first)
  return alike && rest.length ? `${first} ${rest.at(-1)![0]}` : first!
}
