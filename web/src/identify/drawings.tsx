import type { ReactNode } from "react";

// Every outcome of a test is a motif and its variation: drop:beads, rag:dye. A motif is one function here, so that
// outcomes of one test differ only in what to look for.

const INK = "#4a3a2c";
const WOOD = "#c9a173";
const PALE = "#efe3cc";
const line = { fill: "none", stroke: INK, strokeWidth: 1.6, strokeLinecap: "round", strokeLinejoin: "round" } as const;
const thin = { ...line, strokeWidth: 1 } as const;

/** Dots are specks, always scattered the same way. */
function Dots({
  n,
  x,
  y,
  w,
  h,
  r,
  fill,
}: {
  n: number;
  x: number;
  y: number;
  w: number;
  h: number;
  r: number;
  fill: string;
}) {
  return (
    <>
      {Array.from({ length: n }, (_, i) => (
        <circle
          // biome-ignore lint/suspicious/noArrayIndexKey: they never move
          key={i}
          cx={x + ((i * 0.7549 + 0.5) % 1) * w}
          cy={y + ((i * 0.5698 + 0.3) % 1) * h}
          r={r * (0.6 + ((i * 0.37) % 0.7))}
          fill={fill}
        />
      ))}
    </>
  );
}

const ground = (fill: string) => <path d="M0 36h96v20H0z" fill={fill} />;
const grain = <path d="M2 42c16-3 30 3 46 0s30-3 46 0M2 49c20-3 36 3 56 0s26-1 36 0" {...thin} stroke="#a37a4c" />;

type Motif = (v: string) => ReactNode;

const thing: Motif = (v) =>
  ({
    chest: (
      <path
        d="M22 16h52v30H22zM22 26h52M22 36h52M48 21h.1M48 31h.1M48 41h.1M26 46v4M70 46v4M22 20l-4 3 4 3M74 20l4 3-4 3"
        {...line}
      />
    ),
    chair: <path d="M36 8v40M36 10h20v38M36 26h20M38 16h16M36 36h20" {...line} />,
    panel: (
      <path d="M26 10h10v36H26zM60 10h10v36H60zM36 16h24M36 38h24M31 16h.1M31 38h.1M65 16h.1M65 38h.1" {...line} />
    ),
    door: <path d="M32 6h32v44H32zM37 11h22v34H37zM56 28v6" {...line} />,
    seat: <path d="M30 12h36v18H30zM24 30h48v10H24zM30 40v8M66 40v8M42 16v10M54 16v10" {...line} />,
    locker: <path d="M34 6h28v44H34zM40 12h16M40 16h16M40 20h16M57 30v6" {...line} />,
    pot: <path d="M30 16h36v6H30zM33 22l5 26h20l5-26M48 16c0-8 6-10 10-10-1 6-5 9-10 10z" {...line} />,
    lamp: <path d="M38 8h20l8 18H30zM48 26v14M38 48c0-6 4-8 10-8s10 2 10 8z" {...line} />,
    basket: (
      <path d="M26 24h44l-6 24H32zM32 24c0-20 32-20 32 0M30 32h36M31 40h34M40 24l2 24M48 24v24M56 24l-2 24" {...line} />
    ),
    crate: <path d="M26 18h44l-4 30H30zM34 26h8v12h-8zM54 26h8v12h-8zM24 18h48v-4H24z" {...line} />,
  })[v];

const age: Motif = (v) => (
  <>
    <path d="M10 10h76v36H10z" fill={WOOD} />
    {
      {
        dovetail: <path d="M48 10v6l12-3v9l-12-3v6l12-3v9l-12-3v6l12-3v9l-12-3v6" {...line} />,
        slotted: (
          <g {...line}>
            <circle cx="48" cy="28" r="13" fill="#d8c59a" />
            <path d="M37 24l22 8" />
          </g>
        ),
        crosshead: (
          <g {...line}>
            <circle cx="48" cy="28" r="13" fill="#cfd3d3" />
            <path d="M48 20v16M40 28h16" />
          </g>
        ),
        cam: (
          <>
            <Dots n={60} x={10} y={10} w={74} h={34} r={1} fill="#8a6a45" />
            <g {...line}>
              <circle cx="48" cy="28" r="14" fill="#e6e4dd" />
              <path d="M48 28l8-8M40 28h9M48 42a14 14 0 0 0 14-14" />
            </g>
          </>
        ),
      }[v]
    }
  </>
);

