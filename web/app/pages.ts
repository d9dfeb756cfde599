import type { ComponentType } from 'react';

/** Where a page is, and what fetches it. */
export type PageOf = readonly [path: string, load: () => Promise<ComponentType>];

/** The pages within the frame, each fetched when it is first shown. */
export const PAGES: readonly PageOf[] = [
  ['/', async () => (await import('../shelf/ShelfPage')).ShelfPage],
  ['/bottles/:bottleId', async () => (await import('../shelf/BottlePage')).BottlePage],
  ['/bottles/:bottleId/label', async () => (await import('../shelf/LabelPage')).LabelPage],
  ['/samples/:sampleId/label', async () => (await import('../shelf/LabelPage')).SampleLabelPage],
  ['/prepare', async () => (await import('../prepare/PreparePage')).PreparePage],
  ['/prepare/write-down', async () => (await import('../prepare/WriteDownPage')).WriteDownPage],
  ['/prepare/day', async () => (await import('../prepare/DayPage')).DayPage],
  ['/preparations/:preparationId', async () => (await import('../prepare/GuidedPage')).GuidedPage],
  ['/titrate', async () => (await import('../titrate/TitratePage')).TitratePage],
  ['/titrate/set-up', async () => (await import('../titrate/SetUpPage')).SetUpPage],
  ['/titrate/samples', async () => (await import('../titrate/SampleSetUpPage')).SampleSetUpPage],
  ['/runs/:runId', async () => (await import('../titrate/BenchPage')).BenchPage],
  ['/runs/:runId/sheet', async () => (await import('../titrate/SheetPage')).SheetPage],
  ['/judge', async () => (await import('../judge/JudgeListPage')).JudgeListPage],
  ['/runs/:runId/judge', async () => (await import('../judge/JudgePage')).JudgePage],
  [
    '/runs/:runId/certificates/:number',
    async () => (await import('../judge/CertificatePage')).CertificatePage,
  ],
  ['/runs/:runId/reports/:number', async () => (await import('../judge/ReportPage')).ReportPage],
  ['/samples', async () => (await import('../samples/SamplesPage')).SamplesPage],
  ['/samples/:sampleId', async () => (await import('../samples/SamplePage')).SamplePage],
  ['/lots', async () => (await import('../stock/LotsPage')).LotsPage],
  ['/lots/:lotId', async () => (await import('../stock/LotPage')).LotPage],
  ['/equipment', async () => (await import('../stock/EquipmentPage')).EquipmentPage],
  [
    '/equipment/:equipmentId',
    async () => (await import('../stock/EquipmentItemPage')).EquipmentItemPage,
  ],
  [
    '/verification',
    async () => (await import('../verification/VerificationPage')).VerificationPage,
  ],
  ['/rules', async () => (await import('../rules/RulesPage')).RulesPage],
  ['/words', async () => (await import('../glossary/GlossaryPage')).GlossaryPage],
  ['/settings', async () => (await import('../rules/SettingsPage')).SettingsPage],
  ['/methods', async () => (await import('../rules/MethodsPage')).MethodsPage],
  ['/methods/:methodId', async () => (await import('../rules/MethodPage')).MethodPage],
  ['/catalogue', async () => (await import('../catalogue/CataloguePage')).CataloguePage],
  ['/catalogue/:entryId', async () => (await import('../catalogue/EntryPage')).EntryPage],
  ['/history', async () => (await import('../history/HistoryPage')).HistoryPage],
  ['/people', async () => (await import('../people/PeoplePage')).PeoplePage],
  ['/account', async () => (await import('../people/AccountPage')).AccountPage],
];

/** What an address leads to: `/runs/:runId` for a run; undefined for what is no page of ours. */
export function pageAt(pathname: string): PageOf | undefined {
  return PAGES.find(([path]) => new RegExp(`^${path.replace(/:\w+/g, '[^/]+')}/?$`).test(pathname));
}
