import { useSettings } from '../data/settings';
import { spoken, spokenIn } from './english';

/** What says a text in the English of this device; what is no text it leaves alone. */
export function useSpoken(): <T>(text: T) => T {
  const english = useSettings(spokenIn);
  return (text) => (typeof text === 'string' ? (spoken(text, english) as typeof text) : text);
}