const face: Motif = (v) =>
  ({
    brushed: (
      <>
        <path d="M8 8h80v40H8z" fill="#8fa39a" />
        <path d="M8 14h80M8 19h60M20 24h68M8 30h80M8 35h50M30 41h58" {...thin} stroke="#6d8279" />
        <path d="M40 44v6" {...line} stroke="#6d8279" strokeWidth="3" />
      </>
    ),
    even: <path d="M8 8h80v40H8z" fill="#8fa39a" />,
    film: (
      <>
        <path d="M8 8h80v40H8z" fill="#a9713c" />
        <path d="M8 18c26-6 54 6 80 0M8 30c26-6 54 6 80 0M8 41c26-6 54 6 80 0" {...thin} stroke="#7d4f25" />
        <path d="M20 48 46 8h12L32 48z" fill="#fff" opacity=".5" />
      </>
    ),
    sheen: (
      <>
        <path d="M8 8h80v40H8z" fill="#b98a55" />
        <path d="M8 18c26-6 54 6 80 0M8 30c26-6 54 6 80 0M8 41c26-6 54 6 80 0" {...line} stroke="#8d6234" />
        <ellipse cx="48" cy="26" rx="26" ry="12" fill="#fff" opacity=".22" />
      </>
    ),
    dry: (
      <>
        <path d="M8 8h80v40H8z" fill="#d3bd97" />
        <path d="M8 16c26-6 54 6 80 0M8 26c26-6 54 6 80 0M8 36c26-6 54 6 80 0M8 45h80" {...line} stroke="#a88b60" />
      </>
    ),
    metal: (
      <>
        <path d="M8 8h80v40H8z" fill="#aab0b2" />
        <path d="M8 20h80M8 34h80" stroke="#c9ced0" strokeWidth="6" />
      </>
    ),
    glass: (
      <>
        <path d="M8 8h80v40H8z" fill="#d5e6e4" stroke={INK} />
        <path d="M20 40 48 12M32 44 64 14" {...line} stroke="#fff" strokeWidth="4" />
      </>
    ),
    clay: (
      <>
        <path d="M8 8h80v40H8z" fill="#c47a54" />
        <Dots n={40} x={8} y={8} w={78} h={38} r={1.2} fill="#a05c3a" />
      </>
    ),
    cloth: (
      <>
        <path d="M8 8h80v40H8z" fill="#b7a88e" />
        <path
          d="M8 14h80M8 20h80M8 26h80M8 32h80M8 38h80M8 44h80M14 8v40M24 8v40M34 8v40M44 8v40M54 8v40M64 8v40M74 8v40M84 8v40"
          {...thin}
          stroke="#8f8068"
        />
      </>
    ),
    plastic: (
      <>
        <rect x="8" y="8" width="80" height="40" rx="9" fill="#e9e7df" stroke={INK} />
        <path d="M16 14h40" stroke="#fff" strokeWidth="4" strokeLinecap="round" />
      </>
    ),
  })[v];

