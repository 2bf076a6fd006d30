import { createBrowserRouter } from 'react-router';
import { BASE } from '../data/base';
import { YardPlace } from '../places/yard/YardPlace';
import { atHull } from './atHull';
import { NotFound, PlaceError } from './PlaceError';
import { PlaceLoading, Shell } from './Shell';

const today = async () => ({ Component: (await atHull.TodayPlace()).TodayPlace });

/** The yard comes with the first screen; every place is fetched when it is opened, and those used at the hull ahead of that. */
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
            { path: 'boats/new', lazy: async () => ({ Component: (await import('../places/yard/BoatForm')).NewBoat }) },
            {
              path: 'boats/:boatId',
              lazy: async () => ({ Component: (await atHull.BoatShell()).BoatShell }),
              children: [
                {
                  errorElement: <PlaceError />,
                  children: [
                    { index: true, lazy: today },
                    { path: 'today', lazy: today },
                    {
                      path: 'edit',
                      lazy: async () => ({ Component: (await import('../places/yard/BoatForm')).EditBoat }),
                    },
                    {
                      path: 'weather',
                      lazy: async () => ({ Component: (await import('../places/weather/WeatherPlace')).WeatherPlace }),
                    },
                    {
                      path: 'hull/:surfaceId?',
                      lazy: async () => ({ Component: (await atHull.HullPlace()).HullPlace }),
                    },
                    {
                      path: 'hull/:surfaceId/patch',
                      lazy: async () => ({ Component: (await atHull.HullPlace()).HullPlace }),
                    },
                    {
                      path: 'hull/:surfaceId/girths',
                      lazy: async () => ({ Component: (await import('../places/hull/GirthPage')).GirthPage }),
                    },
                    {
                      path: 'hull/:surfaceId/shapes',
                      lazy: async () => ({ Component: (await import('../places/hull/ShapesPage')).ShapesPage }),
                    },
                    {
                      path: 'hull/offsets',
                      lazy: async () => ({ Component: (await import('../places/hull/OffsetsPage')).OffsetsPage }),
                    },
                    {
                      path: 'hull/waterline',
                      lazy: async () => ({
                        Component: (await import('../places/hull/waterline/WaterlinePage')).WaterlinePage,
                      }),
                    },
                    {
                      path: 'hull/mesh',
                      lazy: async () => ({ Component: (await import('../places/hull/MeshPage')).MeshPage }),
                    },
                    {
                      path: 'film/:surfaceId?',
                      lazy: async () => ({ Component: (await atHull.FilmPlace()).FilmPlace }),
                    },
                    {
                      path: 'film/:surfaceId/schools',
                      lazy: async () => ({ Component: (await import('../places/film/SchoolsPage')).SchoolsPage }),
                    },
                    {
                      path: 'film/borders',
                      lazy: async () => ({ Component: (await import('../places/film/BordersPage')).BordersPage }),
                    },
                    {
                      path: 'film/swap',
                      lazy: async () => ({ Component: (await import('../places/film/SwapPage')).SwapPage }),
                    },
                    {
                      path: 'film/buy',
                      lazy: async () => ({ Component: (await import('../places/buy/BuyPlace')).BuyPlace }),
                    },
                    {
                      path: 'prep/masking',
                      lazy: async () => ({ Component: (await import('../places/prep/MaskingPage')).MaskingPage }),
                    },
                    {
                      path: 'prep/stands',
                      lazy: async () => ({ Component: (await import('../places/prep/StandsPage')).StandsPage }),
                    },
                    {
                      path: 'prep/:surfaceId?',
                      lazy: async () => ({ Component: (await atHull.PrepPlace()).PrepPlace }),
                    },
                    { path: 'mix', lazy: async () => ({ Component: (await atHull.MixPlace()).MixPlace }) },
                    { path: 'coat', lazy: async () => ({ Component: (await atHull.CoatPlace()).CoatPlace }) },
                    { path: 'coat/start', lazy: async () => ({ Component: (await atHull.StartCoat()).StartCoat }) },
                    { path: 'coat/:coatId', lazy: async () => ({ Component: (await atHull.CoatSheet()).CoatSheet }) },
                    { path: 'record', lazy: async () => ({ Component: (await atHull.RecordPlace()).RecordPlace }) },
                    { path: '*', element: <NotFound /> },
                  ],
                },
              ],
            },
            { path: 'sums', lazy: async () => ({ Component: (await import('../places/sums/SumsPlace')).SumsPlace }) },
            { path: 'log', lazy: async () => ({ Component: (await import('../places/log/LogCoat')).LogCoat }) },
            {
              path: 'stores',
              lazy: async () => ({ Component: (await import('../places/stores/StoresPlace')).StoresPlace }),
            },
            {
              path: 'stores/ledger/:sheetId',
              lazy: async () => ({ Component: (await import('../places/ledger/LedgerPage')).LedgerPage }),
            },
            {
              path: 'stores/kit',
              lazy: async () => ({ Component: (await import('../places/stores/KitPage')).KitPage }),
            },
            {
              path: 'build-ups',
              lazy: async () => ({ Component: (await import('../places/buildups/BuildUpsPlace')).BuildUpsPlace }),
            },
            {
              path: 'build-ups/:namedId',
              lazy: async () => ({ Component: (await import('../places/buildups/BuildUpPage')).BuildUpPage }),
            },
            {
              path: 'sheets',
              lazy: async () => ({ Component: (await import('../places/sheets/SheetsPlace')).SheetsPlace }),
            },
            {
              path: 'sheets/new/:how',
              lazy: async () => ({ Component: (await import('../places/sheets/SheetForm')).NewSheet }),
            },
            {
              path: 'sheets/:sheetId',
              lazy: async () => ({ Component: (await import('../places/sheets/SheetPage')).SheetPage }),
            },
            {
              path: 'sheets/:sheetId/edit',
              lazy: async () => ({ Component: (await import('../places/sheets/SheetForm')).EditSheet }),
            },
            {
              path: 'settings',
              lazy: async () => ({ Component: (await import('../places/settings/SettingsPlace')).SettingsPlace }),
            },
            { path: '*', element: <NotFound /> },
          ],
        },
      ],
    },
  ],
  { basename: BASE || '/' },
);
