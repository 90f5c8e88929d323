import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type Problem, Refused, type Schemas, why } from "../api/client";
import { Dialog } from "../ui/Dialog";
import { shelfChanged } from "./useShelf";

type Imported = Schemas["CansImported"];

async function send(file: File, look: boolean): Promise<Imported> {
  const r = await fetch(`/api/shelf/csv?look=${look}`, {
    method: "POST",
    body: file,
    headers: { "Content-Type": "text/csv" },
  });
  const body = (await r.json().catch(() => ({}))) as unknown;
  if (!r.ok) throw new Refused(r.status, body as Problem);
  return body as Imported;
}

const SHOWN = 12; // names of new cans that are listed

/** ImportCans shows what a CSV of cans would come to, and puts them on the shelf. */
export function ImportCans({ file, onClose }: { file: File; onClose: () => void }) {
  const queries = useQueryClient();
  const look = useQuery({
    queryKey: ["import", file.name, file.size, file.lastModified],
    queryFn: () => send(file, true),
    retry: false,
    staleTime: 0,
    gcTime: 0,
  });
  const take = useMutation({
    mutationFn: () => send(file, false),
    onSuccess: () => {
      shelfChanged(queries);
      onClose();
    },
  });
  const found = look.data;
  return (
    <Dialog title={`Import ${file.name}`} onClose={onClose}>
      {look.isPending && <p>Reading the file…</p>}
      {look.isError && (
        <p role="alert" className="text-error" data-refused>
          Nothing was imported. {why(look.error)}
        </p>
      )}
      {found && (
        <>
          <p className="font-medium" data-found={found.new.length}>
            {found.says}
          </p>
          {found.new.length > 0 && (
            <ul className="mt-1 list-disc pl-5">
              {found.new.slice(0, SHOWN).map((n, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: names may stand twice
                <li key={i}>
                  <bdi>{n}</bdi>
                </li>
              ))}
              {found.new.length > SHOWN && <li>and {found.new.length - SHOWN} more</li>}
            </ul>
          )}
          {found.refused.length > 0 && (
            <ul className="mt-2 text-sm text-warning">
              {found.refused.map((r) => (
                <li key={r.line}>
                  Line {r.line}: {r.says}
                </li>
              ))}
            </ul>
          )}
        </>
      )}
      {take.isError && (
        <p role="alert" className="mt-2 text-error">
          Not imported: {why(take.error)}
        </p>
      )}
      <div className="mt-3 flex gap-2">
        <button
          data-do="import-now"
          type="button"
          className="btn btn-primary"
          disabled={!found?.new.length || take.isPending}
          onClick={() => take.mutate()}
        >
          Put {found?.new.length === 1 ? "it" : "them"} on the shelf
        </button>
        <button type="button" className="btn btn-ghost" onClick={onClose}>
          Cancel
        </button>
      </div>
    </Dialog>
  );
}
