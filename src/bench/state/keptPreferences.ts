import type { Preferences } from './preferences';
import { preferencesKey } from './localKeys';

/** What this browser keeps of a person's preferences, read by hand: for what comes before all that keeps them. */
export function keptPreferences(): Partial<Preferences> {
  try {
    const kept = JSON.parse(localStorage.getItem(preferencesKey) ?? 'null') as { state?: Partial<Preferences> } | null;
    return kept?.state ?? {};
  } catch {
    return {};
  }
}