const edge: Motif = (v) => {
  const top = <path d="M8 22 28 8h60L72 22z" fill="#b3814b" stroke={INK} />;
  const front = (fill: string, inside?: ReactNode) => (
    <>
      <path d="M8 22h64v26H8z" fill={fill} stroke={INK} />
      <path d="M72 22 88 8v26L72 48z" fill={fill} stroke={INK} />
      {inside}
    </>
  );
  return (
    {
      solid: (
        <>
          {top}
          {front(
            "#c9a173",
            <path
              d="M10 46c8-20 24-20 30 0M16 46c6-12 14-12 18 0M46 46c4-18 18-18 24 0M52 46c3-10 9-10 12 0M30 10c10 4 30 2 54 0"
              {...thin}
            />,
          )}
        </>
      ),
      layers: (
        <>
          {top}
          {front("#d8c09a", <path d="M8 26h64l16-14" {...line} stroke="#7d4f25" strokeWidth="3" />)}
        </>
      ),
      crumbs: (
        <>
          {top}
          {front("#c4a678", <Dots n={70} x={10} y={24} w={60} h={22} r={1.9} fill="#8d6c43" />)}
        </>
      ),
      band: (
        <>
          {top}
          {front(
            "#efe9dc",
            <>
              <path d="M52 22v26M52 22c6 2 6 22 0 26" {...line} />
              <path d="M52 22h20v26H52z" fill="#c4a678" />
              <Dots n={24} x={54} y={24} w={16} h={22} r={1.6} fill="#8d6c43" />
            </>,
          )}
        </>
      ),
      metal: (
        <>
          <path d="M8 24 28 12h60L72 24z" fill="#c5cacc" stroke={INK} />
          <path d="M8 24h64l16-12v3L72 27H8z" fill="#8b9295" stroke={INK} />
        </>
      ),
      stone: (
        <>
          <path d="M8 22 28 8h60L72 22z" fill="#cf8d69" stroke={INK} />
          {front("#bd7850", <Dots n={40} x={10} y={24} w={60} h={22} r={1.1} fill="#8f5434" />)}
        </>
      ),
      glass: (
        <>
          <path d="M8 22 28 8h60L72 22z" fill="#e3efed" stroke={INK} />
          {front("#9cc4bb")}
        </>
      ),
      plastic: (
        <>
          <path d="M8 22 28 8h60L72 22z" fill="#f1efe8" stroke={INK} />
          {front("#dedbd1")}
        </>
      ),
      fibres: (
        <>
          <path d="M8 22 28 8h60L72 22z" fill="#c3b394" stroke={INK} />
          <path
            d="M8 22c1 10-3 16 0 26M16 22v26M24 22c2 10-2 16 0 26M32 22v26M40 22c-2 10 2 16 0 26M48 22v26M56 22c2 10-2 16 0 26M64 22v26M72 22c-1 10 1 16 0 26"
            {...line}
            stroke="#8f8068"
          />
        </>
      ),
    } as Record<string, ReactNode>
  )[v];
};

const knot = (x: number, y: number) => (
  <g {...thin} stroke="#7d4f25">
    <ellipse cx={x} cy={y} rx="4" ry="6" fill="#7d4f25" />
    <ellipse cx={x} cy={y} rx="8" ry="11" />
  </g>
);

const grainRepeats: Motif = (v) => (
  <>
    <path d="M8 8h80v40H8z" fill={v === "none" ? "#e7e2d6" : "#c99e69"} stroke={INK} />
    {v === "repeats" && (
      <>
        {knot(24, 26)}
        {knot(48, 26)}
        {knot(72, 26)}
      </>
    )}
    {v === "varied" && (
      <>
        {knot(24, 20)}
        <path d="M40 12c10 8 10 24 4 34M56 10c8 10 6 26 2 36" {...thin} stroke="#7d4f25" />
        {knot(76, 36)}
      </>
    )}
  </>
);

const sound: Motif = (v) => (
  <>
    <path d="M30 44c-8 0-12-4-12-9 0-6 5-7 9-7l12-10c5-3 9 2 6 6l-7 7" {...line} fill={PALE} />
    {v === "wood" && (
      <>
        <path d="M50 12v34h22V12z" fill={WOOD} stroke={INK} />
        <path d="M78 20c3 4 3 12 0 16M83 16c5 7 5 17 0 24" {...line} />
      </>
    )}
    {v === "dense" && <path d="M48 10v38h34V10z" fill="#8d7654" stroke={INK} />}
    {v === "ring" && (
      <>
        <path d="M50 12v34h12V12z" fill="#c5cacc" stroke={INK} />
        <path d="M67 18c4 6 4 16 0 22M73 14c6 9 6 21 0 30M79 10c8 12 8 26 0 38" {...line} />
      </>
    )}
    {v === "clink" && (
      <>
        <path d="M50 12v34h12V12z" fill="#d5e6e4" stroke={INK} />
        <path d="M68 18l6-5M69 28h9M68 38l6 5" {...line} />
      </>
    )}
    {v === "hollow" && (
      <>
        <path d="M50 12v34h26V12z" fill="none" stroke={INK} strokeWidth="2" />
        <path d="M82 26v8" {...line} />
      </>
    )}
    {v === "soft" && <path d="M52 14c-8 8 4 10 0 14s-4 14 4 20h24V14z" fill="#b7a88e" stroke={INK} />}
  </>
);

