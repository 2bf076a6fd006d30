import { DEMO_PATH } from '#contracts/rows/door';

/** To the demo yard: another yard, so the page is loaded anew. */
export function ToDemo({ className = '' }: { className?: string }) {
  return (
    <a href={`${DEMO_PATH}/`} className={`btn ${className}`}>
      Look around the demo yard
    </a>
  );
}
