import equal from 'fast-deep-equal';

/** The fields in which two versions of a row differ, side by side. */
export function Differences({ mine, theirs }: { mine: Record<string, unknown>; theirs: Record<string, unknown> }) {
  const fields = Object.keys(mine).filter(
    (key) => key !== 'version' && key !== 'id' && key in theirs && !equal(mine[key], theirs[key]),
  );
  return (
    <table className="mt-2 w-full text-left text-sm">
      <thead>
        <tr>
          <th className="lab pr-3">Differs in</th>
          <th className="lab pr-3">Yours</th>
          <th className="lab">Theirs, saved</th>
        </tr>
      </thead>
      <tbody>
        {fields.map((field) => (
          <tr key={field} className="align-top">
            <td className="pr-3">{field}</td>
            <td className="break-words pr-3">{show(mine[field])}</td>
            <td className="break-words">{show(theirs[field])}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const show = (value: unknown) => (typeof value === 'object' ? JSON.stringify(value) : String(value));
