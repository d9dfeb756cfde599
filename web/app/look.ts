import { useEffect, useSyncExternalStore } from 'react';

/** How the program may look; `device` follows the settings of the system. */
export const LOOKS = ['device', 'light', 'dark', 'contrast'] as const;
export type Look = (typeof LOOKS)[number];

/** The look that was shown last, so that the page opens in it before anybody is known to be there. */
const LAST_KEY = 'vine-measure.look';
const listeners = new Set<() => void>();

function keyOf(personId: string | null): string {
  return personId === null ? LAST_KEY : `${LAST_KEY}.${personId}`;
}

function keptLook(personId: string | null): Look {
  const kept = localStorage.getItem(keyOf(personId));
  return LOOKS.find((look) => look === kept) ?? 'device';
}

const prefersContrast = window.matchMedia('(prefers-contrast: more)');
const prefersDark = window.matchMedia('(prefers-color-scheme: dark)');

/** Shows a look; the colours of each stand in app.css. */
function show(look: Look): void {
  const ofDevice = prefersContrast.matches ? 'contrast' : prefersDark.matches ? 'dark' : 'light';
  const root = document.documentElement;
  root.dataset.look = look === 'device' ? ofDevice : look;
  const paper = getComputedStyle(root).getPropertyValue('--color-paper');
  document.querySelector('meta[name=theme-color]')?.setAttribute('content', paper);
}

/** Shows the look of who used this device last, and follows the system where that is the choice. */
export function showLastLook(): void {
  const showKept = (): void => {
    show(keptLook(null));
  };
  showKept();
  for (const query of [prefersContrast, prefersDark]) query.addEventListener('change', showKept);
}

/** The look that a person chose on this device, shown while they are signed in; and how another is chosen. */
export function useLook(personId: string | null): readonly [Look, (look: Look) => void] {
  const look = useSyncExternalStore(subscribe, () => keptLook(personId));
  useEffect(() => {
    localStorage.setItem(LAST_KEY, look);
    show(look);
  }, [look]);
  return [
    look,
    (chosen) => {
      localStorage.setItem(keyOf(personId), chosen);
      for (const listener of listeners) listener();
    },
  ];
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
