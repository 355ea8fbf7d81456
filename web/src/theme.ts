import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'
import { createVuetify } from 'vuetify'
import { COLOURS } from './colours'
import { en } from 'vuetify/locale'

const saved = localStorage.getItem('left-over:theme')
const dark = saved ? saved === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches

/** The tokens of the look, set once. */
export const vuetify = createVuetify({
  // The picker's month and year are named by what stands on them, not by a label that hides it.
  locale: {
    locale: 'en',
    messages: {
      en: {
        ...en,
        datePicker: { ...en.datePicker, ariaLabel: { ...en.datePicker.ariaLabel, selectMonth: ' ', selectYear: ' ' } },
      },
    },
  },
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: {
    defaultTheme: dark ? 'dark' : 'light',
    cspNonce: document.querySelector<HTMLMetaElement>('meta[property=csp-nonce]')?.nonce ?? undefined,
    themes: {
      light: {
        dark: false,
        colors: COLOURS.light,
        variables: { 'medium-emphasis-opacity': 0.78, 'border-opacity': 0.16 },
      },
      dark: {
        dark: true,
        colors: COLOURS.dark,
        variables: { 'medium-emphasis-opacity': 0.78, 'border-opacity': 0.2 },
      },
    },
  },
  defaults: {
    VTextField: { variant: 'outlined', density: 'compact', color: 'primary', hideDetails: 'auto' },
    VTextarea: {
      variant: 'outlined',
      density: 'compact',
      color: 'primary',
      hideDetails: 'auto',
      autoGrow: true,
      rows: 2,
    },
    VSelect: { variant: 'outlined', density: 'compact', color: 'primary', hideDetails: 'auto' },
    VAutocomplete: {
      variant: 'outlined',
      density: 'compact',
      color: 'primary',
      hideDetails: 'auto',
      autoSelectFirst: true,
    },
    VCombobox: { variant: 'outlined', density: 'compact', color: 'primary', hideDetails: 'auto' },
    VBtn: { variant: 'flat', color: 'primary' },
    VCheckbox: { density: 'compact', color: 'primary', hideDetails: true },
    VRadio: { density: 'compact', color: 'primary' },
    VCard: { rounded: 'sm', elevation: 2 },
  },
})

/** Switches light and dark and keeps the choice. */
export function keepTheme(name: 'light' | 'dark') {
  vuetify.theme.change(name)
  localStorage.setItem('left-over:theme', name)
}
