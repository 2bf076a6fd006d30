import { notNegative, positive } from '../guard';
import { Impossible } from '../impossible';

/** The last tooth of a comb that the paint wetted and the first that stayed dry, µm. */
export interface CombTeeth {
  readonly lastWetMicron: number;
  readonly firstDryMicron: number;
}

/**
 * What a comb tells: the wet film lies between its last wetted tooth and the first that stayed dry.
 * [P: ISO 2808, wet-film comb]
 * @param options.lastWetMicron 0 where not even the first tooth was wetted
 * @throws RangeError where the dry tooth is not the deeper one
 * @example combReading({ lastWetMicron: 150, firstDryMicron: 175 }) // → { lowMicron: 150, highMicron: 175 }
 */
export function combReading(options: CombTeeth): { readonly lowMicron: number; readonly highMicron: number } {
  const lowMicron = notNegative(options.lastWetMicron, 'The last wet tooth');
  const highMicron = positive(options.firstDryMicron, 'The first dry tooth');
  if (highMicron <= lowMicron)
    throw new Impossible(
      'The dry tooth must be higher than the wet one. Type the last wet tooth, then the first dry one.',
    );
  return { lowMicron, highMicron };
}
