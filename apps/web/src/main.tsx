import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
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
      // What the server refused stays refused; only silence is worth asking again.
      retry: (failures, error) =>
        failures < 3 && !(error instanceof ApiError && error.problem.status >= 400 && error.problem.status < 500),
    },
  },
});

applyTheme();
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <App />
    </QueryClientProvider>
  </StrictMode>,
);
