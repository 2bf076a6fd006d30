import type { PictureBody } from '#core/model/log';
import { BASE } from '../data/base';
import { useWaitingPicture } from '../data/pictures';
import { useObjectUrl } from './useObjectUrl';

type Picture = PictureBody & { readonly id: string };

/** Where the picture of an entry is: on the server, or on this device until it is sent; null where it is nowhere yet. */
export function usePictureAddress(id: string, hash: string | undefined): { href: string | null; waits: boolean } {
  const local = useObjectUrl(useWaitingPicture(id, hash));
  return hash ? { href: `${BASE}/api/pictures/${hash}`, waits: false } : { href: local, waits: true };
}

/** The pictures of a coat or a zone; one opens whole at a tap. */
export function Pictures({ pictures }: { pictures: readonly Picture[] }) {
  if (pictures.length === 0) return null;
  return (
    <section aria-labelledby="pictures" className="mb-3">
      <h2 id="pictures" className="ruled pb-1">
        Pictures
      </h2>
      <ul className="mt-2 grid grid-cols-3 gap-2">
        {pictures.map((p) => (
          <OnePicture key={p.id} picture={p} />
        ))}
      </ul>
    </section>
  );
}

function OnePicture({ picture }: { picture: Picture }) {
  const { id, hash, widthPx, heightPx, text } = picture;
  const { href, waits } = usePictureAddress(id, hash);
  return (
    <li>
      {href && (
        <a href={href} target="_blank" rel="noreferrer">
          <img
            src={href}
            width={widthPx}
            height={heightPx}
            loading="lazy"
            alt={text || 'Picture'}
            className={`aspect-square h-auto w-full object-cover ${waits ? 'border-2 border-dashed border-base-content' : ''}`}
          />
        </a>
      )}
      {waits && <p className="text-sm font-semibold">On this device, to be sent</p>}
      {text && <p className="text-sm">{text}</p>}
    </li>
  );
}
