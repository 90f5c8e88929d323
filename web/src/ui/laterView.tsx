import { type ComponentType, createElement, lazy, Suspense } from "react";

/**
 * laterView is a view that is loaded when it is first opened: the first load is without it. Until it is there it holds a
 * screenful, so that what stands below it does not jump.
 */
export function laterView(load: () => Promise<{ default: ComponentType }>): ComponentType {
  const View = lazy(load);
  return () =>
    createElement(Suspense, { fallback: createElement("div", { className: "max-lg:min-h-dvh" }) }, createElement(View));
}
