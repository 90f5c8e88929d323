/** Estimate is the usual caution below calculated results. */
export function Estimate({ more, className = "mt-4" }: { more?: string; className?: string }) {
  return (
    <p className={`${className} border-base-300 border-t pt-2 text-secondary text-sm`}>
      {more} Every figure is an estimate. Labels, safety data sheets, local codes and licensed people decide.
    </p>
  );
}
