import { Link } from "react-router";

/** Lost is shown where there is no screen. */
export function Lost() {
  return (
    <div className="p-8">
      <h1 className="mb-2 text-2xl">There is nothing here</h1>
      <p>
        The address leads nowhere, or this screen has stopped. What you entered is kept.{" "}
        <Link className="link link-primary" to="/">
          Back to the pieces
        </Link>
      </p>
    </div>
  );
}
