import { useEffect, useState } from "react";

/** useAwake keeps the screen on while it is wanted, and tells whether the browser does so. */
export function useAwake(wanted = true): boolean {
  const [on, setOn] = useState(false);
  useEffect(() => {
    if (!wanted) return;
    let lock: WakeLockSentinel | undefined;
    let over = false;
    const ask = () => {
      if (document.visibilityState !== "visible" || !("wakeLock" in navigator)) return;
      navigator.wakeLock.request("screen").then(
        (got) => {
          if (over) return void got.release();
          lock = got;
          setOn(true);
          got.addEventListener("release", () => setOn(false));
        },
        () => setOn(false), // a low battery, or a rule of the browser
      );
    };
    ask();
    document.addEventListener("visibilitychange", ask);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", ask);
      void lock?.release();
      setOn(false);
    };
  }, [wanted]);
  return on;
}
