import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'
import { compression, defineAlgorithm } from 'vite-plugin-compression2'
import vuetify from 'vite-plugin-vuetify'

export default defineConfig({
  plugins: [
    vue(),
    vuetify({ autoImport: true, styles: { configFile: 'src/styles/settings.scss' } }),
    compression({ include: /\.(js|css|svg)$/, threshold: 1024, algorithms: [defineAlgorithm('gzip', { level: 9 }), defineAlgorithm('brotliCompress')] }),
  ],
  build: { target: 'es2022', modulePreload: { polyfill: false }, assetsInlineLimit: 0 },
})
