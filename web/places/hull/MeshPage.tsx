import { Upload } from 'lucide-react';
import { type RefObject } from 'react';
import { Link } from 'react-router';
import { MESH_MAX_BYTES } from '#core/hull/stl';
import { Placed } from './PlacedMesh';
import { useMeshFile } from './useMeshFile';
import { FormProblem } from '../../parts/Field';

/** A mesh of the hull brought in: read, laid along the boat, cut at the waterline, kept with her. */
export function MeshPage() {
  const mesh = useMeshFile();

  return (
    <div className="flex min-w-0 flex-col gap-3" onDragOver={(e) => e.preventDefault()} onDrop={mesh.drop}>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="text-2xl">Mesh of the hull</h1>
        <Link to={`/boats/${mesh.boat.id}/hull`} className="link-row underline underline-offset-4">
          Back to the hull
        </Link>
      </div>
      <PickFile mesh={mesh} />
      {!mesh.opened && !mesh.work && !mesh.problem && (
        <p className="max-w-prose">
          A file of one side or of both, in any unit and any position: it is laid along the boat by its size and shape,
          and shown for you to check. The areas below and above the waterline follow.
        </p>
      )}
      {mesh.work && <Working work={mesh.work} bar={mesh.bar} onCancel={mesh.cancel} />}
      <FormProblem message={mesh.problem} />
      {mesh.opened && mesh.found && (
        <Placed
          view={mesh.view}
          opened={mesh.opened}
          found={mesh.found}
          defects={mesh.defects}
          preview={mesh.preview}
          own={mesh.own}
          onChange={mesh.onChange}
        />
      )}
    </div>
  );
}

function PickFile({ mesh }: { mesh: ReturnType<typeof useMeshFile> }) {
  const stored = mesh.hull?.mesh;
  return (
    <div className="flex flex-wrap items-end gap-4">
      <label className="flex flex-col gap-1">
        <span className="lab">STL or OBJ file, up to {MESH_MAX_BYTES / 1024 / 1024} MB; or drop it here</span>
        <input
          type="file"
          accept=".stl,.obj,model/stl,model/obj"
          className="file-input min-h-11"
          onChange={(e) => {
            const [file] = e.target.files ?? [];
            if (file) void mesh.open(file, file.name, null);
            e.target.value = '';
          }}
        />
      </label>
      {stored && !mesh.opened && (
        <button type="button" className="btn" onClick={() => void mesh.openStored(stored)}>
          <Upload size={18} aria-hidden="true" /> Open {stored.fileName}
        </button>
      )}
    </div>
  );
}

function Working({
  work,
  bar,
  onCancel,
}: {
  work: string;
  bar: RefObject<HTMLProgressElement | null>;
  onCancel: () => void;
}) {
  return (
    <div role="status" className="flex flex-wrap items-center gap-4">
      <span>{work}…</span>
      <progress ref={bar} key={work} className="progress w-48" max={1} aria-label={work} />
      <button type="button" className="btn" onClick={onCancel}>
        Cancel
      </button>
    </div>
  );
}
