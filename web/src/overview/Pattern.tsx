import { useId } from "react";
import { Texture } from "../section/texture";

/** Pattern is a piece of a zone as it looks now: its colour, with the pattern of its material. */
export function Pattern({ colour, mark, className }: { colour?: string; mark?: string; className: string }) {
  const id = useId().replaceAll(":", "");
  return (
    <svg
      viewBox="0 0 64 44"
      preserveAspectRatio="xMidYMid slice"
      className={`rounded border border-base-300 ${className}`}
      aria-hidden="true"
    >
      <defs>
        <Texture id={id} mark={mark || "wood"} size={32} />
      </defs>
      <rect width="64" height="44" fill={colour ?? "#efe9dd"} />
      <rect width="64" height="44" fill={`url(#${id})`} />
    </svg>
  );
}
