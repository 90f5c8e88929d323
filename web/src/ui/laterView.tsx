import { type ComponentType, createElement, lazy, Suspense } from "react";

/** laterView is a view that is loaded when it is first opened: the first load is without it. */
export function laterView(load: () => Promise<{ default: ComponentType }>): ComponentType {
  const View = lazy(load);
  return () => createElement(Suspense, null, createElement(View));
}
