import { Component, type ReactNode } from "react";
import { Button } from "./Button.tsx";

interface Props {
  /** What is shown in it, as a name: “the map”. */
  name: string;
  /** Something else to show is a new beginning: what changes here clears the error. */
  of?: unknown;
  children: ReactNode;
}
interface State {
  error: Error | undefined;
  of: unknown;
}

/** A part of the page that may fail without taking the rest along: it says what happened and offers a way on. */
export class Boundary extends Component<Props, State> {
  override state: State = { error: undefined, of: this.props.of };

  static getDerivedStateFromError(error: unknown): Partial<State> {
    return { error: error instanceof Error ? error : new Error(String(error)) };
  }

  static getDerivedStateFromProps(props: Props, state: State): Partial<State> | null {
    return props.of === state.of ? null : { error: undefined, of: props.of };
  }

  override render() {
    const { error } = this.state;
    if (!error) return this.props.children;
    return (
      <div role="alert" className="m-4 border border-urgent bg-sheet p-4 text-[13px]">
        <p className="m-0 mb-1 font-semibold">Something went wrong in {this.props.name}.</p>
        <p className="m-0 mb-3 text-ink-2">
          Your project is saved, and the rest of the page goes on. Undo the last change, or show {this.props.name} again. ({error.message})
        </p>
        <Button onClick={() => this.setState({ error: undefined })}>Show it again</Button>
      </div>
    );
  }
}