const magnet: Motif = (v) => (
  <>
    <path d="M8 40h80v8H8z" fill="#aab0b2" stroke={INK} />
    <g transform={v === "holds" ? "translate(36 16)" : "translate(40 2) rotate(18)"}>
      <path d="M0 24V10a12 12 0 0 1 24 0v14h-8V10a4 4 0 0 0-8 0v14z" fill="#a3261b" stroke={INK} />
      <path d="M0 18h8v6H0zM16 18h8v6h-8z" fill="#e7e2d6" stroke={INK} />
    </g>
    {v === "falls" && <path d="M70 14v16M66 26l4 5 4-5" {...line} />}
  </>
);

const metal: Motif = (v) => {
  const fill = {
    spangled: "#b9bfc0",
    rust: "#8f8a86",
    bright: "#dde3e6",
    yellow: "#d3ad4f",
    dull: "#c9cbc8",
    coated: "#7d8f86",
    peel: "#d8d8d2",
  }[v];
  return (
    <>
      <path d="M8 8h80v40H8z" fill={fill} stroke={INK} />
      {v === "spangled" && (
        <path
          d="M8 20l14-12 10 12 14-8 12 12 14-10 16 8M8 36l12-10 14 8 12-10 14 10 10-8 18 8M22 48l12-14 14 12 12-10 14 12M20 26l2-18M46 24l0-12M60 34l-2-10M34 34l-2-14"
          {...thin}
          stroke="#8b9295"
        />
      )}
      {v === "rust" && <Dots n={34} x={8} y={8} w={76} h={36} r={3.4} fill="#9c4f24" />}
      {v === "bright" && <path d="M20 48 46 8h12L32 48zM60 48 84 12v14L70 48z" fill="#fff" />}
      {v === "yellow" && <path d="M20 48 46 8h8L28 48z" fill="#f3dfa0" />}
      {v === "dull" && <Dots n={40} x={8} y={8} w={78} h={38} r={1.6} fill="#f3f3f0" />}
      {v === "peel" && <Dots n={90} x={8} y={8} w={78} h={38} r={1.9} fill="#bdbdb6" />}
    </>
  );
};

const wood: Motif = (v) => {
  const fill = { rings: "#e0bd85", pores: "#c09a66", dark: "#7b4a33", pale: "#e6d1ac", greasy: "#94662f" }[v];
  return (
    <>
      <path d="M8 8h80v40H8z" fill={fill} stroke={INK} />
      {v === "rings" && (
        <>
          <path d="M8 44c20-30 60-30 80 0M8 34c20-26 60-26 80 0M20 48c14-18 42-18 56 0" {...line} stroke="#b98d4f" />
          {knot(70, 22)}
        </>
      )}
      {v === "pores" && (
        <path
          d="M14 14h8M30 16h6M48 13h9M68 15h7M20 23h7M40 22h9M60 24h6M78 23h7M12 31h8M32 32h7M52 30h9M72 32h7M22 40h8M44 41h6M62 39h9"
          {...line}
          stroke="#6d4f2b"
        />
      )}
      {v === "dark" && (
        <path d="M8 18c26-5 54 5 80 0M8 28c26-5 54 5 80 0M8 38c26-5 54 5 80 0" {...thin} stroke="#5a3223" />
      )}
      {v === "pale" && <Dots n={50} x={8} y={8} w={78} h={38} r={0.8} fill="#c9ad7d" />}
      {v === "greasy" && (
        <>
          <path d="M8 18c26-5 54 5 80 0M8 36c26-5 54 5 80 0" {...thin} stroke="#5f3d16" />
          <path d="M54 18c-6 9-9 12-9 17a9 9 0 0 0 18 0c0-5-3-8-9-17z" fill="#e7c779" stroke={INK} />
        </>
      )}
    </>
  );
};

