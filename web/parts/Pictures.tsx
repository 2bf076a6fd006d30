import type { PictureBody } from '#core/model/log';
import { BASE } from '../data/base';
import { usePicturesSending, usePicturesWaiting } from '../data/pictures';
import { counted } from '#core/units/format';

/** The pictures of a coat or a zone; one opens whole at a tap. */
export function Pictures({ pictures }: { pictures: readonly (PictureBody & { readonly id: string })[] }) {
  usePicturesSending();
  const { count } = usePicturesWaiting();
  if (pictures.length === 0 && count === 0) return null;
  return (
    <section aria-labelledby="pictures" className="mb-3">
      <h2 id="pictures" className="ruled pb-1">
        Pictures
      </h2>
      {count > 0 && (
        <p className="py-1">{counted(count, 'picture')} on this device, to be sent when there is a signal.</p>
      )}
      <ul className="mt-2 grid grid-cols-3 gap-2">
        {pictures.map((p) => (
          <li key={p.id}>
            <a href={`${BASE}/api/pictures/${p.hash}`} target="_blank" rel="noreferrer">
              <img
                src={`${BASE}/api/pictures/${p.hash}`}
                width={p.widthPx}
                height={p.heightPx}
                loading="lazy"
                alt={p.text || 'Picture'}
                className="aspect-square h-auto w-full object-cover"
              />
            </a>
            {p.text && <p className="text-sm">{p.text}</p>}
          </li>
        ))}
      </ul>
    </section>
  );
}
