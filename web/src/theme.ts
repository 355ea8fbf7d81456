import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'
import { createVuetify } from 'vuetify'
import { en } from 'vuetify/locale'

const saved = localStorage.getItem('left-over:theme')
const dark = saved ? saved === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches

/** The tokens of the look, set once. The -ink tones are those of the same name, dark enough for text. */
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
        colors: {
          background: '#EBEEE9',
          surface: '#FFFFFF',
          primary: '#14524A',
          'on-primary': '#FFFFFF',
          error: '#A93B1F',
          ink: '#17231F',
          soft: '#56635D',
          line: '#D5DCD4',
          'pine-pale': '#DDE9E4',
          fresh: '#2E8B77',
          carried: '#C07A0F',
          alarm: '#BF4426',
          gold: '#F2C14E',
          'gold-pale': '#FFF4D2',
          'fresh-ink': '#1C6B5A',
          'carried-ink': '#855206',
          'alarm-ink': '#A93B1F',
          closed: '#A3B8AF',
          'on-surface': '#17231F',
          'on-background': '#17231F',
        },
        variables: { 'medium-emphasis-opacity': 0.78, 'border-opacity': 0.16 },
      },
      dark: {
        dark: true,
        colors: {
          background: '#141A17',
          surface: '#1D2521',
          primary: '#8CCFBF',
          'on-primary': '#0C2A25',
          error: '#F39B80',
          ink: '#E6ECE8',
          soft: '#A6B3AC',
          line: '#35413B',
          'pine-pale': '#22403A',
          fresh: '#5CC2AB',
          carried: '#D9962F',
          alarm: '#E9785A',
          gold: '#F2C14E',
          'gold-pale': '#40371C',
          'fresh-ink': '#7AD3BE',
          'carried-ink': '#E7B163',
          'alarm-ink': '#F39B80',
          closed: '#5E7268',
          'on-surface': '#E6ECE8',
          'on-background': '#E6ECE8',
        },
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