const worn: Motif = (v) => (
  <>
    <path
      d="M8 8h80v40H8z"
      fill={v === "layers" || v === "chalky" || v === "rust" ? "#8fa39a" : "#a9713c"}
      stroke={INK}
    />
    {v === "layers" && (
      <>
        <path d="M30 8c-4 14 6 16 2 26s8 10 6 14H88V8z" fill="#d9cfb4" />
        <path d="M56 8c-6 12 6 18 0 26s6 10 2 14h30V8z" fill="#8a3b32" />
        <path d="M74 8c-4 14 4 18 0 40h14V8z" fill={WOOD} />
      </>
    )}
    {v === "crazed" && (
      <path
        d="M8 18l16 4 8-14M24 22l4 12-20 4M28 34l20-4 6-22M48 30l8 10-4 8M56 40l18-6 14 6M74 34l-4-14 18-4M70 20l-16-6M28 34l6 14"
        {...thin}
        stroke="#3c2412"
      />
    )}
    {v === "rubbed" && <ellipse cx="62" cy="30" rx="24" ry="14" fill={WOOD} opacity=".85" />}
    {v === "flakes" && (
      <path
        d="M30 14l10 4 6 10-12 6-10-8zM56 26l14-4 8 10-10 8-12-4z"
        fill={WOOD}
        stroke="#f6f0e2"
        strokeWidth="2.500"
      />
    )}
    {v === "chalky" && (
      <>
        <ellipse cx="56" cy="28" rx="26" ry="13" fill="#bfcac3" />
        <Dots n={40} x={26} y={14} w={60} h={30} r={1.3} fill="#dfe5e0" />
      </>
    )}
    {v === "rust" && (
      <>
        <path d="M50 20c10-6 22 2 20 12s-20 12-26 4-2-12 6-16z" fill="#6e4a33" />
        <Dots n={16} x={44} y={18} w={26} h={22} r={2.6} fill="#a8562a" />
      </>
    )}
    {v === "clean" && <path d="M20 48 46 8h8L28 48z" fill="#fff" opacity=".35" />}
  </>
);

const film: Motif = (v) => (
  <>
    <path d="M8 34h80v14H8z" fill={WOOD} stroke={INK} />
    {v !== "none" && (
      <path
        d="M8 34h80v-8c-14 2-18-6-28-6s-12 6-24 6-18-4-28-2z"
        fill={v === "amber" ? "#d08a22" : "#e8f0ef"}
        fillOpacity={v === "amber" ? 0.85 : 0.9}
        stroke={INK}
      />
    )}
    {v === "none" && <path d="M8 40c26-5 54 5 80 0" {...thin} stroke="#8d6234" />}
  </>
);

const drop: Motif = (v) => (
  <>
    {ground(v === "soaks" || v === "darkens" ? "#d3bd97" : WOOD)}
    {grain}
    {v === "soaks" && <path d="M26 36h44c2 6-6 16-22 16s-24-10-22-16z" fill="#7d6238" />}
    {v === "darkens" && (
      <>
        <path d="M34 36c0-5 6-8 14-8s14 3 14 8z" fill="#a9cede" stroke={INK} />
        <path d="M30 36h36c0 4-6 8-18 8s-18-4-18-8z" fill="#a3855a" />
      </>
    )}
    {v === "beads" && (
      <>
        <path d="M34 36c-3-12 5-20 14-20s17 8 14 20z" fill="#a9cede" stroke={INK} />
        <ellipse cx="42" cy="24" rx="3" ry="4" fill="#fff" />
      </>
    )}
    {v === "blooms" && (
      <>
        <ellipse cx="48" cy="40" rx="24" ry="6" fill="#f6f2e8" stroke="#fff" strokeWidth="2" />
        <ellipse cx="48" cy="40" rx="15" ry="3.500" fill={WOOD} />
        <path
          d="M42 22c-3 5-5 7-5 10a5 5 0 0 0 10 0c0-3-2-5-5-10z"
          fill="#a9cede"
          stroke={INK}
          transform="translate(6 -8)"
        />
      </>
    )}
  </>
);

