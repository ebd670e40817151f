/** What stands in the place of something that could not be drawn: the rest of the page goes on. */
import { Component, type ReactNode } from "react";
import { Button } from "./Button";
import { fetchAgain } from "./fetched";

interface Props {
  /** What it is, in words: “This station”. */
  what: string;
  children: ReactNode;
}

export class Guarded extends Component<Props, { wrong: Error | null }> {
  override state: { wrong: Error | null } = { wrong: null };

  static getDerivedStateFromError(wrong: Error): { wrong: Error } {
    return { wrong };
  }

  override componentDidCatch(wrong: Error): void {
    console.error(wrong);
  }

  override render(): ReactNode {
    const { wrong } = this.state;
    if (!wrong) return this.props.children;
    return (
      <div role="alert" className="p-4">
        <p className="font-semibold text-must">{this.props.what} cannot be shown.</p>
        <p className="mt-1 max-w-md text-faint">
          Your design is kept and everything else works. What went wrong: {wrong.message}
        </p>
        <Button
          className="mt-2"
          onClick={() => {
            fetchAgain();
            this.setState({ wrong: null });
          }}
        >
          Try again
        </Button>
      </div>
    );
  }
}
