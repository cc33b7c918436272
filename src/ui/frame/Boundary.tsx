'use client';

import { Component, type ReactNode } from 'react';

interface Props {
  /** What could not be drawn, as a sentence names it. */
  what: string;
  /** Whatever is another when there is something else to be drawn: then it is tried anew. */
  about?: unknown;
  children: ReactNode;
}

/** A part of the page that goes down alone: it says what happened and what to do now, and all else goes on working. */
export class Boundary extends Component<Props, { failed: Error | null; about: unknown }> {
  override state = { failed: null as Error | null, about: this.props.about };

  static getDerivedStateFromError(failed: Error): { failed: Error } {
    return { failed };
  }

  static getDerivedStateFromProps(
    { about }: Props,
    state: { failed: Error | null; about: unknown },
  ): { failed: Error | null; about: unknown } | null {
    return about === state.about ? null : { failed: null, about };
  }

  override render(): ReactNode {
    const { failed } = this.state;
    if (!failed) return this.props.children;
    return (
      <div className="sheet" tabIndex={-1}>
        <div className="notice" role="alert">
          <div>
            {this.props.what} could not be drawn: a defect of ours ({failed.message}). What you decided is
            kept. Go to another variable or station, or try again.
          </div>
          <button
            type="button"
            className="btn btn-quiet btn-sm"
            onClick={() => this.setState({ failed: null })}
          >
            Try again
          </button>
        </div>
      </div>
    );
  }
}