const rag: Motif = (v) => {
  const stain = { chalk: "#8fa39a", dye: "#7b3f22", dirt: "#8a857c", clean: "", wax: "#b9a45a" }[v];
  return (
    <>
      <path
        d="M16 12c16-8 26 4 40-2s20 0 26 4c-4 10 4 18-2 30-14 6-22-4-36 0s-22 6-30 0c6-12-4-20 2-32z"
        fill="#fbf9f4"
        stroke={INK}
      />
      <path d="M24 18c4 8 2 16 4 22M70 16c-2 8 2 14-2 22" {...thin} stroke="#c9c2b2" />
      {stain && <ellipse cx="48" cy="29" rx="16" ry="10" fill={stain} opacity={v === "dirt" ? 0.55 : 0.85} />}
      {v === "chalk" && <Dots n={24} x={30} y={16} w={36} h={26} r={1.4} fill="#6d8279" />}
    </>
  );
};

const nail: Motif = (v) => (
  <>
    {ground(WOOD)}
    {v === "furrow" && (
      <>
        <path d="M14 36h40l-4 5H18z" fill="#8d6234" />
        <path d="M54 36c8-2 10-10 4-12s-8 6-3 7" {...line} stroke="#c9a94f" strokeWidth="3" />
      </>
    )}
    {v === "dent" && <path d="M24 36c6 6 26 6 32 0z" fill="#8d6234" />}
    {v === "powder" && (
      <>
        <path d="M18 36h36l-3 3H21z" fill="#a9b8b0" />
        <Dots n={26} x={46} y={26} w={26} h={10} r={1.5} fill="#8fa39a" />
      </>
    )}
    {v === "hard" && <path d="M18 36h44" {...line} />}
    <path d="M58 34c-4-2-4-6 0-8l18-14c6-3 12 2 10 8L72 34c-4 4-9 3-14 0z" fill="#e9c4a6" stroke={INK} />
    <path d="M58 34c-4-2-4-6 0-8l5 8z" fill="#f7e6da" stroke={INK} />
  </>
);

const scrape: Motif = (v) => (
  <>
    {ground(WOOD)}
    {v !== "wood" && (
      <path d="M48 30h48v6H48z" fill={v === "chalk" ? "#8fa39a" : v === "wax" ? "#d9c27a" : "#c07c2a"} />
    )}
    {v === "wax" && <path d="M44 32c-6-6-14 0-10 3M40 36c-8-2-14 4-8 6" {...line} stroke="#c9a94f" strokeWidth="3" />}
    {v === "curl" && <path d="M46 33c-14 2-20-14-10-18s14 10 6 11" {...line} stroke="#c07c2a" strokeWidth="3" />}
    {v === "powder" && <Dots n={34} x={14} y={24} w={32} h={12} r={1.6} fill="#d9a24a" />}
    {v === "chalk" && <Dots n={34} x={14} y={24} w={32} h={12} r={1.6} fill="#8fa39a" />}
    <path d="M46 36 52 8h10l-8 28z" fill="#c5cacc" stroke={INK} />
  </>
);

const bud: Motif = (v) => {
  const tip = {
    sticky: "#d79a3c",
    soft: "#e6d0a4",
    coloured: "#7b3f22",
    clean: "#fbf9f4",
    dissolves: "#c98d3a",
    wrinkles: "#fbf9f4",
  }[v];
  return (
    <>
      {ground("#a9713c")}
      {v === "sticky" && <path d="M40 30v6M46 31v5M52 30v6M58 28v8" {...line} stroke="#d79a3c" />}
      {v === "soft" && <ellipse cx="48" cy="38" rx="18" ry="3.500" fill="#d8c7a6" />}
      {v === "dissolves" && <path d="M28 36h38c-2 8-34 8-38 0z" fill={PALE} />}
      {v === "wrinkles" && (
        <path d="M22 37c3-5 5 4 8 0s5 4 8 0 5 4 8 0 5 4 8 0 5 4 8 0" {...line} stroke="#4f2f12" strokeWidth="2" />
      )}
      <g transform="rotate(-32 48 26)">
        <path d="M56 24h34v4H56z" fill="#efe9dc" stroke={INK} />
        <ellipse cx="48" cy="26" rx="12" ry="7" fill={tip} stroke={INK} />
      </g>
    </>
  );
};

