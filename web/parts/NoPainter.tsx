import { Link } from 'react-router';
import { settings } from '../data/settings';

/** What is logged from here would be nobody's: said where something is about to be logged. */
export function NoPainter() {
  if (settings().painter !== '') return null;
  return (
    <Link to="/settings" className="link-row text-sm underline underline-offset-4">
      No painter’s name on this device
    </Link>
  );
}
