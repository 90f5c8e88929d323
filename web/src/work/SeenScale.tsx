import type { Schemas } from "../api/client";

type Row = Schemas["SeenWord"];

/** SeenScale is a scale of pictures: one is pressed that looks like what is seen. */
export function SeenScale({
  row,
  level,
  onChange,
}: {
  row: Row;
  level: number | undefined;
  onChange: (l?: number) => void;
}) {
  return (
    <fieldset className="mb-3" data-scale={row.id}>
      <legend className="font-medium">{row.name}</legend>
      <div className="grid grid-cols-3 gap-2 sm:grid-cols-6">
        {row.levels.map((l, n) => (
          <button
            key={l.says}
            type="button"
            data-level={n}
            aria-pressed={level === n}
            className={`flex min-h-24 flex-col items-center gap-1 rounded border-2 p-1 text-center text-sm leading-tight ${level === n ? "border-primary bg-base-200 font-semibold" : "border-base-300"}`}
            onClick={() => onChange(level === n ? undefined : n)}
          >
            <Picture kind={row.id} share={l.share} />
            {l.says}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

const SIDE = 56;

/** A row of numbers that looks random and is always the same. */
function* scatter(seed: number) {
  let x = seed * 9301 + 49297;
  for (;;) {
    x = (x * 1103515245 + 12345) % 2147483648;
    yield x / 2147483648;
  }
}

/** Picture draws how much of a face is chipped, cracked, worn or run. */
function Picture({ kind, share }: { kind: string; share: number }) {
  const r = scatter(kind.length + 3);
  const next = () => r.next().value ?? 0;
  const marks = [];
  if (kind === "chips") {
    let area = 0;
    for (let i = 0; area < share * SIDE * SIDE * 1.15 && i < 400; i++) {
      const size = 1.5 + 4 * Math.sqrt(share) + next() * 3;
      const [x, y] = [next() * SIDE, next() * SIDE];
      area += size * size * 1.6;
      const d = Array.from({ length: 5 }, (_, k) => {
        const a = (k / 5) * 2 * Math.PI + next();
        const q = size * (0.6 + next() * 0.6);
        return `${(x + Math.cos(a) * q).toFixed(1)} ${(y + Math.sin(a) * q).toFixed(1)}`;
      });
      marks.push(<path key={i} d={`M${d.join("L")}Z`} fill="#6b4a2b" />);
    }
  } else if (kind === "cracks") {
    const n = Math.round(share * 60);
    for (let i = 0; i < n; i++) {
      let [x, y] = [next() * SIDE, 0];
      let d = `M${x.toFixed(1)} 0`;
      while (y < SIDE) {
        x += (next() - 0.5) * 9;
        y += 5 + next() * 6;
        d += `L${x.toFixed(1)} ${y.toFixed(1)}`;
      }
      marks.push(<path key={i} d={d} stroke="#6b4a2b" strokeWidth={0.6 + share * 7} fill="none" />);
    }
  } else if (kind === "wear") {
    const w = share * SIDE * 0.55;
    if (w > 0) marks.push(<rect key="edge" width={SIDE} height={SIDE} fill="none" stroke="#6b4a2b" strokeWidth={w} />);
    for (let i = 0; i < share * 14; i++) {
      marks.push(
        <ellipse key={i} cx={next() * SIDE} cy={next() * SIDE} rx={3 + share * 12} ry={2 + share * 7} fill="#6b4a2b" />,
      );
    }
  } else {
    const n = Math.round(share * 80);
    for (let i = 0; i < n; i++) {
      const [x, y, l] = [4 + next() * (SIDE - 8), next() * SIDE * 0.5, 8 + next() * 18];
      marks.push(
        <path
          key={i}
          d={`M${x.toFixed(1)} ${y.toFixed(1)}v${l.toFixed(1)}`}
          stroke="#8fa0a4"
          strokeWidth="3.500"
          strokeLinecap="round"
        />,
      );
    }
  }
  return (
    <svg viewBox={`0 0 ${SIDE} ${SIDE}`} width={SIDE} height={SIDE} aria-hidden="true" className="rounded-sm">
      <rect width={SIDE} height={SIDE} fill="#cfd8d6" />
      {marks}
      <rect width={SIDE} height={SIDE} fill="none" stroke="#2b2620" strokeOpacity="0.4" />
    </svg>
  );
}
