import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import './design/base.css'
import { applyTokens } from './design/tokens'
import { router } from './router'

applyTokens(document.documentElement.style)

// Kept on the device, so that a reload without the server opens the running pots (a secure address only).
if (import.meta.env.PROD && 'serviceWorker' in navigator) {
  void navigator.serviceWorker.register('/sw.js', { scope: '/' }).catch(() => undefined)
}

createApp(App).use(createPinia()).use(router).mount('#app')
