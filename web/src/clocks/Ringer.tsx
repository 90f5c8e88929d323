import { useState } from "react";
import { useAwake } from "../mix/useAwake";
import { wakeSound } from "./ring";

const KEY = "rutile.awake";

/** keptAwake tells whether the screen is to stay on while clocks run. */
export function keptAwake(): boolean {
  try {
    return localStorage.getItem(KEY) === "yes";
  } catch {
    return false;
  }
}

/** Ringer says how clocks can ring on this device, and lets the browser do what it can. */
export function Ringer() {
  const [may, setMay] = useState(() => ("Notification" in window ? Notification.permission : "unsupported"));
  const [on, setOn] = useState(keptAwake);
  const awake = useAwake(on);
  const can = "wakeLock" in navigator;
  return (
    <div className="grid gap-2" data-ringer={may}>
      <p>
        Clocks ring while this page is open and the screen is on.{" "}
        {may === "granted" &&
          "They also ring as notifications while another page is in front, and behind a dark screen for as long as the browser keeps the page alive: often a few minutes."}
        {may === "denied" && "Notifications are switched off for this page; the browser's settings allow them."}
        {may === "unsupported" &&
          "This browser shows no notifications for this page; on an iPhone, add it to the home screen first."}
      </p>
      {may === "default" && (
        <button
          type="button"
          data-do="allow"
          className="btn min-h-12"
          onClick={() => {
            wakeSound();
            void Notification.requestPermission().then(setMay);
          }}
        >
          Also ring as a notification
        </button>
      )}
      {can ? (
        <label className="flex min-h-12 items-center gap-3">
          <input
            type="checkbox"
            className="toggle"
            data-field="awake"
            checked={on}
            onChange={(e) => {
              setOn(e.target.checked);
              try {
                localStorage.setItem(KEY, e.target.checked ? "yes" : "no");
              } catch {
                // Then it holds until the page is closed.
              }
            }}
          />
          <span>
            Keep the screen on while clocks run: the only way to be sure
            {on && !awake && (
              <span className="block text-secondary text-sm">
                The browser does not do so right now: is the battery low, or this page not in front?
              </span>
            )}
          </span>
        </label>
      ) : (
        <p>This browser lets the screen go dark. Set the device's own screen time longer while something dries.</p>
      )}
    </div>
  );
}
