import { notifyManager, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { ApiError } from './api/client';
import { App } from './app';
import { applyTheme } from './state/theme';
import './styles/index.css';

const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      // What the server refused stays refused; only silence is worth asking again, and then it is said, within a second.
      retry: (failures, error) =>
        failures < 1 && !(error instanceof ApiError && error.problem.status >= 400 && error.problem.status < 500),
      retryDelay: 400,
      // The server is this machine’s or the network’s: what the browser holds to be offline says nothing of it.
      networkMode: 'always',
    },
    mutations: { networkMode: 'always' },
  },
});

// What is still on its way, or waits behind it, would be lost with the page: the browser asks first.
window.addEventListener('beforeunload', (event) => {
  if (client.isMutating() > 0) event.preventDefault();
});
// Before anything is painted: a choice must not go back to what it was until its change is on its way.
notifyManager.setScheduler(queueMicrotask);
applyTheme();
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <App />
    </QueryClientProvider>
  </StrictMode>,
);
