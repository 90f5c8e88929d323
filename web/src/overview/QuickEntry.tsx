import { useMutation } from "@tanstack/react-query";
import { useId } from "react";
import { answer, api, type Part, why } from "../api/client";
import { useName } from "../ui/focus";
import { useKeptText } from "../ui/typed";
import { useUnits } from "../ui/units";

type Props = { piece: number; onAdd: (parts: Part[]) => void };

/** QuickEntry takes typed parts; what cannot be read stays in the field, with the reason. */
export function QuickEntry({ piece, onAdd }: Props) {
  const [text, setText] = useKeptText(`rutile.parts.${piece}`);
  const u = useUnits();
  const id = useId();
  const field = useName<HTMLInputElement>("field parts");
  const read = useMutation({
    mutationFn: (text: string) => answer(api.GET("/api/parts", { params: { query: { text } } })),
    onSuccess: (parts) => {
      onAdd(parts);
      setText(undefined);
    },
  });
  const error = read.error && why(read.error, "The server does not answer; try again in a moment.");
  return (
    <form
      className="mb-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (text.trim()) read.mutate(text);
      }}
    >
      <label htmlFor={id} className="mb-0.5 block font-medium text-secondary text-sm">
        Type parts as you measure them
      </label>
      <div className="flex gap-2">
        <input
          ref={field}
          id={id}
          data-field="parts"
          className={`input h-11 w-full ${error ? "input-error" : ""}`}
          value={text}
          placeholder={u === "us" ? "3 drawer fronts 31 1/2 x 7" : "3 drawer fronts 80 x 18"}
          aria-invalid={!!error}
          aria-describedby={`${id}h`}
          autoComplete="off"
          onChange={(e) => {
            setText(e.target.value);
            read.reset();
          }}
        />
        <button data-do="add-parts" type="submit" className="btn btn-primary h-11">
          Add
        </button>
      </div>
      <p
        id={`${id}h`}
        role={error ? "alert" : undefined}
        className={`mt-0.5 text-xs ${error ? "text-error" : "text-secondary"}`}
      >
        {error ?? "Separate several with ; and write sizes as you like: 1.2 m, 4' 2\" or 17 1/2 in."}
      </p>
    </form>
  );
}
