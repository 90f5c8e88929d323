import { useId } from "react";

type Props = {
  colour: string | undefined; // of what is in it; undefined for clear
  share: number; // what is left of it
  size?: number; // height in px
  bag?: boolean; // powder comes in a bag
  says?: string; // what it shows, for a can that can be filled
  onShare?: (share: number) => void;
};

const W = 60;
const H = 72;
const TOP = 14;
const BOTTOM = 66;
const STEP = 0.05;
const FAR = 0.25;

/** Tin draws a can, cut open, with what is left in it. With onShare the level can be dragged, or moved with keys. */
export function Tin({ colour, share, size = H, bag, says, onShare }: Props) {
  const clip = useId();
  const level = BOTTOM - (BOTTOM - TOP) * Math.min(1, Math.max(0, share));
  const fill = colour ?? "#e7d9b4";
  const set = (x: number) => onShare?.(Math.round(Math.min(1, Math.max(0, x)) * 100) / 100);
  const at = (e: React.PointerEvent<HTMLDivElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    const y = ((e.clientY - box.top) / box.height) * H;
    set((BOTTOM - y) / (BOTTOM - TOP));
  };
  const body = bag
    ? `M10 ${TOP - 4} Q14 ${TOP + 2} 9 ${TOP + 12} L7 ${BOTTOM - 6} Q7 ${BOTTOM} 14 ${BOTTOM} L46 ${BOTTOM} Q53 ${BOTTOM} 53 ${BOTTOM - 6} L51 ${TOP + 12} Q46 ${TOP + 2} 50 ${TOP - 4} Z`
    : `M8 ${TOP - 4} L8 ${BOTTOM - 4} Q8 ${BOTTOM} 12 ${BOTTOM} L48 ${BOTTOM} Q52 ${BOTTOM} 52 ${BOTTOM - 4} L52 ${TOP - 4} Z`;
  const drawn = (
    <>
      <clipPath id={clip}>
        <path d={body} />
      </clipPath>
      <path d={body} className="fill-base-200" />
      <rect x="0" y={level} width={W} height={H} fill={fill} clipPath={`url(#${clip})`} />
      <path d={`M8 ${level} L52 ${level}`} stroke="currentColor" strokeOpacity=".45" clipPath={`url(#${clip})`} />
      <path d={body} fill="none" stroke="currentColor" strokeWidth="1.6" />
      {bag ? (
        <path d={`M9 ${TOP - 5} L51 ${TOP - 5}`} stroke="currentColor" strokeWidth="3" />
      ) : (
        <>
          <path d="M5 7 L55 7 L55 11 L5 11 Z" className="fill-base-100" stroke="currentColor" strokeWidth="1.6" />
          <path d="M8 18 C 2 34, 58 34, 52 18" fill="none" stroke="currentColor" strokeWidth="1" strokeOpacity=".5" />
        </>
      )}
      {onShare && (
        <path d={`M54 ${level} l6 -4 l0 8 Z`} className="fill-primary" stroke="currentColor" strokeWidth=".6" />
      )}
    </>
  );
  if (!onShare) {
    return (
      <svg viewBox={`0 0 ${W} ${H}`} width={(size * W) / H} height={size} aria-hidden="true" className="shrink-0">
        {drawn}
      </svg>
    );
  }
  return (
    <div
      role="slider"
      aria-label="What is left"
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(share * 100)}
      aria-valuetext={says}
      tabIndex={0}
      data-level
      className="shrink-0 cursor-ns-resize touch-none"
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        at(e);
      }}
      onPointerMove={(e) => e.buttons === 1 && at(e)}
      onKeyDown={(e) => {
        const by: Record<string, number> = { ArrowUp: STEP, ArrowDown: -STEP, PageUp: FAR, PageDown: -FAR };
        const step = by[e.key];
        if (step !== undefined) set(share + step);
        else if (e.key === "Home") set(0);
        else if (e.key === "End") set(1);
        else return;
        e.preventDefault();
      }}
    >
      <svg viewBox={`0 0 ${W} ${H}`} width={(size * W) / H} height={size} aria-hidden="true">
        {drawn}
      </svg>
    </div>
  );
}
