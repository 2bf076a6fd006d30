import { isRouteErrorResponse, Link, useRouteError } from 'react-router';
import { Refused } from '../data/api';

/** Something in a place broke: say so, keep the rest of the page, offer a way on. */
export function PlaceError() {
  const error = useRouteError();
  if ((isRouteErrorResponse(error) && error.status === 404) || (error instanceof Refused && error.status === 404))
    return <NotFound />;
  return (
    <section className="mx-auto max-w-2xl p-6" role="alert">
      <h1>This place could not be shown</h1>
      <p className="my-3">Nothing you entered is lost. Load it again; if it stays, go back to the yard.</p>
      <p className="my-3 text-sm quiet">{error instanceof Error ? error.message : 'Unknown fault.'}</p>
      <div className="flex gap-3">
        <button type="button" className="btn btn-primary" onClick={() => location.reload()}>
          Load again
        </button>
        <Link className="btn" to="/">
          To the yard
        </Link>
      </div>
    </section>
  );
}

export function NotFound({ what = 'place' }: { what?: string }) {
  return (
    <section className="mx-auto max-w-2xl p-6">
      <h1>There is no such {what} here</h1>
      <p className="my-3">It may have been removed, or the address is mistyped.</p>
      <Link className="btn btn-primary" to="/">
        To the yard
      </Link>
    </section>
  );
}

/** A boat that is here and cannot be worked out. */
export function NotShown({ why }: { why: string }) {
  return (
    <section className="mx-auto max-w-2xl p-6">
      <h1>This boat cannot be worked out</h1>
      <p className="my-3">{why}</p>
      <p className="my-3">Nothing of her is lost. A backup from before it was so can be put in place under Settings.</p>
      <Link className="btn btn-primary" to="/settings">
        To the settings
      </Link>
    </section>
  );
}
