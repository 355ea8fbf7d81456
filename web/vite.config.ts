import vue from '@vitejs/plugin-vue'
import { type Plugin, type ProxyOptions } from 'vite'
import { defineConfig } from 'vitest/config'
import { compression, defineAlgorithm } from 'vite-plugin-compression2'
import { VitePWA } from 'vite-plugin-pwa'
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

/** What the server fills in, when Vite serves the page itself. */
const placeholders: Plugin = {
  name: 'placeholders',
  apply: 'serve',
  transformIndexHtml: html =>
    html.replaceAll('__PAGE__', 'Left Over').replaceAll(' nonce="__NONCE__"', '').replaceAll('__OFFLINE__', 'off'),
}

/** bin/start --develop: all but the front end is asked of the application, as if it came from there. */
const application: ProxyOptions = {
  target: `http://127.0.0.1:${process.env.LEFT_OVER_PORT ?? 8600}`,
  changeOrigin: true,
  configure: proxy => proxy.on('proxyReq', request => request.removeHeader('origin')),
}

export default defineConfig({
  define: { __VERSION__: JSON.stringify(process.env.LEFT_OVER_BUILD ?? String(Date.now())) },
  server: { host: '127.0.0.1', proxy: { '/api': application, '/feeds': application } },
  plugins: [
    stylesAfterName,
    placeholders,
    vue(),
    vuetify({ autoImport: true, styles: { configFile: 'src/styles/settings.scss' } }),
    VitePWA({
      strategies: 'injectManifest',
      srcDir: 'src/worker',
      filename: 'sw.ts',
      injectRegister: false,
      manifest: false,
      // The page itself is filled in by the server, and kept by the worker as it comes from there.
      injectManifest: {
        globPatterns: ['assets/**/*.{js,css,woff2}', 'mark.svg'],
        dontCacheBustURLsMatching: /^assets\//,
      },
    }),
    compression({
      include: /\.(js|css|svg)$/,
      threshold: 1024,
      algorithms: [defineAlgorithm('gzip', { level: 9 }), defineAlgorithm('brotliCompress')],
    }),
  ],
  // Read by the test that compares its colours; else tests see no styles.
  test: { css: { include: [/public\.css/] } },
  build: {
    target: 'es2022',
    modulePreload: { polyfill: false },
    assetsInlineLimit: 0,
    // Two applications: the whole one, and the pages for people without an account, which share nothing of its size.
    rollupOptions: { input: ['index.html', 'public.html'] },
  },
})
