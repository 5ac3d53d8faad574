import '@fontsource/barlow-semi-condensed/latin-400.css'
import '@fontsource/barlow-semi-condensed/latin-500.css'
import '@fontsource/barlow-semi-condensed/latin-600.css'
import '@fontsource/barlow-semi-condensed/latin-700.css'
import './styles/tokens.css'
import './styles/base.css'
import { QueryCache, QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import { keys } from './api/calls'
import { ApiError } from './api/client'
import App from './app/App.vue'
import { router } from './app/router'

const ASK_AGAIN_MS = 4000
const queries: QueryClient = new QueryClient({
  defaultOptions: {
    queries: {
      retry: 1,
      networkMode: 'always',
      refetchOnWindowFocus: true,
      // whatever was not reached is asked for again: the page comes back by itself
      refetchInterval: ({ state }) =>
        state.error instanceof ApiError && state.error.unreachable ? ASK_AGAIN_MS : false,
    },
  },
  queryCache: new QueryCache({
    onError: (error, query) => {
      // the session may have ended: whoever is signed in is asked for again, and the page asks to sign in
      if (error instanceof ApiError && error.status === 401 && query.queryKey[0] !== keys.me[0])
        void queries.invalidateQueries({ queryKey: keys.me })
    },
  }),
})

createApp(App)
  .use(createPinia())
  .use(router)
  .use(VueQueryPlugin, { queryClient: queries })
  .mount('#app')
