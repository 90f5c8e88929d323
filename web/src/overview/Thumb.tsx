import type { Photo } from "../api/client";

type Props = { photo: Photo; n: number; here?: boolean; onPress: () => void };

/** Thumb is a small photograph; clicked, it is shown large. */
export function Thumb({ photo, n, here, onPress }: Props) {
  return (
    <button
      data-thumb={n}
      type="button"
      aria-current={here ? "true" : undefined}
      aria-label={photo.caption || `Photograph ${n}`}
      className={`block overflow-hidden rounded border-2 ${here ? "border-primary" : "border-base-300 hover:border-accent"}`}
      onClick={onPress}
    >
      <img src={`/photos/small/${photo.file}`} alt="" loading="lazy" className="h-18 w-24 bg-base-300 object-cover" />
    </button>
  );
}
