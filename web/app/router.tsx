import type { ComponentType } from 'react';
import type { RouteObject } from 'react-router';
import { createBrowserRouter } from 'react-router';
import { Loading } from './Loading';
import { NotFound, RouteError } from './RouteError';
import { Shell } from './Shell';

/** A page that is fetched when it is first shown, with an error boundary of its own. */
function page(path: string, load: () => Promise<ComponentType>): RouteObject {
  return {
    path,
    lazy: async () => ({ Component: await load() }),
    ErrorBoundary: RouteError,
    HydrateFallback: Loading,
  };
}

export const router = createBrowserRouter([
  page('/interface', async () => (await import('../interface/InterfacePage')).InterfacePage),
  {
    Component: Shell,
    ErrorBoundary: RouteError,
    HydrateFallback: Loading,
    children: [
      page('/', async () => (await import('../shelf/ShelfPage')).ShelfPage),
      page('/bottles/:bottleId', async () => (await import('../shelf/BottlePage')).BottlePage),
      page('/bottles/:bottleId/label', async () => (await import('../shelf/LabelPage')).LabelPage),
      page('/prepare', async () => (await import('../prepare/PreparePage')).PreparePage),
      page(
        '/prepare/write-down',
        async () => (await import('../prepare/WriteDownPage')).WriteDownPage,
      ),
      page('/prepare/day', async () => (await import('../prepare/DayPage')).DayPage),
      page(
        '/preparations/:preparationId',
        async () => (await import('../prepare/GuidedPage')).GuidedPage,
      ),
      page('/titrate', async () => (await import('../titrate/TitratePage')).TitratePage),
      page('/titrate/set-up', async () => (await import('../titrate/SetUpPage')).SetUpPage),
      page('/runs/:runId', async () => (await import('../titrate/BenchPage')).BenchPage),
      page('/runs/:runId/sheet', async () => (await import('../titrate/SheetPage')).SheetPage),
      page('/judge', async () => (await import('../judge/JudgeListPage')).JudgeListPage),
      page('/runs/:runId/judge', async () => (await import('../judge/JudgePage')).JudgePage),
      page('/lots', async () => (await import('../stock/LotsPage')).LotsPage),
      page('/lots/:lotId', async () => (await import('../stock/LotPage')).LotPage),
      page('/equipment', async () => (await import('../stock/EquipmentPage')).EquipmentPage),
      page(
        '/equipment/:equipmentId',
        async () => (await import('../stock/EquipmentItemPage')).EquipmentItemPage,
      ),
      page(
        '/verification',
        async () => (await import('../verification/VerificationPage')).VerificationPage,
      ),
      page('/rules', async () => (await import('../rules/RulesPage')).RulesPage),
      page('/words', async () => (await import('../glossary/GlossaryPage')).GlossaryPage),
      page('/settings', async () => (await import('../rules/SettingsPage')).SettingsPage),
      page('/methods', async () => (await import('../rules/MethodsPage')).MethodsPage),
      page('/methods/:methodId', async () => (await import('../rules/MethodPage')).MethodPage),
      page('/catalogue', async () => (await import('../catalogue/CataloguePage')).CataloguePage),
      page('/catalogue/:entryId', async () => (await import('../catalogue/EntryPage')).EntryPage),
      page('/people', async () => (await import('../people/PeoplePage')).PeoplePage),
      page('/account', async () => (await import('../people/AccountPage')).AccountPage),
      { path: '*', Component: NotFound },
    ],
  },
]);
