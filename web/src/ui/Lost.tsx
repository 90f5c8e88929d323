import { Link } from "react-router";
import { BenchStrip } from "../frame/BenchStrip";
import { Shell } from "../frame/Shell";

/** Lost is shown where there is no screen. */
export function Lost() {
  return (
    <Shell strip={<BenchStrip air={undefined} />}>
      <div className="p-8">
        <h1 className="mb-2 font-semibold text-2xl">There is nothing here</h1>
        <p>
          The address leads nowhere, or this screen has stopped. What you entered is kept.{" "}
          <Link className="link link-primary" to="/">
            Back to the pieces
          </Link>
        </p>
      </div>
    </Shell>
  );
}