const pin: Motif = (v) => (
  <>
    {ground(v === "melts" ? "#d8d3c6" : WOOD)}
    {v === "melts" && <path d="M36 36c4 10 20 10 24 0z" fill="#a39c8c" stroke={INK} />}
    {v === "chars" && (
      <>
        <circle cx="48" cy="38" r="5" fill="#2b1c10" />
        <path d="M52 30c4-6-3-8 2-14" {...thin} />
      </>
    )}
    <path d="M48 36 64 8" {...line} stroke="#7b8285" strokeWidth="2.500" />
    <path d="M61 10l8-4 3 5-6 5z" fill="#c5cacc" stroke={INK} />
  </>
);

const smell: Motif = (v) => (
  <>
    <path
      d="M22 4c14-4 24 2 24 12 0 5 2 8 6 14 2 3 1 5-3 5 1 2 0 3-2 4 2 2 1 4-2 5 0 4-3 6-8 5l-5 5H14V8z"
      fill="#e9c4a6"
      stroke={INK}
    />
    <path d="M46 35c-2 1-4 1-5-1M38 18c2-1 4-1 5 0" {...thin} />
    {v !== "none" && (
      <path
        d="M60 44c8-6-6-10 2-18M70 44c8-6-6-10 2-18"
        {...line}
        stroke={{ wax: "#c9a94f", oil: "#8d6234", plastic: "#5f7fa8" }[v]}
        strokeWidth="2.500"
      />
    )}
    {v === "wax" && <path d="M78 20c6-4 10 0 8 5s-9 3-8-5zM78 20c-2-6 4-9 7-6" {...line} />}
    {v === "oil" && <path d="M82 10c-4 6-5 8-5 11a5 5 0 0 0 10 0c0-3-1-5-5-11z" fill="#c99a3c" stroke={INK} />}
    {v === "plastic" && <rect x="76" y="12" width="12" height="12" rx="3" fill="#e9e7df" stroke={INK} />}
  </>
);

const tape: Motif = (v) => (
  <>
    {ground("#8fa39a")}
    <path d="M8 36h34c10 0 16-6 22-14l10-12" {...line} stroke="#d9c27a" strokeWidth="7" />
    {v === "powder" && <Dots n={26} x={50} y={10} w={24} h={22} r={1.5} fill="#6d8279" />}
    {v === "flakes" && (
      <>
        <path d="M54 20l7 3-2 7-7-1zM64 10l7 2-1 6-6-1z" fill="#6d8279" stroke={INK} />
        <path d="M24 37l9 2-3 6-8-2z" fill={WOOD} stroke={INK} />
      </>
    )}
  </>
);

const glow: Motif = (v) => (
  <>
    <path d="M0 0h96v56H0z" fill="#1d1b2b" />
    <path d="M14 8l10-4 6 8-9 6z" fill="#5b5878" />
    <path
      d="M24 14 88 30v22H36z"
      fill={{ orange: "#e4802f", green: "#8fb85c", blue: "#b9c8e8", none: "#38354a" }[v]}
      opacity={v === "none" ? 0.7 : 0.9}
    />
  </>
);

const scratch: Motif = (v) => (
  <>
    <path d="M8 8h80v40H8z" fill={v === "coat" ? "#7d8f86" : "#8b9295"} stroke={INK} />
    <path
      d="M18 40C34 30 50 22 78 16"
      {...line}
      strokeWidth="4"
      stroke={{ silver: "#f1f3f3", grey: "#b3b8ba", yellow: "#e0b84e", steel: "#dde6ea", coat: "#a9b8b0" }[v]}
    />
  </>
);

const mark: Motif = (v) => (
  <>
    <rect x="8" y="8" width="80" height="40" rx="9" fill="#e9e7df" stroke={INK} />
    {v !== "none" && <path d="M48 13l17 28H31z" {...line} />}
    {v !== "none" && (
      <text x="48" y="38" textAnchor="middle" fontSize="11" fontWeight="700" fill={INK}>
        {v === "pp" ? "PP" : "··"}
      </text>
    )}
  </>
);

