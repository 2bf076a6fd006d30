import { Link } from 'react-router';
import type { JobChoices } from '#core/system/schools';
import { BOND_WORDS } from '../../parts/choiceWords';
import { METHOD_WORDS } from '../../parts/words';

/** What is decided for the whole job, and where it is changed. */
export function JobLinks({
  boatId,
  surfaceId,
  choices,
  onNamed,
}: {
  boatId: string;
  surfaceId: string;
  choices: JobChoices;
  onNamed: () => void;
}) {
  return (
    <p className="narrow flex flex-wrap items-center gap-x-5 text-lg lg:-mb-2">
      <Link
        to={`/boats/${boatId}/film/${surfaceId}/schools`}
        className="link-row underline decoration-1 underline-offset-4"
      >
        {BOND_WORDS[choices.bond]}, {choices.packs === 'twoPack' ? 'two-pack' : 'one-pack'},{' '}
        {METHOD_WORDS[choices.method].toLowerCase()}
      </Link>
      <Link to={`/boats/${boatId}/film/borders`} className="link-row underline decoration-1 underline-offset-4">
        Borders
      </Link>
      <Link to={`/boats/${boatId}/film/swap`} className="link-row underline decoration-1 underline-offset-4">
        Change a product
      </Link>
      <button type="button" className="link-row underline decoration-1 underline-offset-4" onClick={onNamed}>
        Named build-ups
      </button>
    </p>
  );
}
