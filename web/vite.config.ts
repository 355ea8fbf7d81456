import vue from '@vitejs/plugin-vue'
import { defineConfig, type Plugin } from 'vite'
import { compression, defineAlgorithm } from 'vite-plugin-compression2'
import vuetify from 'vite-plugin-vuetify'

/** Styles after the name of the page, which is then shown while they are still on their way. */
const stylesAfterName: Plugin = {
  name: 'styles-after-name',
  transformIndexHtml: {
    order: 'post',
    handler(html) {
      const links = html.match(/\s*<link rel="stylesheet"[^>]*>/g) ?? []
      const rest = links.reduce((text, link) => text.replace(link, ''), html)
      return rest.replace(/(<div id="app">.*?<\/div>)/s, `$1${links.join('')}`)
    },
  },
}

export default defineConfig({
  plugins: [
    stylesAfterName,
    vue(),
    vuetify({ autoImport: true, styles: { configFile: 'src/styles/settings.scss' } }),
    compression({
      include: /\.(js|css|svg)$/,
      threshold: 1024,
      algorithms: [defineAlgorithm('gzip', { level: 9 }), defineAlgorithm('brotliCompress')],
    }),
  ],
  build: { target: 'es2022', modulePreload: { polyfill: false }, assetsInlineLimit: 0 },
})
