import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { createRoot } from 'react-dom/client'
import { BrowserRouter } from 'react-router'
import { Toaster } from 'sonner'
import { App } from './app/App'
import { Session } from './app/session'
import './desk.css'

const client = new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } } })

createRoot(document.getElementById('root') as HTMLElement).render(
  <QueryClientProvider client={client}>
    <BrowserRouter>
      <Session>
        <App />
      </Session>
    </BrowserRouter>
    <Toaster position="bottom-right" toastOptions={{ style: { background: 'var(--ink)', color: 'var(--paper)', borderRadius: 2, border: 0 } }} />
  </QueryClientProvider>,
)
