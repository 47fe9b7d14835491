import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import './design/base.css'
import { applyTokens } from './design/tokens'
import { router } from './router'

applyTokens(document.documentElement.style)

createApp(App).use(createPinia()).use(router).mount('#app')
