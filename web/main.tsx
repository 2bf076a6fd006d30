import { QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import './app/app.css';
import { fetchAhead } from './app/atHull';
import { router } from './app/router';
import { settings } from './data/settings';
import { queryClient } from './data/store';

document.documentElement.dataset.theme = settings().theme;

addEventListener('load', fetchAhead, { once: true });

createRoot(document.getElementById('root') as HTMLElement).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
);
