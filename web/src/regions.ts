const COUNTRIES = new Intl.DisplayNames('en-GB', { type: 'region', fallback: 'code' })

/** "no" → "Norway", "us_ny" → "United States, NY" */
export function regionName(code: string) {
  const [country = '', ...part] = code.split('_')
  const name = /^[a-z]{2}$/.test(country) ? (COUNTRIES.of(country.toUpperCase()) ?? country) : country
  return part.length ? `${name}, ${part.join(' ').toUpperCase()}` : name
}

/** Regions to choose from, by name. */
export const regionNames = (codes: string[]) =>
  codes.map(code => ({ value: code, title: regionName(code) })).sort((a, b) => a.title.localeCompare(b.title))
