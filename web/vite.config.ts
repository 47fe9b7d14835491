import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'

export default defineConfig({
  // Django serves the build under /static/ and the page for every place.
  base: '/static/',
  plugins: [
    vue(),
    // Installed, it opens without the server: the page and its files are kept; what the API says is not.
    VitePWA({
      registerType: 'autoUpdate',
      injectRegister: null,
      scope: '/',
      manifest: {
        name: 'Kestrel Fog',
        short_name: 'Kestrel Fog',
        description: 'Sauces, computed: to plan, to cook along, to keep',
        id: '/',
        start_url: '/stove',
        scope: '/',
        display: 'standalone',
        background_color: '#ebeae6',
        theme_color: '#e7e4df',
        icons: [{ src: '/static/icon.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
      },
      workbox: {
        globPatterns: ['**/*.{html,js,css,svg,woff2}'],
        modifyURLPrefix: { '': '/static/' },
        navigateFallback: '/static/index.html',
        navigateFallbackDenylist: [/^\/api\//, /^\/static\//, /^\/sw\.js$/],
        inlineWorkboxRuntime: true,
      },
    }),
  ],
  resolve: { alias: { '@': new URL('./src', import.meta.url).pathname } },
  build: { target: 'es2022', chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://127.0.0.1:8000' } },
})
