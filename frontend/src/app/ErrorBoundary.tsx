import { Component, type ReactNode } from "react";

/** Keeps a failing screen from taking the rest away; everything kept is on the server anyway. */
export class ErrorBoundary extends Component<{ children: ReactNode }, { failed: boolean }> {
  state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  render() {
    if (!this.state.failed) return this.props.children;
    return (
      <main className="mx-auto mt-24 max-w-[52ch]">
        <h1 className="text-xl">This screen could not be shown</h1>
        <p className="my-3">All changes up to now are kept. Load the page again to go on.</p>
        <button className="firm-button" onClick={() => location.reload()}>
          Load again
        </button>
      </main>
    );
  }
}
