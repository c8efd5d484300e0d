import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { Failure } from './api/client'
import { guardWith, router } from './router'
import './style.css'

const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 10_000,
      // A refusal will be refused again; only a broken connection is worth another try.
      retry: (count, error) => count < 2 && error instanceof Failure && error.status === 0,
    },
  },
})

guardWith(queryClient)
createApp(App).use(createPinia()).use(VueQueryPlugin, { queryClient }).use(router).mount('#app')
