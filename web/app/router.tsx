import type { ComponentType } from 'react';
import { createBrowserRouter } from 'react-router';
import { BASE } from '../data/base';
import { YardPlace } from '../places/yard/YardPlace';
import { NotFound, PlaceError } from './PlaceError';
import { PlaceLoading, Shell } from './Shell';

/** A place that is fetched when it is opened. */
const place =
  <Name extends string>(load: () => Promise<Readonly<Record<Name, ComponentType>>>, name: Name) =>
  async () => ({ Component: (await load())[name] });

const today = place(() => import('../places/today/TodayPlace'), 'TodayPlace');

/** The yard comes with the first screen; every place is fetched when it is opened, or ahead of that once there is time (`ahead.ts`). */
export const router = createBrowserRouter(
  [
    {
      path: '/',
      element: <Shell />,
      errorElement: <PlaceError />,
      HydrateFallback: () => <PlaceLoading />,
      children: [
        {
          errorElement: <PlaceError />,
          children: [
            { index: true, element: <YardPlace /> },
            { path: 'boats/new', lazy: place(() => import('../places/yard/BoatForm'), 'NewBoat') },
            {
              path: 'boats/:boatId',
              lazy: place(() => import('./BoatShell'), 'BoatShell'),
              children: [
                {
                  errorElement: <PlaceError />,
                  children: [
                    { index: true, lazy: today },
                    { path: 'today', lazy: today },
                    {
                      path: 'edit',
                      lazy: place(() => import('../places/yard/BoatForm'), 'EditBoat'),
                    },
                    {
                      path: 'weather',
                      lazy: place(() => import('../places/weather/WeatherPlace'), 'WeatherPlace'),
                    },
                    {
                      path: 'hull/:surfaceId?',
                      lazy: place(() => import('../places/hull/HullPlace'), 'HullPlace'),
                    },
                    {
                      path: 'hull/:surfaceId/patch',
                      lazy: place(() => import('../places/hull/HullPlace'), 'HullPlace'),
                    },
                    {
                      path: 'hull/:surfaceId/girths',
                      lazy: place(() => import('../places/hull/GirthPage'), 'GirthPage'),
                    },
                    {
                      path: 'hull/:surfaceId/shapes',
                      lazy: place(() => import('../places/hull/ShapesPage'), 'ShapesPage'),
                    },
                    {
                      path: 'hull/offsets',
                      lazy: place(() => import('../places/hull/OffsetsPage'), 'OffsetsPage'),
                    },
                    {
                      path: 'hull/waterline',
                      lazy: place(() => import('../places/hull/waterline/WaterlinePage'), 'WaterlinePage'),
                    },
                    {
                      path: 'hull/mesh',
                      lazy: place(() => import('../places/hull/MeshPage'), 'MeshPage'),
                    },
                    {
                      path: 'film/:surfaceId?',
                      lazy: place(() => import('../places/film/FilmPlace'), 'FilmPlace'),
                    },
                    {
                      path: 'film/:surfaceId/schools',
                      lazy: place(() => import('../places/film/SchoolsPage'), 'SchoolsPage'),
                    },
                    {
                      path: 'film/borders',
                      lazy: place(() => import('../places/film/BordersPage'), 'BordersPage'),
                    },
                    {
                      path: 'film/swap',
                      lazy: place(() => import('../places/film/SwapPage'), 'SwapPage'),
                    },
                    {
                      path: 'film/buy',
                      lazy: place(() => import('../places/buy/BuyPlace'), 'BuyPlace'),
                    },
                    {
                      path: 'prep/masking',
                      lazy: place(() => import('../places/prep/MaskingPage'), 'MaskingPage'),
                    },
                    {
                      path: 'prep/stands',
                      lazy: place(() => import('../places/prep/StandsPage'), 'StandsPage'),
                    },
                    {
                      path: 'prep/:surfaceId?',
                      lazy: place(() => import('../places/prep/PrepPlace'), 'PrepPlace'),
                    },
                    {
                      path: 'plan/:part?',
                      lazy: place(() => import('../places/plan/PlanPlace'), 'PlanPlace'),
                    },
                    { path: 'mix', lazy: place(() => import('../places/mix/MixPlace'), 'MixPlace') },
                    { path: 'coat', lazy: place(() => import('../places/coat/CoatPlace'), 'CoatPlace') },
                    { path: 'coat/start', lazy: place(() => import('../places/coat/StartCoat'), 'StartCoat') },
                    { path: 'coat/:coatId', lazy: place(() => import('../places/coat/CoatSheet'), 'CoatSheet') },
                    { path: 'record', lazy: place(() => import('../places/record/RecordPlace'), 'RecordPlace') },
                    { path: '*', element: <NotFound /> },
                  ],
                },
              ],
            },
            { path: 'plan', lazy: place(() => import('../places/plan/YardPlan'), 'YardPlan') },
            { path: 'sums', lazy: place(() => import('../places/sums/SumsPlace'), 'SumsPlace') },
            { path: 'log', lazy: place(() => import('../places/log/LogCoat'), 'LogCoat') },
            {
              path: 'stores',
              lazy: place(() => import('../places/stores/StoresPlace'), 'StoresPlace'),
            },
            {
              path: 'stores/ledger/:sheetId',
              lazy: place(() => import('../places/ledger/LedgerPage'), 'LedgerPage'),
            },
            {
              path: 'stores/kit',
              lazy: place(() => import('../places/stores/KitPage'), 'KitPage'),
            },
            {
              path: 'build-ups',
              lazy: place(() => import('../places/buildups/BuildUpsPlace'), 'BuildUpsPlace'),
            },
            {
              path: 'build-ups/:namedId',
              lazy: place(() => import('../places/buildups/BuildUpPage'), 'BuildUpPage'),
            },
            {
              path: 'sheets',
              lazy: place(() => import('../places/sheets/SheetsPlace'), 'SheetsPlace'),
            },
            {
              path: 'sheets/new/:how',
              lazy: place(() => import('../places/sheets/SheetForm'), 'NewSheet'),
            },
            {
              path: 'sheets/:sheetId',
              lazy: place(() => import('../places/sheets/SheetPage'), 'SheetPage'),
            },
            {
              path: 'sheets/:sheetId/edit',
              lazy: place(() => import('../places/sheets/SheetForm'), 'EditSheet'),
            },
            {
              path: 'settings',
              lazy: place(() => import('../places/settings/SettingsPlace'), 'SettingsPlace'),
            },
            { path: '*', element: <NotFound /> },
          ],
        },
      ],
    },
  ],
  { basename: BASE || '/' },
);
