import { Component, type ReactNode } from "react";
import { Link, useLocation } from "react-router";
import { Shell } from "../frame/Shell";
import { StatusStrip } from "../frame/StatusStrip";

/** NotFound is shown where there is no screen. */
export function NotFound() {
  return (
    <Shell strip={<StatusStrip air={undefined} />}>
      <div className="p-8">
        <h1 className="mb-2 font-semibold text-2xl">Page not found</h1>
        <p>
          There is nothing at this address, or this screen has stopped working. What you entered is kept.{" "}
          <Link className="link link-primary" to="/">
            Back to the pieces
          </Link>
        </p>
      </div>
    </Shell>
  );
}

/** ErrorBoundary shows NotFound in place of a screen that has stopped working, until another address is opened. */
export function ErrorBoundary({ children }: { children: ReactNode }) {
  return <Boundary at={useLocation().pathname}>{children}</Boundary>;
}

class Boundary extends Component<{ at: string; children: ReactNode }, { stopped?: string }> {
  state: { stopped?: string } = {};
  static getDerivedStateFromError = () => ({ stopped: "" });

  componentDidCatch() {
    this.setState({ stopped: this.props.at });
  }

  componentDidUpdate() {
    if (this.state.stopped && this.state.stopped !== this.props.at) this.setState({ stopped: undefined });
  }

  render() {
    return this.state.stopped === undefined ? this.props.children : <NotFound />;
  }
}
