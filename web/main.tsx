import { QueryClientProvider } from '@tanstack/react-query';
import { Settings } from 'luxon';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import './app/app.css';
import { router } from './app/router';
import { settings } from './data/settings';
import { queryClient } from './data/store';

document.documentElement.dataset.theme = settings().theme;
// Its words are English: days and months too, in the order of the reader's own.
Settings.defaultLocale = navigator.language.startsWith('en') ? navigator.language : 'en-GB';

addEventListener(
  'load',
  () =>
    void import('./app/ahead').then(async ({ fetchAhead }) => {
      await fetchAhead();
      await (await import('./data/pictures')).takeOverOldPictures();
    }),
  { once: true },
);

createRoot(document.getElementById('root') as HTMLElement).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
);