const back: Motif = (v) => (
  <>
    <path d="M8 8h80v40H8z" fill={{ knit: "#efe9dc", suede: "#b08a62", woven: "#b7a88e" }[v]} stroke={INK} />
    {v === "knit" && (
      <>
        <path
          d="M12 14l4 5 4-5M24 14l4 5 4-5M36 14l4 5 4-5M12 26l4 5 4-5M24 26l4 5 4-5M36 26l4 5 4-5M12 38l4 5 4-5M24 38l4 5 4-5M36 38l4 5 4-5"
          {...thin}
        />
        <path d="M52 8h36v40H60c6-14-10-24-8-40z" fill="#7a2f2a" stroke={INK} />
      </>
    )}
    {v === "suede" && (
      <path
        d="M14 16l3 4M26 13l2 5M38 17l3 4M52 13l2 5M66 17l3 4M78 14l2 5M18 28l2 5M32 30l3 4M46 27l2 5M60 30l3 4M74 28l2 5M14 40l3 4M28 41l2 4M42 40l3 4M56 41l2 4M70 40l3 4"
        {...thin}
        stroke="#7d5a38"
      />
    )}
    {v === "woven" && (
      <path
        d="M8 14h80M8 20h80M8 26h80M8 32h80M8 38h80M8 44h80M14 8v40M24 8v40M34 8v40M44 8v40M54 8v40M64 8v40M74 8v40M84 8v40"
        {...thin}
        stroke="#8f8068"
      />
    )}
  </>
);

const MOTIFS: Record<string, Motif> = {
  thing,
  age,
  face,
  edge,
  grain: grainRepeats,
  sound,
  magnet,
  metal,
  wood,
  worn,
  film,
  drop,
  rag,
  nail,
  scrape,
  bud,
  pin,
  smell,
  tape,
  glow,
  scratch,
  mark,
  back,
};

/** Drawing shows what an outcome of a test looks like. */
export function Drawing({ of, className }: { of: string; className?: string }) {
  const [motif = "", v = ""] = of.split(":");
  return (
    <svg
      viewBox="0 0 96 56"
      className={`rounded border border-base-300 bg-[#f7f2e7] ${className ?? ""}`}
      aria-hidden="true"
    >
      {MOTIFS[motif]?.(v)}
    </svg>
  );
}

const CELLS = 5; // between six cuts
const CELL = 9.6;

/** CrossCut draws the grid of cuts and the share that came off, for a class of the scale. */
export function CrossCut({ n, gone, className }: { n: number; gone: number; className?: string }) {
  const at = (i: number) => 6 + i * CELL;
  const lost: ReactNode[] = [];
  for (let y = 0; y < CELLS; y++) {
    for (let x = 0; x < CELLS; x++) {
      const luck = ((x * 7 + y * 13 + x * y * 5) % 36) / 36;
      if (n <= 2 && luck < gone * (n === 2 ? 0.5 : 1)) {
        lost.push(<rect key={`${x}-${y}`} x={at(x)} y={at(y)} width={CELL} height={CELL} />);
      } else if (n <= 3 && luck < gone * 3.5) {
        lost.push(<path key={`${x}-${y}`} d={`M${at(x)} ${at(y)}h7l-2.500 3.500-4.500 3.500z`} />);
      } else if (n === 4 && luck < 0.25) {
        lost.push(<circle key={`${x}-${y}`} cx={at(x)} cy={at(y)} r="2" />);
      }
    }
  }
  const cuts = Array.from({ length: CELLS + 1 }, (_, i) => `M${at(i)} 2v56M2 ${at(i)}h56`).join("");
  return (
    <svg viewBox="0 0 60 60" className={`rounded border border-base-300 ${className ?? ""}`} aria-hidden="true">
      <rect width="60" height="60" fill="#8fa39a" />
      <g fill="#e3c08e">{lost}</g>
      <path d={cuts} stroke="#3c4a44" strokeWidth=".9" fill="none" />
    </svg>
  );
}
